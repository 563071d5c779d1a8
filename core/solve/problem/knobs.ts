import { partsOf, socketAt } from '../../document/sockets';
import type { Target } from '../../document/targets';
import { targetSockets } from '../../document/targets';
import type { Graph, GraphModule } from '../../graph/graph';
import { behind } from '../../graph/upstream';
import { knobsOf } from '../../kinds/knobs';
import { logFloor, positionOf } from '../../units/knob';
import type { Panel, Travel } from '../../units/knob';
import type { ChannelLimits } from '../../rack/limits';

/** A knob that the solver may turn. Positions are shares of its travel, 0..1; octaves of a logarithmic one are even. */
export interface FreeKnob {
  /** `module.param` */
  readonly name: string;
  /** Index of its module in the graph. */
  readonly module: number;
  readonly id: string;
  readonly param: string;
  readonly travel: Travel;
  /** What its panel says, on a channel that has one of its own. */
  readonly panel?: Panel;
  /** Where it stands. */
  readonly from: number;
}

export interface FreeOptions {
  /** `module.param` of the knobs that may turn; left out: all of the stages and ends that targets hang on. */
  readonly free?: readonly string[];
  /** Knobs that may not although they are not locked: the one under the hand. */
  readonly held?: readonly string[];
  /** What owned channels allow. */
  readonly channels?: ChannelLimits;
}

/** Indices of all modules that the targets hang on, the ones that they are at included. */
export function modulesBehind(graph: Graph, targets: readonly Target[]): ReadonlySet<number> {
  return behind(graph, targetSockets(targets));
}

function knobsAt(m: GraphModule, channels: ChannelLimits | undefined): FreeKnob[] {
  return knobsOf(m.kind, m.params).map(({ name, spec, min: low, max: high }) => {
    const [min, max] = channels?.limits.get(socketAt(m.id, name)) ?? [low, high];
    const panel = channels?.panels.get(socketAt(m.id, name));
    const travel = { min, max, taper: spec.taper };
    const from = positionOf(travel, Number(m.params[name]));
    return {
      name: socketAt(m.id, name),
      module: m.index,
      id: m.id,
      param: name,
      travel,
      from,
      ...(panel && { panel }),
    };
  });
}

/** Whether it only scales what carries nothing, so that no answer would ever turn it. */
export function isIdle(graph: Graph, { module, param }: FreeKnob): boolean {
  const scaled = graph.modules[module]?.inputs.filter((s) => s.spec.amount === param) ?? [];
  return scaled.length > 0 && scaled.every(({ driver }) => driver.type === 'volts' && driver.volts === 0);
}

/** The knobs that the solver may turn, in the order of the modules. */
export function freeKnobs(graph: Graph, targets: readonly Target[], options: FreeOptions = {}): FreeKnob[] {
  const reached = modulesBehind(graph, targets);
  const held = new Set(options.held);
  const named = options.free && new Set(options.free);
  return graph.modules
    .filter((m) => reached.has(m.index) && (named || m.kind.category !== 'source'))
    .flatMap((m) => {
      const locked = graph.patch.modules[m.index]?.locked ?? [];
      return knobsAt(m, options.channels).filter(
        (k) =>
          !locked.includes(k.param) &&
          !m.overridden.has(k.param) &&
          !held.has(k.name) &&
          (!named || named.has(k.name)) &&
          k.travel.max > k.travel.min,
      );
    });
}

/** What of a list of names is no knob that could be free, each with why. */
export function freeFaults(graph: Graph, free: readonly string[]): string[] {
  return free.flatMap((name) => {
    const { id, name: param } = partsOf(name);
    const m = graph.modules.find((x) => x.id === id);
    if (!m || param.includes('.')) return [`${name}: there is no module ${id}`];
    const known = knobsOf(m.kind, m.params).map((k) => k.name);
    if (!known.includes(param))
      return [`${name}: is not a knob of ${id}; expected one of ${known.join(', ') || 'none'}`];
    if (m.overridden.has(param)) return [`${name}: automation or the tempo sets it`];
    return graph.patch.modules[m.index]?.locked?.includes(param) ? [`${name}: is locked`] : [];
  });
}

/** The value at a position, also beyond the ends of the travel. */
export function valueBeyond(travel: Travel, position: number): number {
  const { min, max, taper } = travel;
  if (taper === 'linear') return min + position * (max - min);
  if (position <= 0 && min === 0) return 0;
  const floor = logFloor(travel);
  return floor * (max / floor) ** position;
}

/** As a document keeps it: within the travel, without the last digits' rounding. */
export function settingAt(travel: Travel, position: number): number {
  const value = valueBeyond(travel, position);
  const near = Number(value.toPrecision(12));
  const round = Math.abs(near) < 1e-13 * (travel.max - travel.min) ? 0 : near;
  return Math.min(travel.max, Math.max(travel.min, round));
}
