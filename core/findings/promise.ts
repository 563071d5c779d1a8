import { BoundsEngine } from '../bounds/bounds';
import type { ModuleBounds } from '../bounds/bounds';
import { boundsOverFaders } from '../bounds/faders';
import { applyEdits } from '../edit/edit';
import { idOf, socketAt } from '../document/sockets';
import { saidEdits } from '../edit/said';
import type { Edit } from '../edit/edit';
import { paramFaults } from '../document/paramFields';
import { completeParams } from '../document/params';
import type { ModuleDoc, Patch } from '../document/types';
import type { Target } from '../document/targets';
import { buildGraph } from '../graph/graph';
import type { Graph } from '../graph/graph';
import { upstreamOf } from '../graph/upstream';
import { kindNamed } from '../kinds';
import { simulateGraph, workOf } from '../simulate/simulate';
import type { SimulateOptions } from '../simulate/types';
import { findingsOf, watchersOf } from './index';
import {
  closesLoop,
  isSame,
  isSilenced,
  LEAST_LEFT,
  movementAt,
  reachedFrom,
  regionOf,
  STILL,
  wastesStage,
} from './kept';
import type { Cure, Finding, Found, KnobFinder } from './finding';

/**
 * How much all checks of a patch's cures may simulate together, modules times samples: a count, so that answers do not
 * depend on the machine. What is left unchecked is not offered.
 */
const BUDGET = 4e7;
/** What a look at the whole graph costs beside its simulation: per module, and per pair of modules in a loop. */
const MODULE_COST = 20_000;
const LOOP_COST = 500;
/** What a search for knobs costs, of as much again: per module, and per pair of modules in a loop, which each look narrows anew. */
const SEARCH_COST = 200_000;
const SEARCH_LOOP_COST = 60_000;

/** Whether the settings that an edit leaves are ones that a document may have. */
function isSound(m: ModuleDoc | undefined): boolean {
  const kind = m && kindNamed(m.kind);
  return kind !== undefined && paramFaults(kind, m?.params ?? {}).length === 0;
}

function touched(edit: Edit): string | null {
  if (edit.do === 'set') return edit.module;
  return edit.do === 'add' || edit.do === 'replace' ? edit.module.id : null;
}

/** What was asked for is what stands there: no limit cut it. */
function asAsked(patch: Patch, edits: readonly Edit[]): boolean {
  const byId = new Map(patch.modules.map((m) => [m.id, m]));
  return edits.every((edit) => {
    const id = touched(edit);
    if (id === null) return true;
    const m = byId.get(id);
    if (!isSound(m)) return false;
    if (edit.do !== 'set') return true;
    return edit.value === undefined || JSON.stringify(m?.params?.[edit.param]) === JSON.stringify(edit.value);
  });
}

/** A cure of a module that was measured: rules tell what must really be there, people turn pointers. */
function asPointersSay(patch: Patch, { label, edits }: Cure): Cure {
  const said = saidEdits(patch, edits);
  return { label: said.every((e, i) => e === edits[i]) ? label : `${label}, as measured`, edits: said };
}

/** Turns no knob that its player has locked, and none that most modules lack. */
function spares(patch: Patch, edits: readonly Edit[]): boolean {
  const locked = new Set(patch.modules.flatMap((m) => (m.locked ?? []).map((param) => socketAt(m.id, param))));
  const lacks = ({ module, param }: { readonly module: string; readonly param: string }): boolean => {
    const m = patch.modules.find((x) => x.id === module);
    const kind = m && kindNamed(m.kind);
    const spec = kind?.params[param];
    return kind !== undefined && spec?.rare === true && completeParams(kind, m?.params)[param] === spec.default;
  };
  return edits.every((e) => e.do !== 'set' || (!locked.has(socketAt(e.module, e.param)) && !lacks(e)));
}

/** Movements whose shares differ by less than one in so many are alike. */
const SAME_MOVEMENT = 100;

interface CheckOptions extends Pick<SimulateOptions, 'asset' | 'progress'> {
  /** Finds knobs where a finding has no cure of its own that keeps. */
  readonly finder?: KnobFinder;
}

/** Adds no stage and no cable. */
const turnsOnly = ({ edits }: Cure): boolean => edits.every((e) => e.do === 'set');

const loopPairs = ({ groups }: Graph): number =>
  groups.reduce((sum, { loop, modules }) => sum + (loop ? modules.length ** 2 : 0), 0);

/** Checks cures by applying each to the patch and asking again. */
class Checker {
  private readonly engine = new BoundsEngine();
  private readonly faders = new BoundsEngine();
  private left: number;
  /** For searches alone: what they take is not missing where a finding has a cure of its own. */
  private searches: number;
  private readonly searchCost: number;
  private readonly graph: Graph;
  private readonly bounds: ReadonlyMap<string, ModuleBounds>;

  constructor(
    private readonly patch: Patch,
    private readonly found: readonly Found[],
    private readonly options: CheckOptions,
    budget: number,
  ) {
    this.left = budget;
    this.searches = budget;
    this.graph = buildGraph(patch);
    this.bounds = new BoundsEngine().run(this.graph);
    this.searchCost = patch.modules.length * SEARCH_COST + loopPairs(this.graph) * SEARCH_LOOP_COST;
  }

