import { sameDriver, sameFactors, sameHands, sameLoading } from '../graph/alike';
import type { Graph, GraphModule } from '../graph/graph';

/** Whether two patches differ in nothing but where their knobs stand. */
export function sameWiring(a: Graph, b: Graph): boolean {
  const [x, y] = [a.patch.settings, b.patch.settings];
  return (
    a.sampleRate === b.sampleRate &&
    x.railVolts === y.railVolts &&
    x.seed === y.seed &&
    a.modules.length === b.modules.length &&
    a.modules.every((m, i) => {
      const n = b.modules[i];
      return (
        n !== undefined &&
        m.id === n.id &&
        m.kind === n.kind &&
        sameHands(m.hands, n.hands) &&
        m.inputs.length === n.inputs.length &&
        m.outputs.length === n.outputs.length &&
        m.outputs.every((o, j) => o.socket === n.outputs[j]?.socket) &&
        m.inputs.every((s, j) => {
          const t = n.inputs[j];
          return (
            t !== undefined && s.socket === t.socket && s.connected === t.connected && sameDriver(s.driver, t.driver)
          );
        })
      );
    })
  );
}

/** Whether loading leaves a module's outputs and inputs the same. */
export const sameLoads = (a: GraphModule, b: GraphModule): boolean =>
  sameLoading(a.loading, b.loading) && sameFactors(a, b);
