'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { helpersAt, idOf } from '@/core';
import type { HelperOptions } from '@/core';
import type { Finding, Patch } from '@/core';
import { TextInput } from '@/ui/parts/TextInput';
import { readSteps } from '@/ui/parts/steps';
import { QuantityField } from '@/ui/parts/QuantityField';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';
import { SettingRow } from './SettingRow';

export interface HelpersProps {
  readonly id: string;
  readonly patch: Patch;
  readonly findings: readonly Finding[];
  readonly edit: EditDesk;
}

const START: HelperOptions = { openDb: 12, phase: 0.25, accents: null };

/** Findings whose cure is a setting that a player looks for anyway. */
const ALSO: Readonly<Record<string, string>> = {
  'lag-short': 'Restore the depth lost to slew',
  bleed: 'Null the feedthrough',
  'pitch-scale': 'Set gain for exact 1 V/oct',
};

/** Settings that are worked out for a stage, each done with one press. */
export function Helpers({ id, patch, findings, edit }: HelpersProps) {
  const [options, setOptions] = useState(START);
  const [steps, setSteps] = useState('');
  const helpers = useMemo(() => helpersAt(patch, id, options), [patch, id, options]);
  const asks = (key: string): boolean => helpers.some((h) => h.key === key);
  const also = findings.filter((f) => idOf(f.at) === id && f.code in ALSO && f.cure);
  if (helpers.length + also.length === 0)
    return <Box sx={{ color: ink.softInk }}>Nothing to auto-set on this stage.</Box>;
  return (
    <>
      {asks('stays open') && (
        <SettingRow label="Minimum level (dB)">
          <QuantityField
            label="Minimum level (dB)"
            unit="dB"
            value={options.openDb}
            min={0.5}
            max={60}
            width={128}
            onChange={(openDb) => setOptions({ ...options, openDb })}
          />
        </SettingRow>
      )}
      {asks('locked') && (
        <SettingRow label="Phase">
          <QuantityField
            label="Phase offset"
            unit="°"
            value={360 * options.phase}
            min={0}
            max={360}
            width={128}
            onChange={(degrees) => setOptions({ ...options, phase: degrees / 360 })}
          />
        </SettingRow>
      )}
      {asks('accents') && (
        <SettingRow label="Steps">
          <TextInput
            label="Accented steps, for example 1, 4"
            figures
            value={steps}
            onChange={(text) => {
              setSteps(text);
              setOptions({ ...options, accents: text.trim() === '' ? null : readSteps(text) });
            }}
            sx={{ width: 128 }}
          />
        </SettingRow>
      )}
      {also.map((f) => (
        <Box key={`${f.code} ${f.at}`} data-helper={f.code} sx={{ py: 0.5 }}>
          <Button color="primary" onClick={() => edit(ALSO[f.code] ?? '', f.cure?.edits ?? [])}>
            {ALSO[f.code]}
          </Button>
          <Box sx={{ fontSize: 13, color: ink.softInk, mt: 0.25 }}>{f.cure?.label}</Box>
        </Box>
      ))}
      {helpers.map((h) => (
        <Box key={h.key} data-helper={h.key} sx={{ py: 0.5 }}>
          <Button color="primary" disabled={h.edits.length === 0} onClick={() => edit(h.title, h.edits)}>
            {h.title}
          </Button>
          <Box sx={{ fontSize: 13, color: ink.softInk, mt: 0.25 }}>{h.says}</Box>
        </Box>
      ))}
    </>
  );
}
