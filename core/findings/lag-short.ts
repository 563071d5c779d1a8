import type { Graph, GraphModule } from '../graph/graph';
import type { Simulation } from '../simulate/types';
import { showNumber } from '../units/show';
import type { Finding, FindingRule } from './finding';
import { insertOffset, sourceOf } from './paths';

const LEAST = 0.95;
const LONGEST_GAIN = 4;

/** Whether a stage right behind the lag brings the swing back. */
function madeUp(graph: Graph, m: GraphModule, span: number, simulation: Simulation): boolean {
  const next = graph.modules.filter((x) =>
    x.inputs.some((s) => sourceOf(graph, s)?.m === m && s.spec.role === 'signal'),
  );
  return next.some((x) => {
    const seen = simulation.outputs.get(x.outputs[0]?.socket ?? '');
    return seen !== undefined && seen.max - seen.min >= LEAST * span;
  });
}

export const lagShort: FindingRule = {
  code: 'lag-short',
  why: 'Smoothing eats swing: the faster the movement and the longer the lag, the less is left. A gain behind the lag makes up for it.',
  when: 'after a lag less than 95 % of the swing is left, and no stage behind it makes up for it',
  cures: 'make-up gain behind the lag, about its middle',
  find({ graph, simulation }) {
    if (!simulation) return [];
    return graph.modules
      .filter((m) => m.kind.name === 'slew')
      .flatMap((m): Finding[] => {
        const [before, after] = [simulation.inputs.get(`${m.id}.in`), simulation.outputs.get(`${m.id}.out`)];
        if (!before || !after || before.max - before.min < 1e-6) return [];
        const spanRatio = (after.max - after.min) / (before.max - before.min);
        if (spanRatio >= LEAST || madeUp(graph, m, before.max - before.min, simulation)) return [];
        const gain = Number((1 / spanRatio).toPrecision(4));
        const middle = (after.max + after.min) / 2;
        const next = graph.patch.cables.filter((c) => c.from === `${m.id}.out`);
        const lift = Number((-middle * (gain - 1)).toPrecision(4));
        const edits =
          next.length === 1 && next[0] && gain <= LONGEST_GAIN
            ? insertOffset(graph, next[0].to, 'Make-up gain', gain, lift)
            : [];
        return [
          {
            code: 'lag-short',
            severity: 'note',
            at: `${m.id}.out`,
            message: `${m.label} swallows part of the swing: ${showNumber(100 * spanRatio, 0)} % of it is left.`,
            numbers: { spanRatio },
            ...(edits.length > 0 && { cure: { label: `Make up by ${showNumber(gain, 2)}`, edits } }),
          },
        ];
      });
  },
};
