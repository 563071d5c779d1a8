import type { Loading } from '../kinds/kind';
import type { Range } from '../law/affine';
import type { Driver, GraphModule } from './graph';

const equal = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

/** Whether two inputs carry the same. */
export function sameDriver(a: Driver, b: Driver): boolean {
  if (a.type === 'volts') return b.type === 'volts' && a.volts === b.volts;
  return b.type === 'output' && a.module === b.module && a.output === b.output && a.delayed === b.delayed;
}

export const sameHands = (a: GraphModule['hands'], b: GraphModule['hands']): boolean =>
  a === b || (a.length === b.length && a.every((h, i) => h === b[i]));

const sameRange = (a: Range | null | undefined, b: Range | null | undefined): boolean =>
  a === b || (a?.[0] === b?.[0] && a?.[1] === b?.[1]);

/** Whether loads make the same of a passive part. */
export const sameLoading = (a: Loading, b: Loading): boolean =>
  a.potLoad === b.potLoad &&
  equal(a.weights, b.weights) &&
  sameRange(a.spread?.potLoads, b.spread?.potLoads) &&
  a.weights.every((_, i) => sameRange(a.spread?.weights[i], b.spread?.weights[i]));

/** Whether loads leave the same of each output. */
export const sameFactors = (a: GraphModule, b: GraphModule): boolean =>
  a.outputs.every((o, i) => o.factor === b.outputs[i]?.factor && sameRange(o.factors, b.outputs[i]?.factors));

/** Whether a module's answer hangs on the same, its inputs aside. */
export function alike(a: GraphModule, b: GraphModule): boolean {
  if (a === b) return true;
  if (a.kind !== b.kind || a.inputs.length !== b.inputs.length || a.outputs.length !== b.outputs.length) return false;
  return (
    a.inputs.every((s, i) => s.connected === b.inputs[i]?.connected) &&
    sameFactors(a, b) &&
    sameHands(a.hands, b.hands) &&
    sameLoading(a.loading, b.loading) &&
    (a.params === b.params || JSON.stringify(a.params) === JSON.stringify(b.params))
  );
}
