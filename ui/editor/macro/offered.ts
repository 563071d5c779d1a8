import { buildGraph, endAt, ownEnds, socketAt } from '@/core';
import type { Patch } from '@/core';

/** As far as a fader goes unless somebody says otherwise, volts. */
export const WAY = 5;
const tidy = (x: number): number => Number(x.toPrecision(3));

/** An input that a macro could move. */
export interface Offered {
  readonly end: string;
  readonly label: string;
  readonly quantity: string;
  readonly unit: string;
  /** What it reads with 0 and with 5 V there. */
  readonly figures: readonly [number, number];
}

/** All inputs of a patch that read in a unit and listen. */
export function offeredBy(patch: Patch): Offered[] {
  const graph = buildGraph(patch);
  const sockets = graph.modules.flatMap((m) => ownEnds(m.kind).map((end) => socketAt(m.id, end.socket)));
  return sockets.flatMap((end): Offered[] => {
    const found = endAt(graph, end);
    if (typeof found === 'string') return [];
    const [low, high] = [found.figureAt(0.5), found.figureAt(WAY)];
    if (low === null || high === null) return [];
    return [{ end, label: found.label, quantity: found.quantity, unit: found.unit, figures: [tidy(low), tidy(high)] }];
  });
}
