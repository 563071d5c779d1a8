import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { usualSettings } from '../document/patch';
import { channelName, placesOf } from '../document/rackTypes';
import type { Channel, Rack } from '../document/rackTypes';
import { POINTER } from '../rack/pointers';
import type { Asset } from '../sheet/expect';
import { fitted, OUTLIER } from './fit';
import { productsOf, weightOf } from './leastSquares';
import type { Effects } from './leastSquares';
import type { BenchLog, LogSession } from './log';
import { Problem } from './problem';
import type { Row, Unknown } from './problem';
import type { ReadQuantity } from './quantities';
import type { PlaceInLog } from './sensitivity';
import { traitsOf } from './truths';

export interface LearnedTrait {
  readonly rack: string;
  readonly parameter: string;
  readonly value: number;
  /** One standard error. */
  readonly error: number;
  /** How many readings tell of it. */
  readonly readings: number;
  readonly ideal: number;
}

export interface UntoldTrait {
  readonly rack: string;
  readonly parameter: string;
  readonly why: string;
}

/** What traits of a channel do together, where nothing tells them apart. */
export interface JointTrait {
  readonly rack: string;
  readonly parameters: readonly string[];
  readonly value: number;
  readonly error: number;
  /** Volts at its output, or a factor. */
  readonly unit: 'V' | '×';
}

export interface Outlier {
  readonly session: string;
  readonly reading: number;
  readonly sigmas: number;
}

export interface CalibratedReading extends PlaceInLog {
  readonly quantity: ReadQuantity;
  readonly value: number;
  /** Predicted with ideal modules, and with the rack as it was learned. */
  readonly before: number;
  readonly after: number;
  readonly sigma: number;
}

export interface Calibration {
  readonly channels: readonly LearnedTrait[];
  readonly untold: readonly UntoldTrait[];
  readonly joint: readonly JointTrait[];
  readonly outliers: readonly Outlier[];
  /** Of all readings, in sigmas. */
  readonly rms: { readonly before: number; readonly after: number; readonly unit: 'sigma' };
  readonly rack: Rack;
  /** Every reading beside its predictions, for a chart. */
  readonly fit: readonly CalibratedReading[];
}

export interface CalibrateOptions {
  readonly asset?: Asset;
  /** Called now and then with the progress, 0..1. */
  readonly progress?: (share: number) => void;
}

/** A trait is told where the readings leave this of its prior's sigma, or less. */
const TOLD = 0.5;
/** A knob that is told to stand off the end of its travel by so many standard errors does. */
const END_SIGMAS = 3;
/** Effects on all readings that point the same way, as a cosine. */
const PARALLEL = 0.999;

/** For each unknown, the others whose effects on all readings point the same way. */
function parallelOf(products: Matrix, n: number): number[][] {
  const length = (i: number): number => Math.sqrt(products.get(i, i));
  return Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (__, j) => j).filter(
      (j) => j !== i && Math.abs(products.get(i, j)) > PARALLEL * length(i) * length(j),
    ),
  );
}

/**
 * What readings of many sessions tell of the channels of a rack: gains, offsets, pointers, full openings, times, rates
 * and tunings, all together, by weighted least squares with the usual errors of modules as priors. Deterministic.
 *
 * @param log sessions that `parseLog` took with this rack.
 * @returns the traits that are told with one standard error, those that are not and why, readings that do not fit, and
 *   the rack with what is told in `measured`.
 */
