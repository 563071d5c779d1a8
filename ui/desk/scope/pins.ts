import { useMemo } from 'react';
import { placeName } from '@/core';
import type { Predicted } from '@/ui/session/usePrediction';
import { MOST_TRACES } from './view';
import type { Trace } from './view';

export interface Pin {
  readonly socket: string;
  readonly label: string;
}

/** What the scope shows: what is pinned, else the path's source and its end; the same list until one changes. */
export function usePins({ graph, shown }: Predicted): readonly Pin[] {
  const { probes } = graph.patch;
  const said = shown
    .slice(0, MOST_TRACES)
    .map((socket) => `${socket}\t${probes.find((p) => p.at === socket)?.label ?? placeName(graph.modules, socket)}`)
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
