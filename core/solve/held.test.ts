import { describe, expect, it } from 'vitest';
import type { Patch, Target } from '../document/types';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { patchOf } from '../testing/patch';
import { isIdle, freeKnobs } from './problem/knobs';
import { standingsOf } from './problem/runner';
import { solve } from '../testing/unhurried';
import { editsOf } from './types';

/** One knob is turned in small steps while the others hold what only a run tells; how often it was met. */
function held(patch: Patch, target: Target, module: string, param: string, values: readonly number[]): number {
  const wanted = { ...patch, targets: [target] };
  const first = solve(wanted, { plain: true, seconds: Infinity }).solutions[0]!;
  let now = applyEdits(wanted, editsOf(first));
  let met = 0;
  for (const value of values) {
    const turned = applyEdits(now, [{ do: 'set', module, param, value }]);
    const answer = solve(turned, { live: true, seconds: Infinity, held: [`${module}.${param}`] });
    const best = answer.solutions[0] ?? answer.nearest!;
    expect(best.settings.map((s) => s.at)).not.toContain(`${module}.${param}`);
    now = applyEdits(turned, editsOf(best));
    expect(answer.feasible).toBe(standingsOf(now)[0]!.met);
    if (answer.feasible) met++;
  }
  return met;
}

const rising = (from: number, by: number): number[] => Array.from({ length: 6 }, (_, k) => from + by * k);

describe('while one knob turns, the others hold what only a run tells', () => {
  it('a mean behind a lag', () => {
    const patch = patchOf(
      {
        swell: ['lfo', { shape: 'pulse', rateHz: 2 }],
        lag: ['slew', { law: 'rc', rise: 0.4, fall: 0.4 }],
        lift: ['offset', { amount: 0.5 }],
        tone: ['filter'],
      },
      ['swell.out > lag.in', 'lag.out > lift.in', 'lift.out > tone.cutoff'],
      { duration: 4 },
    );
    const target: Target = { at: 'tone.cutoff', want: 'mean', quantity: 'volts', value: 1 };
    expect(held(patch, target, 'lift', 'amount', rising(0.5, 0.05))).toBe(6);
  });
  it('how long a gate is on', () => {
    const patch = patchOf(
      { swell: ['lfo', { rateHz: 2 }], lift: ['offset', { volts: 1 }], env: ['envelope'] },
      ['swell.out > lift.in', 'lift.out > env.gate'],
      { duration: 2 },
    );
    expect(held(patch, { at: 'env.gate', want: 'duty', percent: 30 }, 'lift', 'amount', rising(0.8, 0.02))).toBe(6);
  });
  it('says so where what is left cannot', () => {
    const patch = patchOf(
      { swell: ['lfo', { rateHz: 2 }], trim: ['attenuator', { amount: 0.9 }], env: ['envelope'] },
      ['swell.out > trim.in', 'trim.out > env.gate'],
      { duration: 2 },
    );
    // A triangle about 0 V is never above 1 V for half of the time.
    const wanted = { ...patch, targets: [{ at: 'env.gate', want: 'duty', percent: 60 } as const] };
    const answer = solve(wanted, { live: true, held: ['trim.amount'] });
    expect(answer.feasible).toBe(false);
    expect(answer.nearest?.targets[0]!.error).toBeGreaterThan(0.1);
  });
});

it('a knob that scales nothing is never tried', () => {
  const idle = (patch: Patch): string[] => {
    const graph = buildGraph(patch);
    return freeKnobs(graph, [{ at: 'tone.cutoff', quantity: 'volts', low: 0, high: 1 }])
      .filter((k) => isIdle(graph, k))
      .map((k) => k.name);
  };
  const parts = { swell: ['lfo'], trim: ['attenuverter'], tone: ['filter'] } as const;
  const cables = ['swell.out > trim.in', 'trim.out > tone.cutoff'];
  expect(idle(patchOf(parts, cables))).toEqual(['tone.cutoff2Amount']);
  const plugged = patchOf(parts, [...cables, 'swell.sine > tone.cutoff2']);
  expect(idle(plugged)).toEqual([]);
});
