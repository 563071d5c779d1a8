import type { ModuleBounds } from '../bounds/bounds';
import type { Target } from '../document/targets';
import type { Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import type { ParamValue } from '../kinds/params';
import type { Graph } from '../graph/graph';
import type { Observer, Simulation } from '../simulate/types';

export type Severity = 'error' | 'warning' | 'note';

export interface Cure {
  /** What it does, as a button says it. */
  readonly label: string;
  readonly edits: readonly Edit[];
}

export interface Finding {
  readonly code: string;
  readonly severity: Severity;
  /** The socket or module it is about. */
  readonly at: string;
  readonly message: string;
  readonly numbers: Readonly<Record<string, number>>;
  /** Applied, it removes the finding and brings no new error or warning at the same place. */
  readonly cure?: Cure;
}

/** A finding as its rule tells it, with what might cure it, best first: the first that keeps its promise is offered. */
export interface Found extends Omit<Finding, 'cure'> {
  readonly cures?: readonly Cure[];
  /** What moves there is the fault itself: its fix need leave nothing of it. */
  readonly movesWrongly?: boolean;
  /** What would have to arrive for it to be gone: the knobs behind it are solved for where none of its cures keeps. */
  readonly wanted?: Target;
}

/** Finds knobs with which a target is met, as cures, best first. */
export type KnobFinder = (patch: Patch, wanted: Target) => Iterable<Cure>;

/** What a finding looks at. Percentages of time come from the simulation, worst cases from the bounds. */
export interface Evidence {
  readonly graph: Graph;
  readonly bounds: ReadonlyMap<string, ModuleBounds>;
  /** Bounds with every fader anywhere on its travel: what a hand can do counts from its low to its high. */
  readonly overFaders: ReadonlyMap<string, ModuleBounds>;
  readonly simulation: Simulation | null;
  /** What each watching rule's observers saw, by code; empty without a simulation. */
  readonly watched: ReadonlyMap<string, readonly Observer[]>;
}

export interface FindingRule {
  readonly code: string;
  /** What is wrong, in a few words: the name on every screen. */
  readonly title: string;
  /** What it means and what to do, in two sentences, for whoever meets it first. */
  readonly why: string;
  /** When it fires, for the docs. */
  readonly when: string;
  /** What its cure does, for the docs. */
  readonly cures?: string;
  find(evidence: Evidence): readonly Found[];
}

/** A finding that must see the samples themselves. */
export interface WatchingRule<W extends Observer = Observer> extends Omit<FindingRule, 'find'> {
  watch(graph: Graph): readonly W[];
  find(evidence: Evidence, watched: readonly W[]): readonly Found[];
}

/** Declares a rule that watches; outside it the kind of its watchers does not matter. */
export const watching = <W extends Observer>(rule: WatchingRule<W>): WatchingRule => rule as unknown as WatchingRule;

export const setParam = (module: string, param: string, value: ParamValue): Edit => ({
  do: 'set',
  module,
  param,
  value,
});

export const setCure = (label: string, ...edits: readonly Edit[]): Cure => ({ label, edits });

/** The same without those that are not there. */
export const cures = (...list: readonly (Cure | null | undefined)[]): readonly Cure[] =>
  list.filter((x): x is Cure => x !== null && x !== undefined);
