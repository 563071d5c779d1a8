import { BoundsEngine } from '../bounds/bounds';
import { applyEdits } from '../edit/edit';
import { idOf, socketAt } from '../document/sockets';
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

/** The sockets on which the findings at a place hang: its own, and those of what comes right behind it. */
function regionOf(graph: Graph, id: string): string[] {
  const at = graph.modules.find((m) => m.id === id);
  if (!at) return [];
  const next = graph.modules.filter((m) =>
    m.inputs.some((s) => s.driver.type === 'output' && s.driver.module === at.index),
  );
  return [at, ...next].flatMap((m) => [...m.outputs, ...m.inputs].map((s) => s.socket));
}

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
  private left: number;
  /** For searches alone: what they take is not missing where a finding has a cure of its own. */
  private searches: number;
  private readonly searchCost: number;

  constructor(
    private readonly patch: Patch,
    private readonly found: readonly Found[],
    private readonly options: CheckOptions,
    budget: number,
  ) {
    this.left = budget;
    this.searches = budget;
    this.searchCost = patch.modules.length * SEARCH_COST + loopPairs(buildGraph(patch)) * SEARCH_LOOP_COST;
  }

  /** The first of a finding's cures that keeps its promise: its own knobs, then knobs that are solved for, then stages. */
  cureOf(finding: Found): Cure | undefined {
    const { cures = [], wanted } = finding;
    const keeps = (c: Cure): boolean => this.keeps(finding, c);
    if (!wanted) return cures.find(keeps);
    const own = cures.find((c) => turnsOnly(c) && keeps(c));
    return own ?? this.solved(finding, wanted) ?? cures.find((c) => !turnsOnly(c) && keeps(c));
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
    const id = idOf(finding.at);
    const after = this.findingsAt(buildGraph(mended), id);
    if (after === null || after.some((f) => f.code === finding.code && f.at === finding.at)) return false;
    const before = new Set(this.found.map((f) => `${f.code} ${f.at}`));
    return after.every((f) => f.severity === 'note' || before.has(`${f.code} ${f.at}`));
  }

  /** The findings at one module; null where there is no more room to look. */
  private findingsAt(graph: Graph, id: string): Found[] | null {
    const only = regionOf(graph, id);
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
    const found = findingsOf({ graph, bounds, simulation, watched: new Map(watchers) });
    return found.filter((f) => idOf(f.at) === id);
  }
}

const withoutCures = ({ cures: _cures, wanted: _wanted, ...finding }: Found): Finding => finding;

/** Findings as they are told first, before any cure is checked. */
export const uncured = (found: readonly Found[]): Finding[] => found.map(withoutCures);

/**
 * Findings with the first of their cures that keeps its promise: applied, the finding is gone, and no new error or
 * warning stands at the same module.
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
