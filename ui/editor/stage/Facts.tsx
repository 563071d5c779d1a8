import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { memo } from 'react';
import { showDb, showRange, showSeconds, socketPlace, showVoltRange } from '@/core';
import type { GraphModule } from '@/core';
import { Term } from '@/ui/parts/Term';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';

interface Row {
  readonly fact: 'bound' | 'seen' | 'repeats' | 'level' | 'reduction' | 'arrives';
  readonly name: string;
  readonly value: string;
}

/** A level that moves by less is steady, dB: steps hold no whole cycles. */
const LEAST_DB = 1;

const TERMS = { bound: 'guaranteed range', seen: 'simulated range' } as const;

const FactRow = memo(function FactRow({ fact, name, value }: Row) {
  return (
    <TableRow>
      <TableCell component="th" scope="row" sx={{ border: 0, color: ink.softInk }}>
        {fact in TERMS ? <Term word={TERMS[fact as keyof typeof TERMS]}>{name}</Term> : name}
      </TableCell>
      <TableCell data-fact={fact} sx={{ border: 0, pr: 0, textAlign: 'right', fontFamily: fonts.numbers }}>
        {value}
      </TableCell>
    </TableRow>
  );
});

/** What a run tells of a level over time, of what an amplifier takes away, and of how long steps take. */
function overTime(socket: string, id: string, { full }: Predicted): Row[] {
  const { levels, reductionDb, arriveSeconds } = full?.prediction ?? {};
  const [level, reduction, arrives] = [levels?.[socket], reductionDb?.[id], arriveSeconds?.[socket]];
  const rows: Row[] = [];
  if (level?.highestDb != null && (level.dipDb ?? 1) >= LEAST_DB)
    rows.push({ fact: 'level', name: 'Level over time', value: showRange(level.lowestDb, level.highestDb, 'dBV') });
  if (reduction !== undefined && reduction >= LEAST_DB)
    rows.push({ fact: 'reduction', name: 'Gain falls by', value: showDb(reduction) });
  if (arrives) {
    const late = arrives.worst === null ? 'not always' : showSeconds(arrives.worst);
    const median = arrives.median === null ? 'never' : showSeconds(arrives.median);
    rows.push({ fact: 'arrives', name: 'Steps arrive in (worst)', value: `${median} (${late})` });
  }
  return rows;
}

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
  rows.push(...overTime(output.socket, module.id, predicted));
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
