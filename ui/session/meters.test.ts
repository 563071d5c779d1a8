import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { TRACE_PAIRS } from '@/wire/live';
import type { LiveReport } from '@/wire/live';
import { meters } from './meters';

const RATE = 48_000;
let sent = 0;
const report = (watched: readonly number[], traced: readonly number[] = []): LiveReport => ({
  is: 'report',
  samples: (sent += RATE / 60),
  sampleRate: RATE,
  load: 0,
  dropouts: 0,
  peak: 0,
  rms: 0,
  reduction: 0,
  heldBack: 0,
  number: 0,
  begun: [],
  watched: Float32Array.from(watched),
  traced: Float32Array.from(traced),
});

beforeEach(() => {
  sent = 0;
  meters.watch([], []);
});

describe('what is seen while a patch plays', () => {
  it('is the latest value, and the reach of the last sixty reports, whatever came before', () => {
    const three = fc.tuple(fc.float({ min: -12, max: 12, noNaN: true }), fc.float({ min: 0, max: 3, noNaN: true }));
    fc.assert(
      fc.property(fc.array(three, { minLength: 1, maxLength: 150 }), (rows) => {
        meters.watch(['a.out'], []);
        const all = rows.map(
          ([now, half]) => [now, now - half, now + half].map(Math.fround) as [number, number, number],
        );
        for (const row of all) meters.add(report(row));
        const last = all.slice(-60);
        expect(meters.of('a.out')).toEqual({
          now: all.at(-1)![0],
          low: Math.min(...last.map((r) => r[1])),
          high: Math.max(...last.map((r) => r[2])),
        });
      }),
      { numRuns: 60 },
    );
  });

  it('is nothing before a report, and for what is not watched', () => {
    meters.watch(['a.out'], ['a.out']);
    expect(meters.of('a.out')).toBeNull();
    meters.add(
      report(
        [1, 0, 2],
        Array.from({ length: 2 * TRACE_PAIRS }, () => 0),
      ),
    );
    expect(meters.of('a.out')).toEqual({ now: 1, low: 0, high: 2 });
    expect(meters.of('b.out')).toBeNull();
    expect(meters.trace('b.out')).toBeNull();
  });

  it('takes no report of what was watched before, but its time', () => {
    meters.watch(['a.out', 'b.out'], []);
    meters.add(report([1, 1, 1]));
    expect(meters.of('a.out')).toBeNull();
    expect(meters.seconds).toBeCloseTo(1 / 60, 9);
  });

  it('runs a trace on: the latest pairs stand last, the oldest fall out after four seconds', () => {
    meters.watch(['a.out'], ['a.out']);
    const pairs = (n: number) => Array.from({ length: TRACE_PAIRS }, (_, j) => [n + j / 10, n + j / 10 + 1]).flat();
    for (let n = 0; n < 300; n++) meters.add(report([0, 0, 0], pairs(n)));
    const { low, high } = meters.trace('a.out')!;
    expect(low).toHaveLength(4 * 60 * TRACE_PAIRS);
    expect(low.at(-1)).toBeCloseTo(299.3, 4);
    expect(high.at(-1)).toBeCloseTo(300.3, 4);
    expect(low[0]).toBeCloseTo(60, 4);
    // The same sockets go on; others begin with nothing.
    meters.watch(['a.out', 'b.out'], ['a.out']);
    expect(meters.trace('a.out')!.low.at(-1)).toBeCloseTo(299.3, 4);
    meters.watch(['a.out'], ['b.out']);
    expect(meters.trace('b.out')!.low.every((v) => v === 0)).toBe(true);
  });
});
