import type { ModuleBounds } from './bounds/bounds';
import type { Graph, GraphModule } from './graph/graph';
import { GATE_HYSTERESIS } from './kinds/detect';
import type { EndSpec } from './kinds/kind';
import type { ParamValues } from './kinds/params';
import type { EndSeen, Simulation } from './simulate/types';
import { noteOfHz, noteOfVolts } from './units/pitch';

/** What a destination does, in its own unit. `low` and `high` are guaranteed; a gain of nothing is null and `silent`. */
export interface Reading {
  readonly at: string;
  readonly quantity: string;
  readonly unit: string;
  readonly low: number | null;
  readonly high: number | null;
  readonly seenLow?: number | null;
  readonly seenHigh?: number | null;
  readonly mean?: number | null;
  readonly silent?: true;
  readonly seenSilent?: true;
  readonly octaves?: number;
  readonly lowNote?: string;
  readonly highNote?: string;
  readonly shutPercent?: number;
  readonly overPercent?: number;
  readonly pinnedLowPercent?: number;
  readonly pinnedHighPercent?: number;
  /** Of a gate input: how long it is high; that it can never rise; that it can never fall. */
  readonly highPercent?: number;
  readonly never?: true;
  readonly always?: true;
  /** The voltages, all together, which give those figures. */
  readonly driveVolts: readonly [number, number];
  readonly seenDriveVolts?: readonly [number, number];
}

type End = EndSpec<ParamValues>;

function span(end: End, p: ParamValues, lo: number, hi: number): [number | null, number | null] {
  const [a, b] = (end.span?.(p, lo, hi) ?? [lo, hi]).map((v) => end.value(p, v)) as [number | null, number | null];
  return a === null || b === null || a <= b ? [a, b] : [b, a];
}

/** A level is what the window's RMS comes to, all else what its extremes do. */
function seenSpanOf(end: End, p: ParamValues, { drive }: EndSeen): [number | null, number | null] {
  return end.quantity === 'level'
    ? [end.value(p, drive.rms), end.value(p, drive.rms)]
    : span(end, p, drive.min, drive.max);
}

function noteText(hz: number): string {
  const { name, cents } = noteOfHz(hz);
  const off = Math.round(cents);
  return off === 0 ? name : `${name} ${off < 0 ? '\u2212' : '+'}${Math.abs(off)} ct`;
}

function shares(end: End, seen: EndSeen | undefined): Partial<Reading> {
  if (!seen) return {};
  if (end.quantity === 'gain') return { shutPercent: 100 * seen.atOrBelow, overPercent: 100 * seen.above };
  if (end.quantity === 'value' || end.quantity === 'position') {
    return { pinnedLowPercent: 100 * seen.below, pinnedHighPercent: 100 * seen.above };
  }
  return {};
}

function frequencyParts(low: number | null, high: number | null): Partial<Reading> {
  if (low === null || high === null || low <= 0) return {};
  return { octaves: Math.log2(high / low), lowNote: noteText(low), highNote: noteText(high) };
}

function readingOf(m: GraphModule, end: End, drive: readonly [number, number], seen: EndSeen | undefined): Reading {
  const [low, high] = span(end, m.params, ...drive);
  const seenSpan = seen ? seenSpanOf(end, m.params, seen) : null;
  return {
    at: `${m.id}.${end.socket}`,
    quantity: end.quantity,
    unit: end.unit(m.params),
    low,
    high,
    ...(low === null && { silent: true as const }),
    ...(seen &&
      seenSpan && { seenLow: seenSpan[0], seenHigh: seenSpan[1], mean: end.value(m.params, seen.drive.mean) }),
    ...(seenSpan?.[0] === null && { seenSilent: true as const }),
    ...(end.quantity === 'frequency' && frequencyParts(low, high)),
    ...(end.quantity === 'note' &&
      low !== null &&
      high !== null && { lowNote: noteOfVolts(low).name, highNote: noteOfVolts(high).name }),
    ...shares(end, seen),
    driveVolts: drive,
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
  const readings = graph.modules.flatMap((m) =>
    (m.kind.ends ?? []).flatMap((end, i) => {
      const at = `${m.id}.${end.socket}`;
      const used = m.inputs.some(
        (s) => s.connected && (end.always ? end.sockets.includes(s.spec.name) : s.socket === at),
      );
      if (!end.always && !used && !targets.has(at)) return [];
      const drive = bounds.get(m.id)?.ends[i]?.drive ?? [0, 0];
      return [readingOf(m, end, drive, simulation?.ends.get(m.id)?.[i])];
    }),
  );
  const gates = gateReadings(graph, bounds, simulation);
  const read = new Set([...readings, ...gates].map((r) => r.at));
  return [
    ...readings,
    ...gates,
    ...[...targets].filter((at) => !read.has(at)).map((at) => voltsReading(graph, bounds, simulation, at)),
  ];
}

/** Gate inputs: pulses a second as seen, 0 where none can ever come. */
function gateReadings(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
): Reading[] {
  return graph.modules.flatMap((m) =>
    m.inputs.flatMap(({ spec, socket, connected }, i): Reading[] => {
      const drive = bounds.get(m.id)?.inputs[i];
      if (spec.threshold === undefined || !connected || !drive) return [];
      const never = drive[1] < spec.threshold;
      const seen = simulation?.gates.get(socket);
      const hz = seen && !never ? seen.rises / graph.patch.settings.duration : 0;
      return [
        {
          at: socket,
          quantity: 'rate',
          unit: 'Hz',
          low: hz,
          high: hz,
          ...(seen && { seenLow: hz, seenHigh: hz, highPercent: 100 * seen.high }),
          ...(never && { never: true as const }),
          ...(drive[0] >= spec.threshold - GATE_HYSTERESIS && { always: true as const }),
          driveVolts: drive,
        },
      ];
    }),
  );
}

function voltsReading(
  graph: Graph,
  bounds: ReadonlyMap<string, ModuleBounds>,
  simulation: Simulation | null,
  at: string,
): Reading {
  const m = graph.modules.find((x) => at.startsWith(`${x.id}.`));
  const input = m?.inputs.findIndex((s) => s.socket === at) ?? -1;
  const output = m?.outputs.findIndex((o) => o.socket === at) ?? -1;
  const known = m && bounds.get(m.id);
  const [low, high] = known?.inputs[input] ?? known?.outputs[output] ?? [0, 0];
  const seen = simulation?.inputs.get(at) ?? simulation?.outputs.get(at);
  return {
    at,
    quantity: 'volts',
    unit: 'V',
    low,
    high,
    ...(seen && { seenLow: seen.min, seenHigh: seen.max, mean: seen.mean }),
    driveVolts: [low, high],
  };
}
