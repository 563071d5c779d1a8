import type { ToleranceReport } from '@/core';

type Edge = readonly [number, number];

/** Where a frame's lowest and highest come out, 5 to 95%; null where nothing was drawn. */
export function softEdges(
  { outputs, readings }: Pick<ToleranceReport, 'outputs' | 'readings'>,
  socket: string,
): readonly [Edge, Edge] | null {
  const output = outputs[socket];
  if (output) return [output.min, output.max];
  const reading = readings.find((r) => r.at === socket);
  return reading ? [reading.lowVolts, reading.highVolts] : null;
}
