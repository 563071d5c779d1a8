import { socketAt } from '../document/sockets';
import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import type { Range } from '../law/affine';
import type { Simulation } from '../simulate/types';
import { briefSeconds, showNumber } from '../units/show';
import { cures, setCure, setParam } from './finding';
import type { Cure, FindingRule, Found } from './finding';
import { insertOffsetAfter } from './insert';
import { carriesAudio, gainThrough, sourceOf } from './paths';

const LEAST = 0.95;
const LEAST_VOLTS = 1e-6;
/** A faster lag is looked for among these shares of the present times. */
const FASTER = [0.7, 0.5, 0.35, 0.25, 0.15, 0.1, 0.05, 0.02];

const widthOf = ([lo, hi]: Range): number => hi - lo;

/** Whether every stage right behind the lag brings the swing back, by what it makes of this one input. */
function madeUp(graph: Graph, m: GraphModule, after: Range, span: number, simulation: Simulation): boolean {
  const next = graph.modules.flatMap((x) =>
    x.inputs.filter((s) => sourceOf(graph, s)?.m === m).map((input) => ({ x, input })),
  );
  const mean = (s: GraphInput): number => simulation.inputs.get(s.socket)?.mean ?? 0;
  return (
    next.length > 0 &&
    next.every(({ x, input }) => {
      const gain = Math.abs(gainThrough(x, input, x.outputs[0]?.name ?? '', mean));
      return input.spec.role === 'signal' && gain * widthOf(after) >= LEAST * span;
    })
  );
}

/** Beyond this the slower of its two ways is meant: it follows peaks, or lets go at once. */
const UNEVEN = 3;

/**
 * What is left of the swing: of the span; where one way is far quicker than the other of the tops, and where that is the
 * fall of the worse of tops and bottoms. Sound through a lag is looked at by its tops too: it is followed.
 */
function leftOf(m: GraphModule, before: Range, after: Range, isSound: boolean): number {
  const [rise, fall] = ['rise', 'fall'].map((way) => Math.max(Number(m.params.minimum), Number(m.params[way]))) as [
    number,
    number,
  ];
  const span = widthOf(before);
  const tops = (after[1] - before[0]) / span;
  const bottoms = (before[1] - after[0]) / span;
  if (rise > UNEVEN * fall) return Math.min(tops, bottoms);
  if (fall > UNEVEN * rise || isSound) return tops;
  return widthOf(after) / span;
}

/** A gain that brings back the range that went in, or a faster lag. */
function curesOf(graph: Graph, m: GraphModule, before: Range, after: Range): readonly Cure[] {
  const gain = Number((widthOf(before) / widthOf(after)).toPrecision(6));
  const lift = Number(((before[0] + before[1]) / 2 - (gain * (after[0] + after[1])) / 2).toPrecision(6));
  const edits = insertOffsetAfter(graph, socketAt(m.id, 'out'), 'Make-up gain', gain, lift);
  const faster = FASTER.map((share) => {
    const times = ['rise', 'fall', 'minimum'].filter((name) => Number(m.params[name]) > 0);
    const text = briefSeconds(share * Math.max(...times.map((name) => Number(m.params[name]))));
    return setCure(
      `Shorten slew to ${text}`,
      ...times.map((name) => setParam(m.id, name, Number((share * Number(m.params[name])).toPrecision(4)))),
    );
  });
  return cures(edits.length > 0 ? setCure(`Add ×${showNumber(gain, 2)} make-up gain`, ...edits) : null, ...faster);
}

export const lagShort: FindingRule = {
  code: 'lag-short',
  title: 'Slew reduces depth',
  why: 'Slew reduces swing: the faster the modulation and the longer the slew time, the less is left. Make-up gain after it restores the depth.',
  when: 'less than 95% of the swing is left after a slew limiter over the last whole period (else over the second half of the simulation), and not every next stage makes up for it; where rise and fall differ by over three times, and for sound, tops are compared with tops, and bottoms too where the fall is the shorter',
  cures: 'adds make-up gain after the slew limiter, or shortens the slew',
  find({ graph, simulation }) {
    if (!simulation) return [];
    return graph.modules
      .filter((m) => m.kind.timing?.lags !== undefined)
      .flatMap((m): Found[] => {
        const input = m.inputs.find((s) => s.spec.name === 'in');
        const before = simulation.outputs.get((input && sourceOf(graph, input)?.socket) ?? '')?.settled;
        const after = simulation.outputs.get(socketAt(m.id, 'out'))?.settled;
        if (!before || !after || widthOf(before) < LEAST_VOLTS) return [];
        const spanRatio = leftOf(m, before, after, input !== undefined && carriesAudio(graph, input));
        if (spanRatio >= LEAST || madeUp(graph, m, after, widthOf(before), simulation)) return [];
        return [
          {
            code: 'lag-short',
            severity: 'note',
            at: socketAt(m.id, 'out'),
            message: `${m.label} reduces the modulation depth: ${showNumber(100 * spanRatio, 0)}% is left once it has settled.`,
            numbers: { spanRatio },
            cures: curesOf(graph, m, before, after),
          },
        ];
      });
  },
};
