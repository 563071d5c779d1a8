import { ErrorModel } from '../answers/errors';
import { BoundsEngine } from '../bounds/bounds';
import { repeatsIn } from '../bounds/repeats';
import { idOf, nameOf } from '../document/sockets';
import type { Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { controlRate } from '../graph/upstream';
import { seedOf, stream } from '../kinds/random';
import { Order } from '../sheet/order';
import { pluggedSoFar } from '../sheet/expect';
import type { Asset } from '../sheet/expect';
import { faultyGraph } from './faults';
import type { Fault } from './faults';
import { figuresIn } from './looks';
import type { Reading } from './looks';
import { actId, pluggedBefore, quantitiesAt } from './readings';
import type { BenchReading, ReadQuantity } from './readings';

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
  readonly asset?: Asset;
}

/** Slow voltages are watched for so many windows, at most so long, seconds: their extremes come when they come. */
const PATIENCE = 5;
const LONGEST = 120;
/** What a meter’s last digits jump by, volts RMS. */
const METER_NOISE = 0.002;

const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random() * 0.999999)) * Math.cos(2 * Math.PI * random());

const isVolts = (quantity: ReadQuantity): boolean => !['percent', 'pulses', 'hz'].includes(quantity);

/** A rack that is not there: modules that are off as real ones are, the same for a seed, and faults put into it. */
export class SimulatedRack implements Meter {
  private readonly before: ReturnType<typeof pluggedBefore>;

  constructor(
    private readonly patch: Patch,
    private readonly options: SimulatedOptions,
  ) {
    this.before = pluggedBefore(patch);
  }

  read(reading: Reading): number {
    return this.readAll([reading])[0] as number;
  }

  /** Readings of one moment: of one step, with the same knobs elsewhere. */
  readAll(readings: readonly Reading[]): number[] {
    const [first] = readings;
    if (!first) return [];
    const { seed, faults = [], ideal = false, asset } = this.options;
    const plugged = (first.step === undefined ? this.patch.cables : this.before.get(first.step)) ?? this.patch.cables;
    const knobs = first.knobs.map(({ at, value }): Edit => ({ do: 'set', module: idOf(at), param: nameOf(at), value }));
    const plan = { ...this.patch, targets: [], probes: [], variants: [], bypassed: [] };
    const graph = faultyGraph(plan, plugged, faults, knobs, (p) =>
      ideal ? buildGraph(p) : new ErrorModel(p, {}).drawn(stream(seed)),
    );
    const sockets = readings.map((r) => r.at);
    const planned = buildGraph(applyEdits(pluggedSoFar(this.patch, plugged), knobs));
    const rate = controlRate(planned, sockets) ?? planned.sampleRate;
    const { duration } = this.patch.settings;
    const found = figuresIn(graph, readings, {
      rate,
      seconds: controlRate(planned, sockets) === null ? duration : Math.min(LONGEST, PATIENCE * duration),
      repeats: repeatsIn(graph, new BoundsEngine().run(graph)),
      ...(asset && { asset }),
    });
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
    rack.readAll(readings).map((value, i) => ({ ...(readings[i] as Reading), value })),
  );
}
