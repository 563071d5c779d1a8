import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { predict } from './predict';

type Parts = Parameters<typeof patchOf>[0];
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const dbu = (volts: number): number => 20 * Math.log10(volts / 0.7746);
const osc = ['oscillator', { baseHz: 440 }] as const;
const told = (parts: object, cables: readonly string[], settings: object = {}) =>
  predict(patchOf(parts as Parts, cables, { duration: 1, sampleRate: 8000, ...settings }), { cures: false }).noise!;

describe('noise at a line output', () => {
  it('is the square sum of what each output adds, weighed by the gain that follows', () => {
    fc.assert(
      fc.property(within(0.1, 1), within(0.1, 1), within(0, 30), (first, second, padDb) => {
        const parts = {
          o: osc,
          a: ['attenuverter', { amount: first }],
          b: ['attenuverter', { amount: second }],
          x: ['lineOut', { padDb }],
        };
        const { 'x.left': noise } = told(parts, ['o.sine > a.in', 'a.out > b.in', 'b.out > x.left'], {
          loading: 'electrical',
        });
        const volts = 30e-6 * Math.hypot(first * second, second, 1);
        expect(noise!.playingDbu).toBeCloseTo(dbu(volts) - padDb, 1);
        expect(noise!.restDbu).toBeCloseTo(noise!.playingDbu!, 9);
        expect(noise!.signalToNoiseDb).toBeCloseTo(20 * Math.log10((first * second * 5) / Math.SQRT2 / volts), 1);
      }),
      { numRuns: 15 },
    );
  });
  it('follows a gain’s root mean square as it plays, and its envelope at rest', () => {
    // A square of 5 V half of the time: the gain's RMS is √½. At rest the amplifier's own 80 µV is all.
    const k = ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }] as const;
    const parts = { o: osc, k, a: ['vca'], x: ['lineOut'] };
    const playing = told(parts, ['o.sine > a.in', 'k.out > a.cv', 'a.out > x.left'])['x.left']!;
    expect(playing.playingDbu).toBeCloseTo(dbu(Math.hypot(30e-6 * Math.SQRT1_2, 80e-6)), 1);
    const e = ['envelope', { peakVolts: 5 }];
    const struck = told({ ...parts, e }, ['o.sine > a.in', 'k.out > e.gate', 'e.out > a.cv', 'a.out > x.left'])[
      'x.left'
    ]!;
    expect(struck.restDbu).toBeCloseTo(dbu(80e-6), 1);
    expect(struck.playingDbu!).toBeGreaterThan(struck.restDbu!);
  });
  it('is what a module says of itself, none of passive parts, and none where all is ideal', () => {
    const cables = ['o.sine > p.in', 'p.out > x.left'];
    const passive = ['attenuator', { build: 'passive' }];
    const loud = [...osc, { noiseMicrovolts: 1000 }];
    expect(told({ o: loud, p: passive, x: ['lineOut'] }, cables)['x.left']!.playingDbu).toBeCloseTo(dbu(1e-3), 1);
    expect(told({ o: loud, p: passive, x: ['lineOut'] }, cables, { loading: 'ideal' })['x.left']).toEqual({
      restDbu: null,
      playingDbu: null,
      signalToNoiseDb: null,
    });
  });
  it('sums the same path twice, and takes no longer for many ways', () => {
    const stages = Object.fromEntries(
      Array.from({ length: 24 }, (_, i) => [`m${i}`, ['mixer', { inputs: 2, gain1: 0.5, gain2: 0.5 }]]),
    );
    const cables = Array.from({ length: 24 }, (_, i) => {
      const from = i === 0 ? 'o.sine' : `m${i - 1}.out`;
      return [`${from} > m${i}.in1`, `${from} > m${i}.in2`];
    }).flat();
    const noise = told({ o: osc, ...stages, x: ['lineOut'] }, [...cables, 'm23.out > x.left'], { loading: 'ideal' });
    expect(noise['x.left']!.playingDbu).toBeNull();
    const real = told({ o: osc, ...stages, x: ['lineOut'] }, [...cables, 'm23.out > x.left']);
    // Each stage halves the power of what comes: 30 µV · √(1 + ½ + ¼ + …).
    expect(real['x.left']!.playingDbu).toBeCloseTo(dbu(30e-6 * Math.SQRT2), 1);
  });
});
