import { useMemo } from 'react';
import { placeName } from '@/core';
import type { Predicted } from '@/ui/session/usePrediction';
import { MOST_TRACES } from './view';
import type { Trace } from './view';

export interface Pin {
  readonly socket: string;
  readonly label: string;
}

/** What is pinned to the scope; the same list until the pins or a name change. */
export function usePins({ graph }: Predicted): readonly Pin[] {
  const { probes } = graph.patch;
  const names = probes.slice(0, MOST_TRACES).map(({ at, label }) => label ?? placeName(graph.modules, at));
  const said = names.join('\n');
  return useMemo(
    () => said.split('\n').flatMap((label, i) => (probes[i] ? [{ socket: probes[i].at, label }] : [])),
    [probes, said],
  );
}

/** The pinned traces of the last whole simulation. */
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
