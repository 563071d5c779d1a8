import { travelOf } from '../bounds/faders';
import { idOf, socketAt } from '../document/sockets';
import type { Hand, Patch } from '../document/types';
import { buildGraph } from '../graph/graph';

/** A fader that a chain begins at, moved over its whole travel and back: a hand counts over its way. Null of others. */
export function sweepOf(patch: Patch, from: string): Hand | null {
  const m = buildGraph(patch).modules.find((x) => x.id === idOf(from));
  const travel = m ? travelOf(m) : null;
  const param = m?.kind.panel?.fader?.param;
  if (!m || !travel || param === undefined) return null;
  const [low, high] = travel;
  const { duration } = patch.settings;
  const points = [low, high, low].map((value, i) => ({ t: (i * duration) / 2, value }));
  return { at: socketAt(m.id, param), interpolation: 'linear', loop: false, points };
}

export const swept = (patch: Patch, sweep: Hand | null): Patch =>
  sweep ? { ...patch, hands: [...patch.hands, sweep] } : patch;

/** The patch without that move: as its fader stands. */
export const unswept = (patch: Patch, sweep: Hand | null): Patch =>
  sweep ? { ...patch, hands: patch.hands.filter((h) => h.at !== sweep.at) } : patch;
