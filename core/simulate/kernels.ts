import { socketAt } from '../document/sockets';
import type { Graph, GraphModule } from '../graph/graph';
import type { AssetLookup, Kernel, Wiring } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { seedOf } from '../kinds/random';
import type { Affine } from '../law/affine';
import type { Arena } from '../native/native';
import { lawsOf } from './laws';
import type { Memory } from './memory';
import type { MovingLoads } from './movingLoads';
import { Tape } from './tape';

/** Where one module stands in a run: what it reads, and where it writes. */
export interface Slot {
  readonly module: GraphModule;
  readonly inputs: readonly Float64Array[];
  readonly outputs: readonly Float64Array[];
  /** Where a kind that `detects` says that it is high. */
  readonly detected: Float64Array;
  /** Zeros, for sockets that are not there. */
  readonly nothing: Float64Array;
  /** Whether an output is read. */
  wanted(socket: string): boolean;
}

/** What all kernels of a run share. */
export interface Shared {
  readonly arena: Arena;
  readonly size: number;
  readonly graph: Graph;
  readonly asset: AssetLookup;
  /** Where passive pots are turned: what they load meanwhile. */
  loads: MovingLoads | null;
}

/**
 * The kernel of a module at given settings, which remembers in `memory`.
 *
 * @param moves whether it is one of several that take turns, so that nothing is worth working out for a whole block.
 */
export function kernelOf(shared: Shared, place: Slot, params: ParamValues, memory: Memory, moves = false): Kernel {
  const { module: m, inputs, outputs } = place;
  const wiring = wiringOf(shared, place, memory.begin(), moves);
  const own = m.kind.kernel?.(params, wiring);
  if (own) return own;
  const { store, io } = lawsOf(m);
  const law = m.kind.law(store, params, io);
  const tape = new Tape(shared.arena, memory, shared.graph.sampleRate, inputs);
  m.outputs.forEach((o, i) => {
    if (!m.kind.negated?.[o.name]) tape.write(law[o.name] as Affine, outputs[i] as Float64Array);
  });
  return (from, to) => tape.run(from, to);
}

function wiringOf({ arena, graph, asset }: Shared, place: Slot, memory: Memory, moves: boolean): Wiring {
  const { module: m, inputs, outputs, detected, nothing } = place;
  const index = (name: string): number => m.inputs.findIndex((s) => s.spec.name === name);
  return {
    sampleRate: graph.sampleRate,
    seed: seedOf(graph.patch.settings.seed, m.id),
    railVolts: graph.patch.settings.railVolts,
    asset,
    scratch: () => memory.scratch(),
    numbers: (name, count) => memory.numbers(name, count),
    keep: (name, make) => memory.keep(name, make),
    kernels: arena.kernels,
    detected,
    wanted: (name) => place.wanted(socketAt(m.id, name)),
    input: (name) => inputs[index(name)] ?? nothing,
    output: (name) => outputs[m.outputs.findIndex((o) => o.name === name)] as Float64Array,
    connected: (name) => m.inputs[index(name)]?.connected ?? false,
    steady(name) {
      const driver = m.inputs[index(name)]?.driver;
      return driver?.type === 'volts' && !moves ? driver.volts : null;
    },
  };
}