export function calibrate(rack: Rack, log: BenchLog, { asset, progress }: CalibrateOptions = {}): Calibration {
  const problem = new Problem(log, rack, asset);
  const { x, effects, before, after } = fitted(problem, progress);
  const { unknowns, rows } = problem;
  const residual = problem.residual(after);
  const products = productsOf(effects, problem.size, () => 1);
  const covariance = covarianceOf(productsOf(effects, problem.size, (row) => weightOf(residual[row] as number)));
  const parallel = parallelOf(products, unknowns.length);
  const seenBy = new Array<number>(problem.size).fill(0);
  for (const [i] of effects.flat()) seenBy[i] = (seenBy[i] as number) + 1;
  const channels: LearnedTrait[] = [];
  const untold: UntoldTrait[] = [];
  unknowns.forEach(({ rack: channel, parameter, ideal, sigma }, i) => {
    const left = Math.sqrt(covariance.get(i, i));
    const seen = seenBy[i] as number;
    const isEnd = !problem.turned.has(i) && Math.abs(x[i] as number) < END_SIGMAS * left;
    const why = whyUntold(unknowns, i, { left, seen, isEnd, parallel: parallel[i] ?? [] });
    if (why !== null) untold.push({ rack: channel, parameter, why });
    else
      channels.push({
        rack: channel,
        parameter,
        value: ideal + sigma * (x[i] as number),
        error: sigma * left,
        readings: seen,
        ideal,
      });
  });
  untold.push(...unusedTraits(rack, unknowns));
  const rms = (p: Float64Array): number => {
    const r = problem.residual(p);
    return r.length === 0 ? 0 : Math.sqrt(r.reduce((sum, v) => sum + v * v, 0) / r.length);
  };
  const session = (n: number): LogSession => log.sessions[n] as LogSession;
  const last = log.sessions
    .map((s) => s.started)
    .toSorted()
    .at(-1);
  return {
    channels,
    untold,
    joint: jointsOf(problem, { effects, products, covariance, parallel }, x),
    outliers: rows.flatMap(({ place }, i): Outlier[] => {
      const sigmas = Math.abs(residual[i] as number);
      return sigmas > OUTLIER ? [{ session: session(place.session).id, reading: place.reading, sigmas }] : [];
    }),
    rms: { before: rms(before), after: rms(after), unit: 'sigma' },
    rack: withMeasured(rack, channels, last),
    fit: rows.map(({ place, quantity, value, sigma }, i) => ({
      ...place,
      quantity,
      value,
      sigma,
      before: before[i] as number,
      after: after[i] as number,
    })),
  };
}

/** What no session was played on. */
export const UNUSED_CHANNEL = 'No session used this channel.';

/** All that could be off about channels that no session was played on. */
function unusedTraits(rack: Rack, unknowns: readonly { readonly rack: string }[]): UntoldTrait[] {
  const used = new Set(unknowns.map((u) => u.rack));
  return placesOf(rack).flatMap(({ name, channel }): UntoldTrait[] => {
    const [{ kind, fixed }] = channel.modes;
    const there = used.has(name) ? [] : traitsOf({ id: 'channel', kind, params: fixed }, usualSettings.bpm, null);
    return there.map(({ parameter }) => ({ rack: name, parameter, why: UNUSED_CHANNEL }));
  });
}

/** Of all unknowns, in squared sigmas of their priors. */
function covarianceOf(products: Matrix): Matrix {
  const n = products.rows;
  return n === 0 ? products : new CholeskyDecomposition(Matrix.add(products, Matrix.eye(n))).solve(Matrix.eye(n));
}

interface TellingOf {
  /** What is left of the prior’s sigma. */
  readonly left: number;
  /** How many readings hang on it. */
  readonly seen: number;
  /** It is where its travel ends, as far as can be told. */
  readonly isEnd: boolean;
  readonly parallel: readonly number[];
}

function whyUntold(unknowns: readonly Unknown[], i: number, { left, seen, isEnd, parallel }: TellingOf): string | null {
  const own = unknowns[i] as Unknown;
  if (seen === 0) return 'No reading depends on it.';
  if (parallel.length > 0) {
    const others = parallel.map((j) => {
      const { rack, parameter } = unknowns[j] as Unknown;
      return rack === own.rack ? parameter : `${rack} ${parameter}`;
    });
    return `No reading can tell it from ${others.join(', ')}.`;
  }
  if (isEnd) return 'Its knob stood at the end of its travel only.';
  if (left > TOLD) return `The readings narrow its usual error only to ${Math.round(100 * left)}%.`;
  return null;
}

interface Told {
  readonly effects: Effects;
  readonly products: Matrix;
  readonly covariance: Matrix;
  readonly parallel: readonly (readonly number[])[];
}

