import { placesOf } from '../document/rackTypes';
import type { Rack } from '../document/rackTypes';
import type { ModuleDoc, Patch } from '../document/types';
import { channelLimits } from '../rack/limits';
import type { Asset } from '../sheet/expect';
import { meterShare } from './figures';
import type { Effect, Effects } from './leastSquares';
import type { ReadQuantity } from './quantities';
import { standingReadings } from './log';
import type { BenchLog, LogReading, LogSession } from './log';
import { figuresAt, momentsOf } from './sensitivity';
import type { Closeness, Moment, MomentReadings, PlaceInLog, SeatedModule, Truths } from './sensitivity';
import { traitsOf } from './truths';

/** An effect of a prior's sigma on a reading, in sigmas of the reading, that is none. */
const NO_EFFECT = 1e-6;
/** What chance does to no reading by more than this, in its sigmas, is left out. */
const LEAST_CHANCE = 0.05;
/** The least that a reading is sure to, in its unit. */
const FLOOR = 1e-4;

export interface Unknown {
  readonly rack: string;
  readonly parameter: string;
  readonly ideal: number;
  readonly sigma: number;
}

export interface Row {
  readonly value: number;
  readonly sigma: number;
  readonly quantity: ReadQuantity;
  readonly place: PlaceInLog;
}

const MEANS: ReadonlySet<ReadQuantity> = new Set(['mean', 'rms']);
const SWINGS: ReadonlySet<ReadQuantity> = new Set([...MEANS, 'low', 'high']);

export const isTiming = (parameter: string): boolean => parameter === 'timeScale' || parameter === 'rateScale';
const nameOfUnknown = (rack: string, parameter: string): string => `${rack} ${parameter}`;

/** Modules of a session on channels of the rack, with what can be off about them. */
function seatedModules(session: LogSession, rack: Rack, channels: ReadonlySet<string>): SeatedModule[] {
  const seats = new Map(session.assignment.map((a) => [a.module, a.rack]));
  const patch: Patch = {
    ...session.patch,
    modules: session.patch.modules.map(({ rack: _rack, ...m }): ModuleDoc => {
      const there = seats.get(m.id);
      return there !== undefined && channels.has(there) ? { ...m, rack: there } : m;
    }),
  };
  const limits = channelLimits(patch, rack);
  return patch.modules.flatMap((m): SeatedModule[] =>
    m.rack === undefined ? [] : [{ module: m.id, rack: m.rack, traits: traitsOf(m, patch.settings.bpm, limits) }],
  );
}

/** All readings of a log against the traits of a rack's channels: least squares in sigmas. */
export class Problem {
  readonly unknowns: readonly Unknown[];
  private readonly index: ReadonlyMap<string, number>;
  private readonly moments: readonly MomentReadings[];
  readonly rows: readonly Row[];
  /** What chance decides of a moment, each one sigma: by row, what it adds. All rows of a moment share it. */
  private readonly chances: { readonly moment: number; readonly by: ReadonlyMap<number, number> }[] = [];
  /** Unknowns that some reading was seen to move both ways: a knob at the end of its travel turns one way only. */
  readonly turned = new Set<number>();
  /** By moment and place, the rows. */
  private readonly rowsOf: readonly (readonly (readonly number[])[])[];

  constructor(log: BenchLog, rack: Rack, asset: Asset) {
    const channels = new Set(placesOf(rack).map((p) => p.name));
    const standings = log.sessions.map((session, n) => ({
      patch: session.patch,
      seats: seatedModules(session, rack, channels),
      readings: standingReadings(session.readings).map(({ index, of }) => ({
        ...of,
        place: { session: n, reading: index },
      })),
    }));
    const found = new Map<string, Unknown>();
    for (const { rack: channel, traits } of standings.flatMap((s) => s.seats))
      for (const { parameter, ideal, sigma } of traits)
        if (!found.has(nameOfUnknown(channel, parameter)))
          found.set(nameOfUnknown(channel, parameter), { rack: channel, parameter, ideal, sigma });
    this.unknowns = [...found.values()];
    this.index = new Map([...found.keys()].map((key, i) => [key, i]));
    this.moments = momentsOf(standings, asset);
    const rows: Row[] = [];
    this.rowsOf = this.moments.map(({ taken }) =>
      taken.map((places) =>
        places.map((place) => rows.push(rowOf(place, log.sessions[place.session]?.readings[place.reading])) - 1),
      ),
    );
    this.rows = rows;
    this.moments.forEach(({ moment }, n) => this.addChances(moment, n));
  }

