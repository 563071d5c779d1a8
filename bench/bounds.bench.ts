import { BoundsEngine } from '../core/bounds/bounds';
import { Cone } from '../core/bounds/cone';
import type { Patch } from '../core/document/types';
import { randomPatch } from '../core/fuzz/randomPatch';
import { buildGraph } from '../core/graph/graph';
import { AtomStore } from '../core/law/builder';
import { constant } from '../core/law/lin';
import type { Lin } from '../core/law/lin';
import { quantile, row } from './figures';

/** Bounds after one changed parameter, and how tight they are. Figures, no verdict. */

const MODULATION = [
  'lfo',
  'constant',
  'gesture',
  'clock',
  'envelope',
  'attenuator',
  'attenuverter',
  'offset',
  'inverter',
  'mixer',
  'vca',
  'slew',
  'crossfade',
  'rectifier',
  'parameter',
  'filter',
  'oscillator',
];

function turned(patch: Patch, step: number): Patch {
  const at = patch.modules.findIndex((m, i) => i >= (step * 7) % patch.modules.length && m.kind === 'offset');
  const index = at < 0 ? patch.modules.findIndex((m) => m.kind === 'offset') : at;
  const modules = patch.modules.map((m, i) =>
    i === index ? { ...m, params: { ...m.params, amount: ((step * 13) % 100) / 100, maxAmount: 1 as const } } : m,
  );
  return { ...patch, modules };
}

for (const modules of [24, 100, 400]) {
  const times: number[] = [];
  const first: number[] = [];
  for (let seed = 0; seed < 12; seed++) {
    const patch = randomPatch(seed, { modules, kinds: MODULATION });
    const engine = new BoundsEngine();
    const cold = performance.now();
    engine.run(buildGraph(patch));
    first.push(performance.now() - cold);
    for (let step = 0; step < 40; step++) {
      const graph = buildGraph(turned(patch, step));
      const start = performance.now();
      engine.run(graph);
      if (seed > 1) times.push(performance.now() - start);
    }
  }
  console.log(
    `bounds at ${modules} modules, after one parameter, ms: ${row(times)}; from nothing: p50 ${quantile(first, 0.5).toFixed(2)}`,
  );
}

/** A dense random search over the sources of a memoryless net, corners included, then a climb from the best. */
function searched(root: Lin, seed: number): [number, number] {
  const cone = new Cone(root);
  const point = new Float64Array(cone.n);
  let state = seed * 2654435761 + 1;
  const random = (): number => ((state = (Math.imul(state, 1664525) + 1013904223) | 0), (state >>> 0) / 4294967296);
  let [lo, hi] = [Infinity, -Infinity];
  const extremes = [new Float64Array(cone.n), new Float64Array(cone.n)] as const;
  const look = (): void => {
    const v = cone.at(point);
    if (v < lo) {
      lo = v;
      extremes[0].set(point);
    }
    if (v > hi) {
      hi = v;
      extremes[1].set(point);
    }
  };
  const between = (i: number, share: number): number =>
    (cone.low[i] ?? 0) + share * ((cone.high[i] ?? 0) - (cone.low[i] ?? 0));
  for (let n = 0; n < 20_000; n++) {
    for (let i = 0; i < cone.n; i++) point[i] = between(i, n % 2 === 0 ? random() : random() < 0.5 ? 0 : 1);
    look();
  }
  for (const start of extremes) {
    for (let n = 0, width = 0.3; n < 4000; n++, width *= 0.998) {
      for (let i = 0; i < cone.n; i++) {
        const span = (cone.high[i] ?? 0) - (cone.low[i] ?? 0);
        point[i] = Math.min(
          cone.high[i] ?? 0,
          Math.max(cone.low[i] ?? 0, (start[i] ?? 0) + (random() - 0.5) * 2 * width * span),
        );
      }
      look();
    }
  }
  return [lo, hi];
}

/** A random memoryless net over a few sources, as a law. */
function randomNet(store: AtomStore, seed: number): Lin {
  let state = seed + 12345;
  const random = (): number => ((state = (Math.imul(state, 1664525) + 1013904223) | 0), (state >>> 0) / 4294967296);
  const pool: Lin[] = Array.from({ length: 1 + Math.floor(random() * 6) }, (_, i) =>
    store.leaf(`net ${seed} ${i}`, -5 * random(), 1 + 5 * random()),
  );
  const any = (): Lin => pool[Math.floor(random() * pool.length)] ?? constant(0);
  for (let n = 0; n < 8; n++) {
    const way = random();
    if (way < 0.35) pool.push(store.scale(store.mul(any(), any()), 0.2));
    else if (way < 0.6)
      pool.push(store.sum([any(), random() * 2 - 1], [any(), random() * 2 - 1], [constant(random() * 2 - 1), 1]));
    else if (way < 0.8) pool.push(store.clamp(any(), -1 - 3 * random(), 1 + 3 * random()));
    else if (way < 0.9) pool.push(store.abs(any()));
    else pool.push(store.max(any(), any()));
  }
  return pool[pool.length - 1] ?? constant(0);
}

const { tighten } = await import('../core/bounds/tighten');
const slack: number[] = [];
const nets: number[] = [];
for (let seed = 0; seed < 300; seed++) {
  const net = randomNet(new AtomStore(), seed);
  if (net.atoms.length === 0) continue;
  const start = performance.now();
  const [lo, hi] = tighten(net);
  nets.push(performance.now() - start);
  const [least, most] = searched(net, seed);
  const span = most - least;
  if (span > 1e-6) slack.push((100 * (hi - lo - span)) / span);
  if (least < lo - 1e-9 || most > hi + 1e-9)
    console.log(`net ${seed}: a search found ${least} … ${most} outside ${lo} … ${hi}`);
}
console.log(
  `slack of the bound over a search of 28 000 points on ${slack.length} random memoryless nets, % of the span: ${row(slack)}`,
);
console.log(`time of one such bound, ms: ${row(nets)}`);
