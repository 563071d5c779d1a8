import type { Graph } from '../graph/graph';
import type { Observer } from '../simulate/types';
import { acLosesDc } from './ac-loses-dc';
import { bleed } from './bleed';
import { carrier } from './carrier';
import { click } from './click';
import { clip } from './clip';
import { dcOut } from './dc-out';
import { deadEnd } from './dead-end';
import { drift } from './drift';
import type { Evidence, FindingRule, Found, WatchingRule } from './finding';
import { gateNever } from './gate-never';
import { gateStuck } from './gate-stuck';
import { hang } from './hang';
import { hotOut } from './hot-out';
import { lagLate } from './lag-late';
import { lagShort } from './lag-short';
import { loading } from './loading';
import { lostNegative } from './lost-negative';
import { noSource } from './no-source';
import { normalActive } from './normal-active';
import { normalBroken } from './normal-broken';
import { pinned } from './pinned';
import { pitchScale } from './pitch-scale';
import { polarity } from './polarity';
import { runaway } from './runaway';
import { tied } from './tied';
import { vcaLeak } from './vca-leak';
import { vcaOver } from './vca-over';
import { vcaShort } from './vca-short';
import { vcaShut } from './vca-shut';
import { weakIn } from './weak-in';

/** Every rule, in the order of the docs. */
export const allRules: readonly (FindingRule | WatchingRule)[] = [
  vcaShut,
  vcaShort,
  vcaOver,
  vcaLeak,
  click,
  clip,
  pinned,
  gateNever,
  gateStuck,
  hang,
  lostNegative,
  lagShort,
  lagLate,
  pitchScale,
  loading,
  tied,
  normalActive,
  normalBroken,
  polarity,
  dcOut,
  hotOut,
  weakIn,
  acLosesDc,
  drift,
  bleed,
  carrier,
  runaway,
  deadEnd,
  noSource,
];

const rank = { error: 0, warning: 1, note: 2 } as const;

/** The observers that the rules want beside a simulation, by code. */
export function watchersOf(graph: Graph): Map<string, readonly Observer[]> {
  return new Map(allRules.flatMap((rule) => ('watch' in rule ? [[rule.code, rule.watch(graph)] as const] : [])));
}

/** All that is worth saying of a patch, worst first, but for what its document dismisses. */
export function findingsOf(evidence: Evidence): Found[] {
  const dismissed = new Set(evidence.graph.patch.dismissed.map((d) => `${d.code} ${d.at}`));
  return allRules
    .flatMap((rule) => {
      if (!('watch' in rule)) return rule.find(evidence);
      return evidence.simulation ? rule.find(evidence, evidence.watched.get(rule.code) ?? []) : [];
    })
    .filter((f) => !dismissed.has(`${f.code} ${f.at}`))
    .sort((a, b) => rank[a.severity] - rank[b.severity]);
}

/** What an issue is called, as every screen shows it; the code itself where it is not known. */
export const issueTitle = (code: string): string => allRules.find((rule) => rule.code === code)?.title ?? code;

/** What a finding means and what to do about it, in two sentences; empty for a code that is not known. */
export const explain = (code: string): string => allRules.find((rule) => rule.code === code)?.why ?? '';
