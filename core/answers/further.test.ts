import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdits } from '../edit/edit';
import { solve } from '../testing/unhurried';
import { editsOf } from '../solve/types';
import { parsePatch } from '../document/parse';
import { predict } from './predict';
import { patchOf } from '../testing/patch';

type Parts = Parameters<typeof patchOf>[0];
const lfo = (lowVolts: number, highVolts: number) => ['lfo', { lowVolts, highVolts }] as const;
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const db = (x: number): number => 20 * Math.log10(x);

function read(kind: string, socket: string, params: object, [low, high]: readonly [number, number]) {
  const patch = patchOf({ l: lfo(low, high), x: [kind, params] } as Parts, [`l.out > x.${socket}`], { duration: 1 });
  const all = predict(patch, { cures: false }).readings.filter((r) => r.at === `x.${socket}`);
  return Object.fromEntries(all.map((r) => [r.quantity, r]));
}

describe('a further reading', () => {
  it('of a low-pass gate is how loud it is', () => {
    fc.assert(
      fc.property(within(0.5, 4), (high) => {
        const r = read('lowPassGate', 'cv', { unityVolts: 5 }, [0, high]);
        expect(r.frequency).toMatchObject({ unit: 'Hz' });
        expect(r.gain).toMatchObject({ unit: 'dB', further: true, low: null, high: expect.closeTo(db(high / 5), 9) });
      }),
      { numRuns: 20 },
    );
  });
  it('of a crossfade is how much of each input passes', () => {
    const r = read('crossfade', 'cv', { position: 0, cvAmount: 1, fullVolts: 10, law: 'linear' }, [2, 7]);
    expect(r.gainA).toMatchObject({ low: expect.closeTo(db(0.3), 9), high: expect.closeTo(db(0.8), 9) });
    expect(r.gainB).toMatchObject({ low: expect.closeTo(db(0.2), 9), high: expect.closeTo(db(0.7), 9) });
    const equal = read('crossfade', 'cv', { position: 0, cvAmount: 1, fullVolts: 10, law: 'equalPower' }, [5, 5.0001]);
    expect(equal.gainA!.high).toBeCloseTo(db(Math.SQRT1_2), 3);
  });
  it('of multipliers is the whole factor with its sign', () => {
    fc.assert(
      fc.property(within(-4, 4), within(0.1, 1), (gain, modulation) => {
        const at = (v: number): number => gain * (1 - modulation + (modulation * v) / 5);
        const r = read('polarizer', 'cv', { gain, modulation }, [-4, 3]);
        const [low, high] = [Math.min(at(-4), at(3)), Math.max(at(-4), at(3))];
        expect(r.factor).toMatchObject({ low: expect.closeTo(low, 9), high: expect.closeTo(high, 9) });
      }),
      { numRuns: 20 },
    );
    const r = read('ringMod', 'a', { coupling: 'dc', scaleVolts: 5, bleedB: 0.05 }, [-2, 3]);
    expect(r.factor).toMatchObject({ low: expect.closeTo(-0.35, 9), high: expect.closeTo(0.65, 9) });
  });
  it('of an envelope’s time is what its times are multiplied by, and looping how often it comes', () => {
    const r = read('envelope', 'time', { mode: 'loop', attack: 0.1, decay: 0.4, timeAmount: -0.5 }, [-2, 2]);
    expect(r.factor).toMatchObject({ unit: '×', low: expect.closeTo(0.5, 9), high: expect.closeTo(2, 9) });
    expect(r.rate).toMatchObject({ unit: 'Hz', low: expect.closeTo(1, 9), high: expect.closeTo(4, 9) });
    expect(read('envelope', 'time', { timeAmount: 1 }, [0, 1]).rate).toBeUndefined();
  });
  it('of a filter that sings is its pitch', () => {
    const r = read('filter', 'pitch', { resonance: 1.1, cutoffHz: 440 }, [0, 1]);
    expect(r).toEqual({});
    const patch = patchOf({ l: lfo(0, 1), x: ['filter', { resonance: 1.1, cutoffHz: 440 }] } as Parts, [
      'l.out > x.pitch',
    ]);
    const sung = predict(patch, { cures: false }).readings.find((x) => x.quantity === 'pitch')!;
    expect(sung).toMatchObject({ at: 'x.cutoff', low: 440, high: 880, lowNote: 'A4', highNote: 'A5' });
  });
  it('can be asked for, and is met in its own figures', () => {
    const crossfade = ['crossfade', { position: 0, cvAmount: 1, fullVolts: 5, law: 'linear' }] as const;
    const target = { at: 'x.cv', quantity: 'gainA', low: -12, high: -6 };
    const patch = patchOf(
      { l: lfo(-5, 5), s: ['offset'], x: crossfade } as Parts,
      ['l.out > s.in', 's.out > x.cv'],
      {},
      { targets: [target] },
    );
    const answer = solve(patch, { free: ['s.amount', 's.volts'] });
    expect(answer.feasible).toBe(true);
    const there = predict(applyEdits(patch, editsOf(answer.solutions[0]!)), { cures: false });
    const reached = there.readings.find((r) => r.quantity === 'gainA')!;
    expect([reached.low, reached.high]).toEqual([expect.closeTo(-12, 4), expect.closeTo(-6, 4)]);
  });
  it('that a socket lacks is refused with its place', () => {
    const modules = [{ id: 'f', kind: 'filter' }];
    const doc = {
      format: 'fenvo.patch',
      version: 1,
      name: 'x',
      modules,
      targets: [{ at: 'f.cutoff', quantity: 'pitch', low: 100, high: 200 }],
    };
    const read = parsePatch(doc);
    expect(read.ok ? [] : read.errors.map((e) => `${e.path}: ${e.message}`)).toEqual([
      'targets[0].quantity: f.cutoff has frequency or volts, got pitch',
    ]);
  });
});
