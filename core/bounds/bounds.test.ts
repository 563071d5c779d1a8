import { describe, expect, it } from 'vitest';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { editedPatches } from '../testing/edits';
import { buildGraph } from '../graph/graph';
import { predict } from '../answers/predict';
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
  it('a control that opens with its own signal: within 0.5% of the true range', () => {
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
  it.each(Array.from({ length: 120 }, (_, i) => i))(
    'edits %i: kept answers equal those from the start, whatever was added, removed, plugged or undone',
    (seed) => {
      const engine = new BoundsEngine();
      for (const patch of editedPatches(seed, 12)) {
        const graph = buildGraph(patch);
        expect([...engine.run(graph)]).toEqual([...new BoundsEngine().run(graph)]);
      }
    },
  );
  it('a loop keeps nothing of another that stood in its place', () => {
    const loop = (id: string, volts: number) => ({
      [`c${id}`]: ['constant', { volts }],
      [`m${id}`]: ['mixer', { gain2: 0.5 }],
      [`s${id}`]: ['slew'],
    });
    const cables = (id: string) => [`c${id}.out > m${id}.in1`, `s${id}.out > m${id}.in2`, `m${id}.out > s${id}.in`];
    const both = patchOf({ ...loop('a', 1), ...loop('b', 4.5) } as never, [...cables('a'), ...cables('b')]);
    const engine = new BoundsEngine();
    engine.run(buildGraph(both));
    const one = applyEdits(
      both,
      ['ca', 'ma', 'sa'].map((id) => ({ do: 'remove', id }) as const),
    );
    expect(engine.run(buildGraph(one)).get('mb')!.outputs[0]![1]).toBe(
      new BoundsEngine().run(buildGraph(one)).get('mb')!.outputs[0]![1],
    );
  });
});

describe('what can never trigger', () => {
  const low = ['lfo', { lowVolts: -3, highVolts: 0.5 }] as const;
  const up = ['lfo', { lowVolts: 2, highVolts: 4 }] as const;
  const at = (by: typeof low | typeof up, kind: string, input: string, socket: string, params = {}) =>
    boundOf(patchOf({ l: by, x: [kind, params] } as never, [`l.out > x.${input}`]), socket);

  it('keeps the level that it starts with', () => {
    expect(at(low, 'comparator', 'in', 'x.out', { lowVolts: -1 })).toEqual([-1, -1]);
    expect(at(low, 'comparator', 'in', 'x.inverted')).toEqual([5, 5]);
    expect(at(low, 'divider', 'in', 'x.out', { lowVolts: -2 })).toEqual([-2, -2]);
    expect(at(low, 'sequencer', 'clock', 'x.cv', { steps: [{ volts: 3 }] })).toEqual([0, 0]);
    expect(at(low, 'sampleHold', 'clock', 'x.out')).toEqual([0, 0]);
    expect(at(low, 'envelope', 'gate', 'x.out', { restVolts: 0.75 })).toEqual([0.75, 0.75]);
    expect(at(low, 'envelope', 'gate', 'x.end')).toEqual([0, 0]);
    expect(at(low, 'quantizer', 'trigger', 'x.out')).toEqual([0, 0]);
    expect(at(low, 'logic', 'a', 'x.out')).toEqual([0, 0]);
    expect(at(low, 'lfo', 'reset', 'x.out', { mode: 'once', phase: 0.25, highVolts: 3 })).toEqual([3, 3]);
  });
  it('or the one that it takes at the first sample', () => {
    expect(at(up, 'comparator', 'in', 'x.out', { thresholdVolts: 2 })).toEqual([0, 5]);
    expect(at(up, 'comparator', 'in', 'x.out', { thresholdVolts: 1.9 })).toEqual([5, 5]);
    expect(at(up, 'follower', 'in', 'x.gate', { gateVolts: 7 })).toEqual([7, 7]);
    expect(at(up, 'divider', 'in', 'x.out')).toEqual([5, 5]);
    expect(at(up, 'sequencer', 'clock', 'x.cv', { steps: [{ volts: 3 }, { volts: -4 }] })).toEqual([3, 3]);
    expect(at(up, 'envelope', 'gate', 'x.end')).toEqual([0, 0]);
    expect(at(up, 'envelope', 'gate', 'x.end', { mode: 'ad' })).toEqual([0, 5]);
    expect(at(up, 'logic', 'a', 'x.out', { op: 'or' })).toEqual([5, 5]);
  });
  it('a comparator is decided by the difference of what its two inputs share', () => {
    const patch = patchOf(
      { l: ['lfo'], o: ['offset', { volts: 3 }], x: ['comparator'], y: ['comparator', { thresholdVolts: 3.5 }] },
      ['l.out > o.in', 'o.out > x.in', 'l.out > x.threshold', 'o.out > y.in', 'l.out > y.threshold'],
    );
    expect([boundOf(patch, 'x.out'), boundOf(patch, 'y.out')]).toEqual([
      [5, 5],
      [0, 0],
    ]);
  });
  it('so a gate behind it never rises, and an amplifier behind it is not warned about', () => {
    const patch = patchOf(
      { l: low, c: ['comparator', { highVolts: 9 }], e: ['envelope'], a: ['vca'] },
      ['l.out > c.in', 'c.out > e.gate', 'c.out > a.cv'],
      { duration: 0.5 },
    );
    const codes = predict(patch).findings.map((f) => `${f.code} ${f.at}`);
    expect(codes).toContain('gate-never e.gate');
    expect(codes).not.toContain('vca-over a.cv');
  });
  it('nothing in, nothing out: a filter, a delay and a low-pass gate without input', () => {
    const patch = patchOf({ f: ['filter'], d: ['delay'], g: ['lowPassGate'], l: ['lfo'] }, [
      'l.out > g.cv',
      'l.out > f.cutoff',
    ]);
    for (const socket of ['f.lowpass', 'f.bandpass', 'f.highpass', 'd.out', 'g.out'])
      expect([socket, boundOf(patch, socket)]).toEqual([socket, [0, 0]]);
  });
});
