import { socketAt } from '../document/sockets';
import { blank } from '../document/parse';
import type { Cable, ModuleDoc, Patch } from '../document/types';
import { LIMITS } from '../document/types';
import { stream } from '../kinds/random';
import { randomPatch } from './randomPatch';

/** Documents within the limits that are as much work as their shape can make them. */

const patch = (
  name: string,
  modules: readonly ModuleDoc[],
  cables: readonly Cable[],
  more: Partial<Patch> = {},
): Patch => ({
  ...blank,
  name,
  modules: modules.slice(0, LIMITS.modules),
  cables: cables.slice(0, LIMITS.cables),
  ...more,
});

const ids = (count: number, prefix = 'm'): string[] => Array.from({ length: count }, (_, i) => `${prefix}${i}`);

/** Each feeds every input of the next. */
export function chainOf(kind: string, inputs: readonly string[], count: number, params?: ModuleDoc['params']): Patch {
  const names = ids(count);
  const modules = names.map((id): ModuleDoc => ({ id, kind, ...(params && { params }) }));
  const output = kind === 'mult' ? 'out1' : 'out';
  const cables = names
    .slice(1)
    .flatMap((id, i) => inputs.map((to) => ({ from: `m${i}.${output}`, to: socketAt(id, to) })));
  const source = inputs.map((to) => ({ from: 'l.out', to: `m0.${to}` }));
  return patch(`a chain of ${kind}`, [{ id: 'l', kind: 'lfo' }, ...modules], [...source, ...cables]);
}

export const junctionChain = (count: number): Patch => chainOf('junction', ['in1', 'in2', 'in3', 'in4'], count);

/** Unplugged inputs, each normalled to what the one before it receives. */
export function normalChain(count: number): Patch {
  const names = ids(Math.ceil(count / 8));
  const modules = names.map((id): ModuleDoc => ({ id, kind: 'mixer', params: { inputs: 8 } }));
  const sockets = names
    .flatMap((id) => Array.from({ length: 8 }, (_, i) => socketAt(id, `in${i + 1}`)))
    .slice(0, count + 1);
  const normals = sockets.slice(1).map((to, i) => ({ to, from: sockets[i] as string }));
  const first = { from: 'l.out', to: sockets[0] as string };
  return patch('a chain of normals', [{ id: 'l', kind: 'lfo' }, ...modules], [first], { normals });
}

/** Everything into everything: as many cables as there may be, loops and all. */
function tangle(random: () => number, kind: string, inputs: readonly string[], params?: ModuleDoc['params']): Patch {
  const names = ids(Math.min(LIMITS.modules, Math.floor(LIMITS.cables / inputs.length)));
  const at = (): string => names[Math.floor(random() * names.length)] as string;
  const modules = names.map((id): ModuleDoc => ({ id, kind, ...(params && { params }) }));
  const cables = names.flatMap((id) => inputs.map((to) => ({ from: socketAt(at(), 'out'), to: socketAt(id, to) })));
  return patch(`a tangle of ${kind}`, modules, cables);
}

const shapes: readonly ((random: () => number, seed: number) => Patch)[] = [
  () => junctionChain(390),
  () => normalChain(LIMITS.normals),
  () => chainOf('vca', ['in', 'cv'], 390),
  () => chainOf('ringMod', ['a', 'b'], 390, { coupling: 'dc' }),
  () => chainOf('shaper', ['in', 'bias'], 390, { gain: 3, folds: 6, clipVolts: 1 }),
  () => chainOf('attenuator', ['in'], 390, { build: 'passive', amount: 0.5 }),
  () => chainOf('mult', ['in'], 390, { build: 'passive' }),
  () => chainOf('quantizer', ['in'], 390),
  () => chainOf('delay', ['in', 'time', 'feedback'], 390, { timeAmount: 0.1 }),
  (random) => tangle(random, 'mixer', ['in1', 'in2', 'in3']),
  (random) => tangle(random, 'vca', ['in', 'cv']),
  (random) => tangle(random, 'junction', ['in1', 'in2', 'in3', 'in4']),
  (_, seed) => randomPatch(seed, { modules: LIMITS.modules, loops: true }),
  (_, seed) => randomPatch(seed, { modules: LIMITS.modules }),
];

/** A heavy document by its seed, at the default window and rate. */
export function heavyPatch(seed: number): Patch {
  const made = (shapes[seed % shapes.length] as (typeof shapes)[number])(stream(seed), seed);
  return { ...made, settings: { ...blank.settings, seed } };
}
