import { describe, expect, it } from 'vitest';
import type { Patch } from '../document/types';
import { patchOf } from '../testing/patch';
import { randomPatch } from '../testing/randomPatch';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from './simulate';
import { Simulator } from './simulator';
import type { Simulation } from './types';

/** Turns one knob of a patch, by a rule that a step number decides. */
function turned(patch: Patch, step: number): Patch {
  const able = patch.modules.flatMap((m, i) =>
    ['offset', 'attenuator', 'slew', 'lfo', 'vca'].includes(m.kind) ? [i] : [],
  );
  const index = able[(step >> 2) % able.length];
  const value = ((step * 37) % 100) / 100;
  const param = { offset: 'amount', attenuator: 'amount', slew: 'rise', lfo: 'phase', vca: 'cvAmount' };
  const modules = patch.modules.map((m, i) =>
    i === index ? { ...m, params: { ...m.params, [param[m.kind as keyof typeof param]]: value } } : m,
  );
  return { ...patch, modules };
}

const plain = ({ outputs, inputs, ends, gates, pictures, traces }: Simulation) => ({
  outputs,
  inputs,
  ends,
  gates,
  traces,
  pictures: new Map([...pictures].map(([socket, { min, max }]) => [socket, { min, max }])),
});

describe('a simulator', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))('seed %i: gives what a run from the start gives', (seed) => {
    let patch = randomPatch(seed, { modules: 2 + (seed % 23), duration: 0.2, sampleRate: 4000 });
    const sockets = patch.cables.slice(0, 2).map((c) => c.from);
    const options = { columns: 20, traces: sockets, ...(seed % 3 === 0 && { only: sockets, sparing: true }) };
    const simulator = new Simulator();
    for (let step = 0; step < 16; step++) {
      const graph = buildGraph(patch);
      expect(plain(simulator.run(graph, options))).toEqual(plain(simulateGraph(graph, options)));
      patch = turned(patch, step + seed);
    }
  });

  it('runs only what depends on the change', () => {
    const patch = (amount: number, rateHz = 3) =>
      patchOf(
        { a: ['lfo', { rateHz }], b: ['slew', { rise: 1 }], c: ['attenuverter', { amount }], d: ['slew', { fall: 1 }] },
        ['a.out > b.in', 'b.out > c.in', 'c.out > d.in'],
        { duration: 0.1 },
      );
    const simulator = new Simulator();
    const pictures = (p: Patch) => simulator.run(buildGraph(p), { columns: 4 }).pictures;
    pictures(patch(0.1));
    const second = pictures(patch(0.2));
    const third = pictures(patch(0.3));
    // What is not run again is handed on as it is.
    expect(third.get('b.out')).toBe(second.get('b.out'));
    expect(third.get('d.out')).not.toBe(second.get('d.out'));
    const moved = pictures(patch(0.3, 4));
    expect(moved.get('b.out')).not.toBe(third.get('b.out'));
    expect(pictures(patch(0.3, 4))).toBe(moved);
  });
});
