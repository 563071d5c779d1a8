import { idOf, socketAt } from '../document/sockets';
import type { ModuleBounds } from '../bounds/bounds';
import type { Target } from '../document/targets';
import { figureHull, figuresOf } from './drive';
import type { EndBound } from '../bounds/entries';
import type { Graph, GraphModule } from '../graph/graph';
import { Arrivals } from './arrivals';
import type { ArrivesBy } from '../simulate/arrival';
import type { Range } from '../law/affine';
import { fateOf } from '../kinds/detect';
import type { EndSpec, GateState } from '../kinds/kind';
import { HOME_DBU, NOMINAL_DBU } from '../kinds/lineOut';
import type { ParamValues } from '../kinds/params';
import type { EndSeen, Simulation } from '../simulate/types';
import { noteOfHz, noteOfVolts } from '../units/pitch';

/** What a destination does, in its own unit. `low` and `high` are guaranteed; a gain of nothing is null and `silent`. */
export interface Reading {
  readonly at: string;
  readonly quantity: string;
  /** A further reading of that socket, which has one of its own before it. */
  readonly further?: true;
  readonly unit: string;
  readonly low: number | null;
  readonly high: number | null;
  /** What arrives once the start has passed, and what it is taken from: the figures that people see first. */
  readonly arrivesLow: number | null;
  readonly arrivesHigh: number | null;
  readonly arrivesBy: ArrivesBy;
  /** Where the window is too short for the movement: the one that would hold it, seconds. */
  readonly lengthenTo?: number;
  readonly seenLow?: number | null;
  readonly seenHigh?: number | null;
  readonly mean?: number | null;
  /** The guaranteed range with the faders upstream anywhere on their travel, where it is wider: the rest is at rest. */
  readonly fadersLow?: number | null;
  readonly fadersHigh?: number | null;
  /** Of a gate that never changes at rest: a fader upstream can change it. */
  readonly atRest?: true;
  readonly silent?: true;
  readonly seenSilent?: true;
  readonly octaves?: number;
  readonly lowNote?: string;
  readonly highNote?: string;
  readonly shutPercent?: number;
  readonly overPercent?: number;
  readonly pinnedLowPercent?: number;
  readonly pinnedHighPercent?: number;
  /** Of what waits for a crossing: how long it is high, and its guaranteed share. */
  readonly highPercent?: number;
  readonly always?: 'low' | 'high' | null;
  /** Counted in the simulated window; not guaranteed. */
  readonly counted?: true;
  /** Of a level: the guaranteed peak, dBu. */
  readonly peakHigh?: number | null;
  /** Of a level: over nominal studio level (+4 dBu) and home level (−10 dBV), dB. */
  readonly overStudioDb?: number;
  readonly overHomeDb?: number;
  /** The voltages, all together, which give those figures. */
  readonly driveVolts: readonly [number, number];
  readonly seenDriveVolts?: readonly [number, number];
  /** The voltages that give what arrives. */
  readonly arrivesVolts: readonly [number, number];
}

type End = EndSpec<ParamValues>;

function noteText(hz: number): string {
  const { name, cents } = noteOfHz(hz);
  const off = Math.round(cents);
  return off === 0 ? name : `${name} ${off < 0 ? '\u2212' : '+'}${Math.abs(off)} ct`;
}

/** How long it is beyond each side of its window. */
function shares(end: End, p: ParamValues, seen: EndSeen | undefined): Partial<Reading> {
  if (!seen || !end.window(p)) return {};
  return {
    ...(end.quantity === 'gain' && { shutPercent: 100 * seen.atOrBelow, overPercent: 100 * seen.above }),
    pinnedLowPercent: 100 * seen.below,
    pinnedHighPercent: 100 * seen.above,
  };
}

function frequencyParts(low: number | null, high: number | null): Partial<Reading> {
  if (low === null || high === null || low <= 0) return {};
  return { octaves: Math.log2(high / low), lowNote: noteText(low), highNote: noteText(high) };
}

/**
 * A level is one figure, the RMS over the window (none without a simulation), beside the peak that the bound allows.
 */
