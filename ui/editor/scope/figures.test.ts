import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ProbeAnswer } from '@/wire/core';
import { levelsOf } from './levelBins';
import { FLOOR_DB, pointsOf, hertzOf } from './spectrum';
import { edgesOf, phaseApart, shownTrace } from './view';
import type { Trace } from './view';

/** A pinned trace, measured as the core measures it as far as these figures go. */
function traceOf(
  values: readonly number[],
  more: { figure?: ProbeAnswer['figure']; period?: number | null } = {},
): Trace {
  const trace = Float32Array.from(values);
  const mean = trace.reduce((a, b) => a + b, 0) / Math.max(1, trace.length);
  const rms = Math.hypot(...trace) / Math.sqrt(Math.max(1, trace.length));
  const measures = { min: Math.min(...trace), max: Math.max(...trace), mean, rms, period: more.period ?? null };
  return {
    socket: 'a.out',
    label: 'A',
    probe: { trace, figure: more.figure ?? null, measures } as unknown as ProbeAnswer,
  };
}
const volts = fc.float({ min: -14, max: 14, noNaN: true });

describe('a meter of a trace', () => {
  it('reaches as far as the trace inside its range, and counts what is beyond', () => {
    fc.assert(
      fc.property(fc.array(volts, { minLength: 1, maxLength: 60 }), fc.constantFrom(5, 10, 12), (values, range) => {
        const [level] = levelsOf([traceOf(values)], range, 48_000);
        const held = values.map((v) => Math.fround(Math.min(range, Math.max(-range, v))));
        expect(level!.reach).toEqual([Math.min(...held), Math.max(...held)]);
        const over = values.filter((v) => Math.abs(Math.fround(v)) > range).length;
        expect(level!.overPercent).toBeCloseTo((100 * over) / values.length, 9);
        expect(level!.overPercent > 0).toBe(level!.min < -range || level!.max > range);
      }),
    );
  });
  it('of nothing is nothing, not a division by nothing', () => {
    expect(levelsOf([traceOf([])], 5, 48_000)[0]!.overPercent).toBe(0);
  });
});

describe('the points of a spectrum', () => {
  const binHz = 5;
  const flat = (bins: number, at: Record<number, number>) => ({
    volts: Float32Array.from({ length: bins }, (_, k) => at[k] ?? 0),
    binHz,
  });
  it('keeps every line that stands alone, at its own frequency and level', () => {
    fc.assert(
      fc.property(fc.integer({ min: 4, max: 3999 }), fc.integer({ min: 1, max: 3 }), (bin, decades) => {
        const low = bin < 2000 ? 3900 : 40;
        const points = pointsOf(flat(4000, { [bin]: 1, [low]: 10 ** -decades }) as never);
        expect(points.find((p) => p.hz === bin * binHz)?.db).toBeCloseTo(0, 6);
        expect(points.find((p) => p.hz === low * binHz)?.db).toBeCloseTo(-20 * decades, 4);
      }),
      { numRuns: 60 },
    );
  });
  it('rises in frequency, no more points than columns, none under the floor', () => {
    const points = pointsOf(flat(24_000, { 7: 1, 9000: 0.5 }) as never);
    expect(points.length).toBeLessThanOrEqual(481);
    expect(points.every((p, i) => i === 0 || p.hz > points[i - 1]!.hz)).toBe(true);
    expect(Math.min(...points.map((p) => p.db))).toBe(FLOOR_DB);
  });
  it('is shown from 10 Hz up; of a slow simulation from a quarter of what it holds', () => {
    expect(hertzOf(flat(4000, {}) as never)).toEqual([10, 20_000]);
    expect(hertzOf({ volts: new Float32Array(4), binHz: 5 } as never)).toEqual([5, 20]);
  });
  it('of silence is the floor', () => {
    expect(pointsOf(flat(100, {}) as never).every((p) => p.db <= 0 && Number.isFinite(p.db))).toBe(true);
  });
});

describe('the edges of a trace', () => {
  it('of a square are as many as it has, each at its sample', () => {
    const square = Float32Array.from({ length: 1000 }, (_, k) => (k % 100 < 50 ? 0 : 5));
    expect(edgesOf(square, 1000, 2.5, true)).toEqual([0.05, 0.15, 0.25, 0.35, 0.45, 0.55, 0.65, 0.75, 0.85, 0.95]);
    expect(edgesOf(square, 1000, 2.5, false)).toHaveLength(9);
    expect(edgesOf(square, 1000, 6, true)).toEqual([]);
  });
  it('up and down take turns, whatever the trace', () => {
    fc.assert(
      fc.property(fc.array(volts, { maxLength: 80 }), volts, (values, level) => {
        const [up, down] = [true, false].map((rising) => edgesOf(Float32Array.from(values), 1, level, rising));
        expect(Math.abs(up!.length - down!.length)).toBeLessThanOrEqual(1);
      }),
    );
  });
  it('apart by a quarter of a period are 90 degrees; without a period there are none', () => {
    expect(phaseApart(traceOf([0, 1], { period: 0.5 }).probe, 0.125)).toBe(90);
    expect(phaseApart(traceOf([0, 1]).probe, 0.125)).toBeNull();
  });
});

describe('what a trace is shown in', () => {
  it('volts are the trace itself; decibels are of 5 V, and silence is the floor', () => {
    const trace = traceOf([5, -5, 0.5, 0]);
    expect(shownTrace(trace, 'volts', 48_000)).toMatchObject({ unit: 'V', extent: [-5, 5] });
    const { data, extent } = shownTrace(trace, 'dB', 48_000)!;
    expect([...data]).toEqual([0, 0, -20, -80].map((v) => expect.closeTo(v, 5)));
    expect(extent).toEqual([-80, 0]);
  });
  it('a figure is the end’s own, and there is none where nothing reads it', () => {
    expect(shownTrace(traceOf([1]), 'figure', 48_000)).toBeNull();
    const hertz = shownTrace(
      traceOf([1], { figure: { unit: 'Hz', trace: Float32Array.of(200, 800) } as never }),
      'figure',
      48_000,
    );
    expect(hertz).toMatchObject({ unit: 'Hz', extent: [200, 800] });
    const gain = traceOf([1], { figure: { unit: 'dB', trace: Float32Array.of(-Infinity, -6) } as never });
    expect(shownTrace(gain, 'figure', 48_000)!.extent).toEqual([-80, -6]);
  });
});
