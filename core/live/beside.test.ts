import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { gainOf } from '../units/ratios';
import { Listening } from './listening';
import { Player } from './player';
import { Ticks } from './ticks';
import { Tone, TONE_HZ } from './tone';

const RATE = 48_000;

/** Times of rising zero crossings, between samples. */
const crossings = (x: ArrayLike<number>): number[] => {
  const found: number[] = [];
  for (let i = 1; i < x.length; i++) {
    const [a, b] = [x[i - 1]!, x[i]!];
    if (a < 0 && b >= 0) found.push(i - 1 + a / (a - b));
  }
  return found;
};
const hertz = (x: ArrayLike<number>): number => {
  const at = crossings(x);
  return ((at.length - 1) * RATE) / (at.at(-1)! - at[0]!);
};
const cents = (a: number, b: number): number => 1200 * Math.log2(a / b);

describe('a voltage as a tone', () => {
  const toneOf = (volts: number, seconds = 1): Float64Array => {
    const tone = new Tone(RATE);
    tone.sound(true);
    const [left, right] = [new Float64Array(seconds * RATE), new Float64Array(seconds * RATE)];
    tone.add(new Float64Array(left.length).fill(volts), left, right, 0, left.length);
    expect(right).toEqual(left);
    return left;
  };
  it.each([0, 4, -4, 8, 2.5, -12])('is 440 Hz at 0 V and an octave higher every 4 V: %s V', (volts) => {
    expect(Math.abs(cents(hertz(toneOf(volts)), TONE_HZ * 2 ** (volts / 4)))).toBeLessThan(0.1);
  });
  it('is soft, comes in and goes without a click', () => {
    const on = toneOf(0);
    expect(on.reduce((m, v) => Math.max(m, Math.abs(v)), 0)).toBeCloseTo(0.5, 3);
    // At most the sine's own slope and the fade's.
    const slope = 0.5 * ((2 * Math.PI * 440) / RATE) + 0.5 / (0.02 * RATE);
    expect(on.reduce((m, v, i) => Math.max(m, Math.abs(v - (on[i - 1] ?? 0))), 0)).toBeLessThan(slope);
  });
  it('is heard beside the sound, and is gone with it', () => {
    const player = new Player(patchOf({ c: ['constant', { volts: 4 }], quiet: ['offset'] }, []), RATE, {
      left: 'quiet.out',
      right: 'quiet.out',
      gain: 1,
    });
    player.listening.setLevel(0);
    const heard = (): Float32Array => {
      const left = new Float32Array(RATE - (RATE % 128));
      const right = new Float32Array(128);
      for (let k = 0; k < left.length; k += 128) player.next(left.subarray(k, k + 128), right, 128);
      return left;
    };
    player.setTone('c.out');
    expect(cents(hertz(heard().subarray(RATE / 4)), 880)).toBeCloseTo(0, 1);
    player.setTone(null);
    heard();
    expect(heard().reduce((m, v) => Math.max(m, Math.abs(v)), 0)).toBeLessThan(1e-6);
  });
});

describe('ticks', () => {
  it('begin at their samples, whatever the blocks, the first of four higher', () => {
    for (const block of [64, 128, 1000]) {
      const ticks = new Ticks(RATE);
      const at = [1000, 13_000, 25_000, 37_000, 49_000];
      ticks.count(at);
      const out = new Float64Array(60_000);
      for (let k = 0; k < out.length; k += block) {
        const [left, right] = [new Float64Array(block), new Float64Array(block)];
        ticks.add(k, left, right, 0, block);
        out.set(left.subarray(0, Math.min(block, out.length - k)), k);
      }
      const begins = at.map((k) => out.findIndex((v, i) => i >= k - 100 && v !== 0) - k);
      expect(begins).toEqual([1, 1, 1, 1, 1]);
      const pitch = at.map((k) => Math.round(hertz(out.subarray(k + 100, k + 1000)) / 100) * 100);
      expect(pitch).toEqual([1500, 1000, 1000, 1000, 1500]);
      expect(out.subarray(3000, 12_900).every((v) => v === 0)).toBe(true);
    }
  });
});

describe('the balance of the ears', () => {
  it.each([
    [0, 1, 1],
    [0.5, 0.5, 1],
    [1, 0, 1],
    [-0.25, 1, 0.75],
    [-1, 1, 0],
  ])('at %s leaves %s of the left one and %s of the right one', (balance, left, right) => {
    const listening = new Listening(RATE);
    listening.setLevel(-20);
    listening.start();
    listening.setBalance(balance);
    const sine = Float64Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * 500 * i) / RATE));
    const [l, r] = [new Float32Array(RATE), new Float32Array(RATE)];
    listening.process(sine, sine, l, r, RATE);
    const peak = (x: Float32Array): number => x.subarray(RATE / 2).reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    expect(peak(l)).toBeCloseTo(0.1 * gainOf(-20) * left, 4);
    expect(peak(r)).toBeCloseTo(0.1 * gainOf(-20) * right, 4);
  });
});
