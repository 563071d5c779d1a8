import { describe, expect, it } from 'vitest';
import type { Patch } from '../document/types';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { C4_HZ } from '../units/pitch';
import { predict } from './predict';
import type { Reading } from './readings';

const readingAt = (patch: Patch, at: string): Reading =>
  predict(patch, { cures: false }).readings.find((r) => r.at === at)!;

describe('readings in closed form', () => {
  it('an octave a volt: two octaves about the base, with their notes', () => {
    const patch = patchOf({ swell: ['lfo', { lowVolts: -1, highVolts: 1 }], tone: ['oscillator'] }, [
      'swell.out > tone.pitch',
    ]);
    const pitch = readingAt(patch, 'tone.pitch');
    expect(pitch).toMatchObject({ quantity: 'frequency', unit: 'Hz', driveVolts: [-1, 1] });
    expect(pitch.high! / pitch.low!).toBeCloseTo(4, 9);
    expect(pitch.octaves).toBeCloseTo(2, 9);
    const { low, high } = readingAt(
      patchOf({ hold: ['constant', { volts: 0 }], tone: ['oscillator', { baseHz: C4_HZ }] }, ['hold.out > tone.pitch']),
      'tone.pitch',
    );
    expect([low, high].map((hz) => hz!.toFixed(3))).toEqual([C4_HZ.toFixed(3), C4_HZ.toFixed(3)]);
  });
  it('an amplifier that half of a slow wave shuts: silence below, open above, shut for half of the time', () => {
    const patch = patchOf({ swell: ['lfo', { rateHz: 2 }], tone: ['oscillator'], amp: ['vca'] }, [
      'swell.out > amp.cv',
      'tone.saw > amp.in',
    ]);
    const gain = readingAt(patch, 'amp.cv');
    expect(gain).toMatchObject({ quantity: 'gain', unit: 'dB', low: null, silent: true });
    expect(gain.high).toBeCloseTo(0, 9);
    expect(gain.shutPercent).toBeCloseTo(50, 0);
  });
  it('linear gain in dB: half open is −6.02 dB', () => {
    const patch = patchOf({ hold: ['constant', { volts: 2.5 }], amp: ['vca'] }, ['hold.out > amp.cv']);
    const { low, high, mean } = readingAt(patch, 'amp.cv');
    for (const db of [low, high, mean]) expect(db).toBeCloseTo(20 * Math.log10(0.5), 6);
  });
  it('a level is an RMS beside its guaranteed peak, told against both nominal levels', () => {
    const patch = patchOf({ tone: ['oscillator', { baseHz: 100 }], out: ['lineOut', { padDb: 0 }] }, [
      'tone.sine > out.left',
    ]);
    const level = readingAt(patch, 'out.left');
    expect(level.quantity).toBe('level');
    expect(level.low).toBe(level.high);
    // A sine's peak is 3.01 dB over its RMS.
    expect(level.peakHigh! - level.high!).toBeCloseTo(20 * Math.log10(Math.SQRT2), 1);
    expect(level.overStudioDb).toBeCloseTo(level.high! - 4, 9);
    // −10 dBV in dBu: 20·lg(√0.6 of a volt) below.
    expect(level.overHomeDb).toBeCloseTo(level.high! + 10 + 20 * Math.log10(Math.sqrt(0.6)), 3);
  });
  it('pulses a second, as counted, and a gate that never comes or never goes', () => {
    const gate = (volts: number): Reading =>
      readingAt(patchOf({ hold: ['constant', { volts }], env: ['envelope'] }, ['hold.out > env.gate']), 'env.gate');
    expect(gate(5)).toMatchObject({ quantity: 'pulses', always: 'high' });
    expect(gate(0)).toMatchObject({ quantity: 'pulses', always: 'low', low: 0 });
    const beat = readingAt(
      patchOf({ beat: ['clock', { bpm: 240, width: 0.25 }], env: ['envelope'] }, ['beat.out > env.gate'], {
        duration: 4,
      }),
      'env.gate',
    );
    expect(beat).toMatchObject({ counted: true, always: null });
    expect(beat.low).toBeCloseTo(4, 1);
    expect(beat.highPercent).toBeCloseTo(25, 0);
  });
  it('volts where something is wanted that has no unit of its own; its own knob where nothing is plugged', () => {
    const patch: Patch = {
      ...patchOf({ swell: ['lfo'], trim: ['attenuverter', { amount: -0.4 }], tone: ['filter'] }, [
        'swell.out > trim.in',
      ]),
      targets: [{ at: 'trim.out', quantity: 'volts', low: -1, high: 1 }],
    };
    expect(readingAt(patch, 'trim.out')).toMatchObject({ quantity: 'volts', low: -2, high: 2, driveVolts: [-2, 2] });
    // Nothing moves it: its own knob is all that it reads.
    const { low, high } = readingAt(patch, 'tone.cutoff');
    expect([low, high]).toEqual([expect.closeTo(1000, 9), expect.closeTo(1000, 9)]);
  });
});

it('what is seen lies within what is read, in volts and in the unit, of random patches', () => {
  let looked = 0;
  for (let seed = 500; seed < 560; seed++) {
    const { readings } = predict(randomPatch(seed, { loops: seed % 3 === 0, duration: 0.05 }), { cures: false });
    for (const r of readings) {
      const { low, high, seenLow, seenHigh, driveVolts, seenDriveVolts } = r;
      if (seenDriveVolts && r.quantity !== 'pulses') {
        expect([r.at, seenDriveVolts[0] >= driveVolts[0] - 1e-9]).toEqual([r.at, true]);
        expect([r.at, seenDriveVolts[1] <= driveVolts[1] + 1e-9]).toEqual([r.at, true]);
      }
      if (seenLow === undefined || seenHigh === undefined || r.quantity === 'pulses') continue;
      looked++;
      const order = (x: number | null): number => x ?? -Infinity;
      const slack = 1e-9 * (1 + Math.abs(high ?? 0));
      expect([seed, r.at, order(seenLow) >= order(low) - slack]).toEqual([seed, r.at, true]);
      expect([seed, r.at, order(seenHigh) <= order(high) + slack]).toEqual([seed, r.at, true]);
    }
  }
  expect(looked).toBeGreaterThan(100);
});
