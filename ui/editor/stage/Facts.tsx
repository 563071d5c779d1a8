import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { memo } from 'react';
import { showSeconds, socketPlace, showVoltRange } from '@/core';
import type { GraphModule } from '@/core';
import { Term } from '@/ui/parts/Term';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';

interface Row {
  readonly fact: 'bound' | 'seen' | 'repeats';
  readonly name: string;
  readonly value: string;
}

const TERMS = { bound: 'guaranteed range', seen: 'simulated range' } as const;

const FactRow = memo(function FactRow({ fact, name, value }: Row) {
  return (
    <TableRow>
      <TableCell component="th" scope="row" sx={{ border: 0, color: ink.softInk }}>
        {fact === 'repeats' ? name : <Term word={TERMS[fact]}>{name}</Term>}
      </TableCell>
      <TableCell data-fact={fact} sx={{ border: 0, pr: 0, textAlign: 'right', fontFamily: fonts.numbers }}>
        {value}
      </TableCell>
    </TableRow>
  );
});

/** What is known of the stage's first output. */
export function Facts({ module, predicted }: { module: GraphModule; predicted: Predicted }) {
  const output = module.outputs[0];
  const p = output && predicted.prediction.outputs[output.socket];
  if (!p) return null;
  const rows: Row[] = [{ fact: 'bound', name: 'Guaranteed range', value: showVoltRange(...p.bound) }];
  if (p.seen)
    rows.push({
      fact: 'seen',
      name: p.exact ? 'Simulated range (exact)' : 'Simulated range',
      value: showVoltRange(...p.seen),
    });
  if (p.repeatsEvery !== null) rows.push({ fact: 'repeats', name: 'Period', value: showSeconds(p.repeatsEvery) });
  return (
    <Table aria-label={`Ranges of ${socketPlace(module, output.name)}`} sx={{ mt: 1, mb: 1 }}>
      <TableBody>
        {rows.map((row) => (
          <FactRow key={row.fact} {...row} />
        ))}
      </TableBody>
    </Table>
  );
}
