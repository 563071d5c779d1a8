import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from '../simulate/simulate';
import { predict } from '../solve/cured';
import { standingsOf } from '../solve/problem/runner';
import { recipes } from './index';

const patchNamed = (id: string): Patch => {
  const found = parsePatch(recipes.find((r) => r.id === id)?.document);
  if (!found.ok) throw new Error(`${id}: ${JSON.stringify(found.errors)}`);
  return found.value;
};
const reading = (id: string, at: string) =>
  predict(patchNamed(id), { cures: false }).readings.find((r) => r.at === at)!;
const decibels = (gain: number): number => 20 * Math.log10(gain);

/** Traces of some sockets, and their rate. */
function traced<const S extends readonly string[]>(id: string, ...sockets: S) {
  const { traces, sampleRate } = simulateGraph(buildGraph(patchNamed(id)), { traces: sockets });
  return { sampleRate, of: sockets.map((s) => traces.get(s)!) as { [K in keyof S]: Float64Array } };
}

/** The greatest of a figure over a trace: one expectation for all samples. */
const most = (trace: Float64Array, figure: (v: number, k: number) => number): number =>
  trace.reduce((m, v, k) => Math.max(m, figure(v, k)), 0);

/** The amplitude of one frequency in a trace of whole cycles. */
function amplitude(trace: Float64Array, hertz: number, sampleRate: number): number {
  let [re, im] = [0, 0];
  trace.forEach((v, k) => {
    const turn = (2 * Math.PI * hertz * k) / sampleRate;
    re += v * Math.cos(turn);
    im += v * Math.sin(turn);
  });
  return (2 * Math.hypot(re, im)) / trace.length;
}

describe('every recipe', () => {
  it('is there, each thing once, in plain words', () => {
    expect(recipes.length).toBeGreaterThanOrEqual(20);
    expect(new Set(recipes.map((r) => r.id)).size).toBe(recipes.length);
    for (const r of recipes) expect(r.turn.length).toBeGreaterThan(20);
  });

  it.each(recipes.map((r) => r.id))(
    '%s can be heard, meets its targets, and has no finding that is not meant',
    (id) => {
      const patch = patchNamed(id);
      const { findings } = predict(patch, { cures: false });
      expect(findings.map((f) => `${f.code} at ${f.at}`)).toEqual([]);
      expect(standingsOf(patch).filter((m) => !m.met)).toEqual([]);
      const { of } = traced(id, 'out.left' as string);
      const [out] = of;
      expect(out!.reduce((m, v) => Math.max(m, Math.abs(v)), 0)).toBeGreaterThan(0.5);
    },
  );
});

