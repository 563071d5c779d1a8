import { useMemo } from 'react';
import { partsOf, placeName } from '@/core';
import type { Graph, Range } from '@/core';
import type { Predicted } from '@/ui/session/usePrediction';
import { MOST_TRACES } from './view';
import type { Trace } from './view';

export interface Pin {
  readonly socket: string;
  readonly label: string;
}

const apart = ([a, b]: Range, [c, d]: Range): boolean => Math.abs(a - c) + Math.abs(b - d) > 1e-6;

/** What tells the voltage at a destination's socket from the sum that the destination answers to, where they differ. */
function atSocket({ modules }: Graph, bounds: Predicted['bounds'], socket: string): string {
  const { id, name } = partsOf(socket);
  const m = modules.find((x) => x.id === id);
  const end = m?.kind.ends?.findIndex((e) => e.sockets.includes(name)) ?? -1;
  const found = bounds.get(id);
  const volts = found?.inputs[m?.inputs.findIndex((s) => s.socket === socket) ?? -1];
  const drive = found?.ends[end]?.drive;
  return volts && drive && apart(volts, drive) ? ' (at the socket)' : '';
}

/** What the scope shows: what is pinned, else the path's source and its end; the same list until one changes. */
export function usePins({ graph, bounds, shown }: Predicted): readonly Pin[] {
  const { probes } = graph.patch;
  const said = shown
    .slice(0, MOST_TRACES)
    .map(
      (socket) =>
        `${socket}\t${probes.find((p) => p.at === socket)?.label ?? placeName(graph.modules, socket)}${atSocket(graph, bounds, socket)}`,
    )
    .join('\n');
  return useMemo(
    () =>
      said.split('\n').flatMap((line) => {
        const [socket = '', label = ''] = line.split('\t');
        return socket ? [{ socket, label }] : [];
      }),
    [said],
  );
}

/** Their traces, of the last whole simulation. */
export function useTraces({ full }: Predicted, pins: readonly Pin[]): readonly Trace[] {
  return useMemo(
    () =>
      pins.flatMap((pin): Trace[] => {
        const probe = full?.probes.get(pin.socket);
        return probe ? [{ ...pin, probe }] : [];
      }),
    [pins, full],
  );
}
