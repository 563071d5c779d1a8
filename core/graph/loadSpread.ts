import { nameOf } from '../document/sockets';
import type { Patch } from '../document/types';
import type { Loading } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Range } from '../law/affine';
import { isPot, loadingOf } from './loading';
import type { Loads, SettingsAt } from './loading';
import type { Wiring, WiredModule } from './wiring';

/** Places that are looked at on the way of one pot, of two, and of more. */
const PLACES = [17, 5, 2] as const;
/** More pots than this are taken to load anything at all. */
const MOST = 6;
/** A pot that is wired in reverse loads most somewhere between the places that are looked at: by less than this more. */
const BETWEEN = 0.02;

interface LoadSpread {
  factor(output: string): { readonly factors: Range } | undefined;
  of(id: string): { readonly spread: NonNullable<Loading['spread']> } | undefined;
}

/** All that hands turn passive pots to: every pot's places with every other's. */
function settingsOf(pots: readonly WiredModule[]): SettingsAt[] {
  const places = PLACES[Math.min(pots.length, PLACES.length) - 1] ?? 2;
  let all: SettingsAt[] = [new Map()];
  for (const pot of pots)
    for (const hand of pot.hands) {
      const param = nameOf(hand.at);
      const turned = hand.points.map((p) => p.value);
      const [low, high] = [Math.min(...turned), Math.max(...turned)];
      const values = Array.from({ length: places }, (_, i) => low + ((high - low) * i) / (places - 1));
      all = all.flatMap((at) =>
        values.map((value) => {
          const before: ParamValues = at.get(pot.id) ?? pot.params;
          return new Map([...at, [pot.id, { ...before, [param]: value }] as const]);
        }),
      );
    }
  return all;
}

/** How far loads go while hands turn passive pots; null where none does. */
export function loadSpread(patch: Patch, wiring: Wiring, still: Loads): LoadSpread | null {
  const pots = wiring.modules.filter((m) => m.hands.length > 0 && isPot(m));
  if (pots.length === 0) return null;
  const tracks = pots.reduce((sum, m) => sum + m.hands.length, 0);
  const all = tracks > MOST ? null : settingsOf(pots).map((at) => loadingOf(patch, wiring, at));
  const isBent = pots.some((m) => m.params.reversed === true);
  const rangeOf = (read: (loads: Loads) => number, most: number): Range => {
    if (!all) return [0, most];
    const values = [...all, still].map(read);
    const [low, high] = [Math.min(...values), Math.max(...values)];
    return isBent && high < Infinity ? [low * (1 - BETWEEN), Math.min(most, high * (1 + BETWEEN))] : [low, high];
  };
  return {
    factor(output) {
      const factors = rangeOf((loads) => loads.factor(output), 1);
      return factors[0] === factors[1] ? undefined : { factors };
    },
    of(id) {
      const { potLoad, weights } = still.of(id);
      const potLoads = potLoad === null ? null : rangeOf((loads) => loads.of(id).potLoad ?? Infinity, Infinity);
      const spreads = weights.map((_, i) => rangeOf((loads) => loads.of(id).weights[i] ?? 0, 1));
      const isStill = (range: Range | null): boolean => range === null || range[0] === range[1];
      if (isStill(potLoads) && spreads.every(isStill)) return undefined;
      return { spread: { potLoads: isStill(potLoads) ? null : potLoads, weights: spreads } };
    },
  };
}
