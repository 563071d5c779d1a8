import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gainOf } from '../units/ratios';
import { HEADROOM_DB, LOOK_AHEAD, Limiter } from './limiter';
import { CEILING_DB, FADE_IN, Listening } from './listening';

const RATE = 48_000;
const BLOCK = 128;
const ceiling = gainOf(CEILING_DB);

/** What is heard of a voltage, both channels alike; `until` seconds. */
function heardOf(listening: Listening, volts: (t: number) => number, until: number, from = 0): Float32Array {
  const out = new Float32Array(Math.round(until * RATE));
  for (let k = 0; k + BLOCK <= out.length; k += BLOCK) {
    const input = Float64Array.from({ length: BLOCK }, (_, i) => volts(from + (k + i) / RATE));
    const [left, right] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
    listening.process(input, input, left, right, BLOCK);
    out.set(left, k);
  }
  return out;
}
const peakOf = (x: Float32Array): number => x.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
const tone =
  (volts: number, hz = 440) =>
  (t: number) =>
    volts * Math.sin(2 * Math.PI * hz * t);

describe('the limiter', () => {
  it('lets nothing over its ceiling, whatever comes', () => {
    const sample = fc.oneof(
      fc.double({ min: -1, max: 1, noNaN: true }),
      fc.double({ min: -100, max: 100, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(sample, { minLength: 1, maxLength: 600 }), (samples) => {
        const limiter = new Limiter(RATE, ceiling);
        const [left, right] = [Float32Array.from(samples), Float32Array.from(samples)];
        limiter.process(left, right, samples.length);
        return peakOf(left) <= ceiling + 1e-7 && peakOf(right) <= ceiling + 1e-7;
      }),
    );
  });

  it('passes what is quieter as it is, late by its look-ahead', () => {
    const limiter = new Limiter(RATE, ceiling);
    const samples = Float32Array.from({ length: 1000 }, (_, i) => 0.5 * Math.sin(i / 7));
    const [left, right] = [samples.slice(), samples.slice()];
    limiter.process(left, right, 1000);
    for (let i = LOOK_AHEAD; i < 1000; i++) expect(left[i]).toBeCloseTo(samples[i - LOOK_AHEAD]!, 6);
    expect(limiter.reduction()).toBeCloseTo(0, 9);
  });

  it('says by how much it holds back', () => {
    const limiter = new Limiter(RATE, ceiling);
    const loud = Float32Array.from({ length: 2000 }, (_, i) => 4 * Math.sin(i / 7));
    limiter.process(loud, loud.slice(), 2000);
    expect(limiter.reduction()).toBeCloseTo(20 * Math.log10(4 / ceiling) + HEADROOM_DB, 0);
  });
});

describe('the way to the ears', () => {
  it('starts silent at −30 dB and comes in over 0.3 s', () => {
    const out = heardOf(new Listening(RATE), tone(5), 1);
    expect(peakOf(out.subarray(0, 480))).toBeLessThan(0.001);
    // A volt is 0.1 of full scale, 30 dB down.
    const full = 5 * 0.1 * gainOf(-30);
    const half = Math.round((FADE_IN / 2) * RATE);
    expect(peakOf(out.subarray(half - 60, half + 60))).toBeCloseTo(full / 2, 3);
    expect(peakOf(out.subarray(RATE / 2))).toBeCloseTo(full, 4);
  });

  it('blocks constant voltage, and falls silent at once', () => {
    const listening = new Listening(RATE);
    listening.setLevel(0);
    expect(peakOf(heardOf(listening, () => 8, 1).subarray(RATE / 2))).toBeLessThan(1e-6);
    heardOf(listening, tone(2), 0.5);
    listening.stop();
    const after = heardOf(listening, tone(2), 0.1);
    // The limiter’s look-ahead, and 3 ms against a click.
    expect(peakOf(after.subarray(Math.ceil(0.003 * RATE) + LOOK_AHEAD))).toBe(0);
  });

  it('never passes its ceiling, and its level ends at 0 dB', () => {
    const listening = new Listening(RATE);
    listening.setLevel(40);
    const out = heardOf(listening, tone(12), 3);
    expect(peakOf(out)).toBeLessThanOrEqual(ceiling + 1e-7);
    expect(listening.heard().reduction).toBeGreaterThan(0);
    const quiet = new Listening(RATE);
    quiet.setLevel(40);
    heardOf(quiet, tone(2), 2);
    expect(peakOf(heardOf(quiet, tone(2), 0.5, 2))).toBeCloseTo(0.2, 3);
  });

  it('holds back a jump of over 12 dB and says so; what was loud a moment ago may be loud again', () => {
    const listening = new Listening(RATE);
    listening.setLevel(0);
    heardOf(listening, tone(0.3), 2);
    listening.heard();
    listening.guard();
    const jump = heardOf(listening, tone(6), 0.05, 2);
    // From 0.03 of full scale, or −30 dB, by 12 dB.
    expect(peakOf(jump)).toBeLessThan(gainOf(-30) * gainOf(12) * gainOf(0.1));
    expect(listening.heard().heldBack).toBeGreaterThan(10);
    heardOf(listening, tone(6), 2);
    listening.heard();
    heardOf(listening, () => 0, 0.5);
    listening.guard();
    expect(peakOf(heardOf(listening, tone(6), 0.2))).toBeCloseTo(0.6, 1);
    expect(listening.heard().heldBack).toBeLessThan(1);
  });

  it('spoils no playing: from the second hit on all is as without a guard, whatever the clock and the decay', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 300 }), fc.double({ min: 0.01, max: 2, noNaN: true }), (bpm, decay) => {
        const every = 60 / bpm;
        const hits = (t: number): number => 9 * Math.exp((-5 * (t % every)) / decay) * Math.sin(2 * Math.PI * 200 * t);
        const [guarded, free] = [new Listening(RATE), new Listening(RATE)];
        guarded.setLevel(0);
        free.setLevel(0);
        guarded.start();
        const until = Math.max(4 * every, 1);
        const [a, b] = [heardOf(guarded, hits, until), heardOf(free, hits, until)];
        const from = Math.ceil(Math.max(every, FADE_IN + 0.05) * RATE) + LOOK_AHEAD;
        let most = 0;
        for (let k = from; k < a.length; k++) most = Math.max(most, Math.abs(a[k]! - b[k]!));
        // A hundredth of a dB of the loudest.
        expect(most).toBeLessThan(0.00115 * peakOf(b.subarray(from)));
      }),
      { numRuns: 25 },
    );
  });

  it('holds back what an edit makes forty dB louder, and lets a player be as loud at any other time', () => {
    const played = (guard: boolean): number => {
      const listening = new Listening(RATE);
      listening.setLevel(0);
      heardOf(listening, tone(0.1), 4);
      if (guard) listening.guard();
      listening.heard();
      return 20 * Math.log10(peakOf(heardOf(listening, tone(8), 0.04, 4)));
    };
    // From −30 dBFS, which counts as the least that was heard, by 12 dB.
    expect(played(true)).toBeLessThan(-17.9);
    expect(played(false)).toBeGreaterThan(-2.5);
  });

  it('makes two things that are compared equally loud', () => {
    const listening = new Listening(RATE);
    listening.setMatch(-6);
    heardOf(listening, tone(5), 1);
    expect(peakOf(heardOf(listening, tone(5), 0.5, 1))).toBeCloseTo(0.5 * gainOf(-36), 4);
  });
});
