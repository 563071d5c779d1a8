import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { ReactNode } from 'react';
import { showSeconds, showVoltRange } from '@/core';
import type { GraphModule } from '@/core';
import { Term } from '@/ui/parts/Term';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';

/** What is known of the stage's first output. */
export function Facts({ module, predicted }: { module: GraphModule; predicted: Predicted }) {
  const output = module.outputs[0];
  const p = output && predicted.prediction.outputs[output.socket];
  if (!p) return null;
  const never: ReactNode = <Term word="bound">never leaves</Term>;
  const seen: ReactNode = <Term word="seen">{p.exact ? 'seen, exactly' : 'seen'}</Term>;
  const rows: (readonly [string, ReactNode, string])[] = [['bound', never, showVoltRange(...p.bound)]];
  if (p.seen) rows.push(['seen', seen, showVoltRange(...p.seen)]);
  if (p.repeatsEvery !== null) rows.push(['repeats', 'repeats every', showSeconds(p.repeatsEvery)]);
  return (
    <Table aria-label={`What ${output.name} does`} sx={{ mt: 1, mb: 1 }}>
      <TableBody>
        {rows.map(([key, name, value]) => (
          <TableRow key={key}>
            <TableCell component="th" scope="row" sx={{ border: 0, color: ink.softInk }}>
              {name}
            </TableCell>
            <TableCell data-fact={key} sx={{ border: 0, pr: 0, textAlign: 'right', fontFamily: fonts.numbers }}>
              {value}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
