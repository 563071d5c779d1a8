import { driveFor } from '../../answers/drive';
import { socketAt } from '../../document/sockets';
import type { Target } from '../../document/targets';
import type { Graph } from '../../graph/graph';
import { placeOfTarget } from '../../graph/place';
import { stream } from '../../kinds/random';
import { freeKnobs, isIdle } from './knobs';
import type { Setting } from './setting';
import { Trials } from './trials';

/** Pairs of settings between which a target's drive is looked at. */
const PAIRS = 4;
const EQUAL = 1e-9;

/** What must be straight: what each source adds to the drive, and the drives that are asked for. Null: it is bent. */
function partsOf(target: Target, setting: Setting): ReadonlyMap<string, number> | null {
  const parts = new Map<string, number>();
  const place = placeOfTarget(setting.graph, target);
  if (!place) return parts;
  const { c, atoms, ks } = setting.value(place);
  parts.set('', c);
  for (const [k, atom] of atoms.entries()) {
    if (atom.op !== 'leaf') return null;
    parts.set(String(atom.id), ks[k] as number);
  }
  const m = setting.graph.modules[place.module];
  for (const name of ['low', 'high', 'value', 'centre'] as const) {
    const figure = (target as Partial<Record<typeof name, unknown>>)[name];
    if (typeof figure === 'number' && m && place.at.is === 'end' && 'quantity' in target && target.quantity !== 'volts')
      parts.set(`asked ${name}`, driveFor(place.at.spec, m.params, figure));
  }
  return parts;
}

/** Whether a target's drive is affine in all knobs of these trials together: seeded points show that it is not. */
export function isAffineIn(target: Target, trials: Trials): boolean {
  const random = stream(1);
  const draw = (): Float64Array => Float64Array.from(trials.knobs, () => 0.02 + 0.96 * random());
  const at = (x: Float64Array): ReadonlyMap<string, number> | null => partsOf(target, trials.at(x));
  for (let n = 0; n < PAIRS; n++) {
    const [a, b] = [draw(), draw()];
    // A look takes its time where there is a loop: the first that is bent is enough.
    const fa = at(a);
    const fb = fa && at(b);
    const fm = fb && at(a.map((v, i) => (v + (b[i] as number)) / 2));
    if (!fa || !fb || !fm) return false;
    for (const name of new Set([...fa.keys(), ...fb.keys(), ...fm.keys()])) {
      const [va, vb, vm] = [fa, fb, fm].map((f) => f.get(name) ?? 0) as [number, number, number];
      if (Math.abs(vm - (va + vb) / 2) > EQUAL * (1 + Math.abs(va) + Math.abs(vb))) return false;
    }
  }
  return true;
}

/** Of a target what its drive's shape hangs on: figures only by being there. */
const shapeOf = (target: Target): readonly unknown[] =>
  Object.entries(target).map(([name, value]) => (typeof value === 'number' ? [name] : [name, value]));

/** What was found, by all that it hangs on; the knobs' own positions are no part of that. */
const known = new Map<string, boolean>();
const MOST_KNOWN = 500;

/**
 * Whether a target's drive is jointly affine in all free knobs of a graph's patch, those that a solver may turn unless told
 * otherwise: then it counts as met only where it is exact.
 */
export function isAffine(graph: Graph, target: Target): boolean {
  const knobs = freeKnobs(graph, [target]).filter((k) => !isIdle(graph, k));
  const free = new Set(knobs.map((k) => k.name));
  const key = JSON.stringify([
    shapeOf(target),
    knobs.map((k) => [k.name, k.travel]),
    graph.modules.map((m) => [
      m.id,
      m.kind.name,
      Object.entries(m.params).filter(([p]) => !free.has(socketAt(m.id, p))),
    ]),
    graph.wiring.wires,
    graph.wiring.declared,
    graph.modules.map((m) => m.hands),
    graph.patch.settings,
  ]);
  const before = known.get(key);
  if (before !== undefined) return before;
  const affine = isAffineIn(target, new Trials(graph.patch, [target], knobs));
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(key, affine);
  return affine;
}
