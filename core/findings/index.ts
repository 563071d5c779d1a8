import { clip } from './clip';
import type { Evidence, Finding, FindingRule } from './finding';
import { pinned } from './pinned';
import { vcaOver } from './vca-over';
import { vcaShort } from './vca-short';
import { vcaShut } from './vca-shut';

export const allRules: readonly FindingRule[] = [vcaShut, vcaShort, vcaOver, clip, pinned];

const rank = { error: 0, warning: 1, note: 2 } as const;

/** All that is worth saying of a patch, worst first, but for what its document dismisses. */
export function findingsOf(evidence: Evidence): Finding[] {
  const dismissed = new Set(evidence.graph.patch.dismissed.map((d) => `${d.code} ${d.at}`));
  return allRules
    .flatMap((rule) => rule.find(evidence))
    .filter((f) => !dismissed.has(`${f.code} ${f.at}`))
    .sort((a, b) => rank[a.severity] - rank[b.severity]);
}
