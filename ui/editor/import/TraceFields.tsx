'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { ASSET } from '@/core';
import type { FileTraces } from '@/core/formats/recording';
import { tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import { SettingRow } from '../stage/SettingRow';
import { numberOf, useKept } from './kept';
import { NumberRow } from './NumberRow';

interface Props {
  readonly traces: FileTraces;
  /** What is to be said of the file. */
  readonly note: string | null;
  /** Which scale is remembered. */
  readonly kind: string;
  readonly says: string;
  readonly start: number;
  readonly onUse: (values: Float32Array, scale: number) => Promise<void>;
}

/** Which trace of a file is used, and how many volts its numbers are. */
export function TraceFields({ traces, note, kind, says, start, onUse }: Props) {
  const [index, setIndex] = useState(0);
  const [typed, setTyped] = useKept(kind, String(start));
  const [busy, setBusy] = useState(false);
  const scale = numberOf(typed);
  const column = traces.columns[index];
  const seconds = (column?.values.length ?? 0) / traces.sampleRate;
  const cut = seconds >= ASSET.seconds ? `, cut at ${ASSET.seconds} s` : '';
  const use = (): void => {
    if (scale === null || !column) return;
    setBusy(true);
    void onUse(column.values, scale)
      .catch(tellFault)
      .finally(() => setBusy(false));
  };
  return (
    <>
      <SettingRow label="Column">
        <SelectField
          label="Column"
          value={String(index)}
          options={traces.columns.map((c, i) => [String(i), c.name] as const)}
          onChange={(i) => setIndex(Number(i))}
          sx={{ maxWidth: 320 }}
        />
      </SettingRow>
      <NumberRow label={says} unit="V" value={typed} onChange={setTyped} />
      <Box sx={{ color: ink.softInk }}>{`${seconds.toPrecision(3)} s at ${traces.sampleRate} Hz${cut}`}</Box>
      {note && (
        <Alert severity="info" role="status">
          {note}
        </Alert>
      )}
      <Button color="primary" sx={{ mt: 1.5 }} disabled={scale === null || !column || busy} onClick={use}>
        Use as a recording
      </Button>
    </>
  );
}
