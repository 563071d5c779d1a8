import { useMemo } from 'react';
import { idOf, placeName } from '@/core';
import type { Finding, Patch } from '@/core';
import { MOST_TRACES } from './scope/view';
import type { Trace } from './scope/view';
import type { FrameMark } from './strip/FrameGraphic';
import type { Predicted } from './usePrediction';

/** The socket whose strip is shown, if it is still there. */
export function shownSocket(trail: readonly string[], patch: Patch): string | null {
  const socket = trail.at(-1) ?? null;
  return socket !== null && patch.modules.some((m) => m.id === idOf(socket)) ? socket : null;
}

/** The worst that is said of each module; findings come worst first. */
export function marksOf(findings: readonly Finding[]): Map<string, FrameMark> {
  const marks = new Map<string, FrameMark>();
  for (const { at, severity } of findings) {
    const worst = marks.get(idOf(at)) ?? { severity, count: 0 };
    if (worst.severity === severity) marks.set(idOf(at), { severity, count: worst.count + 1 });
  }
  return marks;
}

/** Modules that one patch has otherwise than another. */
export function changedModules(before: Patch, after: Patch): Set<string> {
  const old = new Map(before.modules.map((m) => [m.id, m]));
  return new Set(after.modules.filter((m) => old.get(m.id) !== m).map((m) => m.id));
}

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
