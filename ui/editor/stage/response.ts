import type { GraphModule, ModuleBounds, Range } from '@/core';

type End = NonNullable<GraphModule['kind']['ends']>[number];

export interface ResponsePoint {
  readonly volts: number;
  readonly value: number;
}

export interface Response {
  readonly socket: string;
  readonly unit: string;
  readonly points: readonly ResponsePoint[];
  /** What can arrive there, volts. */
  readonly drive: Range;
}

const POINTS = 80;
/** The widest range drawn, that of module outputs, volts. */
const REACH = 12;
/** Where silence is drawn, dB. */
const SILENT_DB = -80;

/** The voltages that a response is drawn for: all that it responds to, and all that can arrive. */
function drawnRange(window: Range | null, [lo, hi]: Range): Range {
  const [from, to] = window ?? [-5, 5];
  const low = Math.max(-REACH, Math.min(from, lo));
  const high = Math.min(REACH, Math.max(to, hi));
  return high > low ? [low, high] : [low - 1, low + 1];
}

function responseOf(m: GraphModule, end: End, drive: Range): Response {
  const [from, to] = drawnRange(end.window(m.params), drive);
  const points = Array.from({ length: POINTS + 1 }, (_, i): ResponsePoint => {
    const volts = from + (i / POINTS) * (to - from);
    return { volts, value: end.value(m.params, volts) ?? SILENT_DB };
  });
  return { socket: end.socket, unit: end.unit(m.params), points, drive };
}

/** What a module's destinations make of their voltages, each that responds to something. */
export function responsesOf(m: GraphModule, bounds: ModuleBounds | undefined): Response[] {
  const told = new Set<string>();
  return (m.kind.ends ?? []).flatMap((end, i) => {
    const key = end.sockets.join();
    if (told.has(key)) return [];
    told.add(key);
    return [responseOf(m, end, bounds?.ends[i]?.drive ?? [0, 0])];
  });
}