describe('its closed form', () => {
  it('tremolo: never below what its bias leaves', () => {
    const { low, high } = reading('tremolo', 'amp.cv');
    expect([low, high]).toEqual([expect.closeTo(decibels(2 / 5), 6), expect.closeTo(0, 6)]);
  });

  it('ducking from the trigger: five volts less half of eight', () => {
    const { seenLow, high } = reading('duck-trigger', 'amp.cv');
    expect(seenLow).toBeCloseTo(decibels((5 - 0.5 * 8) / 5), 3);
    expect(high).toBeCloseTo(0, 6);
  });

  it('ducking from the sound: five volts less eight tenths of what is followed', () => {
    const { of } = traced('duck-sound', 'listens.out', 'over.out');
    expect(most(of[0], (v, k) => Math.abs(of[1][k]! - (5 - 0.8 * v)))).toBeLessThan(1e-9);
    expect(reading('duck-sound', 'amp.cv').seenLow).toBeLessThan(-8);
  });

  it('louder for high notes: each contour peaks at two volts and two a volt of its note', () => {
    const { of, sampleRate } = traced('louder-high', 'contour.out', 'notes.cv');
    for (const step of [0, 1, 2, 3]) {
      const part = of[0].subarray(step * 0.5 * sampleRate, (step + 1) * 0.5 * sampleRate);
      const volts = of[1][Math.round((step + 0.5) * 0.5 * sampleRate)]!;
      expect(part.reduce((m, v) => Math.max(m, v), 0)).toBeCloseTo(2 + 2 * volts, 2);
    }
  });

  it('level pedal: sixty decibels between rest and full, evenly', () => {
    const k = Math.log(1000);
    const { low, high } = reading('level-pedal', 'amp.cv');
    expect(low).toBeCloseTo(decibels(Math.expm1((k * 3.5) / 5) / Math.expm1(k)), 6);
    expect(high).toBeCloseTo(low!, 9);
  });

  it('ring: sum and difference alone; amplitude: the tone with them', () => {
    const { of, sampleRate } = traced('ring-am', 'ring.out', 'amp.out');
    const [ring, amp] = of;
    expect(amplitude(ring, 440, sampleRate)).toBeLessThan(1e-6);
    for (const hertz of [350, 530]) expect(amplitude(ring, hertz, sampleRate)).toBeCloseTo(2.5, 6);
    expect(amplitude(amp, 440, sampleRate)).toBeCloseTo(2.5, 6);
    for (const hertz of [350, 530]) expect(amplitude(amp, hertz, sampleRate)).toBeCloseTo(1.25, 6);
  });

  it('vibrato: a semitone each way once it is there, and none at first', () => {
    const { seenLow, seenHigh } = reading('vibrato', 'voice.pitch');
    expect(Math.log2(seenHigh! / 330) * 12).toBeCloseTo(1, 2);
    expect(Math.log2(seenLow! / 330) * 12).toBeCloseTo(-1, 2);
    const { of, sampleRate } = traced('vibrato', 'depth.out');
    expect(of[0].subarray(0, 0.1 * sampleRate).every((v) => Math.abs(v) < 0.0834 / 10)).toBe(true);
  });

  it('glide: at the end of each step it is on its note to a hundredth of a cent', () => {
    const { of, sampleRate } = traced('glide', 'notes.cv', 'glide.out');
    const step = (60 / 90) * sampleRate;
    for (let n = 1; n <= 5; n++) {
      const k = Math.round(n * step) - 2;
      expect(1200 * Math.abs(of[1][k]! - of[0][k]!)).toBeLessThan(0.01);
    }
  });

  it('random notes: all of the scale, within two octaves', () => {
    const { of } = traced('random-notes', 'near.out');
    const scale = [0, 3, 5, 7, 10];
    const notes = new Set(of[0].map((v) => Math.round(v * 1200) / 100));
    expect(notes.size).toBeGreaterThan(3);
    for (const n of notes) expect(scale).toContain(((n % 12) + 12) % 12);
    expect(Math.max(...notes)).toBeLessThanOrEqual(24);
  });

  it('opposite filters: two octaves each way, and their product never moves', () => {
    expect(reading('opposite-filters', 'one.cutoff')).toMatchObject({ low: 150, high: 2400 });
    const { of } = traced('opposite-filters', 'depth.out', 'flip.out');
    expect(most(of[0], (v, k) => Math.abs(v + of[1][k]!))).toBe(0);
  });

  it('a lag on a square: what is left of it after half a cycle', () => {
    const left = 3 * Math.exp((-5 * 0.5) / 0.3);
    const { seenLow, seenHigh } = reading('round-square', 'soft.cutoff');
    expect(seenLow).toBeCloseTo(250 * 2 ** left, 1);
    expect(seenHigh).toBeCloseTo(250 * 2 ** 3, 6);
  });

  it('two speeds: six tenths of one and four of the other', () => {
    const { of } = traced('two-speeds', 'slow.out', 'quick.out', 'fade.out');
    expect(most(of[2], (v, k) => Math.abs(v - (0.6 * of[0][k]! + 0.4 * of[1][k]!)))).toBeLessThan(1e-9);
  });

  it('wave shaping: from a fifth of the wave to all of it', () => {
    const { low, high } = reading('wave-shaping', 'drive.cv');
    expect([low, high]).toEqual([expect.closeTo(decibels(1 / 5), 6), expect.closeTo(0, 6)]);
  });

  it('stereo: both sides together are as loud as the tone, wherever it is', () => {
    const { of } = traced('stereo', 'voice.triangle', 'pan.a', 'pan.b');
    expect(most(of[0], (v, k) => Math.abs(of[1][k]! ** 2 + of[2][k]! ** 2 - v ** 2))).toBeLessThan(1e-9);
  });

  it('a quarter apart: sine and cosine', () => {
    const { of } = traced('quarter', 'slow.out', 'slow.quadrature');
    expect(most(of[0], (v, k) => Math.abs(v ** 2 + of[1][k]! ** 2 - 25))).toBeLessThan(1e-9);
  });

  it('feedback: each round is six tenths of the last', () => {
    const { of, sampleRate } = traced('feedback', 'join.out');
    // A loop carries the sample before on one of its cables.
    const round = 0.25 * sampleRate + 1;
    const [from, to] = [0.26 * sampleRate, 0.9 * sampleRate];
    const apart = most(of[0].subarray(from, to), (v, k) => Math.abs(of[0][from + k + round]! - 0.6 * v));
    expect(apart).toBeLessThan(1e-6);
    expect(reading('feedback', 'hit.cv').high).toBeLessThanOrEqual(1e-9);
  });

  it('send and return: three fifths go to the echo, and half of that comes back', () => {
    const { of, sampleRate } = traced('send-return', 'hit.out', 'back.out');
    const late = 0.3 * sampleRate;
    const early = of[0].subarray(0, late);
    expect(most(early, (v, k) => Math.abs(of[1][k]! - 0.7 * v))).toBeLessThan(1e-9);
    const back = most(early.subarray(0, late - 2), (v, k) =>
      Math.abs(of[1][late + k]! - 0.7 * of[0][late + k]! - 0.5 * 0.6 * v),
    );
    expect(back).toBeLessThan(1e-6);
  });

  it('one fader: each end at its own figure', () => {
    expect(reading('one-fader', 'soft.cutoff').low).toBeCloseTo(200 * 2 ** (0.8 * 2.5), 6);
    expect(reading('one-fader', 'echo.time').low).toBeCloseTo(0.1 * 2 ** (0.4 * 2.5), 9);
    expect(reading('one-fader', 'amp.cv').low).toBeCloseTo(decibels((2 + 0.6 * 2.5) / 5), 6);
  });

  it('accents: three steps of eight, at five volts instead of three', () => {
    const { of, sampleRate } = traced('accents', 'join.out');
    const peaks = [0, 1, 2, 3, 4, 5, 6, 7].map((n) => {
      const part = of[0].subarray(n * 0.5 * sampleRate, (n + 1) * 0.5 * sampleRate);
      return Math.round(part.reduce((m, v) => Math.max(m, v), 0) * 100) / 100;
    });
    expect(peaks).toEqual([5, 3, 3, 5, 3, 3, 5, 3].map((v) => expect.closeTo(v, 1)));
  });

  it('hanging notes: the gate is high for two fifths of each step', () => {
    expect(reading('hanging-notes', 'contour.gate')).toMatchObject({ seenLow: 2, highPercent: expect.closeTo(40, 1) });
  });

  it('gated: still while the gate is low, three octaves while it is high', () => {
    const { low, high } = reading('gated-slow', 'soft.cutoff');
    expect([low, high]).toEqual([expect.closeTo(500 / 2 ** 1.5, 6), expect.closeTo(500 * 2 ** 1.5, 6)]);
    const { of } = traced('gated-slow', 'beat.out', 'depth.out');
    expect(most(of[0], (v, k) => (v === 0 ? Math.abs(of[1][k]!) : 0))).toBeLessThan(1e-12);
  });
});
