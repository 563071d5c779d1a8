import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { BoundsEngine } from '../core/bounds/bounds';
import { patchOf } from '../core/testing/patch';
import { randomPatch } from '../core/testing/randomPatch';
import { buildGraph } from '../core/graph/graph';
import { simulateGraph } from '../core/simulate/simulate';
import type { Patch } from '../core/document/types';
import { Section } from './section';

/** Simulation: nanoseconds per module and sample, against plain C, by kind, and how it grows. Figures, no verdict. */

const section = new Section('simulate', 'Simulation', '`npm run bench -- simulate`.');

function best(patch: Patch, runs = 5, sparing = true): number {
  const graph = buildGraph(patch);
  // As the product does it: the bounds are known before the samples.
  const bounds = new BoundsEngine().run(graph);
  let least = Infinity;
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    simulateGraph(graph, { sparing, bounds });
    least = Math.min(least, performance.now() - start);
  }
  return least * 1e6;
}

const lfo = (shape: string, rateHz: number) => ['lfo', { shape, rateHz }] as const;
/** The patch of reference.c, module for module. */
const mixed = patchOf(
  {
    m0: lfo('triangle', 0.25),
    m1: lfo('sine', 0.5),
    m2: lfo('triangle', 1.5),
    m3: lfo('sine', 3),
    m4: ['offset', { amount: 0.4, volts: 2 }],
    m5: ['attenuverter', { amount: 0.5 }],
    m6: ['inverter'],
    m7: ['offset', { amount: 0.5, volts: 2.5 }],
    m8: ['mixer', { gain1: 0.5, gain2: 0.25, gain3: 0.25 }],
    m9: ['slew', { rise: 2, fall: 2 }],
    m10: ['slew', { rise: 4, fall: 4 }],
    m11: ['oscillator', { baseHz: 110 }],
    m12: ['oscillator', { baseHz: 220.5 }],
    m13: ['oscillator', { baseHz: 440 }],
    m14: ['filter', { cutoffHz: 200, resonance: 0.3 }],
    m15: ['filter', { cutoffHz: 800, resonance: 0.4 }],
    m16: ['filter', { cutoffHz: 800, resonance: 0.4 }],
    m17: ['mixer', { gain1: 0.5, gain2: 0.3, gain3: 0.3 }],
    m18: ['vca'],
    m19: ['vca', { response: 1 }],
    m20: ['mixer', { gain1: 0.5, gain2: 0.5, gain3: 0 }],
    m21: ['attenuator', { amount: 0.8 }],
    m22: ['vca'],
    m23: ['inverter'],
  } as never,
  [
    'm0.out > m4.in', 'm1.out > m5.in', 'm5.out > m6.in', 'm2.out > m7.in',
    'm4.out > m8.in1', 'm5.out > m8.in2', 'm7.out > m8.in3', 'm7.out > m9.in', 'm2.out > m10.in',
    'm11.saw > m14.in', 'm8.out > m14.cutoff', 'm12.saw > m15.in', 'm5.out > m15.cutoff', 'm12.saw > m16.in', 'm6.out > m16.cutoff',
    'm14.lowpass > m17.in1', 'm15.lowpass > m17.in2', 'm16.lowpass > m17.in3',
    'm17.out > m18.in', 'm4.out > m18.cv', 'm13.sine > m19.in', 'm9.out > m19.cv',
    'm18.out > m20.in1', 'm19.out > m20.in2', 'm3.out > m20.in3', 'm20.out > m21.in', 'm21.out > m22.in', 'm7.out > m22.cv', 'm22.out > m23.in',
  ],
  { duration: 8, sampleRate: 48000 },
); // prettier-ignore

const WATCHED = [
  'out',
  'out',
  'out',
  'out',
  'out',
  'out',
  'out',
  'out',
  'out',
  'out',
  'out',
  'saw',
  'saw',
  'sine',
  'lowpass',
  'lowpass',
  'lowpass',
];
const samples = 8 * 48000;
const ours = best(mixed);
section.add(
  '24 modules, 8 s at 48 kHz',
  `${(ours / 1e6).toFixed(0)} ms, ${(ours / samples / 24).toFixed(2)} ns a module and sample`,
);

