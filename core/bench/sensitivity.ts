import { graphRepeats } from '../bounds/repeats';
import { printPatch } from '../document/print';
import type { Cable, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { grouped } from '../graph/wiring';
import type { Graph } from '../graph/graph';
import { controlRate, modulesUpTo } from '../graph/upstream';
import { pluggedSoFar } from '../sheet/expect';
import type { Asset } from '../sheet/expect';
import { figuresIn, watchedTogether } from './figures';
import type { Reading, Watch } from './figures';
import { quickWindow } from './looks';
import { knobEdits, momentKey, pluggedAt, pluggedBefore } from './readings';
import { realModule } from './truths';
import type { Trait } from './truths';

/** A module of a patch on a channel, and what can be off about it. */
export interface SeatedModule {
  readonly module: string;
  readonly rack: string;
  readonly traits: readonly Trait[];
}

/** The values of all traits: by channel, then by parameter. */
export type Truths = ReadonlyMap<string, ReadonlyMap<string, number>>;

/** A patch whose seated modules are off by values. */
function offBy(patch: Patch, seats: ReadonlyMap<string, SeatedModule>, truths: Truths): Patch {
  return {
    ...patch,
    modules: patch.modules.map((m) => {
      const seat = seats.get(m.id);
      const values = seat && truths.get(seat.rack);
      return values ? { ...m, real: realModule(seat.traits, values) } : m;
    }),
  };
}

/** What modules whose inputs a module drives, and which load it, add to what a figure hangs on. */
function loadersOf(graph: Graph, ids: ReadonlySet<string>): string[] {
  return graph.modules
    .filter((m) => m.kind.electrical?.passive?.(m.params))
    .filter((m) =>
      m.inputs.some(({ driver }) => driver.type === 'output' && ids.has(graph.modules[driver.module]?.id ?? '')),
    )
    .map((m) => m.id);
}

/** Readings that were taken of one patch as it was plugged and set at one moment, watched alike. */
export interface Moment {
  readonly seats: ReadonlyMap<string, SeatedModule>;
  readonly patch: Patch;
  readonly places: readonly Pick<Reading, 'at' | 'quantity'>[];
  /** By place, the modules that it hangs on. */
  readonly upstream: readonly ReadonlySet<string>[];
  readonly watch: Watch;
  readonly rate: number;
  readonly asset: Asset;
}

/** How a moment is looked at: closely; more quickly, where differences count; or closely, with means of the very window. */
export type Closeness = 'close' | 'quick' | 'window';

/**
 * What the places of a moment come to with modules that are off. Means are those of whole turns: nobody looks at a meter
 * from the very moment on at which a prediction begins.
 */
export function figuresAt(moment: Moment, truths: Truths, look: Closeness): number[] {
  const graph = buildGraph(offBy(moment.patch, moment.seats, truths));
  const repeats = graphRepeats(graph);
  const full = { rate: moment.rate, seconds: moment.watch.seconds };
  const window = look === 'quick' ? quickWindow({ ...graph, sampleRate: moment.rate }, moment.watch.slow) : full;
  const { asset } = moment;
  const turns = look !== 'window';
  return figuresIn(graph, moment.places, { ...window, repeats, turns, ...(asset && { asset }) });
}

export interface PlaceInLog {
  readonly session: number;
  readonly reading: number;
}

export interface MomentReadings {
  readonly moment: Moment;
  /** By place of the moment, the readings that were taken there, of all sessions. */
  readonly taken: readonly (readonly PlaceInLog[])[];
}

interface Standing {
  readonly patch: Patch;
  readonly seats: readonly SeatedModule[];
  readonly readings: readonly (Reading & { readonly place: PlaceInLog })[];
}

/** The moments of all sessions; what was read of one patch, set and plugged alike, is one moment over all of them. */
export function momentsOf(standings: readonly Standing[], asset: Asset): MomentReadings[] {
  const alike = grouped(standings, ({ patch, seats }) =>
    JSON.stringify([printPatch({ ...patch, name: '', notes: '', variants: [] }), seats.map((s) => [s.module, s.rack])]),
  );
  return [...alike.values()].flatMap((same) => {
    const [first] = same;
    if (!first) return [];
    const before = pluggedBefore(first.patch);
    const seats = new Map(first.seats.map((s) => [s.module, s]));
    const moments = grouped(
      same.flatMap((s) => s.readings),
      momentKey,
    );
    return [...moments.values()].flatMap((readings) => momentsIn(first.patch, seats, before, readings, asset));
  });
}

function momentsIn(
  patch: Patch,
  seats: ReadonlyMap<string, SeatedModule>,
  before: ReadonlyMap<string, readonly Cable[]>,
  readings: Standing['readings'],
  asset: Asset,
): MomentReadings[] {
  const [first] = readings;
  if (!first) return [];
  const there = applyEdits(pluggedSoFar(patch, pluggedAt(patch, before, first.step)), knobEdits(first.knobs));
  const graph = buildGraph(there);
  const repeats = graphRepeats(graph);
  const places = [...grouped(readings, (x) => `${x.at} ${x.quantity}`).values()];
  const read = places.map((same) => same[0] as Reading);
  return watchedTogether(graph, repeats, read).map(({ watch, of }): MomentReadings => {
    const some = of.map((n) => read[n] as Reading);
    const rate =
      controlRate(
        graph,
        some.map((x) => x.at),
      ) ?? graph.sampleRate;
    const upstream = some.map((x) => {
      const ids = modulesUpTo(graph, x.at);
      return new Set([...ids, ...loadersOf(graph, ids)]);
    });
    return {
      moment: { seats, patch: there, places: some, upstream, watch, rate, asset },
      taken: of.map((n) => (places[n] ?? []).map((x) => x.place)),
    };
  });
}
