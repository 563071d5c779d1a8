import { socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import { kindNamed } from '../kinds';
import { completeParams } from '../document/params';
import { knobsOf } from '../kinds/knobs';
import type { ChannelLimits } from '../rack/limits';

/**
 * The same patch with one of its stages inverted: what scales that stage has the other sign. One answer for each
 * stage that can be, where its channel allows it; the solver begins from there.
 */
export function withStageFlipped(patch: Patch, ids: readonly string[], channels: ChannelLimits | null): Patch[] {
  return ids.flatMap((id): Patch[] => {
    const m = patch.modules.find((x) => x.id === id);
    const kind = m && kindNamed(m.kind);
    if (!m || !kind) return [];
    const params = completeParams(kind, m.params, patch.settings.bpm);
    const knobs = knobsOf(kind, params).filter((k) => kind.panel?.scaledBy?.(params).includes(k.name));
    const over: Record<string, number> = {};
    for (const { name, min, max } of knobs) {
      const [low, high] = channels?.limits.get(socketAt(id, name)) ?? [min, max];
      const value = -Number(params[name]) || 0;
      if (value < low || value > high || channels?.choices.has(socketAt(id, name))) return [];
      over[name] = value;
    }
    if (Object.values(over).every((v) => v === 0)) return [];
    const flipped = { ...m, params: { ...m.params, ...over } };
    return [{ ...patch, modules: patch.modules.map((x) => (x === m ? flipped : x)) }];
  });
}
