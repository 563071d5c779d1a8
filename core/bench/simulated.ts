import { graphRepeats } from '../bounds/repeats';
import type { Cable, Patch } from '../document/types';
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
import { simulateGraph } from '../simulate/simulate';
import { figuresIn, inWindow, sourceOf, watchedTogether } from './figures';
import type { Reading } from './figures';
import { knobEdits, pluggedAt, pluggedBefore, quantitiesAt } from './readings';
import type { BenchReading } from './readings';
import { readingUnit } from './quantities';
import type { ReadQuantity } from './quantities';
import { onSimulatedRack } from './truths';

/** What answers at a rack: a hand that types readings in, an interface that records, or a rack that is simulated. */
export interface Meter {
  read(reading: Reading): number;
  /** A voltage over time; null where it cannot be recorded. */
  record(at: string, seconds: number): Recorded | null;
}

export interface Recorded {
  readonly volts: Float32Array;
  readonly sampleRate: number;
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

/** Of a recording, samples a second, and the longest run for one, seconds. */
const RECORD_RATE = 48_000;
const LONGEST_RECORD = 60;
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

  /** The rack as it is: its own modules, and what is wrong with it. */
  private graph(plan: Patch, plugged: readonly Cable[], knobs: readonly Edit[]): Graph {
    const { seed, faults = [], ideal = false, trueModules = ideal, channels = null } = this.options;
    return faultyGraph(plan, plugged, faults, knobs, (p) =>
      buildGraph(trueModules ? p : onSimulatedRack(p, seed, channels, this.own)),
    );
  }

  /** A voltage with every cable plugged, from a moment that nobody chose, with the noise of the meter. */
  record(at: string, seconds: number): Recorded | null {
    const { seed, ideal = false, asset } = this.options;
    const { cables } = buildGraph(this.patch).wiring;
    const graph = this.graph(pluggedSoFar(this.patch, cables), cables, []);
    const from = sourceOf(graph, at);
    if (typeof from !== 'string') return null;
    const random = stream(seedOf(seed, `record ${at}`));
    const late = ideal ? 0 : random() * seconds;
    const run = inWindow(graph, { rate: RECORD_RATE, seconds: Math.min(LONGEST_RECORD, seconds + late) });
    const { traces } = simulateGraph(run, { only: [from], traces: [from], ...(asset && { asset }) });
    const volts = (traces.get(from) ?? new Float64Array(0)).subarray(Math.round(late * RECORD_RATE));
    return {
      volts: Float32Array.from(volts, (v) => (ideal ? v : v + METER_NOISE * normal(random))),
      sampleRate: RECORD_RATE,
    };
  }

  /** Readings of one moment: of one step, with the same knobs elsewhere. */
  readAll(readings: readonly Reading[]): number[] {
    const [first] = readings;
    if (!first) return [];
    const { seed, ideal = false, asset } = this.options;
    const plugged = pluggedAt(this.patch, this.before, first.step);
    const knobs = knobEdits(first.knobs);
    const plan = pluggedSoFar(this.patch, plugged);
    const graph = this.graph(plan, plugged, knobs);
    const planned = buildGraph(applyEdits(plan, knobs));
    const repeats = graphRepeats(graph);
    const found = new Array<number>(readings.length).fill(0);
    for (const { watch, of } of watchedTogether(planned, graphRepeats(planned), readings)) {
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
