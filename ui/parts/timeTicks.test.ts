import { scaleLinear } from 'd3-scale';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { timeTicks } from './timeTicks';

describe('times along a ruler', () => {
  it('each have their room and stand evenly inside it, however long it is and whatever it shows', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 0.001, max: 120, noNaN: true }),
        fc.integer({ min: 30, max: 1600 }),
        fc.integer({ min: 20, max: 90 }),
        (from, span, width, room) => {
          const x = scaleLinear()
            .domain([from, from + span])
            .range([12, 12 + width]);
          const ticks = timeTicks(x, room);
          expect(new Set(ticks.map((tick) => tick.says)).size).toBe(ticks.length);
          const gaps = ticks.slice(1).map((tick, i) => x(tick.t) - x(ticks[i]!.t));
          for (const gap of gaps) {
            expect(gap).toBeGreaterThanOrEqual(room - 1e-6);
            expect(gap).toBeCloseTo(gaps[0]!, 4);
          }
          for (const { t } of ticks) {
            expect(x(t)).toBeGreaterThan(12 - 1e-6);
            expect(x(t)).toBeLessThan(12 + width + 1e-6);
          }
        },
      ),
    );
  });
});
