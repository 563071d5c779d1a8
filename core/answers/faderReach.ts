import type { ModuleBounds } from '../bounds/bounds';
import { idOf, nameOf } from '../document/sockets';
import type { Graph, GraphModule } from '../graph/graph';
import { fateOf } from '../kinds/detect';
import { figuresOf } from './drive';
import type { Reading } from './readings';

/** A reach that is wider by less is none, volts. */
const APART = 0.001;

/** Whether a gate that stays as it is at rest goes both ways over the travel of its faders. */
function fadersTrigger(m: GraphModule, r: Reading, overFaders: ReadonlyMap<string, ModuleBounds>): boolean {
  const index = m.inputs.findIndex((s) => s.socket === r.at);
  const [threshold, range] = [m.inputs[index]?.spec.threshold, overFaders.get(m.id)?.inputs[index]];
  if (r.always == null || range === undefined) return false;
  const state = threshold === undefined ? overFaders.get(m.id)?.gateState : fateOf(range, threshold);
  return state === 'moves';
}

/**
 * Readings with what faders upstream could make of them: as they stand is one figure, over their travel another.
 *
 * @param overFaders bounds with every fader anywhere on its travel.
 */
export function withFaderReach(
  graph: Graph,
  readings: readonly Reading[],
  overFaders: ReadonlyMap<string, ModuleBounds>,
): readonly Reading[] {
  return readings.map((r) => {
    const m = graph.modules.find((x) => x.id === idOf(r.at));
    if (r.quantity === 'pulses') return m && fadersTrigger(m, r, overFaders) ? { ...r, atRest: true } : r;
    const index = m?.kind.ends?.findIndex((e) => e.socket === nameOf(r.at) && e.quantity === r.quantity) ?? -1;
    const end = m?.kind.ends?.[index];
    const drive = overFaders.get(m?.id ?? '')?.ends[index]?.drive;
    if (!m || !end || !drive || r.quantity === 'level' || m.hands.length > 0) return r;
    if (drive[0] >= r.driveVolts[0] - APART && drive[1] <= r.driveVolts[1] + APART) return r;
    const [fadersLow, fadersHigh] = figuresOf(end, m.params, drive);
    return { ...r, fadersLow, fadersHigh };
  });
}
