import type { ModuleBounds } from '../bounds/bounds';
import type { Target } from '../document/targets';
import type { Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { socketAt } from '../document/sockets';
import type { ParamValue, ParamValues } from '../kinds/params';
import type { AmplifierSettings, AmplifierSpec } from '../kinds/traits';
import type { Graph, GraphModule } from '../graph/graph';
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
  /** What would have to arrive for it to be gone: the knobs behind it are solved for where none of its cures keeps. */
  readonly wanted?: Target;
}

/** Finds knobs with which a target is met, as cures, best first. */
export type KnobFinder = (patch: Patch, wanted: Target) => Iterable<Cure>;

/** What a finding looks at. Percentages of time come from the simulation, worst cases from the bounds. */
export interface Evidence {
  readonly graph: Graph;
  readonly bounds: ReadonlyMap<string, ModuleBounds>;
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

/** An amplifier whose control is plugged, with how far it opens: the drive of its first end. */
export interface Amplifier extends AmplifierSettings {
  readonly m: GraphModule;
  readonly spec: AmplifierSpec<ParamValues>;
  /** The socket of its control. */
  readonly at: string;
  readonly low: number;
  readonly high: number;
  /** Shares of the time below and above its window. */
  readonly below: number;
  readonly above: number;
  /** The control that opens it furthest. */
  readonly peak: number;
  /** Nothing is at its second control: its amount scales all that comes on top of its own level. */
  readonly alone: boolean;
}

/** Whether anything that could be heard is at one of a module's inputs. */
function isFed(bounds: Evidence['bounds'], m: GraphModule, signals: readonly string[]): boolean {
  return m.inputs.some((s, i) => {
    const [lo, hi] = bounds.get(m.id)?.inputs[i] ?? [0, 0];
    return signals.includes(s.spec.name) && s.connected && (lo !== 0 || hi !== 0);
  });
}

/** The amplifiers that something moves and that have a signal: of the others nothing is heard. */
export function amplifiersOf({ graph, bounds, simulation }: Evidence): Amplifier[] {
  return graph.modules.flatMap((m): Amplifier[] => {
    const spec = m.kind.stage?.amplifier;
    const controls = m.inputs.filter((s) => s.spec.name === spec?.control || s.spec.name === spec?.beside);
    if (!spec || !controls.some((s) => s.connected) || !isFed(bounds, m, spec.signals)) return [];
    const settings = spec.settings(m.params);
    const [low, high] = bounds.get(m.id)?.ends[0]?.drive ?? [0, 0];
    const { below = 0, above = 0 } = simulation?.ends.get(m.id)?.[0] ?? {};
    const peak = settings.bothSigns ? Math.max(high, -low) : high;
    const alone = !controls.some((s) => s.spec.name === spec.beside && s.connected);
    return [{ ...settings, m, spec, at: socketAt(m.id, spec.control), low, high, below, above, peak, alone }];
  });
}

/** The amount with which an amplifier's control peaks where it is fully open; NaN where nothing comes on its level. */
export const fittingAmount = ({ amount, bias, unityVolts, peak }: Amplifier): number =>
  peak === bias ? NaN : (amount * (unityVolts - bias)) / (peak - bias);

export const amountCure = ({ m, spec }: Amplifier, amount: number): Cure =>
  setCure(`Set CV amount to ${(100 * amount).toFixed(1)}%`, setParam(m.id, spec.amount, amount));

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
