import { knobsIn } from '../document/knobs';
import { idOf, socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import { newModule, throughSockets } from '../edit/stages';
import { Wiring } from '../graph/wiring';
import type { ParamValues } from '../kinds/params';

export interface ProposedStage {
  readonly kind: string;
  readonly params: ParamValues;
  /** `moduleId/channelId`; null without a rack. */
  readonly rack: string | null;
  readonly standIn: string | null;
}

/** One chain as a patch: its stages between the source and the destination. */
export function chained(
  base: Patch,
  { from, to }: { readonly from: string; readonly to: string },
  stages: readonly ProposedStage[],
): { readonly patch: Patch; readonly ids: readonly string[] } {
  const modules = [...base.modules];
  const cables = [...new Wiring(base).cables].filter((c) => c.to !== to);
  const ids: string[] = [];
  let output = from;
  for (const { kind, params, rack } of stages) {
    const through = throughSockets(kind, params);
    if (!through) continue;
    const added = { ...newModule({ modules }, kind, params), ...(rack !== null && { rack }) };
    const { id } = added;
    const at = modules.findIndex((m) => m.id === idOf(to));
    modules.splice(at < 0 ? modules.length : at, 0, added);
    cables.push({ from: output, to: socketAt(id, through.input) });
    output = socketAt(id, through.output);
    ids.push(id);
  }
  cables.push({ from: output, to });
  return { patch: { ...base, modules, cables }, ids };
}

/** The knobs that may turn: those of the new stages, and the destination's own. */
export function freeOf(patch: Patch, ids: readonly string[], to: string): string[] {
  return [...ids, idOf(to)].flatMap((id) => {
    const m = patch.modules.find((x) => x.id === id);
    if (!m) return [];
    return knobsIn(m, patch.settings.bpm)
      .filter((k) => !(m.locked ?? []).includes(k.name))
      .map((k) => k.at);
  });
}
