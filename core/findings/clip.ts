import type { FindingRule } from './finding';

/** Share of the time that may be lost before it is said. */
const SHARE = 0.001;

export const clip: FindingRule = {
  code: 'clip',
  when: 'an output is beyond its rails for more than 0.1 % of the time',
  find({ graph, simulation }) {
    if (!simulation) return [];
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
          },
        ];
      }),
    );
  },
};
