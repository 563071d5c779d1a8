import { multiplying } from './multiplying';
import { scaling } from './scaling';
import { timing } from './timing';
import type { StandIn } from './standIn';

export type { Served, StandIn, Wanted } from './standIn';

/** What can stand in for what, and at which cost. */
export const standIns: readonly StandIn[] = [...scaling, ...multiplying, ...timing];

const byKind = new Map<string, readonly StandIn[]>();
for (const s of standIns) byKind.set(s.wanted, [...(byKind.get(s.wanted) ?? []), s]);

/** What can stand in for a kind, the cheapest first. */
export const standInsFor = (kind: string): readonly StandIn[] =>
  (byKind.get(kind) ?? []).toSorted((a, b) => a.cost - b.cost);
