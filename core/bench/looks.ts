import { graphRepeats } from '../bounds/repeats';
import type { Repeats } from '../bounds/repeats';
import { ErrorModel } from '../answers/errors';
import { tolerance } from '../answers/tolerance';
import { idOf } from '../document/sockets';
import type { Cable, Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { controlRate, modulesUpTo } from '../graph/upstream';
import { stream } from '../kinds/random';
import type { ChannelLimits } from '../rack/limits';
import { pluggedSoFar } from '../sheet/expect';
import type { Asset } from '../sheet/expect';
import { simulateGraph } from '../simulate/simulate';
import type { Given } from '../simulate/types';
import type { Fault } from './faults';
import { faultyGraph, faultyOutputs } from './faults';
import { touchedBy } from './hypotheses';
import { figuresIn, inWindow, sourceOf, watchedTogether } from './figures';
import type { Reading, Window } from './figures';
import { knobEdits, momentKey, pluggedAt, pluggedBefore } from './readings';
import type { ReadQuantity } from './quantities';

/** Samples of a look at slow voltages, and the rates between which it is taken; sound is looked at for so long. */
const SLOW_SAMPLES = 2500;
const SLOW_RATE = { least: 200, most: 1000 } as const;
const SOUND_SECONDS = 0.4;
/** Draws from which it is told how far modules' own errors spread a figure. */
const DRAWS = { usual: 24, quick: 10 } as const;
/** From 5 to 95% of a normal error, in sigmas. */
const WIDTH = 3.29;
/** Figures that are the ends of a voltage's way, or where it stands. */
const EXTREMES: ReadonlySet<ReadQuantity> = new Set(['low', 'high', 'steady']);
/** The least that a figure is sure to, in its unit. */
const FLOOR = 1e-4;

/** What the patch is like at one moment of standing at the rack: which cables are plugged, which knobs stand elsewhere. */
interface Situation {
  readonly plugged: readonly Cable[];
  readonly knobs: readonly Edit[];
  readonly patch: Patch;
  readonly graph: Graph;
  readonly repeats: ReadonlyMap<string, Repeats>;
  readonly window: Window;
  /** How it is watched at the rack. */
  readonly watched: Window;
  /** Indices of the readings that are taken then. */
  readonly readings: readonly number[];
  /** By reading, the modules that it hangs on. */
  readonly upstream: ReadonlyMap<number, ReadonlySet<string>>;
}

/** What readings come to, and how far what is drawn by chance takes each, one sigma. */
interface Look {
  readonly figures: readonly number[];
  readonly wander: readonly number[];
}

export interface LooksOptions {
  readonly asset?: Asset;
  readonly channels?: ChannelLimits | null;
  /** Figures are compared with each other only: the plan is looked at as quickly as its faults. */
  readonly quick?: boolean;
}

/** How a patch is looked at quickly: slow voltages over its window, sound for a moment. */
export function quickWindow({ patch, sampleRate }: Graph, slow: boolean): Window {
  const { duration } = patch.settings;
  return slow
    ? { rate: Math.min(SLOW_RATE.most, Math.max(SLOW_RATE.least, SLOW_SAMPLES / duration)), seconds: duration }
    : { rate: sampleRate, seconds: Math.min(duration, SOUND_SECONDS) };
}

/** Predicts readings of a patch, with and without faults in it. */
export class Looks {
  private readonly situations: readonly Situation[];
  /** Of the plan without a fault, by reading: as closely as it can be told, as a quick look has it, and its sigma. */
  readonly planned: readonly number[];
  private readonly coarse: readonly number[];
  readonly spreads: readonly number[];
  private readonly known = new Map<Situation, ReadonlyMap<string, Float64Array>>();

  constructor(
    private readonly patch: Patch,
    private readonly readings: readonly Reading[],
    private readonly options: LooksOptions = {},
  ) {
    const before = pluggedBefore(patch);
    const keys = readings.map(momentKey);
    this.situations = [...new Set(keys)].flatMap((key) => {
      const taken = readings.flatMap((_, i) => (keys[i] === key ? [i] : []));
      return this.moment(taken, before);
    });
    this.coarse = this.over((s) => this.figures(s, s.graph, s.window));
    this.planned = options.quick
      ? this.coarse
      : this.over((s) => this.figures(s, s.graph, { rate: s.graph.sampleRate, seconds: s.patch.settings.duration }));
    this.spreads = this.spread();
  }

  /** One moment at the rack; what is watched otherwise, slow voltages and sound, apart. */
  private moment(taken: readonly number[], before: ReadonlyMap<string, readonly Cable[]>): Situation[] {
    const { step, knobs: set } = this.readings[taken[0] as number] as Reading;
    const plugged = pluggedAt(this.patch, before, step);
    const knobs = knobEdits(set);
    const patch = applyEdits(pluggedSoFar(this.patch, plugged), knobs);
    const graph = buildGraph(patch);
    const repeats = graphRepeats(graph);
    const places = taken.map((i) => this.readings[i] as Reading);
    return watchedTogether(graph, repeats, places).map(({ watch, of }): Situation => {
      const readings = of.map((n) => taken[n] as number);
      const at = (i: number): string => (this.readings[i] as Reading).at;
      const sampleRate = controlRate(graph, readings.map(at)) ?? graph.sampleRate;
      const window = quickWindow({ ...graph, sampleRate }, watch.slow);
      const upstream = new Map(readings.map((i) => [i, modulesUpTo(graph, at(i))]));
      const watched = watch.slow ? { ...window, seconds: watch.seconds } : window;
      return { plugged, knobs, patch, graph: { ...graph, sampleRate }, repeats, window, watched, readings, upstream };
    });
  }

  private get draws(): number {
    return this.options.quick ? DRAWS.quick : DRAWS.usual;
  }

  private over(of: (s: Situation) => ReadonlyMap<number, number>): number[] {
    const found = new Map(this.situations.flatMap((s) => [...of(s)]));
    return this.readings.map((_, i) => found.get(i) ?? 0);
  }

  /** What readings come to in a graph, by their index. */
  private figures({ readings, repeats }: Situation, graph: Graph, window: Window, given?: Given): Map<number, number> {
    const places = readings.map((i) => this.readings[i] as Reading);
    const found = figuresIn(graph, places, {
      ...window,
      repeats,
      ...(given && { given }),
      ...(this.options.asset && { asset: this.options.asset }),
    });
    return new Map(readings.map((i, n) => [i, found[n] as number]));
  }

  /**
   * How far modules' own errors take each figure from the plan, one sigma: as they are seen over the time that somebody
   * watches a meter, extremes at least by what their bounds spread. Free oscillators drift through all that they can be
   * to each other: their sums go further than in the plan's one window.
   */
  private spread(): number[] {
    const found = new Map<number, number>();
    for (const s of this.situations) {
      const bounded = this.boundSpread(s);
      const model = new ErrorModel(s.patch, {}, undefined, this.options.channels ?? undefined);
      const random = stream(s.patch.settings.seed ^ 0xbe4c);
      const drawn = Array.from({ length: this.draws }, () => this.figures(s, model.drawn(random), s.watched));
      for (const i of s.readings) {
        const squares = drawn.reduce((sum, d) => sum + ((d.get(i) ?? 0) - (this.planned[i] ?? 0)) ** 2, 0);
        found.set(i, Math.max(bounded.get(i) ?? 0, Math.sqrt(squares / this.draws)));
      }
    }
    return this.readings.map((_, i) => found.get(i) ?? 0);
  }

  /** How far the bounds of extremes spread, one sigma. */
  private boundSpread(s: Situation): Map<number, number> {
    const from = (i: number): string => String(sourceOf(s.graph, (this.readings[i] as Reading).at));
    const extremes = s.readings.filter((i) => EXTREMES.has((this.readings[i] as Reading).quantity));
    if (extremes.length === 0) return new Map();
    const { channels } = this.options;
    const { outputs } = tolerance(s.patch, {
      only: [...new Set(extremes.map(from))].filter((at) => at.includes('.')),
      plain: true,
      voltsOnly: true,
      rough: true,
      draws: this.draws,
      ...(channels && { channels }),
    });
    return new Map(
      extremes.map((i) => {
        const t = outputs[from(i)];
        const [low, high] = t ? [t.min[1] - t.min[0], t.max[1] - t.max[0]] : [0, 0];
        const { quantity } = this.readings[i] as Reading;
        return [i, (quantity === 'low' ? low : quantity === 'high' ? high : (low + high) / 2) / WIDTH];
      }),
    );
  }

  /** The sigma of a reading: half its instrument's share and the spread of the modules, joined. */
  sigma(i: number, plusMinus: number): number {
    return Math.max(FLOOR, Math.hypot(plusMinus, WIDTH * (this.spreads[i] ?? 0)) / 2);
  }

  /** Whether a fault can be seen at any reading of a list. */
  isSeen(fault: Fault, of: readonly number[]): boolean {
    const ids = new Set(touchedBy(fault).map(idIn));
    return this.situations.some((s) =>
      s.readings.some((i) => of.includes(i) && [...(s.upstream.get(i) ?? [])].some((id) => ids.has(id))),
    );
  }

  /** What all readings come to with faults in the patch. */
  predict(faults: readonly Fault[]): readonly number[] {
    return this.look(faults).figures;
  }

  /** What all readings come to with faults in the patch, and how far what is drawn by chance takes them, one sigma. */
  look(faults: readonly Fault[]): Look {
    const ids = new Set(faults.flatMap(touchedBy).map(idIn));
    const found = new Map<number, number>();
    const drawn = new Map<number, readonly number[]>();
    for (const s of this.situations) {
      const seen = s.readings.filter((i) => [...(s.upstream.get(i) ?? [])].some((id) => ids.has(id)));
      if (seen.length === 0) continue;
      const graph =
        faultyOutputs(s.graph, faults) ?? faultyGraph(pluggedSoFar(this.patch, s.plugged), s.plugged, faults, s.knobs);
      if (drawsAnew(s.graph, graph)) {
        // What is drawn goes further the longer it is watched: it is looked at for as long as somebody watches a meter.
        const runs = SEEDS.map((by) => this.figures({ ...s, readings: seen }, seeded(graph, by), s.watched));
        for (const i of seen)
          drawn.set(
            i,
            runs.map((run) => run.get(i) ?? 0),
          );
        continue;
      }
      const traces = this.traces(s);
      const given = { fresh: new Set([...downstream(graph, ids), ...unknownIn(graph, traces)]), traces };
      for (const [i, value] of this.figures({ ...s, readings: seen }, graph, s.window, given)) found.set(i, value);
    }
    const figures = this.readings.map((_, i) => {
      const draws = drawn.get(i);
      if (draws) return meanOf(draws);
      const value = found.get(i);
      const [plan = 0, coarse = 0] = [this.planned[i], this.coarse[i]];
      return value === undefined || value === coarse ? plan : value + (plan - coarse);
    });
    return { figures, wander: this.readings.map((_, i) => wanderOf(drawn.get(i) ?? [])) };
  }

  /** Of the plan in its quick window, every output: what a fault does not reach is not run again. */
  private traces(s: Situation): ReadonlyMap<string, Float64Array> {
    const known = this.known.get(s);
    if (known) return known;
    const ids = new Set(s.readings.flatMap((i) => [...(s.upstream.get(i) ?? [])]));
    const traces = s.graph.modules.filter((m) => ids.has(m.id)).flatMap((m) => m.outputs.map((o) => o.socket));
    const { asset } = this.options;
    const found = simulateGraph(inWindow(s.graph, s.window), { only: traces, traces, ...(asset && { asset }) }).traces;
    this.known.set(s, found);
    return found;
  }
}

/** Seeds beside a patch's own with which what is drawn is drawn. */
const SEEDS = [0, 1, 2];

const seeded = (graph: Graph, by: number): Graph => ({
  ...graph,
  patch: { ...graph.patch, settings: { ...graph.patch.settings, seed: graph.patch.settings.seed + by } },
});

const meanOf = (x: readonly number[]): number => x.reduce((a, b) => a + b, 0) / x.length;

/** One sigma of a few draws, and of their mean with them. */
function wanderOf(x: readonly number[]): number {
  if (x.length < 2) return 0;
  const mean = meanOf(x);
  const variance = x.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (x.length - 1);
  return Math.sqrt(variance * (1 + 1 / x.length));
}

/** Indices of the modules whose outputs were not run with the plan: a fault leads them where nothing led before. */
const unknownIn = ({ modules }: Graph, traces: ReadonlyMap<string, Float64Array>): number[] =>
  modules.filter((m) => m.outputs.some((o) => !traces.has(o.socket))).map((m) => m.index);

const drawsOf = ({ modules }: Graph): ReadonlySet<string> =>
  new Set(modules.filter((m) => m.kind.source?.draws?.(m.params)).map((m) => m.id));

/** Whether something draws by chance that does not in the plan. */
function drawsAnew(plan: Graph, graph: Graph): boolean {
  const before = drawsOf(plan);
  return [...drawsOf(graph)].some((id) => !before.has(id));
}

/** Indices of the modules that some lead to, themselves among them. */
function downstream(graph: Graph, ids: ReadonlySet<string>): ReadonlySet<number> {
  const leads = graph.modules.map((): number[] => []);
  for (const m of graph.modules)
    for (const { driver } of m.inputs) {
      if (driver.type !== 'output') continue;
      leads[driver.module]?.push(m.index);
      // What is passive loads what drives it.
      if (m.kind.electrical?.passive?.(m.params)) leads[m.index]?.push(driver.module);
    }
  const found = new Set<number>();
  const reach = (index: number): void => {
    if (found.has(index)) return;
    found.add(index);
    leads[index]?.forEach(reach);
  };
  for (const m of graph.modules) if (ids.has(m.id)) reach(m.index);
  return found;
}

const idIn = (place: string): string => (place.includes('.') ? idOf(place) : place);
