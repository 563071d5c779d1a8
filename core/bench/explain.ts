import type { Patch } from '../document/types';
import type { ChannelLimits } from '../rack/limits';
import type { Asset } from '../sheet/expect';
import { PRICES } from './faults';
import type { Fault } from './faults';
import type { Hypothesis } from './hypotheses';
import { logLikelihood } from './likelihood';
import { meterShare } from './figures';
import { Looks } from './looks';
import type { BenchReading } from './readings';

export interface DiagnoseOptions {
  readonly asset?: Asset;
  /** What the channels allow that the patch sits on. */
  readonly channels?: ChannelLimits | null;
  readonly progress?: (share: number) => void;
}

/** Figures as a fault makes them, and how far what is drawn by chance takes each, one sigma. */
interface Foreseen {
  readonly predicted: readonly number[];
  readonly wander: readonly number[];
}

/** Faults as they were tried against the readings. */
export interface Tried extends Foreseen {
  readonly faults: readonly Fault[];
  readonly logLikelihood: number;
  readonly score: number;
}

/** One sigma of what a fault moves a figure by: some knob’s share of its travel. */
const MOVED = 0.02;

/** Readings of one patch, and what can be wrong with it. */
export class Case {
  readonly looks: Looks;
  readonly sigmas: readonly number[];

  constructor(
    readonly patch: Patch,
    readonly readings: readonly BenchReading[],
    options: DiagnoseOptions,
  ) {
    this.looks = new Looks(patch, readings, options);
    this.sigmas = readings.map((r, i) => this.looks.sigma(i, this.share(i)));
  }

  /** An instrument's share of a reading. */
  share(i: number): number {
    const r = this.readings[i] as BenchReading;
    return r.plusMinus ?? meterShare(r.quantity, this.looks.planned[i] ?? 0);
  }

  /** What a figure is sure to with a fault in the patch: what it comes to otherwise, modules are off by too. */
  private sigmaAt(i: number, { predicted, wander }: Foreseen): number {
    const moved = (predicted[i] as number) - (this.looks.planned[i] ?? 0);
    return Math.hypot(this.sigmas[i] as number, MOVED * moved, wander[i] ?? 0);
  }

  likelihoodOf(foreseen: Foreseen): number {
    return this.readings.reduce(
      (sum, { value }, i) => sum + logLikelihood(value - (foreseen.predicted[i] as number), this.sigmaAt(i, foreseen)),
      0,
    );
  }

  offBy(i: number, foreseen: Foreseen): number {
    const { value } = this.readings[i] as BenchReading;
    return Math.abs(value - (foreseen.predicted[i] as number)) / this.sigmaAt(i, foreseen);
  }

  tried(faults: readonly Fault[], solved: number): Tried {
    const { figures: predicted, wander } = this.looks.look(faults);
    const likelihood = this.likelihoodOf({ predicted, wander });
    const price = faults.reduce((sum, f) => sum + PRICES[f.kind], 0);
    const score = likelihood - price - (solved * Math.log(Math.max(1, this.readings.length))) / 2;
    return { faults, predicted, wander, logLikelihood: likelihood, score };
  }
}

/** Positions that are tried first of a value that is solved for, and those between where the first leave any hope. */
const ENDS = [0.02, 0.98] as const;
const FINER = [0.25, 0.5, 0.75] as const;
/** What is nearer to where it was planned is not tried: that is known. */
const NEAR = { ends: 0.005, finer: 0.1 } as const;
/** Places between two of them that are guessed at, straight; how many of the best are tried, and how often improved. */
const BETWEEN = 12;
const TRIED = 2;
const IMPROVED = 3;
/** What is guessed to be worse than the best known by more is not tried any closer. */
const HOPELESS = 15;
/** The same, where it is guessed from the first positions alone. */
const FORLORN = 60;
/** A value far from where it was planned is less likely than one close to it that explains as much. */
const FAR = 0.3;

/**
 * The best of a hypothesis, beside faults that are there already; null where it is none.
 *
 * @param beside what is there already: the plan, or one fault with so many values that were solved for.
 * @param known the best score of all that was tried by now.
 */
