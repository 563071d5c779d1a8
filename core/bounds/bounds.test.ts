import { describe, expect, it } from 'vitest';
import { patchOf } from '../fuzz/patch';
import { randomPatch } from '../fuzz/randomPatch';
import { buildGraph } from '../graph/graph';
import { predict } from '../predict';
import { BoundsEngine } from './bounds';

const boundOf = (patch: Parameters<typeof predict>[0], socket: string): readonly [number, number] =>
  predict(patch, { simulation: false }).outputs[socket]!.bound;

describe('affine bounds', () => {
  it('a signal minus itself is exactly 0', () => {
    const patch = patchOf({ l: ['lfo'], i: ['inverter'], m: ['mixer'] }, [
      'l.out > m.in1',
      'l.out > i.in',
      'i.out > m.in2',
    ]);
    expect(boundOf(patch, 'm.out')).toEqual([0, 0]);
  });
  it('inverted outputs are tied to their own', () => {
    const patch = patchOf({ e: ['envelope', { mode: 'loop' }], m: ['mixer'] }, ['e.out > m.in1', 'e.inverted > m.in2']);
    expect(boundOf(patch, 'm.out')).toEqual([0, 0]);
  });
  it('two slow oscillators are tied by a common reset, and only then', () => {
    const twins = (cables: readonly string[]) =>
      patchOf({ c: ['clock'], a: ['lfo'], b: ['lfo'], i: ['inverter'], m: ['mixer'] }, [
        'a.out > m.in1',
        'b.out > i.in',
        'i.out > m.in2',
        ...cables,
      ]);
    expect(boundOf(twins(['c.out > a.reset', 'c.out > b.reset']), 'm.out')).toEqual([0, 0]);
    expect(boundOf(twins(['c.out > a.reset']), 'm.out')).toEqual([-10, 10]);
    expect(boundOf(twins([]), 'm.out')).toEqual([-10, 10]);
  });
  it.each([
    ['sequencer', { steps: [{ volts: 1 }, { volts: -2 }] }, 'clock', 'cv'],
    ['envelope', { peakVolts: 6 }, 'gate', 'out'],
    ['divider', { by: 3 }, 'in', 'out'],
    ['slew', { rise: 0.2 }, 'in', 'out'],
  ] as const)('two of a kind on one clock are tied: %s', (kind, params, input, output) => {
    const pair = (second: object, by: string) =>
      patchOf(
        {
          c: ['clock'],
          d: ['clock'],
          a: [kind, params],
          b: [kind, { ...params, ...second }],
          i: ['inverter'],
          m: ['mixer'],
        } as never,
        [`c.out > a.${input}`, `${by}.out > b.${input}`, `a.${output} > m.in1`, `b.${output} > i.in`, 'i.out > m.in2'],
      );
    expect(boundOf(pair({}, 'c'), 'm.out')).toEqual([0, 0]);
    const [lo, hi] = boundOf(pair({}, 'd'), 'm.out');
    expect(hi - lo).toBeGreaterThan(2);
  });
  it('draws are never tied', () => {
    const patch = patchOf(
      {
        c: ['clock'],
        a: ['lfo', { shape: 'stepped' }],
        b: ['lfo', { shape: 'stepped' }],
        i: ['inverter'],
        m: ['mixer'],
      },
      ['c.out > a.reset', 'c.out > b.reset', 'a.out > m.in1', 'b.out > i.in', 'i.out > m.in2'],
    );
    expect(boundOf(patch, 'm.out')).toEqual([-10, 10]);
  });
  it('also through an amplifier: the same product cancels', () => {
    const patch = patchOf({ l: ['lfo'], k: ['lfo'], a: ['vca'], m: ['mixer'] }, [
      'l.out > a.in',
      'k.out > a.cv',
      'a.out > m.in1',
      'a.inverted > m.in2',
    ]);
    expect(boundOf(patch, 'm.out')).toEqual([0, 0]);
  });
  it('a square is not negative', () => {
    const patch = patchOf({ l: ['lfo'], o: ['offset', { volts: 1 }], a: ['vca', { quadrants: 4, maxGain: 10 }] }, [
      'l.out > o.in',
      'o.out > a.in',
      'o.out > a.cv',
    ]);
    expect(boundOf(patch, 'a.out')).toEqual([0, expect.closeTo(7.2, 9)]);
  });
  it('a control that opens with its own signal: within 0.5 % of the true range', () => {
    // (s/5 + 0.2)·s for s above −1, else 0: least −0.05 at s = −0.5.
    const patch = patchOf({ l: ['lfo'], a: ['vca', { bias: 1 }] }, ['l.out > a.in', 'l.out > a.cv']);
    const [lo, hi] = boundOf(patch, 'a.out');
    expect(hi).toBeCloseTo(6, 1);
    expect(lo).toBeLessThanOrEqual(-0.05);
    expect(lo).toBeGreaterThan(-0.05 - 0.005 * 6.05);
  });
  it('a loop narrows from the rails to its limit, joined with 0 V', () => {
    const patch = patchOf({ c: ['constant', { volts: 1 }], m: ['mixer', { gain2: 0.5 }] }, [
      'c.out > m.in1',
      'm.out > m.in2',
    ]);
    const [lo, hi] = boundOf(patch, 'm.out');
    expect(hi).toBeCloseTo(2, 9);
    expect(lo).toBeCloseTo(1, 9);
  });
});

describe('after a change', () => {
  it.each(Array.from({ length: 150 }, (_, i) => i))('patch %i: kept answers equal those from the start', (seed) => {
    const patch = randomPatch(seed, { loops: seed % 3 === 0 });
    const other = randomPatch(seed, { loops: seed % 3 === 0, modules: patch.modules.length });
    const engine = new BoundsEngine();
    engine.run(buildGraph(patch));
    // Another seed's parameters for one module, then back.
    const [first] = patch.modules;
    const changed = { ...patch, modules: [{ ...first!, params: {} }, ...patch.modules.slice(1)] };
    const usable =
      changed.cables.every((c) => !c.to.startsWith(`${first!.id}.`) && !c.from.startsWith(`${first!.id}.`)) ||
      first!.kind !== 'mixer';
    const next = usable ? changed : other;
    expect([...engine.run(buildGraph(next))]).toEqual([...new BoundsEngine().run(buildGraph(next))]);
    expect([...engine.run(buildGraph(patch))]).toEqual([...new BoundsEngine().run(buildGraph(patch))]);
  });
});
