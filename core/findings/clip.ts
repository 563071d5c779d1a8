import type { Edit } from '../edit/edit';
import type { Graph, GraphModule } from '../graph/graph';
import type { Range } from '../law/affine';
import type { Cut, Simulation } from '../simulate/types';
import { cures, setCure, setParam } from './finding';
import type { Cure, FindingRule, Found } from './finding';
import { insertOffset } from './insert';

/** Share of the time that may be lost before it is said. */
const SHARE = 0.001;

/** Where a kind cuts by itself, volts; null where it does not. */
const ownLevel = (m: GraphModule): number | null => m.kind.stage?.clipLevel?.(m.params) ?? null;

const widest = (ranges: readonly Range[]): Range => [
  Math.min(...ranges.map((r) => r[0])),
  Math.max(...ranges.map((r) => r[1])),
];

/** Less gain, so that the furthest voltage just meets its limit: the module's own, or before its one signal input. */
function lessGain(graph: Graph, m: GraphModule, [lo, hi]: Range, limit: number): Cure[] {
  const share = Math.floor((1e4 * limit) / Math.max(hi, -lo)) / 1e4;
  if (!(share > 0 && share < 1)) return [];
  const text = `${(100 * share).toFixed(1)}%`;
  const own = (m.kind.panel?.scaledBy?.(m.params) ?? []).flatMap((name): Edit[] => {
    const value = Number(m.params[name] ?? 0);
    return value === 0 ? [] : [setParam(m.id, name, value * share)];
  });
  const fed = m.inputs.filter((s) => s.spec.role === 'signal' && s.driver.type === 'output');
  const before = fed.length === 1 && fed[0] ? insertOffset(graph, fed[0].socket, 'Attenuate', share, 0) : [];
  return [
    ...(own.length > 0 ? [setCure(`Reduce gain to ${text}`, ...own)] : []),
    ...(before.length > 0 ? [setCure(`Attenuate to ${text} first`, ...before)] : []),
  ];
}

/** An offset that sits too far to one side, brought to where both ends fit. */
function towardTheMiddle(m: GraphModule, [lo, hi]: Range, limit: number): Cure | null {
  const lift = m.kind.stage?.lift;
  const shift = hi > limit ? limit - hi : lo < -limit ? -limit - lo : 0;
  const perVolt = lift?.perVolt(m.params) ?? 0;
  if (!lift || shift === 0 || perVolt === 0 || hi - lo > 2 * limit) return null;
  return setCure('Re-centre the offset', setParam(m.id, lift.param, Number(m.params[lift.param]) + shift / perVolt));
}

const usedSockets = ({ patch, wiring }: Graph): ReadonlySet<string> =>
  new Set([...wiring.usedOutputs, ...[...patch.probes, ...patch.targets].map((x) => x.at)]);

/** What a listener or a cable could meet: every output that is plugged, probed or a target, else the first. */
function lookedAt(used: ReadonlySet<string>, m: GraphModule): number[] {
  const negated = (name: string): boolean => m.kind.negated?.[name] !== undefined;
  const found = m.outputs.flatMap((o, i) => (used.has(o.socket) && !negated(o.name) ? [i] : []));
  return found.length > 0 || m.outputs.length === 0 ? found : [0];
}

function lost(simulation: Simulation, m: GraphModule, socket: string): Cut & { readonly own: boolean } {
  const { clippedLow = 0, clippedHigh = 0 } = simulation.outputs.get(socket) ?? {};
  const own = simulation.cuts.get(m.id) ?? { low: 0, high: 0 };
  return {
    low: Math.max(clippedLow, own.low),
    high: Math.max(clippedHigh, own.high),
    own: own.low + own.high > clippedLow + clippedHigh,
  };
}

export const clip: FindingRule = {
  code: 'clip',
  title: 'Clipping',
  why: 'Past its limit the voltage is cut flat. That adds overtones to audio and stops modulation short. It can be intended, as in a waveshaper; otherwise reduce the gain before this stage.',
  when: 'an output (each that is connected, pinned or a target, else the first) is beyond the supply rails or its module’s hard clip level more than 0.1% of the time; info on a waveshaper',
  cures: 'reduces the gain, or re-centres the offset',
  find({ graph, bounds, simulation }) {
    if (!simulation) return [];
    const { railVolts } = graph.patch.settings;
    const used = usedSockets(graph);
    return graph.modules.flatMap((m) =>
      lookedAt(used, m).flatMap((index): Found[] => {
        const o = m.outputs[index];
        if (!o) return [];
        const { low, high, own } = lost(simulation, m, o.socket);
        if (low + high <= SHARE) return [];
        const side = low === 0 ? 'at the top' : high === 0 ? 'at the bottom' : 'at both ends';
        const limit = Math.min(railVolts, ownLevel(m) ?? railVolts);
        const found = bounds.get(m.id);
        const range = widest([found?.unclipped[index] ?? [0, 0], ...(found?.uncut ?? [])]);
        return [
          {
            code: 'clip',
            severity: m.kind.stage?.shapes ? 'note' : 'warning',
            at: o.socket,
            message: `${m.label} clips ${side} ${(100 * (low + high)).toFixed(1)}% of the time${own ? ` (limit: ${limit} V)` : ''}.`,
            numbers: {
              clippedPercent: 100 * (low + high),
              clippedLowPercent: 100 * low,
              clippedHighPercent: 100 * high,
            },
            cures: cures(towardTheMiddle(m, range, limit), ...lessGain(graph, m, range, limit)),
          },
        ];
      }),
    );
  },
};
