import type { GraphModule } from '../graph/graph';
import { responseCurve } from '../kinds/response';
import { dbOf } from '../units/ratios';

/** Unity is met within this, dB. */
export const THRESHOLD_DB = 0.01;

/** An amplifier's gain at a control voltage, without its boost, dB; silence is null. */
export function gainAt(m: GraphModule, controlVolts: number): number | null {
  const { response, quadrants, maxGain, unityVolts } = m.params;
  const dead = m.kind.stage?.amplifier?.settings(m.params).deadVolts ?? 0;
  const curve = responseCurve(Number(response), quadrants === 4 ? 4 : 2, Number(maxGain));
  return dbOf(curve.f((controlVolts - dead) / (Number(unityVolts) - dead)));
}
