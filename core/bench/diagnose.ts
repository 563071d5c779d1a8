import type { Patch } from '../document/types';
import { placeName } from '../document/names';
import type { Edit } from '../edit/edit';
import { allReadings } from './everywhere';
import { best, Case } from './explain';
import type { DiagnoseOptions, Tried } from './explain';
import { editsOf } from './faults';
import type { Fault } from './faults';
import { faultText } from './faultText';
import { hypothesesOf } from './hypotheses';
import type { Hypothesis } from './hypotheses';
import { bitsOf, softmax } from './likelihood';
import { meterShare } from './figures';
import { Looks } from './looks';
import type { Reading } from './figures';
import type { BenchReading } from './readings';
import type { ReadQuantity } from './quantities';

export interface Cause {
  /** One, or two. */
  readonly faults: readonly Fault[];
  readonly text: string;
  readonly edits: readonly Edit[];
  readonly logLikelihood: number;
  readonly score: number;
  readonly probability: number;
  /** One figure a reading, in their order. */
  readonly predicted: readonly number[];
  /** Other faults that no reading of this patch can tell from it. */
  readonly alike: readonly Fault[];
}

export interface NextReading {
  readonly at: string;
  readonly quantity: ReadQuantity;
  readonly text: string;
  readonly bits: number;
  readonly ifCause: readonly (readonly [cause: number, value: number])[];
}

export interface Diagnosis {
  readonly consistent: boolean;
  readonly worst: {
    readonly at: string;
    readonly quantity: ReadQuantity;
    readonly value: number;
    readonly expected: number;
    readonly plusMinus: number;
    readonly sigmas: number;
  } | null;
  readonly causes: readonly Cause[];
  readonly next: NextReading | null;
  /** What no fault explains, or that nothing tells the causes apart. */
  readonly text?: string;
}

/** A reading lies beyond the plan, or a cause explains it, by so many sigmas. */
const BEYOND = 3;
const MOST_CAUSES = 8;
/** Causes whose figures at every socket are compared, and singles from which pairs are made. */
const COMPARED = 24;
const PAIRED = 14;
/** What is less likely by more, as a log, than the best is compared no more once all that is told is there. */
const REMOTE = 12;
/** Causes are one where no figure differs by more, in sigmas. */
const ALIKE = 0.1;
/** A cause that is as sure as this needs no other reading. */
const SURE = 0.95;
/** Fewer bits than this tell nothing. */
const LEAST_BITS = 0.01;

/** Whether a hypothesis can change a reading of a list. */
function canMatter(of: Case, hypothesis: Hypothesis, readings: readonly number[]): boolean {
  const fault = hypothesis.is === 'fixed' ? hypothesis.fault : (hypothesis.at(0.98) ?? hypothesis.at(0.02));
  return fault !== null && of.looks.isSeen(fault, readings);
}

interface Grouped extends Tried {
  readonly alike: readonly Fault[];
  readonly probability: number;
  /** What would be read everywhere. */
  readonly everywhere: readonly number[];
}

const key = (r: Reading): string => `${r.at} ${r.quantity}`;

/**
 * Which single fault, else which pair, explains readings that were taken at a rack. Deterministic.
 *
 * @param readings of this very patch, as `parseReadings` takes them.
 * @returns causes, best first; the measurement that is expected to tell most; what no cause explains.
 */
export function diagnose(patch: Patch, readings: readonly BenchReading[], options: DiagnoseOptions = {}): Diagnosis {
  const of = new Case(patch, readings, options);
  const plan = of.tried([], 0);
  const off = readings.flatMap((_, i) => (of.offBy(i, plan) > 1 ? [i] : []));
  const hypotheses = hypothesesOf(patch, options.channels ?? null);
  let known = plan.score;
  // What is quick to try sets the mark for what is solved for.
  const ordered = [...hypotheses].sort((a, b) => Number(a.is === 'solved') - Number(b.is === 'solved'));
  const singles = ordered.flatMap((h, n) => {
    options.progress?.((0.7 * n) / hypotheses.length);
    if (!canMatter(of, h, off)) return [];
    const tried = best(of, h, known, plan);
    if (!tried) return [];
    known = Math.max(known, tried.score);
    return [{ h, tried }];
  });
  singles.sort((a, b) => b.tried.score - a.tried.score);
  const explains = (t: Tried): boolean => readings.every((_, i) => of.offBy(i, t) <= BEYOND);
  const needsPairs = !explains(plan) && !singles.some(({ tried }) => explains(tried));
  const pairs = needsPairs ? pairsOf(of, singles, options) : [];
  const all = [...singles.map((s) => s.tried), ...pairs].toSorted((a, b) => b.score - a.score);
  return answer(of, plan, all, options);
}

/** The best singles two at a time, the second value solved beside the first. */
function pairsOf(
  of: Case,
  singles: readonly { readonly h: Hypothesis; readonly tried: Tried }[],
  { progress }: DiagnoseOptions,
): Tried[] {
  const few = singles.slice(0, PAIRED);
  let known = few[0]?.tried.score ?? -Infinity;
  const found = few.flatMap(({ h, tried }, i) => {
    progress?.(0.7 + (0.2 * i) / few.length);
    return few.slice(i + 1).flatMap(({ h: other, tried: second }): Tried[] => {
      const solved = h.is === 'solved' ? 1 : 0;
      // Either value may be the one that the other hides.
      const one = best(of, other, known, tried, solved);
      const two = best(of, h, known, second, other.is === 'solved' ? 1 : 0);
      const both = [one, two].flatMap((t) => t ?? []);
      known = Math.max(known, ...both.map((t) => t.score));
      return both;
    });
  });
  return found;
}