function levelOf(
  m: GraphModule,
  end: End,
  drive: readonly [number, number],
  seen: EndSeen | undefined,
  by: ArrivesBy,
): Reading {
  const level = seen ? end.value(m.params, seen.drive.rms) : null;
  return {
    at: socketAt(m.id, end.socket),
    quantity: end.quantity,
    unit: end.unit(m.params),
    low: level,
    high: level,
    arrivesLow: level,
    arrivesHigh: level,
    arrivesBy: by,
    arrivesVolts: arrivingVolts(drive, seen, by),
    ...(seen && { seenLow: level, seenHigh: level }),
    ...(seen && level === null && { silent: true as const, seenSilent: true as const }),
    ...(level !== null && { overStudioDb: level - NOMINAL_DBU, overHomeDb: level - HOME_DBU }),
    peakHigh: end.value(m.params, Math.max(drive[1], -drive[0])),
    driveVolts: drive,
    ...(seen && { seenDriveVolts: [seen.drive.min, seen.drive.max] as const }),
  };
}

const arrivingVolts = (drive: readonly [number, number], seen: EndSeen | undefined, by: ArrivesBy) =>
  seen && by !== 'bound' ? seen.arrives : drive;

function readingOf(
  m: GraphModule,
  end: End,
  bound: EndBound | undefined,
  seen: EndSeen | undefined,
  by: ArrivesBy,
): Reading {
  const { drive = [0, 0] as const, passed } = bound ?? {};
  if (end.quantity === 'level') return levelOf(m, end, drive, seen, by);
  const [low, high] = passed ? figureHull(end, passed) : figuresOf(end, m.params, drive);
  const arrivesVolts = arrivingVolts(drive, seen, by);
  const [arrivesLow, arrivesHigh] =
    by === 'bound' ? [low, high] : (seen?.arrivingFigures ?? figuresOf(end, m.params, arrivesVolts));
  const seenSpan = seen ? (seen.figures ?? figuresOf(end, m.params, [seen.drive.min, seen.drive.max])) : null;
  return {
    at: socketAt(m.id, end.socket),
    quantity: end.quantity,
    unit: end.unit(m.params),
    low,
    high,
    arrivesLow,
    arrivesHigh,
    arrivesBy: by,
    ...(end.further && { further: true as const }),
    ...(low === null && { silent: true as const }),
    ...(seen &&
      seenSpan && {
        seenLow: seenSpan[0],
        seenHigh: seenSpan[1],
        mean: passed ? null : end.value(m.params, seen.drive.mean),
      }),
    ...(seenSpan?.[0] === null && { seenSilent: true as const }),
    ...((end.quantity === 'frequency' || end.quantity === 'pitch') && frequencyParts(arrivesLow, arrivesHigh)),
    ...(end.quantity === 'note' &&
      arrivesLow !== null &&
      arrivesHigh !== null && { lowNote: noteOfVolts(arrivesLow).name, highNote: noteOfVolts(arrivesHigh).name }),
    ...(!passed && shares(end, m.params, seen)),
    driveVolts: drive,
    arrivesVolts,
    ...(seen && { seenDriveVolts: [seen.drive.min, seen.drive.max] as const }),
  };
}

/** The figure of every destination of the patch; and the volts at every target that has no unit of its own. */
export function readingsOf(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
): Reading[] {
  const targets = new Set(graph.patch.targets.map((t) => t.at));
  const arrivals = new Arrivals(graph, bounds, simulation);
  const readings = graph.modules.flatMap((m) =>
    (m.kind.ends ?? []).flatMap((end, i) => {
      const at = socketAt(m.id, end.socket);
      const used = m.inputs.some(
        (s) => s.connected && (end.always ? end.sockets.includes(s.spec.name) : s.socket === at),
      );
      if (!(end.exists?.(m.params) ?? true) || (!end.always && !used && !targets.has(at))) return [];
      const by = arrivals.atInputs(m, end.sockets);
      const reading = readingOf(m, end, bounds.get(m.id)?.ends[i], simulation?.ends.get(m.id)?.[i], by);
      const window = arrivals.windowFor(m, end.sockets);
      return [window === null ? reading : { ...reading, lengthenTo: window }];
    }),
  );
  const gates = gateReadings(graph, bounds, simulation, arrivals);
  const read = new Set([...readings, ...gates].map((r) => r.at));
  return [
    ...readings,
    ...gates,
    ...[...targets].filter((at) => !read.has(at)).map((at) => voltsReading(graph, bounds, simulation, at, arrivals)),
  ];
}

