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

/** Whether a module's answer hangs on the same, its inputs aside. */
export function alike(a: GraphModule, b: GraphModule): boolean {
  if (a === b) return true;
  if (a.kind !== b.kind || a.inputs.length !== b.inputs.length || a.outputs.length !== b.outputs.length) return false;
  return (
    a.inputs.every((s, i) => s.connected === b.inputs[i]?.connected) &&
    a.outputs.every((o, i) => o.factor === b.outputs[i]?.factor) &&
    sameHands(a.hands, b.hands) &&
    a.loading.potGain === b.loading.potGain &&
    equal(a.loading.weights, b.loading.weights) &&
    (a.params === b.params || JSON.stringify(a.params) === JSON.stringify(b.params))
  );
}
