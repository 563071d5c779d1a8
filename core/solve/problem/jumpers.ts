import { socketAt } from '../../document/sockets';
import type { Patch } from '../../document/types';
import type { Target } from '../../document/targets';
import { buildGraph } from '../../graph/graph';
import type { GraphModule } from '../../graph/graph';
import { knobsOf } from '../../kinds/knobs';
import type { ParamValue } from '../../kinds/params';
import { modulesBehind } from './knobs';
import type { ChannelLimits } from '../../rack/limits';
import type { JumperSetting } from '../types';

type JumperValue = JumperSetting['value'];

/** What a step, a jumper or a switch can stand at. */
function optionsOf(m: GraphModule, name: string): readonly JumperValue[] {
  const spec = m.kind.params[name];
  if (!spec || !(spec.exists?.(m.params) ?? true)) return [];
  if (spec.type === 'flag') return [true, false];
  return spec.type === 'choice' ? spec.options : [];
}

/** Whether with that setting a knob reaches further than it does now. */
function widens(m: GraphModule, name: string, value: ParamValue): boolean {
  const now = new Map(knobsOf(m.kind, m.params).map((k) => [k.name, k]));
  return knobsOf(m.kind, { ...m.params, [name]: value }).some((k) => {
    const known = now.get(k.name);
    return known !== undefined && (k.max > known.max || k.min < known.min);
  });
}

/** The jumpers behind targets that let a knob reach further, one change each, the smallest first. */
export function widerJumpers(patch: Patch, targets: readonly Target[], channels?: ChannelLimits): JumperSetting[] {
  const graph = buildGraph(patch);
  const behind = modulesBehind(graph, targets);
  return graph.modules
    .filter((m) => behind.has(m.index) && m.kind.category !== 'source')
    .flatMap((m) =>
      Object.keys(m.kind.params).flatMap((name): JumperSetting[] => {
        const from = m.params[name] as JumperValue;
        const locked = patch.modules[m.index]?.locked?.includes(name) ?? false;
        const allowed = channels?.choices.get(socketAt(m.id, name));
        const options = optionsOf(m, name).filter((v) => allowed?.includes(v) ?? true);
        const steps = locked ? [] : options.filter((v) => v !== from && widens(m, name, v));
        return steps.map((value) => ({ at: socketAt(m.id, name), value, from }));
      }),
    );
}
