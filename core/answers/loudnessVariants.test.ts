import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { loudnessOver, loudnessVariantsOf } from './loudnessVariants';

const struck = patchOf(
  {
    beat: ['clock', { bpm: 60, width: 0.5 }],
    shape: ['envelope', { mode: 'ar', attack: 0.1, release: 0.3, peakVolts: 5 }],
    voice: ['oscillator'],
    amp: ['vca'],
  },
  ['beat.out > shape.gate', 'shape.out > amp.cv', 'voice.sine > amp.in'],
  { duration: 1 },
);
const at = (points: readonly { t: number; db: number | null }[], t: number) =>
  points.reduce((best, p) => (Math.abs(p.t - t) < Math.abs(best.t - t) ? p : best));

describe('the loudnessVariants of loudness', () => {
  it('are four: straight or curved, linear or exponential', () => {
    expect(loudnessVariantsOf(struck, 'amp').map((s) => s.name)).toEqual([
      'straight contour, linear amplifier',
      'curved contour, linear amplifier',
      'straight contour, exponential amplifier',
      'curved contour, exponential amplifier',
    ]);
    expect(loudnessVariantsOf(struck, 'voice')).toEqual([]);
  });

  it('fall as their closed forms say', () => {
    const [plain, , exponential] = loudnessOver(struck, 'amp');
    // The gate falls after half a second; half way down a straight contour stands at half.
    const half = at(plain!.points, 0.65);
    const left = 1 - (half.t - 0.5) / 0.3;
    expect(half.db).toBeCloseTo(20 * Math.log10(left), 1);
    const there = at(exponential!.points, 0.65);
    const k = Math.log(1000);
    expect(there.db).toBeCloseTo(20 * Math.log10(Math.expm1(k * left) / Math.expm1(k)), 1);
    expect(at(plain!.points, 0.45).db).toBeCloseTo(0, 6);
    expect(at(plain!.points, 0.95).db).toBeNull();
  });

  it('are two where no contour leads to the amplifier', () => {
    const pedal = patchOf({ hand: ['constant', { volts: 2 }], amp: ['vca'] }, ['hand.out > amp.cv']);
    expect(loudnessVariantsOf(pedal, 'amp').map((s) => s.name)).toEqual(['linear amplifier', 'exponential amplifier']);
  });
});
