import { buildGraph, idOf, kindNamed, socketAt, socketPlace } from '@/core';
import type { EndsRequest, Patch } from '@/core';
import { withoutChain } from './chain';

/** One end of several: its figure while the source is at its lowest, and at its highest. */
export interface EndRowOf {
  readonly to: string;
  readonly from: number;
  readonly until: number;
}

/** Outputs that may move ends: those of sources first, each with its name. */
export function sourcesOf(patch: Patch): readonly (readonly [socket: string, label: string])[] {
  const { modules } = buildGraph(patch);
  const rank = (category: string): number => (category === 'source' ? 0 : 1);
  return [...modules]
    .sort((a, b) => rank(a.kind.category) - rank(b.kind.category))
    .filter((m) => m.kind.category !== 'end')
    .flatMap((m) => m.outputs.map((o) => [o.socket, socketPlace(m, o.name)] as const));
}

/** What the planner is asked: each end without the stages that it has now, in the direction of its figures. */
export function requestFor(patch: Patch, from: string, rows: readonly EndRowOf[]): EndsRequest {
  const bare = rows.reduce((p, { to }) => withoutChain(p, from, to), patch);
  const ends = rows.map(({ to, from: low, until }) => {
    const m = patch.modules.find((x) => x.id === idOf(to));
    const end = m && kindNamed(m.kind)?.ends?.find((e) => socketAt(m.id, e.socket) === to);
    return {
      to,
      target: { quantity: end?.quantity ?? 'volts', low: Math.min(low, until), high: Math.max(low, until) },
      direction: until >= low ? ('with' as const) : ('against' as const),
    };
  });
  return { patch: bare, from, ends };
}
