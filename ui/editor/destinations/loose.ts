import { idOf } from '@/core';
import type { Predicted } from '@/ui/session/usePrediction';

/** Stages that are bypassed, reach nothing, or get nothing: each with which of it. */
export function looseModules(
  { graph }: Predicted,
  ends: readonly string[],
): { id: string; label: string; why: string }[] {
  const used = new Set([...graph.wiring.usedOutputs].map(idOf));
  const isEnd = new Set(ends.map(idOf));
  return graph.modules.flatMap((m) => {
    const base = { id: m.id, label: m.label };
    if (m.bypassed) return [{ ...base, why: 'bypassed' }];
    if (isEnd.has(m.id)) return [];
    const reaches = m.outputs.length === 0 || used.has(m.id);
    if (!reaches) return [{ ...base, why: 'reaches nothing' }];
    const gets = m.kind.category === 'source' || m.inputs.some((s) => s.connected);
    return gets ? [] : [{ ...base, why: 'gets nothing' }];
  });
}
