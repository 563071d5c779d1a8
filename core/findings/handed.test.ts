import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import type { Patch } from '../document/types';
import { patchOf } from '../testing/patch';

const hand = (at: string, from: number, to: number) => ({
  at,
  points: [
    { t: 0, value: from },
    { t: 2, value: to },
  ],
  interpolation: 'linear',
  loop: false,
});
const codes = (patch: Patch): string[] => predict(patch, { cures: false }).findings.map((f) => f.code);

describe('what a hand turns is found fault with over all its way', () => {
  it('a gain that comes to clip', () => {
    const hot = (hands: readonly object[]) =>
      patchOf(
        { l: ['lfo', { lowVolts: -5, highVolts: 5 }], f: ['shaper', { clipVolts: 6 }], c: ['filter'] },
        ['l.out > f.in', 'f.out > c.cutoff'],
        { duration: 3 },
        { hands },
      );
    expect(codes(hot([]))).not.toContain('clip');
    expect(codes(hot([hand('f.gain', 1, 4)]))).toContain('clip');
  });

  it('a bias that comes to shut', () => {
    const tremolo = (hands: readonly object[]) =>
      patchOf(
        {
          l: ['lfo', { lowVolts: -1, highVolts: 1 }],
          o: ['oscillator'],
          a: ['vca', { bias: 4 }],
          x: ['lineOut', { padDb: 20 }],
        },
        ['o.sine > a.in', 'l.out > a.cv', 'a.out > x.left'],
        { duration: 3 },
        { hands },
      );
    expect(codes(tremolo([]))).toEqual([]);
    expect(codes(tremolo([hand('a.bias', 4, 0)]))).toContain('vca-shut');
  });

  it('a glide that comes to be late', () => {
    const steps = [0, 1, 0.25].map((volts) => ({ volts, gate: true, tie: false }));
    const glide = (hands: readonly object[]) =>
      patchOf(
        {
          c: ['clock'],
          s: ['sequencer', { steps }],
          g: ['slew', { law: 'rc', rise: 0.01, fall: 0.01 }],
          o: ['oscillator', { baseHz: 330 }],
        },
        ['c.out > s.clock', 's.cv > g.in', 'g.out > o.pitch'],
        { duration: 4 },
        { hands },
      );
    expect(codes(glide([]))).not.toContain('lag-late');
    expect(codes(glide([hand('g.rise', 0.01, 3), hand('g.fall', 0.01, 3)]))).toContain('lag-late');
  });
});
