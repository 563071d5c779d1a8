import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BoundsEngine } from '../bounds/bounds';
import { applyEdits } from '../edit/edit';
import { socketAt } from '../document/sockets';
import type { Patch } from '../document/types';
import { buildGraph } from '../graph/graph';
import { stream } from '../kinds/random';
import { simulateGraph } from '../simulate/simulate';
import { patchOf } from './patch';
import { randomPatch } from './randomPatch';

/** What must stay as it is where nothing that matters is changed, and change as it must where something is. */

const tracesOf = (patch: Patch) => {
  const graph = buildGraph(patch);
  const sockets = graph.modules.flatMap((m) => m.outputs.map((o) => o.socket));
  return simulateGraph(graph, { traces: sockets }).traces;
};
const boundsOf = (patch: Patch) => {
  const graph = buildGraph(patch);
  const bounds = new BoundsEngine().run(graph);
  return new Map(
    graph.modules.flatMap((m) => m.outputs.map((o, i) => [o.socket, bounds.get(m.id)!.outputs[i]!] as const)),
  );
};
const rate = (patch: Patch, duration: number): Patch => ({
  ...patch,
  settings: { ...patch.settings, sampleRate: 8000, duration },
});
const seeds = Array.from({ length: 20 }, (_, i) => 31 * i + 5);

describe('a run', () => {
  it.each(seeds)('seed %i: a longer one begins as a shorter one', (seed) => {
    const patch = randomPatch(seed, { loops: seed % 2 === 0, modules: 8 });
    const [short, long] = [0.02, 0.05].map((d) => tracesOf(rate(patch, d)));
    for (const [socket, trace] of short!) expect(long!.get(socket)!.subarray(0, trace.length)).toEqual(trace);
  });

  it.each(seeds)('seed %i: the order of the list changes nothing where there is no loop', (seed) => {
    const patch = rate(randomPatch(seed, { modules: 10 }), 0.02);
    const random = stream(seed);
    const modules = patch.modules
      .map((m) => [random(), m] as const)
      .sort(([a], [b]) => a - b)
      .map(([, m]) => m);
    const other = { ...patch, modules };
    const [here, there] = [tracesOf(patch), tracesOf(other)];
    for (const [socket, trace] of here) expect(there.get(socket)).toEqual(trace);
    const [bounds, others] = [boundsOf(patch), boundsOf(other)];
    for (const [socket, [low, high]] of bounds) {
      // Boxes are split in another order: what is proven may differ by what is left open.
      const slack = 0.011 * (high - low) + 0.1;
      expect(Math.abs(others.get(socket)![0] - low)).toBeLessThanOrEqual(slack);
      expect(Math.abs(others.get(socket)![1] - high)).toBeLessThanOrEqual(slack);
    }
  });

  it.each(seeds)('seed %i: what nothing listens to changes nothing of the rest', (seed) => {
    const patch = rate(randomPatch(seed, { modules: 8 }), 0.02);
    const more = applyEdits(patch, [
      { do: 'add', module: { id: 'idle', kind: 'lfo', params: { rateHz: 7 } } },
      { do: 'add', module: { id: 'sink', kind: 'slew' } },
      { do: 'plug', cable: { from: 'idle.out', to: 'sink.in' } },
    ]);
    const [alone, beside] = [tracesOf(patch), tracesOf(more)];
    for (const [socket, trace] of alone) expect(beside.get(socket)).toEqual(trace);
    const [bounds, others] = [boundsOf(patch), boundsOf(more)];
    for (const [socket, bound] of bounds) expect(others.get(socket)).toEqual(bound);
  });

  it.each(seeds)('seed %i: a buffered mult in a cable’s way is no other than the cable', (seed) => {
    const patch = rate(randomPatch(seed, { modules: 8 }), 0.02);
    const cable = patch.cables.at(-1);
    if (!cable) return;
    const through = applyEdits(patch, [
      { do: 'add', module: { id: 'copy', kind: 'mult' } },
      { do: 'plug', cable: { from: cable.from, to: 'copy.in' } },
      { do: 'plug', cable: { from: 'copy.out1', to: cable.to } },
    ]);
    const unloaded = (p: Patch): Patch => ({ ...p, settings: { ...p.settings, loading: 'ideal' } });
    const [direct, copied] = [tracesOf(unloaded(patch)), tracesOf(unloaded(through))];
    for (const [socket, trace] of direct) expect(copied.get(socket)).toEqual(trace);
  });
});

describe('a net of straight stages', () => {
  const amount = fc.double({ min: -0.6, max: 0.6, noNaN: true });
  const volts = fc.double({ min: -0.5, max: 0.5, noNaN: true });
  /** Each stage sums two that stand before it. */
  const stage = fc.record({ a: fc.nat(), b: fc.nat(), ka: amount, kb: amount, lift: volts });
  const source = fc.record({ middle: volts, half: fc.double({ min: 0.1, max: 1, noNaN: true }) });

  it('is bound by exactly what its sources can come to together, whatever of them meets again', () => {
    fc.assert(
      fc.property(
        fc.array(source, { minLength: 1, maxLength: 4 }),
        fc.array(stage, { minLength: 1, maxLength: 9 }),
        (sources, stages) => {
          // Each voltage as what stays and what of each source is in it.
          const rows = sources.map((s, i) => ({ stays: s.middle, of: sources.map((_, j) => (i === j ? s.half : 0)) }));
          const names = sources.map((_, i) => `s${i}.out`);
          const parts: Record<string, readonly [string, Record<string, number | boolean>?]> = Object.fromEntries(
            sources.map((s, i) => [
              `s${i}`,
              ['lfo', { rateHz: 1 + i, lowVolts: s.middle - s.half, highVolts: s.middle + s.half }],
            ]),
          );
          const cables: string[] = [];
          stages.forEach(({ a, b, ka, kb, lift }, n) => {
            const [x, y] = [a % rows.length, b % rows.length];
            parts[`m${n}`] = ['mixer', { inputs: 2, bipolar: true, gain1: ka, gain2: kb, biasVolts: lift }];
            cables.push(`${names[x]} > m${n}.in1`, `${names[y]} > m${n}.in2`);
            names.push(socketAt(`m${n}`, 'out'));
            rows.push({
              stays: ka * rows[x]!.stays + kb * rows[y]!.stays + lift,
              of: sources.map((_, j) => ka * rows[x]!.of[j]! + kb * rows[y]!.of[j]!),
            });
          });
          const bounds = boundsOf(patchOf(parts as never, cables, { duration: 0.01 }));
          rows.forEach(({ stays, of }, i) => {
            const reach = of.reduce((sum, k) => sum + Math.abs(k), 0);
            const [low, high] = bounds.get(names[i]!)!;
            expect(low).toBeCloseTo(stays - reach, 9);
            expect(high).toBeCloseTo(stays + reach, 9);
          });
        },
      ),
      { numRuns: 60 },
    );
  });
});
