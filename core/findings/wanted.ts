import type { Target } from '../document/targets';
import type { Graph } from '../graph/graph';
import type { Quantity } from '../kinds/traits';
import type { Range } from '../law/affine';
import type { Amplifier } from './amplifiers';

/** The targets at any of some sockets of a module. */
function targetsAt({ patch }: Graph, sockets: readonly string[]): readonly Target[] {
  return patch.targets.filter((t) => sockets.includes(t.at));
}

/** Whether a target asks an amplifier to fall silent. */
export const asksForSilence = (graph: Graph, { controls }: Amplifier): boolean =>
  targetsAt(
    graph,
    controls.map((s) => s.socket),
  ).some((t) => 'low' in t && t.low === 'silent');

/** Whether a target asks a gate to stay high. */
export const asksForAlwaysHigh = (graph: Graph, socket: string): boolean =>
  targetsAt(graph, [socket]).some((t) => t.want === 'duty' && t.percent >= 100);

/**
 * Whether a target asks a destination for what lies at the lower, or at the upper, end of its window or beyond.
 *
 * @param figure what it reads at both ends of its window, in its own unit.
 */
export function asksForEnd(
  graph: Graph,
  sockets: readonly string[],
  quantity: Quantity,
  figure: Range,
): readonly [low: boolean, high: boolean] {
  const asked = targetsAt(graph, sockets).filter((t) => 'quantity' in t && t.quantity === quantity);
  const beyond = (value: unknown, test: (x: number) => boolean): boolean => typeof value === 'number' && test(value);
  return [
    asked.some((t) => 'low' in t && beyond(t.low, (x) => x <= figure[0])),
    asked.some((t) => 'high' in t && beyond(t.high, (x) => x >= figure[1])),
  ];
}

/** Whether two destinations are to move against each other: one of them is inverted. */
export const asksForOpposite = ({ patch }: Graph, socket: string): boolean =>
  patch.targets.some((t) => t.want === 'opposite' && (t.at === socket || t.to === socket));