  /** The first of a finding's cures that keeps its promise, those that keep the most movement first. */
  cureOf(finding: Found): Cure | undefined {
    const { wanted } = finding;
    const cures = (finding.cures ?? []).map((c) => asPointersSay(this.patch, c));
    const keeps = (c: Cure): boolean => this.keeps(finding, c);
    const ordered = this.byMovement(finding, cures);
    if (!wanted) return ordered.find(keeps);
    const own = ordered.find((c) => turnsOnly(c) && keeps(c));
    return own ?? this.solved(finding, wanted) ?? ordered.find((c) => !turnsOnly(c) && keeps(c));
  }

  private byMovement(finding: Found, cures: readonly Cure[]): readonly Cure[] {
    if (cures.length < 2) return cures;
    const kept = new Map(cures.map((c) => [c, this.movementLeft(finding, applyEdits(this.patch, c.edits))] as const));
    const bucket = (c: Cure): number => Math.round(SAME_MOVEMENT * Math.min(1, kept.get(c) ?? 1));
    return cures.toSorted((a, b) => bucket(b) - bucket(a));
  }

  /** What a mended patch leaves of the movement at a finding, as a share of what it was; 1 where nothing moved. */
  private movementLeft({ at }: Found, mended: Patch): number {
    const before = movementAt(this.graph, this.bounds, at);
    if (before < STILL) return 1;
    const graph = buildGraph(mended);
    this.left -= graph.modules.length * MODULE_COST + loopPairs(graph) * LOOP_COST;
    return movementAt(graph, this.engine.run(graph), at) / before;
  }

  private solved(finding: Found, wanted: Target): Cure | undefined {
    const { finder } = this.options;
    if (!finder || this.searches < 0) return undefined;
    this.searches -= this.searchCost;
    for (const cure of finder(this.patch, wanted)) if (this.keeps(finding, cure)) return cure;
    return undefined;
  }

  private keeps(finding: Found, cure: Cure): boolean {
    if (this.left < 0 || !spares(this.patch, cure.edits)) return false;
    const mended = applyEdits(this.patch, cure.edits);
    if (!asAsked(mended, cure.edits)) return false;
    const graph = buildGraph(mended);
    if (closesLoop(this.graph, graph) || wastesStage(this.graph, graph)) return false;
    const left = finding.movesWrongly || isSilenced(this.patch, finding.at) ? 1 : this.movementLeft(finding, mended);
    if (left < LEAST_LEFT) return false;
    const id = idOf(finding.at);
    // Nearby first: most of what fails does so there, and takes little to tell.
    const near = new Set([id]);
    const reached = reachedFrom(graph, id);
    return this.holds(finding, graph, near) && (reached.size === 1 || this.holds(finding, graph, reached));
  }

  /** Whether the finding is gone, and nothing worse stands at some modules than stood there before. */
  private holds(finding: Found, graph: Graph, ids: ReadonlySet<string>): boolean {
    const after = this.findingsAt(graph, ids);
    if (after === null || after.some((f) => isSame(f, finding) && f.severity === finding.severity)) return false;
    const before = new Set(this.found.map((f) => `${f.code} ${f.at}`));
    return after.every((f) => (f.severity === 'note' && f.code !== 'clip') || before.has(`${f.code} ${f.at}`));
  }

  /** The findings at some modules; null where there is no more room to look. */
  private findingsAt(graph: Graph, ids: ReadonlySet<string>): Found[] | null {
    const only = regionOf(graph, ids);
    const upstream = upstreamOf(graph, only);
    const running = new Set(upstream.graph.groups.flatMap((g) => g.modules));
    for (const index of upstream.driveOnly) running.add(index);
    this.left -= workOf(graph, (index) => running.has(index));
    this.left -= graph.modules.length * MODULE_COST;
    this.left -= loopPairs(graph) * LOOP_COST;
    if (this.left < 0) return null;
    const bounds = this.engine.run(graph);
    const runs = new Set(graph.modules.filter((m) => running.has(m.index)).map((m) => m.id));
    const watchers = [...watchersOf(graph)].map(
      ([code, list]) => [code, list.filter((w) => w.sockets.every((s) => runs.has(idOf(s))))] as const,
    );
    const observers = watchers.flatMap(([, list]) => list);
    const simulation = simulateGraph(graph, { ...this.options, only, bounds, observers });
    const overFaders = boundsOverFaders(graph, bounds, this.faders);
    const found = findingsOf({ graph, bounds, overFaders, simulation, watched: new Map(watchers) });
    return found.filter((f) => ids.has(idOf(f.at)));
  }
}

const withoutCures = ({ cures: _cures, wanted: _wanted, movesWrongly: _moves, ...finding }: Found): Finding => finding;

/** Findings as they are told first, before any cure is checked. */
export const uncured = (found: readonly Found[]): Finding[] => found.map(withoutCures);

/**
 * Findings with the first of their cures that keeps its promise: applied, the finding is gone; no new error or warning
 * stands at the same module or behind it, and nothing clips there that did not; at least a tenth of the movement there
 * is left; no loop is closed; and no stage is left that does nothing.
 *
 * @param found what `findingsOf` told of this very patch.
 */
export function checkedCures(
  patch: Patch,
  found: readonly Found[],
  options: CheckOptions = {},
  budget = BUDGET,
): Finding[] {
  const checker = new Checker(patch, found, options, budget);
  return found.map((finding) => {
    const cure = checker.cureOf(finding);
    return cure ? { ...withoutCures(finding), cure } : withoutCures(finding);
  });
}
