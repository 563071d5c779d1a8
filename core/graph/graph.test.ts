import { describe, expect, it } from 'vitest';
import { junctionChain, normalChain } from '../testing/heavy';
import { patchOf } from '../testing/patch';
import { predict } from '../answers/predict';
import { buildGraph } from './graph';
import { simulate } from '../simulate/simulate';

const settled = (patch: Parameters<typeof predict>[0], socket: string): number => {
  const { outputs, inputs } = predict(patch);
  return (outputs[socket] ?? inputs[socket])!.seen![1];
};
const short = { duration: 0.01 };

describe('loading', () => {
  it('an output’s resistance into parallel inputs is a divider', () => {
    const patch = patchOf(
      { c: ['constant', { volts: 5 }, { outputOhms: { out: 1000 } }], a: ['vca'], b: ['vca'] },
      ['c.out > a.cv', 'c.out > b.cv'],
      short,
    );
    expect(settled(patch, 'c.out')).toBeCloseTo((5 * 50000) / 51000, 9);
    expect(settled({ ...patch, settings: { ...patch.settings, loading: 'ideal' } }, 'c.out')).toBe(5);
  });
  it('a passive pot at half loads its source and is loaded by its input', () => {
    const patch = patchOf(
      {
        c: ['constant', { volts: 5 }, { outputOhms: { out: 1000 } }],
        p: ['attenuator', { build: 'passive', amount: 0.5 }],
        a: ['vca'],
      },
      ['c.out > p.in', 'p.out > a.cv'],
      short,
    );
    // 50k in series, 50k beside 100k to ground.
    const [above, under] = [50000, (50000 * 100000) / 150000];
    const source = (5 * (above + under)) / (1000 + above + under);
    expect(settled(patch, 'c.out')).toBeCloseTo(source, 9);
    expect(settled(patch, 'p.out')).toBeCloseTo((source * under) / (above + under), 9);
  });
});

describe('normals', () => {
  const parts = { c: ['constant', { volts: 2 }], a: ['vca'], b: ['vca'] } as const;
  it('carry a voltage, an output, or what another input gets', () => {
    const volts = patchOf(parts, [], short, { normals: [{ to: 'a.cv', volts: 3 }] });
    expect(settled(volts, 'a.cv')).toBe(3);
    const shared = patchOf(parts, ['c.out > a.cv'], short, { normals: [{ to: 'b.cv', from: 'a.cv' }] });
    expect(settled(shared, 'b.cv')).toBe(2);
    const plugged = patchOf(parts, ['c.out > a.cv', 'a.out > b.cv'], short, {
      normals: [{ to: 'b.cv', from: 'a.cv' }],
    });
    expect(settled(plugged, 'b.cv')).toBe(0);
  });
  it('brokenBy source: a cable at the source breaks it', () => {
    const normals = [{ to: 'b.chain', from: 'a.out', brokenBy: 'source' }];
    const base = { c: ['constant', { volts: 2 }], a: ['vca', { bias: 5 }], b: ['vca'], x: ['inverter'] } as const;
    expect(settled(patchOf(base, ['c.out > a.in'], short, { normals }), 'b.out')).toBe(2);
    expect(settled(patchOf(base, ['c.out > a.in', 'a.out > x.in'], short, { normals }), 'b.out')).toBe(0);
  });
  it('a ring of normals carries 0 V', () => {
    const normals = [
      { to: 'a.cv', from: 'b.cv' },
      { to: 'b.cv', from: 'a.cv' },
    ];
    expect(settled(patchOf(parts, [], short, { normals }), 'a.out')).toBe(0);
  });
});

describe('loops', () => {
  it('the cable into the first listed module carries the previous sample, 0 V at the start', () => {
    // x[k] = 1 + x[k-1]·0.5
    const patch = patchOf(
      { m: ['mixer', { gain2: 0.5 }], o: ['offset'], c: ['constant', { volts: 1 }] },
      ['c.out > m.in1', 'o.out > m.in2', 'm.out > o.in'],
      { duration: 0.01, sampleRate: 1000 },
    );
    const x = simulate(patch, { traces: ['m.out', 'm.in2'] }).traces;
    expect([...x.get('m.out')!.slice(0, 4)]).toEqual([1, 1.5, 1.75, 1.875]);
    expect([...x.get('m.in2')!.slice(0, 3)]).toEqual([0, 1, 1.5]);
  });
});

describe('repeatsEvery', () => {
  const known = (parts: Parameters<typeof patchOf>[0], cables: string[], socket: string, duration = 8) =>
    predict(patchOf(parts, cables, { duration, sampleRate: 1000 })).outputs[socket]!;
  it('is the common period as exact fractions', () => {
    const two = { a: ['lfo', { rateHz: 0.3 }], b: ['lfo', { rateHz: 0.5 }], m: ['mixer'] } as const;
    expect(known(two, ['a.out > m.in1', 'b.out > m.in2'], 'm.out')).toMatchObject({ repeatsEvery: 10, exact: false });
    expect(known(two, ['a.out > m.in1', 'b.out > m.in2'], 'm.out', 10)).toMatchObject({
      repeatsEvery: 10,
      exact: true,
    });
  });
  it('is null for constants (exact) and draws (not)', () => {
    expect(known({ c: ['constant'], i: ['inverter'] }, ['c.out > i.in'], 'i.out')).toMatchObject({
      repeatsEvery: null,
      exact: true,
    });
    expect(known({ l: ['lfo', { shape: 'stepped' }] }, [], 'l.out')).toMatchObject({
      repeatsEvery: null,
      exact: false,
    });
  });
  it('is given behind memory, but then the window is not exact', () => {
    expect(known({ l: ['lfo'], s: ['slew'] }, ['l.out > s.in'], 's.out')).toMatchObject({
      repeatsEvery: 1,
      exact: false,
    });
  });
});

describe('long chains', () => {
  it('of junctions with every input tied, and of normals, take no longer than their length', () => {
    expect(buildGraph(junctionChain(390)).modules).toHaveLength(391);
    const graph = buildGraph(normalChain(2000));
    const last = graph.modules.at(-1)!.inputs.at(0)!;
    expect(last.driver).toMatchObject({ type: 'output', module: 0 });
  });
});
