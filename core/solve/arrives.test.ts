import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { parsePatch } from '../document/parse';
import type { Target } from '../document/targets';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { planChain } from '../plan/plan';
import { standingsOf } from './problem/runner';
import { solve } from '../testing/unhurried';
import { editsOf } from './types';

const withTargets = (patch: Patch, ...targets: Target[]): Patch => ({ ...patch, targets });

/** A sine behind a lag that halves it, into a cutoff. */
const lagged = patchOf(
  {
    a: ['lfo', { shape: 'sine', rateHz: 1 }],
    lag: ['slew', { law: 'rc', rise: 1.4, fall: 1.4 }],
    t: ['offset', { amount: 1, volts: 0 }],
    x: ['filter', { cutoffHz: 500 }],
  },
  ['a.out > lag.in', 'lag.out > t.in', 't.out > x.cutoff'],
  { duration: 8, sampleRate: 2000 },
);
const asked: Target = { at: 'x.cutoff', quantity: 'frequency', low: 250, high: 1000, basis: 'arrives' };

describe('a target of what arrives', () => {
  it('is solved behind a lag for what is heard there, where the bound’s answer would miss', () => {
    const free = ['t.amount', 't.volts'];
    const patch = withTargets(lagged, asked);
    const { feasible, solutions } = solve(patch, { free });
    expect(feasible).toBe(true);
    const after = applyEdits(patch, editsOf(solutions[0]!));
    const { arrivesLow, arrivesHigh } = predict(after).readings.find((r) => r.at === 'x.cutoff')!;
    expect(Math.abs(Math.log2(arrivesLow! / 250))).toBeLessThan(0.011);
    expect(Math.abs(Math.log2(arrivesHigh! / 1000))).toBeLessThan(0.011);
    // By the bound the same figures are met at an amount of 0.2, and half of them arrives.
    const bound = solve(withTargets(lagged, { ...asked, basis: 'bound' }), { free }).solutions[0]!;
    expect(standingsOf(applyEdits(patch, editsOf(bound)))[0]!.met).toBe(false);
  });

  it('is the bound’s where nothing remembers, met within half a percent of the wanted span', () => {
    const straight = patchOf({ a: ['lfo', { lowVolts: -1, highVolts: 1.009 }], x: ['filter', { cutoffHz: 500 }] }, [
      'a.out > x.cutoff',
    ]);
    const { basis, ...old } = asked as Extract<Target, { basis?: unknown }>;
    expect(basis).toBe('arrives');
    expect(standingsOf(withTargets(straight, asked))[0]!.met).toBe(true);
    expect(standingsOf(withTargets(straight, old as Target))[0]!.met).toBe(false);
  });

  it('of a ducking is met by the depth at the hits', () => {
    const ducked = patchOf(
      {
        beat: ['clock', { bpm: 120 }],
        env: ['envelope', { mode: 'ad', attack: 0.005, decay: 0.2, peakVolts: 5 }],
        lag: ['slew', { law: 'rc', rise: 0.1, fall: 0.3 }],
        depth: ['attenuverter', { amount: -0.3 }],
        tone: ['oscillator'],
        amp: ['vca', { bias: 5 }],
      },
      ['beat.out > env.gate', 'env.out > lag.in', 'lag.out > depth.in', 'depth.out > amp.cv', 'tone.saw > amp.in'],
      { duration: 4, sampleRate: 4000 },
    );
    const target: Target = { at: 'amp.cv', quantity: 'gain', low: -6, high: null, basis: 'arrives' };
    const patch = withTargets(ducked, target);
    const { feasible, solutions } = solve(patch, { free: ['depth.amount'] });
    expect(feasible).toBe(true);
    const [reading] = predict(applyEdits(patch, editsOf(solutions[0]!))).readings.filter((r) => r.at === 'amp.cv');
    expect(reading!.arrivesLow!).toBeCloseTo(-6, 0);
    expect(reading!.low === null || reading!.low < -7).toBe(true);
  });

  it('is a field of ranges, limits and widths alone, one of two words', () => {
    const parse = (target: object) =>
      parsePatch({
        format: 'fenvo.patch',
        version: 1,
        modules: [{ id: 'x', kind: 'filter' }],
        targets: [target],
      });
    expect(parse(asked).ok).toBe(true);
    const wrong = parse({ ...asked, basis: 'seen' });
    expect(!wrong.ok && wrong.errors[0]).toMatchObject({ path: 'targets[0].basis' });
    const mean = parse({ at: 'x.cutoff', want: 'mean', quantity: 'frequency', value: 500, basis: 'arrives' });
    expect(!mean.ok && mean.errors[0]!.path).toBe('targets[0].basis');
  });
});

describe('a chain planned for what arrives', () => {
  it('behind a lag promises what is heard there', () => {
    const bare = {
      ...lagged,
      modules: lagged.modules.filter((m) => m.id !== 't'),
      cables: [{ from: 'a.out', to: 'lag.in' }],
    };
    const { proposals } = planChain({
      patch: bare,
      from: 'lag.out',
      to: 'x.cutoff',
      target: { quantity: 'frequency', low: 250, high: 1000, basis: 'arrives' },
      stages: 1,
    });
    const [best] = proposals;
    expect(best!.met).toBe(true);
    expect(best!.reading!.arrivesBy).toBe('settled');
    expect(Math.abs(Math.log2(best!.reading!.arrivesHigh! / 1000))).toBeLessThan(0.011);
  });
});
