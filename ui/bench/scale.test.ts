import { describe, expect, it } from 'vitest';
import { resampled } from '@/core';
import { inStep, predictedNow } from './liveTrace';
import { scaleByDc, scaleByPeaks } from './scale';

const RATE = 8000;
const wave = (seconds: number, of: (t: number) => number): Float32Array =>
  Float32Array.from({ length: Math.round(seconds * RATE) }, (_, k) => of(k / RATE));

describe('the scale of an input', () => {
  it('is found against a voltage that stands, also where the input inverts', () => {
    expect(
      scaleByDc(
        wave(2, () => 0.5),
        5,
      ),
    ).toEqual({ volts: 10, acCoupled: false });
    expect(
      scaleByDc(
        wave(2, (t) => -0.25 + 0.001 * Math.sin(300 * t)),
        5,
      ),
    ).toMatchObject({ acCoupled: false });
  });
  it('is none where no constant voltage comes through, or where it moves', () => {
    expect(
      scaleByDc(
        wave(2, (t) => 0.001 * Math.sin(300 * t)),
        5,
      ),
    ).toBe('blocked');
    expect(
      scaleByDc(
        wave(2, (t) => Math.sin(2 * Math.PI * 3 * t)),
        5,
      ),
    ).toBe('blocked');
    expect(
      scaleByDc(
        wave(2, (t) => 0.3 + 0.2 * Math.sin(2 * Math.PI * 3 * t)),
        5,
      ),
    ).toBe('moves');
  });
  it('is found by peak to peak where it blocks what is constant', () => {
    const found = scaleByPeaks(
      wave(4, (t) => 0.5 * Math.sin(2 * Math.PI * t)),
      10,
    )!;
    expect(found.acCoupled).toBe(true);
    expect(found.volts).toBeCloseTo(10, 4);
    expect(
      scaleByPeaks(
        wave(4, () => 0),
        10,
      ),
    ).toBeNull();
  });
});

describe('a running trace', () => {
  it('runs over its prediction, wherever in its period it began', () => {
    const period = 4;
    const saw = (t: number): number => 5 * (((t / period) % 1) * 2 - 1);
    const prediction = { volts: wave(20, saw), sampleRate: RATE, repeatsEvery: period, quantities: [] };
    const late = 1.3;
    const heard = wave(6, (t) => saw(t + late) / 10);
    const capture = { sampleRate: RATE, samples: heard.length, last: (s: number) => heard.slice(-s * RATE) };
    const step = inStep(capture, 4, { volts: 10, acCoupled: false }, prediction)!;
    const shown = predictedNow(prediction, step, capture, 4);
    const real = resampled({ volts: heard.slice(-4 * RATE), sampleRate: RATE }, 100).map((v) => 10 * v);
    const near = real.filter((v, i) => Math.abs(v - (shown[Math.round((i * 399) / (real.length - 1))] ?? 0)) < 0.15);
    expect(near.length / real.length).toBeGreaterThan(0.97);
  });
});
