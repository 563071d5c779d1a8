import { BoundsEngine } from '../core/bounds/bounds';
import { tighten } from '../core/bounds/tighten';
import type { Patch } from '../core/document/types';
import { junctionChain, normalChain } from '../core/testing/heavy';
import { randomNet, searched } from '../core/testing/net';
import { randomPatch } from '../core/testing/randomPatch';
import { buildGraph } from '../core/graph/graph';
import { AtomStore } from '../core/law/builder';
import { quantile, row } from './figures';
import { Section } from './section';

/** Bounds after one changed parameter, and how tight they are. Figures, no verdict. */
const section = new Section('bounds', 'Bounds', '`npm run bench -- bounds`, milliseconds.');
/** What is wanted of 95 in a hundred, by modules. */
const GOALS = { 24: 4, 100: 8, 400: 16 } as const;

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

for (const modules of [24, 100, 400] as const) {
  const times: number[] = [];
  const first: number[] = [];
  for (let seed = 0; seed < 12; seed++) {
    let patch = randomPatch(seed, { modules, kinds: MODULATION });
    const engine = new BoundsEngine();
    const cold = performance.now();
    engine.run(buildGraph(patch));
    first.push(performance.now() - cold);
    for (let step = 0; step < 40; step++) {
      patch = turned(patch, step);
      const graph = buildGraph(patch);
      const start = performance.now();
      engine.run(graph);
      if (seed > 1) times.push(performance.now() - start);
    }
  }
  section.add(`${modules} modules, after one knob`, row(times), `p95 ${GOALS[modules]}, worst 50`);
  section.add(`${modules} modules, from nothing`, `p50 ${quantile(first, 0.5).toFixed(2)}`);
}

const slack: number[] = [];
const nets: number[] = [];
for (let seed = 0; seed < 300; seed++) {
  const net = randomNet(new AtomStore(), seed);
  if (net.atoms.length === 0) continue;
  const start = performance.now();
  const [lo, hi] = tighten(net);
  nets.push(performance.now() - start);
  const [least, most] = searched(net, seed, 20_000);
  const span = most - least;
  if (span > 1e-6) slack.push((100 * (hi - lo - span)) / span);
  if (least < lo - 1e-9 || most > hi + 1e-9)
    console.log(`net ${seed}: a search found ${least} … ${most} outside ${lo} … ${hi}`);
}
section.add(
  `slack over a search of 28 000 points, % of the span, on ${slack.length} random memoryless nets`,
  row(slack),
  'worst 0.5',
);
section.add('one such bound', row(nets));

for (const [what, patch] of [
  ['390 junctions in a row, all inputs tied', junctionChain(390)],
  ['2000 normals in a row', normalChain(2000)],
] as const) {
  const times = Array.from({ length: 20 }, () => {
    const start = performance.now();
    buildGraph({ ...patch });
    return performance.now() - start;
  });
  section.add(`graph of ${what}`, row(times));
}
section.write();
