import { BoundsEngine } from '../bounds/bounds';
import { repeatsIn } from '../bounds/repeats';
import { idOf, nameOf } from '../document/sockets';
import type { Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { controlRate } from '../graph/upstream';
import { normal, seedOf, stream } from '../kinds/random';
import { actId, Order } from '../sheet/order';
import { pluggedSoFar } from '../sheet/expect';
import type { Asset } from '../sheet/expect';
import type { ChannelLimits } from '../rack/limits';
import { faultyGraph } from './faults';
import type { Fault } from './faults';
import { figuresIn, watchedTogether } from './figures';
import type { Reading } from './figures';
import { pluggedAt, pluggedBefore, quantitiesAt } from './readings';
import type { BenchReading } from './readings';
import { readingUnit } from './quantities';
import type { ReadQuantity } from './quantities';
import { onSimulatedRack } from './truths';

/** What answers a reading at a rack: a hand that types it in, an instrument, or a rack that is simulated. */
export interface Meter {
  read(reading: Reading): number;
}

export interface SimulatedOptions {
  /** Which rack it is: its modules’ own errors, and the noise of its meter. */
  readonly seed: number;
  readonly faults?: readonly Fault[];
  /** True modules and no noise. */
  readonly ideal?: boolean;
  /** True modules, and the noise of the meter. */
  readonly trueModules?: boolean;
  /** What the channels that it sits on have. */
  readonly channels?: ChannelLimits | null;
  readonly asset?: Asset;
}

/** What a meter’s last digits jump by, volts RMS. */
const METER_NOISE = 0.002;

const isVolts = (quantity: ReadQuantity): boolean => !['percent', 'pulses', 'hz'].includes(quantity);

/** A rack that is not there: modules that are off as real ones are, the same for a seed, and faults put into it. */
export class SimulatedRack implements Meter {
  private readonly before: ReturnType<typeof pluggedBefore>;
  private readonly own: ReadonlySet<string>;

  constructor(
    private readonly patch: Patch,
    private readonly options: SimulatedOptions,
  ) {
    this.before = pluggedBefore(patch);
    this.own = new Set(patch.modules.map((m) => m.id));
  }

  read(reading: Reading): number {
    return this.readAll([reading])[0] as number;
  }

  /** Readings of one moment: of one step, with the same knobs elsewhere. */
  readAll(readings: readonly Reading[]): number[] {
    const [first] = readings;
    if (!first) return [];
    const { seed, faults = [], ideal = false, trueModules = ideal, asset } = this.options;
    const plugged = pluggedAt(this.patch, this.before, first.step);
    const knobs = first.knobs.map(({ at, value }): Edit => ({ do: 'set', module: idOf(at), param: nameOf(at), value }));
    const plan = pluggedSoFar(this.patch, plugged);
    const graph = faultyGraph(plan, plugged, faults, knobs, (p) =>
      buildGraph(trueModules ? p : onSimulatedRack(p, seed, this.options.channels ?? null, this.own)),
    );
    const planned = buildGraph(applyEdits(plan, knobs));
    const repeatsOf = (g: Graph): ReturnType<typeof repeatsIn> => repeatsIn(g, new BoundsEngine().run(g));
    const repeats = repeatsOf(graph);
    const found = new Array<number>(readings.length).fill(0);
    for (const { watch, of } of watchedTogether(planned, repeatsOf(planned), readings)) {
      const some = of.map((i) => readings[i] as Reading);
      const rate =
        controlRate(
          planned,
          some.map((r) => r.at),
        ) ?? planned.sampleRate;
      const figures = figuresIn(graph, some, { rate, seconds: watch.seconds, repeats, ...(asset && { asset }) });
      of.forEach((i, n) => (found[i] = figures[n] as number));
    }
    return found.map((value, i) => {
      const { at, quantity, step } = readings[i] as Reading;
      if (ideal || !isVolts(quantity)) return value;
      const noise = normal(stream(seedOf(seed, `${at} ${quantity} ${step ?? ''}`)));
      return value + METER_NOISE * noise;
    });
  }
}

/** What a patch’s sheet measures, read at a simulated rack: with every cable plugged, or as the sheet goes. */
export function benchReadings(patch: Patch, options: SimulatedOptions & { readonly steps?: boolean }): BenchReading[] {
  const rack = new SimulatedRack(patch, options);
  const before = pluggedBefore(patch);
  const acts = new Order(buildGraph(patch)).run().filter((act) => act.do === 'measure');
  const moments = acts.map((act): Reading[] => {
    const step = actId(act);
    const there = options.steps ? pluggedSoFar(patch, before.get(step) ?? []) : patch;
    return quantitiesAt(there, act.socket, options.asset).map((quantity) => ({
      at: act.socket,
      quantity,
      knobs: [],
      ...(options.steps && { step }),
    }));
  });
  const asked = options.steps ? moments : [moments.flat()];
  return asked.flatMap((readings) =>
    rack.readAll(readings).map((value, i) => {
      const { at, quantity, step, knobs } = readings[i] as Reading;
      return { at, quantity, value, unit: readingUnit(quantity), ...(step !== undefined && { step }), knobs };
    }),
  );
}
