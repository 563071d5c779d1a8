import { describe, expect, it } from 'vitest';
import { buildGraph } from '../graph/graph';
import { knobsOf } from '../kinds/knobs';
import type { Patch, Target } from '../document/types';
import { randomChain, rangeOf, scattered } from '../testing/chains';
import { freeKnobs } from './problem/knobs';
import { solve } from '../testing/unhurried';

/** The long form, `FENVO_ROUNDS=2000`, has four bent chains to sixteen straight ones. */
const STRAIGHT = Number(process.env.FENVO_ROUNDS ?? 240);
const BENT = Math.ceil(STRAIGHT / 4);
const NEVER = 300;

/** A chain's own reading as what is wanted, its knobs scattered. */
function riddle(seed: number, bent: boolean): Patch {
  const chain = randomChain(seed, bent);
  const target = rangeOf(chain)!;
  const knobs = freeKnobs(buildGraph(chain), [target]).filter((k) => k.travel.taper === 'linear');
  const spans = knobs.map(({ id, param, travel }) => ({ id, param, min: travel.min, max: travel.max }));
  return { ...scattered(chain, seed, spans), targets: [target] };
}

function unsolved(count: number, bent: boolean): number[] {
  const seeds = Array.from({ length: count }, (_, seed) => seed);
  const failed = seeds.filter((seed) => !solve(riddle(seed, bent), { plain: true, seconds: Infinity }).feasible);
  console.log(`${bent ? 'bent' : 'straight'} chains: ${count - failed.length} of ${count} solved back`);
  return failed;
}

/** The most that a straight chain can make of its source, volts: every gain at its end, and the rails. */
function mostSpan(patch: Patch): number {
  const graph = buildGraph(patch);
  const gains = graph.modules.flatMap((m) => {
    if (m.kind.category === 'source') return [];
    const amounts = m.inputs.flatMap((s) => (s.driver.type === 'output' && s.spec.amount ? [s.spec.amount] : []));
    const known = knobsOf(m.kind, m.params).filter((k) => amounts.includes(k.name) || k.name === 'gain1');
    return known.map((k) => Math.max(Math.abs(k.min), Math.abs(k.max)));
  });
  const { lowVolts, highVolts } = graph.modules[0]!.params as { lowVolts: number; highVolts: number };
  return gains.reduce((span, gain) => span * gain, highVolts - lowVolts);
}

describe('solving back', () => {
  it(`meets every one of ${STRAIGHT} straight chains`, () => {
    expect(unsolved(STRAIGHT, false)).toEqual([]);
  });
  it(`meets at least 97 of 100 bent ones, of ${BENT}`, () => {
    expect(unsolved(BENT, true).length).toBeLessThanOrEqual(0.03 * BENT);
  });
  it(`says of ${NEVER} ranges wider than any knobs can make that they cannot be`, () => {
    const claimed: number[] = [];
    for (let seed = 0; seed < NEVER; seed++) {
      const chain = randomChain(5000 + seed, false);
      const { at } = rangeOf(chain)!;
      const span = 1.01 * mostSpan(chain) + 0.1;
      const target: Target = { at, quantity: 'volts', low: -span / 2, high: span / 2 };
      const answer = solve(
        { ...chain, targets: [target] },
        { seconds: Infinity, ...(seed % 10 === 0 ? { plain: true } : { live: true }) },
      );
      if (answer.feasible) claimed.push(seed);
      else expect(answer.nearest!.targets[0]!.error).toBeGreaterThan(0);
    }
    expect(claimed).toEqual([]);
  });
});
