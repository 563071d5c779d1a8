import { flippedAmounts } from '../problem/flips';
import type { Look, Problem } from '../problem/problem';
import { marginOf } from './search';
import type { Found } from './search';

interface Key {
  readonly flips: number;
  readonly margin: number;
  readonly travel: number;
  readonly spread: number;
  readonly open: number;
}

/**
 * Fewest knobs, then those that keep the sign of every amount, then the widest margin, then the least travel, then what
 * the knobs' own errors disturb least, then amounts high.
 */
export function ranked(problem: Problem, found: readonly Found[]): Found[] {
  const keys = new Map(found.map((f) => [f, keyOf(problem, f)]));
  return found.toSorted((a, b) => {
    if (a.moved.length !== b.moved.length) return a.moved.length - b.moved.length;
    const [x, y] = [keys.get(a) as Key, keys.get(b) as Key];
    if (x.flips !== y.flips) return x.flips - y.flips;
    if (Math.abs(x.margin - y.margin) > 1e-6) return y.margin - x.margin;
    if (Math.abs(x.travel - y.travel) > 1e-6) return x.travel - y.travel;
    if (Math.abs(x.spread - y.spread) > 0.01 * Math.max(x.spread, y.spread)) return x.spread - y.spread;
    return y.open - x.open;
  });
}

function keyOf(problem: Problem, look: Found): Key {
  const { start } = problem.trials;
  return {
    flips: flippedAmounts(problem, look).length,
    margin: marginOf(look),
    travel: look.x.reduce((sum, v, i) => sum + Math.abs(v - (start[i] as number)), 0),
    spread: spreadOf(problem, look),
    open: openness(problem, look),
  };
}

/** What a hundredth of every knob's travel makes of the drives' ends, all together, volts. */
function spreadOf(problem: Problem, { x, errors }: Look): number {
  if (problem.traced) return 0;
  let squares = 0;
  for (const i of x.keys()) {
    const off = Float64Array.from(x);
    off[i] = (x[i] as number) + ((x[i] as number) > 0.5 ? -0.01 : 0.01);
    problem.look(off).errors.forEach(({ reached }, t) => {
      const before = errors[t]?.reached ?? reached;
      squares += (reached[0] - before[0]) ** 2 + (reached[1] - before[1]) ** 2;
    });
  }
  return Math.sqrt(squares);
}

/** Amounts high and levels low: what comes in loud needs no offset behind. */
function openness({ trials }: Problem, { x }: Look): number {
  return trials.knobs.reduce((sum, { module, param, travel }, i) => {
    const m = trials.modules[module];
    const amount = m?.inputs.some((s) => s.spec.amount === param) ?? false;
    const p = x[i] as number;
    const size = travel.min < 0 ? Math.abs(2 * p - 1) : p;
    return sum + (amount ? size : m?.kind.stage?.amplifier?.bias === param ? -size : 0);
  }, 0);
}