/** What members of one channel do together, where nothing tells them apart. */
function jointsOf(problem: Problem, told: Told, x: readonly number[]): JointTrait[] {
  const { unknowns } = problem;
  const done = new Set<number>();
  return unknowns.flatMap((own, i): JointTrait[] => {
    if (done.has(i)) return [];
    const parallel = told.parallel[i] ?? [];
    const members = [i, ...parallel].filter((j) => unknowns[j]?.rack === own.rack).toSorted((a, b) => a - b);
    members.forEach((j) => done.add(j));
    // What hangs together with another channel is told of neither.
    return members.length < 2 || members.length <= parallel.length ? [] : jointOf(problem, told, x, members);
  });
}

function jointOf(
  { unknowns, rows }: Problem,
  told: Told,
  x: readonly number[],
  members: readonly number[],
): JointTrait[] {
  const { effects, products, covariance } = told;
  const parameterOf = (j: number): string => unknowns[j]?.parameter ?? '';
  const lead = members.find((j) => parameterOf(j) === 'offsetVolts') ?? members.find((j) => parameterOf(j) === 'gain');
  const byVolts = lead === undefined ? voltsOf(effects, rows, members) : null;
  // Each counts as so much of the one that the person can take over; else in volts where they are seen most.
  const shares = members.map((j) =>
    byVolts || lead === undefined
      ? (byVolts?.get(j) ?? 0)
      : (products.get(j, lead) / products.get(lead, lead)) * (unknowns[lead]?.sigma ?? 0),
  );
  const sumOver = (of: (n: number) => number): number => members.reduce((sum, _, n) => sum + of(n), 0);
  const share = (n: number): number => shares[n] as number;
  const value = sumOver((n) => share(n) * (x[members[n] as number] as number));
  const variance = sumOver((n) =>
    sumOver((m) => share(n) * share(m) * covariance.get(members[n] as number, members[m] as number)),
  );
  const error = Math.sqrt(variance);
  if (error > TOLD * Math.hypot(...shares)) return [];
  const factor = lead !== undefined && parameterOf(lead) === 'gain';
  const rack = unknowns[members[0] as number]?.rack ?? '';
  const parameters = members.map(parameterOf);
  return [{ rack, parameters, value: value + (factor ? 1 : 0), error, unit: factor ? '×' : 'V' }];
}

/** What a sigma of each prior does at the reading that shows most of it, volts. */
function voltsOf(effects: Effects, rows: readonly Row[], members: readonly number[]): ReadonlyMap<number, number> {
  const [first = -1] = members;
  const of = (row: number, j: number): number => effects[row]?.find(([i]) => i === j)?.[1] ?? 0;
  const most = rows.reduce((best, _, row) => (Math.abs(of(row, first)) > Math.abs(of(best, first)) ? row : best), 0);
  return new Map(members.map((j) => [j, of(most, j) * (rows[most]?.sigma ?? 0)]));
}

type Measured = NonNullable<Channel['measured']>;

/** What was measured of a channel, with what is now told of it; the rest of what was there stays. */
export function measuredWith(old: Measured | undefined, told: readonly LearnedTrait[], at?: string): Measured {
  const plain = told.filter((t) => !t.parameter.startsWith(POINTER));
  const pointers = told.filter((t) => t.parameter.startsWith(POINTER));
  return {
    ...old,
    ...Object.fromEntries(plain.map((t) => [t.parameter, t.value])),
    ...(pointers.length > 0 && {
      pointers: {
        ...old?.pointers,
        ...Object.fromEntries(pointers.map((t) => [t.parameter.slice(POINTER.length), t.value])),
      },
    }),
    errors: { ...old?.errors, ...Object.fromEntries(told.map((t) => [t.parameter, t.error])) },
    readings: Math.max(...told.map((t) => t.readings)),
    ...(at !== undefined && { at }),
  };
}

/** A rack with what is told of its channels beside what was measured of them before. */
export function withMeasured(rack: Rack, told: readonly LearnedTrait[], at?: string): Rack {
  return {
    ...rack,
    modules: rack.modules.map((m) => ({
      ...m,
      channels: m.channels.map((c) => {
        const own = told.filter((t) => t.rack === channelName(m.id, c.id));
        return own.length === 0 ? c : { ...c, measured: measuredWith(c.measured, own, at?.slice(0, 10)) };
      }),
    })),
  };
}
