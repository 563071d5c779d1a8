import type { Graph } from '../../graph/graph';
import { targetSockets } from '../../document/targets';
import type { Target } from '../../document/targets';
import { behind } from '../../graph/upstream';
import type { FreeKnob } from '../problem/knobs';

/** Targets that share knobs, directly or by way of others, and those knobs, by their indices. */
export interface Block {
  readonly targets: readonly number[];
  readonly knobs: readonly number[];
}

/**
 * Targets and knobs in blocks that have nothing to do with each other: each is solved by itself, and fewest knobs in
 * each are fewest together. A knob belongs to a target where its module is one that the target depends on.
 */
export function blocksOf(graph: Graph, targets: readonly Target[], knobs: readonly FreeKnob[]): Block[] {
  const reached = targets.map((t) => behind(graph, targetSockets([t])));
  const left = new Set(targets.keys());
  const blocks: Block[] = [];
  for (const first of targets.keys()) {
    if (!left.delete(first)) continue;
    const mine = [first];
    const taken = new Set<number>();
    for (const t of mine) {
      const own = [...knobs.keys()].filter((k) => reached[t]?.has(knobs[k]?.module ?? -1));
      own.forEach((k) => taken.add(k));
      for (const other of left) {
        if (!own.some((k) => reached[other]?.has(knobs[k]?.module ?? -1))) continue;
        left.delete(other);
        mine.push(other);
      }
    }
    blocks.push({ targets: mine.toSorted((a, b) => a - b), knobs: [...taken].sort((a, b) => a - b) });
  }
  return blocks;
}