export function best(of: Case, hypothesis: Hypothesis, known: number, beside: Tried, solved = 0): Tried | null {
  if (hypothesis.is === 'fixed') return of.tried([...beside.faults, hypothesis.fault], solved);
  const { planned } = hypothesis;
  const far = (position: number): number => FAR * Math.abs(position - planned);
  const at = (position: number): At | null => {
    const fault = hypothesis.at(position);
    if (!fault) return null;
    const tried = of.tried([...beside.faults, fault], solved + 1);
    return { position, tried: { ...tried, score: tried.score - far(position) } };
  };
  const triedAt = (positions: readonly number[], near: number): At[] =>
    positions.filter((p) => Math.abs(p - planned) > near).flatMap((p) => at(p) ?? []);
  const ends = triedAt(ENDS, NEAR.ends);
  const [one] = ends;
  if (!one) return null;
  // As planned there is no fault: it shows where figures come from, and is never an answer.
  const asPlanned: At = { position: planned, tried: { ...beside, score: -Infinity } };
  const price = (position: number): number =>
    one.tried.logLikelihood - one.tried.score - far(one.position) + far(position);
  const guessed = (tried: readonly At[]): Guess[] =>
    guesses(
      of,
      [...tried, asPlanned].toSorted((a, b) => a.position - b.position),
      price,
    );
  const hope = Math.max(...[...ends.map((a) => a.tried), ...guessed(ends)].map((x) => x.score));
  const grid = hope < known - FORLORN ? ends : [...ends, ...triedAt(FINER, NEAR.finer)];
  const climbed = guessed(grid)
    .filter((g) => g.score > known - HOPELESS)
    .flatMap(({ position, near }) => {
      const first = at(position);
      return first ? [improved(of, at, first, near)] : [];
    });
  return [...grid, ...climbed].toSorted((a, b) => b.tried.score - a.tried.score)[0]?.tried ?? null;
}

interface Guess {
  readonly position: number;
  readonly near: At;
  readonly score: number;
}

/** The most likely places between positions that were tried, were all straight between them; the best first. */
function guesses(of: Case, grid: readonly At[], price: (position: number) => number): Guess[] {
  const found = grid.slice(1).flatMap((b, n) => {
    const a = grid[n] as At;
    const all = Array.from({ length: BETWEEN }, (_, i) => {
      const share = (i + 0.5) / BETWEEN;
      const predicted = a.tried.predicted.map((v, k) => v + share * ((b.tried.predicted[k] as number) - v));
      const position = a.position + share * (b.position - a.position);
      return {
        position,
        near: share < 0.5 ? a : b,
        score: of.likelihoodOf({ predicted, wander: a.tried.wander }) - price(position),
      };
    });
    return [all.reduce((x, y) => (y.score > x.score ? y : x))];
  });
  return found.toSorted((a, b) => b.score - a.score).slice(0, TRIED);
}

/** Gauss and Newton in one unknown, the slope by the two best. */
function improved(of: Case, at: (position: number) => At | null, from: At, beside: At): At {
  let [one, two] = from.tried.score > beside.tried.score ? [from, beside] : [beside, from];
  for (let n = 0; n < IMPROVED; n++) {
    const position = Math.min(1, Math.max(0, one.position + newtonStep(of, one, two)));
    if (Math.abs(position - one.position) < 1e-4) break;
    const next = at(position);
    if (!next) break;
    [one, two] = next.tried.score > one.tried.score ? [next, one] : [one, next];
  }
  return one;
}

interface At {
  readonly position: number;
  readonly tried: Tried;
}

/** How far the better of two positions is from where readings are met best, were all straight between them. */
function newtonStep(of: Case, one: At, two: At): number {
  let [down, slope] = [0, 0];
  of.readings.forEach(({ value }, i) => {
    const sigma = of.sigmas[i] as number;
    const here = one.tried.predicted[i] as number;
    const change = ((two.tried.predicted[i] as number) - here) / (two.position - one.position) / sigma;
    const off = (value - here) / sigma;
    // What no value of it explains does not pull it away (Huber).
    const weight = Math.abs(off) > 3 && change === 0 ? 0 : 1;
    down += weight * change * off;
    slope += weight * change ** 2;
  });
  return slope > 0 ? down / slope : 0;
}