  /** Traits, and beside them what chance decides. */
  get size(): number {
    return this.unknowns.length + this.chances.length;
  }

  /**
   * Means of slow voltages hang on where a window ends. All of a sound that something slow moves hangs on which part of it
   * was heard, its extremes on which of its turns comes at the height of the movement. What all readings of a moment share
   * is no error of each by itself.
   */
  private addChances(moment: Moment, n: number): void {
    const { slow } = moment.watch;
    const chancy = moment.places.flatMap(({ quantity }, p) => ((slow ? MEANS : SWINGS).has(quantity) ? [p] : []));
    if (chancy.length === 0) return;
    const ideal = this.unknowns.map(() => 0);
    const seen = (x: readonly number[], look: Closeness): number[] => figuresAt(moment, this.truths(x), look);
    const add = (change: (p: number) => number): void => {
      const by = new Map(chancy.flatMap((p) => (this.rowsOf[n]?.[p] ?? []).map((row) => [row, change(p)] as const)));
      if ([...by].some(([row, v]) => Math.abs(v) > LEAST_CHANCE * (this.rows[row] as Row).sigma))
        this.chances.push({ moment: n, by });
    };
    const between = (a: readonly number[], b: readonly number[]) => (p: number) => (a[p] as number) - (b[p] as number);
    const [whole, window] = [seen(ideal, 'close'), seen(ideal, 'window')];
    add(between(window, whole));
    if (!slow) add(between(seen(ideal, 'quick'), whole));
    for (const name of this.timedIn(moment)) {
      const [more, less] = [1, -1].map((by) => between(seen(this.moved(ideal, name, by), 'window'), window));
      if (!more || !less) continue;
      add((p) => (more(p) - less(p)) / 2);
      add((p) => (more(p) + less(p)) / 2);
    }
  }

  /** Every time and rate that a moment hangs on. */
  private timedIn(moment: Moment): string[] {
    return [...moment.seats.values()].flatMap(({ module, rack, traits }) =>
      moment.upstream.some((ids) => ids.has(module))
        ? traits.filter((t) => isTiming(t.parameter)).map((t) => nameOfUnknown(rack, t.parameter))
        : [],
    );
  }

  /** What chances add to every row. */
  private byChance(x: readonly number[]): Float64Array {
    const sum = new Float64Array(this.rows.length);
    this.chances.forEach(({ by }, k) => {
      const times = x[this.unknowns.length + k] as number;
      for (const [row, v] of by) sum[row] = (sum[row] as number) + times * v;
    });
    return sum;
  }

  private moved(x: readonly number[], name: string, by: number): number[] {
    const at = this.index.get(name);
    return x.map((v, i) => (i === at ? v + by : v));
  }

  truths(x: readonly number[]): Truths {
    const truths = new Map<string, Map<string, number>>();
    this.unknowns.forEach(({ rack, parameter, ideal, sigma }, i) => {
      const of = truths.get(rack) ?? new Map<string, number>();
      of.set(parameter, ideal + sigma * (x[i] as number));
      truths.set(rack, of);
    });
    return truths;
  }

  /**
   * What every reading should be with traits at `x`, in sigmas of their priors from the ideal.
   *
   * @param only a channel that alone differs from what stands beside.
   */
  predicted(x: readonly number[], only?: { readonly rack: string; readonly beside: Float64Array }): Float64Array {
    const truths = this.truths(x);
    const chance = this.byChance(x);
    const out = only ? Float64Array.from(only.beside) : new Float64Array(this.rows.length);
    this.moments.forEach(({ moment }, n) => {
      // What is heard says little of times and rates, and takes long to run.
      if (only && (!moment.watch.slow || !hangsOn(moment, only.rack))) return;
      const figures = figuresAt(moment, truths, 'close');
      this.rowsOf[n]?.forEach((rows, p) =>
        rows.forEach((row) => (out[row] = (figures[p] as number) + (chance[row] as number))),
      );
    });
    return out;
  }

