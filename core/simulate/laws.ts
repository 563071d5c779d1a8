import type { GraphModule } from '../graph/graph';
import { AtomStore } from '../law/builder';
import { constant } from '../law/affine';
import type { Affine } from '../law/affine';

/** Whether a value is led through what blocks constant voltage, and so hangs on what came before. */
const isCoupled = (x: Affine): boolean =>
  x.atoms.some(
    (atom) => atom.op === 'couple' || ('a' in atom && isCoupled(atom.a)) || ('b' in atom && isCoupled(atom.b)),
  );

/** Whether what a module gives hangs on more than this moment's inputs. */
export function remembers(m: GraphModule): boolean {
  const connected = (name: string): boolean => m.inputs.some((s) => s.spec.name === name && s.connected);
  if (m.kind.kernel !== undefined || m.kind.memory(m.params, connected)) return true;
  const { store, io } = lawsOf(m);
  return Object.values(m.kind.law(store, m.params, io)).some(isCoupled);
}

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
      loading: { potLoad: m.loading.potLoad, weights: m.loading.weights },
    },
  };
}
