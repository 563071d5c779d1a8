import { idOf } from '@/core';
import type { Finding, Patch } from '@/core';
import type { FrameMark } from './FrameGraphic';

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
