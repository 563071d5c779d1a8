import type { GraphModule } from '../graph/graph';
import { AtomStore } from '../law/builder';
import { constant } from '../law/affine';

/** The law's values, with the inputs as its leaves; steady inputs fold into constants. */
export function lawsOf(m: GraphModule): { store: AtomStore; io: Parameters<GraphModule['kind']['law']>[2] } {
  const store = new AtomStore();
  const leaves = m.inputs.map(({ driver, spec }, slot) =>
    driver.type === 'volts' ? constant(driver.volts) : store.leaf(spec.name, -Infinity, Infinity, slot),
  );
  const index = (name: string): number => m.inputs.findIndex((s) => s.spec.name === name);
  return {
    store,
    io: {
      in: (name) => leaves[index(name)] ?? constant(0),
      connected: (name) => m.inputs[index(name)]?.connected ?? false,
      symbol: (name) => {
        throw new Error(`${m.kind.name}.${name}: a law without a kernel has no symbols of its own`);
      },
      range: (x) => [x.lo, x.hi],
      loading: m.loading,
    },
  };
}