  /**
   * Sigmas that each reading moves by for a sigma of each prior.
   *
   * @param known those about a point near by: what takes long to run is not looked at again.
   */
  effects(x: readonly number[], progress?: (share: number) => void, known?: Effects): Effects {
    const effects: Effect[][] = this.rows.map(() => []);
    this.moments.forEach(({ moment }, n) => {
      progress?.(n / this.moments.length);
      if (known && !moment.watch.slow)
        for (const row of this.rowsOf[n]?.flat() ?? []) effects[row] = [...(known[row] ?? [])];
      else this.effectsIn(moment, n, x, effects);
    });
    return effects;
  }

  private effectsIn(moment: MomentReadings['moment'], n: number, x: readonly number[], effects: Effect[][]): void {
    this.chances.forEach(({ moment: of, by }, k) => {
      if (of !== n) return;
      for (const [row, v] of by) effects[row]?.push([this.unknowns.length + k, v / (this.rows[row] as Row).sigma]);
    });
    const near = new Set(moment.upstream.flatMap((ids) => [...ids]));
    const bases = new Map<Closeness, number[]>();
    for (const { module, rack, traits } of moment.seats.values()) {
      for (const { parameter } of near.has(module) ? traits : []) {
        // Where a window ends in a slow movement says nothing of its rate.
        if (!moment.watch.slow && isTiming(parameter)) continue;
        const i = this.index.get(nameOfUnknown(rack, parameter)) as number;
        // Samples fall elsewhere in a voltage that is slower: only a close look tells by how much it moves.
        const look = isTiming(parameter) ? 'close' : 'quick';
        const base = bases.get(look) ?? figuresAt(moment, this.truths(x), look);
        bases.set(look, base);
        const beside = (step: number): number[] =>
          figuresAt(moment, this.truths(x.map((v, k) => (k === i ? v + step : v))), look);
        const { slopes, ends } = slopesOf(base, beside(STEP), beside(-STEP));
        if (!ends) this.turned.add(i);
        this.rowsOf[n]?.forEach((rows, p) => {
          if (!moment.upstream[p]?.has(module)) return;
          const by = slopes[p] as number;
          for (const row of rows) {
            const effect = by / (this.rows[row] as Row).sigma;
            if (Math.abs(effect) > NO_EFFECT) effects[row]?.push([i, effect]);
          }
        });
      }
    }
  }

  residual(predicted: Float64Array): number[] {
    return this.rows.map(({ value, sigma }, i) => (value - (predicted[i] as number)) / sigma);
  }
}

const hangsOn = ({ seats, upstream }: Moment, rack: string): boolean =>
  [...seats.values()].some((seat) => seat.rack === rack && upstream.some((ids) => ids.has(seat.module)));

function rowOf(place: PlaceInLog, reading: LogReading | undefined): Row {
  if (!reading) throw new Error(`no reading ${place.reading} in session ${place.session}`);
  const { value, quantity, plusMinus } = reading;
  return { value, place, quantity, sigma: Math.max(FLOOR, (plusMinus ?? meterShare(quantity, value)) / 2) };
}

/** Half of what an unknown is moved by to tell a slope, in sigmas of its prior. */
const STEP = 0.25;

/** Slopes of figures by what they are on both sides; a knob at the end of its travel turns one way only. */
function slopesOf(
  base: readonly number[],
  above: readonly number[],
  below: readonly number[],
): { readonly slopes: number[]; readonly ends: boolean } {
  const stands = (side: readonly number[]): boolean => side.every((v, p) => v === base[p]);
  const [high, low] = [stands(above) ? 0 : STEP, stands(below) ? 0 : STEP];
  const slopes = base.map((_, p) =>
    high + low === 0 ? 0 : ((above[p] as number) - (below[p] as number)) / (high + low),
  );
  return { slopes, ends: high === 0 || low === 0 };
}
