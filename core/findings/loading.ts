import { socketPlace } from '../document/names';
import { idOf } from '../document/sockets';
import type { Graph, GraphModule } from '../graph/graph';
import { potGain } from '../kinds/pot';
import { scaledRange } from '../law/affine';
import type { Range } from '../law/affine';
import { showNumber } from '../units/show';
import { setCure, setParam } from './finding';
import type { Cure, Evidence, FindingRule, Found } from './finding';
import { mixerInstead } from './insert';
import { pitchedOutputs } from './pitch-paths';

const PERCENT = 0.5;
const CENTS = 3;

/** What loading leaves of an output's voltage: its own node's divider, and for a pot what its load makes of the amount. */
function left(m: GraphModule, factor: number): number {
  const part = m.kind.electrical?.passive?.(m.params);
  return part?.is === 'pot' && part.position > 0 ? (factor * potGain(part, m.loading.potLoad)) / part.position : factor;
}

/** Passive parts at fault: the pot or mult itself, else the mults that hang on the output. */
function buffered(graph: Graph, m: GraphModule, socket: string): readonly Cure[] {
  const passive = (x: GraphModule | undefined): x is GraphModule => x?.kind.electrical?.passive?.(x.params) != null;
  const behind = (from: string): GraphModule[] =>
    graph.wiring
      .cablesFrom(from)
      .map((c) => graph.modules.find((x) => x.id === idOf(c.to)))
      .filter(passive);
  const parts = passive(m) ? [m] : behind(socket);
  const edits = parts.flatMap(({ id, kind }) =>
    kind.electrical?.powered ? setParam(id, kind.electrical.powered.param, kind.electrical.powered.value) : [],
  );
  const says = parts[0]?.kind.electrical?.powered?.says;
  return says === undefined ? [] : [setCure(says, ...edits)];
}

/** How far a value of weighted inputs can lie from 0, and from the mean of what is plugged, volts. */
function offMean(m: GraphModule, ranges: readonly Range[]): { readonly most: number; readonly off: number } {
  const plugged = m.inputs.flatMap((s, i) => (s.connected ? [i] : []));
  const farthest = (weight: (i: number) => number): number => {
    const sum = plugged
      .map((i) => scaledRange(ranges[i] ?? [0, 0], weight(i)))
      .reduce(([lo, hi], [a, b]) => [lo + a, hi + b], [0, 0] as Range);
    return Math.max(sum[1], -sum[0]);
  };
  const mean = 1 / plugged.length;
  const weights = m.loading.weights;
  return { most: farthest(() => mean), off: farthest((i) => (weights[i] ?? 0) - mean) };
}

interface Loss {
  readonly percent: number;
  /** Of the furthest voltage, volts. */
  readonly volts: number;
}

/** What loading takes from an output; at a junction against the mean that ideal wires would give. */
function lossAt({ graph, bounds }: Evidence, m: GraphModule, index: number): Loss {
  const found = bounds.get(m.id);
  if (m.kind.electrical?.joins) {
    if (graph.patch.settings.loading === 'ideal' || !m.inputs.some((s) => s.connected)) return { percent: 0, volts: 0 };
    const { most, off } = offMean(m, found?.inputs ?? []);
    return { percent: most > 0 ? (100 * off) / most : 0, volts: off };
  }
  const share = left(m, m.outputs[index]?.factor ?? 1);
  const [lo, hi] = found?.outputs[index] ?? [0, 0];
  return { percent: 100 * (1 - share), volts: share > 0 ? (Math.max(hi, -lo) * (1 - share)) / share : 0 };
}

export const loading: FindingRule = {
  code: 'loading',
  title: 'Loading',
  why: 'A passive part and the input it feeds form a voltage divider, so less arrives than the source puts out. A buffer, or an active part, keeps the level.',
  when: 'loading changes a voltage by more than 0.5%, or a pitch by more than 3 cents; at a junction compared with the average of the joined outputs',
  cures:
    'buffers the mult or the attenuator, or replaces a junction with a mixer: one that averages, or where it carries pitch one that adds',
  find(evidence) {
    const { graph } = evidence;
    const pitched = pitchedOutputs(graph);
    return graph.modules.flatMap((m) =>
      m.outputs.flatMap((o, i): Found[] => {
        const { percent, volts } = lossAt(evidence, m, i);
        const cents = 1200 * volts;
        const flat = pitched.has(o.socket) && cents > CENTS;
        if (percent <= PERCENT && !flat) return [];
        const advice = m.kind.electrical?.joins ? '' : ' Buffer it, or use a different pot value.';
        const fault = m.kind.electrical?.joins ? 'off the average of the joined outputs' : 'loaded down';
        return [
          {
            code: 'loading',
            severity: flat ? 'warning' : 'note',
            at: o.socket,
            message: `${socketPlace(m, o.name)} is ${fault} by ${showNumber(percent, 1)}%${flat ? `, up to ${showNumber(cents, 0)} cents` : ''}.${advice}`,
            numbers: { percent, ...(flat && { cents }) },
            cures: m.kind.electrical?.joins ? [mixerInstead(graph, m)] : buffered(graph, m, o.socket),
          },
        ];
      }),
    );
  },
};
