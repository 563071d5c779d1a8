import type { Edit } from '../document/edits';
import type { GraphModule } from '../graph/graph';
import type { Range } from '../law/lin';
import { setParam } from './finding';
import type { Cure, FindingRule } from './finding';

/** Share of the time that may be lost before it is said. */
const SHARE = 0.001;

/** The parameters which, all multiplied by one number, multiply the output by it; by kind. */
const scaling: Readonly<Record<string, (m: GraphModule) => readonly string[]>> = {
  attenuverter: () => ['amount'],
  offset: (m) => (m.params.order === 'scaleThenShift' ? ['amount', 'volts'] : ['amount']),
  mixer: (m) => [...m.inputs.map((_, i) => `gain${i + 1}`), 'biasVolts'],
  lfo: () => ['lowVolts', 'highVolts'],
  oscillator: () => ['lowVolts', 'highVolts'],
  clock: () => ['lowVolts', 'highVolts'],
};

/** Less gain, so that the furthest voltage just meets its rail. */
function lessGain(m: GraphModule, [lo, hi]: Range, railVolts: number): { cure?: Cure } {
  const params = scaling[m.kind.name]?.(m) ?? [];
  const share = Math.floor((1e4 * railVolts) / Math.max(hi, -lo)) / 1e4;
  const edits = params.flatMap((name): Edit[] => {
    const value = Number(m.params[name] ?? 0);
    return value === 0 ? [] : [setParam(m.id, name, value * share)];
  });
  if (edits.length === 0 || !(share > 0)) return {};
  return { cure: { label: `Gain down to ${(100 * share).toFixed(1)} %`, edits } };
}

export const clip: FindingRule = {
  code: 'clip',
  why: 'Beyond the supply the voltage is cut flat, which adds overtones to a sound and stops a movement short. That can be meant, as in a wave shaper; else less gain before this stage keeps the shape.',
  when: 'an output is beyond its rails for more than 0.1 % of the time',
  cures: 'less gain, where the module itself sets it',
  find({ graph, bounds, simulation }) {
    if (!simulation) return [];
    const { railVolts } = graph.patch.settings;
    return graph.modules.flatMap((m) =>
      m.outputs.slice(0, 1).flatMap((o) => {
        const { clippedLow = 0, clippedHigh = 0 } = simulation.outputs.get(o.socket) ?? {};
        const share = clippedLow + clippedHigh;
        if (share <= SHARE) return [];
        const side = clippedLow === 0 ? 'at the top' : clippedHigh === 0 ? 'at the bottom' : 'on both sides';
        return [
          {
            code: 'clip',
            severity: 'warning' as const,
            at: o.socket,
            message: `${m.label} clips ${side} for ${(100 * share).toFixed(1)} % of the time.`,
            numbers: {
              clippedPercent: 100 * share,
              clippedLowPercent: 100 * clippedLow,
              clippedHighPercent: 100 * clippedHigh,
            },
            ...lessGain(m, bounds.get(m.id)?.unclipped[0] ?? [0, 0], railVolts),
          },
        ];
      }),
    );
  },
};
