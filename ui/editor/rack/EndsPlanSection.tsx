'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import type { EndsPlan, Patch } from '@/core';
import { DeleteIcon } from '@/ui/parts/icons';
import { usePlanned } from '@/ui/parts/planning';
import type { Asked } from '@/ui/parts/planning';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { offeredBy } from '../macro/offered';
import type { Offered } from '../macro/offered';
import { EndsAnswer } from './EndsAnswer';
import { OnRackSwitch, useOnRack } from './onRack';
import { requestFor, sourcesOf } from './severalEnds';
import type { EndRowOf } from './severalEnds';

interface Props {
  readonly desk: DeskStore;
  /** The output that the path which is shown begins at. */
  readonly from: string | null;
}

const MOST = 1e6;

/** Chains from one source to several ends at once, each with its own span and direction; taken over as one edit. */
export function EndsPlanSection({ desk, from: shown }: Props) {
  const patch = useStore(desk, (s) => s.patch);
  const [from, setFrom] = useState(shown);
  const [rows, setRows] = useState<readonly EndRowOf[]>([]);
  const offered = useMemo(() => offeredBy(patch), [patch]);
  const sources = useMemo(() => sourcesOf(patch), [patch]);
  const source = from ?? sources[0]?.[0] ?? null;
  const free = offered.filter((o) => !rows.some((r) => r.to === o.end));
  const add = (end: string): void => {
    const found = offered.find((o) => o.end === end);
    if (found) setRows([...rows, { to: end, from: found.figures[0], until: found.figures[1] }]);
  };
  if (source === null) return <Box sx={{ color: ink.softInk, mt: 1 }}>Add a source first.</Box>;
  return (
    <Box data-ends-plan sx={{ mt: 1, borderTop: `1px solid ${ink.line}`, pt: 1 }}>
      <SelectField label="Source" value={source} options={sources} onChange={setFrom} />
      {rows.map((row) => (
        <Row
          key={row.to}
          row={row}
          offered={offered.find((o) => o.end === row.to)}
          onRow={(next) => setRows(rows.flatMap((r) => (r !== row ? [r] : next ? [next] : [])))}
        />
      ))}
      <SelectField
        label="Add destination"
        value=""
        options={[['', 'Add a destination…'] as const, ...free.map((o) => [o.end, o.label] as const)]}
        onChange={(end) => end !== '' && add(end)}
        sx={{ mt: 1 }}
      />
      {rows.length > 0 && <Planned key={source} {...{ desk, patch, source, rows }} />}
    </Box>
  );
}

interface RowProps {
  readonly row: EndRowOf;
  readonly offered: Offered | undefined;
  /** Null takes it out. */
  readonly onRow: (row: EndRowOf | null) => void;
}

/** An end, and where it goes while the source goes from its lowest to its highest. */
function Row({ row, offered, onRow }: RowProps) {
  const label = offered?.label ?? row.to;
  const figure = (name: 'from' | 'until', says: string) => (
    <QuantityField
      label={`${label}, ${says}`}
      unit={offered?.unit ?? ''}
      value={row[name]}
      min={-MOST}
      max={MOST}
      width={116}
      onChange={(v) => onRow({ ...row, [name]: v })}
    />
  );
  return (
    <Box data-ends-row={row.to} sx={{ mt: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Box sx={{ flex: 1, minWidth: 0, fontWeight: 700 }}>{label}</Box>
        <IconButton aria-label={`Remove ${label}`} onClick={() => onRow(null)}>
          <DeleteIcon />
        </IconButton>
      </Box>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        {figure('from', 'with the source at minimum')} to {figure('until', 'with the source at maximum')}
      </Box>
    </Box>
  );
}

interface PlannedProps {
  readonly desk: DeskStore;
  readonly patch: Patch;
  readonly source: string;
  readonly rows: readonly EndRowOf[];
}

function Planned({ desk, patch, source, rows }: PlannedProps) {
  const onRack = useOnRack();
  const { used, coming } = onRack;
  const ask = useMemo((): Asked<EndsPlan> | null => {
    if (coming) return null;
    const request = requestFor(patch, source, rows);
    return (worker) => worker.ends(request, used);
  }, [patch, source, rows, used, coming]);
  const { answer, busy, failure } = usePlanned(ask);
  return (
    <>
      <OnRackSwitch {...onRack} />
      {(busy || coming) && <LinearProgress aria-label="Planning" sx={{ mt: 1 }} />}
      {failure && <Alert severity="error">{failure}</Alert>}
      {answer && <EndsAnswer {...{ desk, patch, rows }} plan={answer} />}
    </>
  );
}