function answer(of: Case, plan: Tried, all: readonly Tried[], options: DiagnoseOptions): Diagnosis {
  const { patch, readings } = of;
  const everywhere = allReadings(patch, options.asset);
  const looks = new Looks(patch, everywhere, { ...options, quick: true });
  const sigmas = everywhere.map((r, i) => looks.sigma(i, meterShare(r.quantity, looks.planned[i] ?? 0)));
  const same = (a: readonly number[], b: readonly number[]): boolean =>
    a.every((v, i) => Math.abs(v - (b[i] as number)) <= ALIKE * (sigmas[i] as number));
  const probabilities = softmax([plan.score, ...all.map((t) => t.score)]);
  const groups: Grouped[] = [];
  let planned = probabilities[0] ?? 0;
  let rest = 0;
  all.forEach((tried, n) => {
    const probability = probabilities[n + 1] ?? 0;
    const remote = groups.length >= MOST_CAUSES && tried.score < (all[0]?.score ?? 0) - REMOTE;
    if (remote || groups.length >= COMPARED || n >= 3 * COMPARED) {
      rest += probability;
      return;
    }
    const seen = looks.predict(tried.faults);
    // What is as the plan everywhere is no fault.
    if (same(seen, looks.planned)) {
      planned += probability;
      return;
    }
    const at = groups.findIndex((g) => same(seen, g.everywhere));
    const group = groups[at];
    if (!group) groups.push({ ...tried, alike: [], probability, everywhere: seen });
    else
      groups[at] = {
        ...group,
        alike: tried.faults.length === 1 ? [...group.alike, ...tried.faults] : group.alike,
        probability: group.probability + probability,
      };
  });
  groups.sort((a, b) => b.probability - a.probability);
  const causes = groups.slice(0, MOST_CAUSES);
  const sigmasOff = readings.map((_, i) => of.offBy(i, plan));
  const most = sigmasOff.indexOf(Math.max(...sigmasOff));
  const [first] = causes;
  const consistent = sigmasOff.every((s) => s <= BEYOND) || !first || first.score < plan.score + BEYOND;
  const next = nextOf(of, { causes: groups, planned, rest }, everywhere, looks, sigmas);
  return {
    consistent,
    worst: readings.length > 0 ? worstOf(of, most, plan, sigmasOff[most] ?? 0) : null,
    causes: causes.map((c) => ({
      faults: c.faults,
      text: c.faults.map((f) => faultText(patch.modules, f)).join(', and '),
      edits: c.faults.length === 1 ? c.faults.flatMap((f) => editsOf(patch, f)) : [],
      logLikelihood: c.logLikelihood,
      score: c.score,
      probability: c.probability,
      predicted: c.predicted,
      alike: c.alike,
    })),
    next,
    ...textOf(of, consistent, first, next),
  };
}

function worstOf(of: Case, i: number, plan: Tried, sigmas: number): Diagnosis['worst'] {
  const { at, quantity, value } = of.readings[i] as BenchReading;
  return { at, quantity, value, expected: plan.predicted[i] as number, plusMinus: of.share(i), sigmas };
}

/** Readings that contradict each other or the patch, or causes that nothing tells apart. */
function textOf(
  of: Case,
  consistent: boolean,
  first: Grouped | undefined,
  next: NextReading | null,
): { text?: string } {
  if (consistent || !first) return {};
  if (of.readings.some((_, i) => of.offBy(i, first) > BEYOND))
    return { text: 'No single fault, and no pair of them, explains all readings. Read the worst one again.' };
  if (next === null && first.probability <= SURE) return { text: 'No reading of this patch tells these causes apart.' };
  return {};
}

/** The measurement not yet taken that is expected to tell most. */
function nextOf(
  of: Case,
  { causes, planned, rest }: { readonly causes: readonly Grouped[]; readonly planned: number; readonly rest: number },
  everywhere: readonly Reading[],
  looks: Looks,
  sigmas: readonly number[],
): NextReading | null {
  if (causes.some((c) => c.probability > SURE) || planned > SURE) return null;
  const taken = new Set(of.readings.filter((r) => r.step === undefined && r.knobs.length === 0).map(key));
  const total = planned + causes.reduce((sum, c) => sum + c.probability, 0);
  if (total <= 0 || rest > total) return null;
  const weights = [planned, ...causes.map((c) => c.probability)].map((p) => p / total);
  const ranked = everywhere.flatMap((r, i) => {
    if (taken.has(key(r))) return [];
    const values = [looks.planned[i] as number, ...causes.map((c) => c.everywhere[i] as number)];
    return [{ r, i, bits: bitsOf(weights, values, sigmas[i] as number) }];
  });
  const found = ranked.reduce<(typeof ranked)[number] | null>((a, b) => (a && a.bits >= b.bits ? a : b), null);
  if (!found || found.bits < LEAST_BITS) return null;
  const { at, quantity } = found.r;
  return {
    at,
    quantity,
    text: `Measure ${placeName(of.patch.modules, at)}: it separates the possible faults best.`,
    bits: found.bits,
    ifCause: causes.slice(0, MOST_CAUSES).map((c, n) => [n, c.everywhere[found.i] as number]),
  };
}