/** What waits for crossings: gate inputs, and the inputs of kinds with a detector. Pulses a second are simulated. */
function gateReadings(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
  arrivals: Arrivals,
): Reading[] {
  return graph.modules.flatMap((m) =>
    m.inputs.flatMap(({ spec, socket, connected }, i): Reading[] => {
      const found = bounds.get(m.id);
      const drive = found?.inputs[i];
      const gateState = gateStateAt(m, spec.name, spec.threshold, drive, found?.gateState ?? null);
      if (!connected || !drive || gateState === null) return [];
      const seen = simulation?.gates.get(socket);
      const perSecond = seen && gateState !== 'low' ? seen.perSecond : gateState === 'moves' ? null : 0;
      return [
        {
          at: socket,
          quantity: 'pulses',
          unit: '/s',
          low: perSecond,
          high: perSecond,
          arrivesLow: perSecond,
          arrivesHigh: perSecond,
          arrivesBy: arrivals.atInputs(m, [spec.name]),
          ...(seen && { seenLow: perSecond, seenHigh: perSecond, highPercent: 100 * seen.high }),
          ...(gateState === 'moves' && { counted: true as const }),
          always: gateState === 'moves' ? null : gateState,
          driveVolts: drive,
          arrivesVolts: drive,
        },
      ];
    }),
  );
}

function gateStateAt(
  m: GraphModule,
  name: string,
  threshold: number | undefined,
  drive: readonly [number, number] | undefined,
  detector: GateState | null,
): GateState | null {
  if (threshold !== undefined && drive) return fateOf(drive, threshold);
  return m.kind.timing?.detects?.input === name ? detector : null;
}

function voltsReading(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
  at: string,
  arrivals: Arrivals,
): Reading {
  const m = graph.modules.find((x) => x.id === idOf(at));
  const input = m?.inputs.findIndex((s) => s.socket === at) ?? -1;
  const output = m?.outputs.findIndex((o) => o.socket === at) ?? -1;
  const known = m && bounds.get(m.id);
  const [low, high] = known?.inputs[input] ?? known?.outputs[output] ?? [0, 0];
  const seen = simulation?.inputs.get(at) ?? simulation?.outputs.get(at);
  const arriving = m ? arrivingAt(graph, simulation, m, at, arrivals) : null;
  const arrives: Range = arriving?.volts ?? [low, high];
  return {
    at,
    quantity: 'volts',
    unit: 'V',
    low,
    high,
    arrivesLow: arrives[0],
    arrivesHigh: arrives[1],
    arrivesBy: arriving?.by ?? 'bound',
    ...(seen && { seenLow: seen.min, seenHigh: seen.max, mean: seen.mean }),
    driveVolts: [low, high],
    arrivesVolts: arrives,
  };
}

/** The range that arrives at an input or output, volts; null where that is its bound. */
function arrivingAt(
  graph: Graph,
  simulation: Simulation | null,
  m: GraphModule,
  at: string,
  arrivals: Arrivals,
): { readonly volts: Range; readonly by: ArrivesBy } | null {
  const input = m.inputs.find((s) => s.socket === at);
  const driver = input?.driver;
  const source = driver?.type === 'output' ? graph.modules[driver.module]?.outputs[driver.output]?.socket : undefined;
  const by = input ? arrivals.atInputs(m, [input.spec.name]) : arrivals.atOutputs(m);
  const seen = simulation?.outputs.get(input ? (source ?? '') : at);
  return seen && by !== 'bound' ? { volts: seen.arrives, by } : null;
}

/** Whether a target is about a reading: a further one only where it names its quantity. */
export const isAskedBy = (r: Pick<Reading, 'at' | 'quantity' | 'further'>, t: Target): boolean =>
  r.at === t.at && (!r.further || ('quantity' in t && t.quantity === r.quantity));

/** The reading that a target is about: of its quantity, else the destination's own. */
export const readingFor = <R extends Pick<Reading, 'at' | 'quantity'>>(
  readings: readonly R[],
  target: Target,
): R | null =>
  readings.find((r) => r.at === target.at && 'quantity' in target && r.quantity === target.quantity) ??
  readings.find((r) => r.at === target.at) ??
  null;

/** Differences below this share of the span are not shown. */
const APART = 0.01;

/** Whether the guaranteed range is another than what arrives. */
export function guaranteedApart({ arrivesBy, arrivesVolts, driveVolts, quantity }: Reading): boolean {
  if (arrivesBy === 'bound' || quantity === 'level') return false;
  const off = Math.max(Math.abs(arrivesVolts[0] - driveVolts[0]), Math.abs(arrivesVolts[1] - driveVolts[1]));
  return off > APART * (driveVolts[1] - driveVolts[0]);
}
