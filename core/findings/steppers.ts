import type { Graph, GraphInput, GraphModule } from '../graph/graph';
import { inputNamed, upstreamModules } from './paths';

/** What makes a stepped voltage, and the input that each step begins at. */
export interface Stepper {
  readonly m: GraphModule;
  /** Null where it steps by itself, at `hertz`. */
  readonly clock: GraphInput | null;
  readonly hertz: number;
  /** Its steps say of themselves whether they have a gate. */
  readonly gates: readonly boolean[] | null;
  /** Which steps are tied to the next, where they say so. */
  readonly ties?: readonly boolean[];
}

function stepperOf(m: GraphModule): Stepper | null {
  const clocked = (name: string): Stepper | null => {
    const clock = inputNamed(m, name);
    return clock?.driver.type === 'output' ? { m, clock, hertz: 0, gates: null } : null;
  };
  if (Array.isArray(m.params.steps)) {
    const steps = m.params.steps as readonly { readonly gate: boolean; readonly tie: boolean }[];
    const found = clocked('clock');
    return found && { ...found, gates: steps.map((s) => s.gate), ties: steps.map((s) => s.gate && s.tie) };
  }
  if (m.kind.timing?.holds) return clocked(m.kind.timing?.holds);
  return m.params.shape === 'stepped'
    ? { m, clock: null, hertz: m.kind.source?.hertz?.(m.params) ?? 1, gates: null }
    : null;
}

/** What makes the steps of the voltage at an input; a sequencer, whose steps say most, before all else. */
export function stepperAt(graph: Graph, input: GraphInput): Stepper | null {
  const found = [...upstreamModules(graph, [input])].flatMap((m) => stepperOf(m) ?? []);
  return found.find((s) => s.gates !== null) ?? found[0] ?? null;
}

/** The middle one of some lengths; null of none. */
export function median(lengths: readonly number[]): number | null {
  const sorted = [...lengths].sort((a, b) => a - b);
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? null;
}