const binary = path.join(mkdtempSync(path.join(tmpdir(), 'fenvo-bench-')), 'reference');
const built = spawnSync('cc', ['-O3', '-march=native', '-o', binary, 'bench/reference.c', '-lm'], { encoding: 'utf8' });
if (built.status === 0) {
  const c = JSON.parse(spawnSync(binary, { encoding: 'utf8' }).stdout) as { ns: number; sums: number[] };
  const { outputs } = simulateGraph(buildGraph(mixed));
  const apart = c.sums.map((mean, i) => Math.abs(mean - (outputs.get(`m${i}.${WATCHED[i] ?? 'out'}`)?.mean ?? NaN)));
  section.add('the same in plain C', `${(c.ns / 1e6).toFixed(0)} ms`);
  section.add('time over that of plain C', (ours / c.ns).toFixed(2), '1.0');
  section.add('means of all 24 outputs, apart from plain C', `${Math.max(...apart).toExponential(1)} V`);
} else section.add('time over that of plain C', 'no C compiler here', '1.0');

const sources = { a: ['lfo', { rateHz: 3 }], b: ['lfo', { shape: 'sine', rateHz: 5 }], g: ['clock'] } as const;
const base = best(patchOf(sources as never, [], { duration: 4, sampleRate: 48000 }), 8);
const kinds: readonly (readonly [string, object, readonly string[]])[] = [
  ['lfo', {}, []], ['clock', {}, []], ['envelope', {}, ['g.out > m.gate']], ['oscillator', {}, []], ['oscillator', {}, ['a.out > m.pitch']],
  ['attenuverter', { amount: 0.5 }, ['a.out > m.in']], ['mixer', {}, ['a.out > m.in1', 'b.out > m.in2']], ['vca', {}, ['a.out > m.in', 'b.out > m.cv']],
  ['vca', { response: 1 }, ['a.out > m.in', 'b.out > m.cv']], ['ringMod', {}, ['a.out > m.a', 'b.out > m.b']], ['slew', { rise: 0.1, fall: 0.1 }, ['a.out > m.in']],
  ['follower', {}, ['a.out > m.in']], ['comparator', {}, ['a.out > m.in']], ['quantizer', {}, ['a.out > m.in']], ['shaper', { folds: 3, gain: 4 }, ['a.out > m.in']],
  ['delay', {}, ['a.out > m.in']], ['filter', {}, ['a.out > m.in']], ['filter', {}, ['a.out > m.in', 'b.out > m.cutoff']], ['lowPassGate', {}, ['a.out > m.in', 'b.out > m.cv']],
]; // prettier-ignore
/** Enough of a kind at once that the cost of one stands out of the noise between two runs. */
const COPIES = Array.from({ length: 8 }, (_, i) => i);
for (const [kind, params, cables] of kinds) {
  const modules = { ...sources, ...Object.fromEntries(COPIES.map((i) => [`m${i}`, [kind, params]])) };
  const wires = COPIES.flatMap((i) => cables.map((c) => c.replace('m.', `m${i}.`)));
  const took = best(patchOf(modules as never, wires, { duration: 4, sampleRate: 48000 }), 4) - base;
  const set = Object.entries(params).map(([name, value]) => ` ${name} ${String(value)}`);
  section.add(
    `${kind}${set.join()}, ${cables.length} cables`,
    `${(took / COPIES.length / (4 * 48000)).toFixed(1)} ns a sample`,
  );
}

for (const modules of [10, 50, 100, 400]) {
  const patch = { ...randomPatch(7, { modules, duration: 1, sampleRate: 8000 }), normals: [] };
  section.add(`${modules} modules, 1 s at 8 kHz`, `${(best(patch, 3, false) / 1e6).toFixed(0)} ms`);
}
for (const duration of [1, 10, 60]) {
  const patch = { ...mixed, settings: { ...mixed.settings, duration } };
  section.add(`24 modules, ${duration} s at 48 kHz`, `${(best(patch, 1) / 1e6).toFixed(0)} ms`);
}
section.add('peak memory', `${(process.resourceUsage().maxRSS / 1024).toFixed(0)} MiB`);
section.write();
