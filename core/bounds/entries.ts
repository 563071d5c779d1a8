import type { GraphModule } from '../graph/graph';
import type { GateState } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { constant } from '../law/affine';
import type { Affine, Range } from '../law/affine';

export interface EndBound {
  /** Index into the kind's `ends`. */
  readonly end: number;
  readonly drive: Range;
  /** Where hands turn its module's knobs: settings that they pass, and the drive at each. */
  readonly passed?: readonly Passed[];
}

export interface Passed {
  readonly params: ParamValues;
  readonly drive: Range;
}

export interface ModuleBounds {
  readonly outputs: readonly Range[];
  /** The outputs before their rails and loads: what clipping takes away. */
  readonly unclipped: readonly Range[];
  readonly inputs: readonly Range[];
  readonly ends: readonly EndBound[];
  /** What the kind itself cuts flat, before it does. */
  readonly uncut: readonly Range[];
  /** What its own detector can ever do; null where it has none. */
  readonly gateState: GateState | null;
}

export interface Entry {
  readonly module: GraphModule;
  /** Worked out while its loop still narrowed. */
  readonly coarse: boolean;
  readonly railVolts: number;
  readonly inputs: readonly Affine[];
  readonly outputs: readonly Affine[];
  /** One for each of the kind's ends: all that counts there. */
  readonly drives: readonly Affine[];
  readonly bounds: ModuleBounds;
}

/** A loop as it was when its entries were worked out. */
export interface Loop {
  readonly members: readonly GraphModule[];
  readonly outside: readonly Affine[];
  readonly wires: string;
}

export const same = (a: readonly Affine[], b: readonly Affine[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

const constants = new Map<number, Affine>();

/** The same object for the same voltage, so that inputs can be told apart by identity. */
export function constantOf(volts: number): Affine {
  const known = constants.get(volts);
  if (known) return known;
  if (constants.size > 10_000) constants.clear();
  const made = constant(volts);
  constants.set(volts, made);
  return made;
}

export interface Known {
  readonly entries: Map<string, Entry>;
  /** By the first member's id. */
  readonly loops: Map<string, Loop>;
}
