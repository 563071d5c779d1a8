import { useMemo } from 'react';
import { idOf } from '@/core';
import type { Finding, Patch } from '@/core';
import type { Trace } from './scope/view';
import type { FrameMark } from './strip/FrameGraphic';
import type { Predicted } from './usePrediction';

/** The socket whose strip is shown, if it is still there. */
export function shownSocket(trail: readonly string[], patch: Patch): string | null {
  const socket = trail.at(-1) ?? null;
  return socket !== null && patch.modules.some((m) => m.id === idOf(socket)) ? socket : null;
}

const rank = { note: 0, warning: 1, error: 2 } as const;

/** The worst that is said of each module. */
export function marksOf(findings: readonly Finding[]): Map<string, FrameMark> {
  const marks = new Map<string, FrameMark>();
  for (const { at, severity } of findings) {
    const old = marks.get(idOf(at));
    const worse = !old || rank[severity] > rank[old.severity];
    marks.set(
      idOf(at),
      worse ? { severity, count: 1 } : old.severity === severity ? { ...old, count: old.count + 1 } : old,
    );
  }
  return marks;
}

/** Modules that one patch has otherwise than another. */
export function changedModules(before: Patch, after: Patch): Set<string> {
  const old = new Map(before.modules.map((m) => [m.id, m]));
  return new Set(after.modules.filter((m) => old.get(m.id) !== m).map((m) => m.id));
}

/** The pinned traces of the last whole simulation; the same list until that, the pins or a name change. */
export function useTraces({ graph, full }: Predicted): readonly Trace[] {
  const { probes } = graph.patch;
  const names = graph.modules.map((m) => `${m.id} ${m.label}`).join('\n');
  return useMemo(() => {
    const labels = new Map(
      names.split('\n').map((line) => [line.slice(0, line.indexOf(' ')), line.slice(line.indexOf(' ') + 1)]),
    );
    return probes.flatMap(({ at, label }): Trace[] => {
      const probe = full?.probes.get(at);
      const [id = '', name = ''] = at.split('.');
      return probe ? [{ socket: at, label: label ?? `${labels.get(id) ?? id}, ${name}`, probe }] : [];
    });
  }, [probes, full, names]);
}
