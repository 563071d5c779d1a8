import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import type { Patch, Target } from '../document/types';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { standingsOf } from './problem/runner';
import { solve } from '../testing/unhurried';
import { editsOf } from './types';

const withTargets = (patch: Patch, ...targets: Target[]): Patch => ({ ...patch, targets });
const gateSteps = (...volts: number[]) => volts.map((v) => ({ volts: v, gate: true, tie: false }));

describe('fewest knobs', () => {
  it('are three where targets share a mixer and one goes on through an offset', () => {
    const patch = patchOf(
      {
        a: ['lfo'],
        b: ['lfo', { lowVolts: 0, highVolts: 8, rateHz: 0.7 }],
        mix: ['mixer', { inputs: 2, bipolar: true, maxGain: 2 }],
        lift: ['offset'],
        x: ['parameter', { low: 0, high: 5 }],
      },
      ['a.out > mix.in1', 'b.out > mix.in2', 'mix.out > lift.in', 'lift.out > x.cv'],
    );
    const { feasible, solutions } = solve(
      withTargets(
        patch,
        { at: 'mix.out', quantity: 'volts', low: -6.5, high: 5 },
        { at: 'lift.out', quantity: 'volts', low: 1, high: 5 },
      ),
    );
    expect(feasible).toBe(true);
    expect(solutions[0]!.moved).toBe(3);
  });

  it('are told once: no two answers are all but the same', () => {
    const patch = patchOf({ a: ['lfo'], t: ['offset'], x: ['filter'] }, ['a.out > t.in', 't.out > x.cutoff']);
    const answers = [
      { at: 't.out', want: 'within', quantity: 'volts', low: -1, high: 2 },
      { at: 't.out', quantity: 'volts', low: -1, high: 2 },
    ] as const;
    for (const target of answers) {
      const { solutions } = solve(withTargets(patch, target));
      const told = solutions.map((s) => s.settings.map((x) => `${x.at} ${Math.round(x.percent / 5)}`).join());
      expect(new Set(told).size).toBe(told.length);
    }
  });

  it('keep the sign of every amount where they can', () => {
    const patch = patchOf({ a: ['lfo'], t: ['offset'], x: ['filter'] }, ['a.out > t.in', 't.out > x.cutoff']);
    const { solutions } = solve(withTargets(patch, { at: 't.out', quantity: 'volts', low: -1, high: 3 }));
    expect(solutions[0]!.settings.map((s) => [s.at, s.value])).toEqual([
      ['t.amount', 0.4],
      ['t.volts', 1],
    ]);
  });
});

describe('what is feasible', () => {
  it('is a gate at two of four steps, turned over and lifted, with the widest margin first', () => {
    const patch = patchOf(
      {
        beat: ['clock', { bpm: 240 }],
        row: ['sequencer', { steps: gateSteps(3, 1, 0, 2) }],
        lift: ['offset'],
        env: ['envelope', { thresholdVolts: 3.4 }],
      },
      ['beat.out > row.clock', 'row.cv > lift.in', 'lift.out > env.gate'],
      { duration: 2 },
    );
    const { feasible, solutions } = solve(
      withTargets(patch, { at: 'env.gate', want: 'steps', of: 'row', steps: [1, 2] }),
    );
    expect(feasible).toBe(true);
    const after = applyEdits(patch, editsOf(solutions[0]!));
    const { amount = 1, volts = 0 } = after.modules.find((m) => m.id === 'lift')!.params as Record<string, number>;
    const at = (v: number): number => v * amount + volts;
    const margin = Math.min(at(1) - 3.5, at(0) - 3.5, 3.2 - at(3), 3.2 - at(2));
    // With amount −1 the steps lie at v − 1 and v − 2: half of the volt between them, less the margins of the target.
    expect(margin).toBeGreaterThan(0.34);
  });

  it('is a mean behind an envelope, within a millivolt', () => {
    const patch = patchOf(
      { env: ['envelope', { mode: 'loop', attack: 0.1, decay: 0.15 }], t: ['offset', { amount: 0.5 }], x: ['filter'] },
      ['env.out > t.in', 't.out > x.cutoff'],
      { duration: 2 },
    );
    const target: Target = { at: 'x.cutoff', want: 'mean', quantity: 'volts', value: 1.5 };
    const { feasible, solutions } = solve(withTargets(patch, target), { free: ['t.volts'] });
    expect(feasible).toBe(true);
    expect(standingsOf(applyEdits(withTargets(patch, target), editsOf(solutions[0]!)))[0]!.met).toBe(true);
  });

  it('says first that it inverts a movement, or nearly ends it', () => {
    const patch = patchOf(
      { a: ['lfo'], t: ['attenuverter', { amount: 0.6 }], y: ['mixer', { biasVolts: 0 }] },
      ['a.out > t.in', 't.out > y.in1'],
      { duration: 2 },
    );
    const asked = (at: string, low: number, high: number, free: string[]) =>
      solve(withTargets(patch, { at, quantity: 'volts', low, high }), { free }).solutions;
    const [slight] = asked('t.out', -0.5, 0.5, ['t.amount']);
    expect(slight).toMatchObject({ inverts: [], nearlyEnds: ['t.out'] });
    expect(slight!.why).toMatch(/^Nearly ends the movement at t\.out; moves 1 knob/);
    const wide = asked('t.out', -4, 4, ['t.amount']);
    expect(wide[0]).toMatchObject({ inverts: [], nearlyEnds: [], why: 'Moves 1 knob' });
    const flipped = wide.filter((s) => s.inverts.length > 0);
    expect(flipped.every((s) => s.why.startsWith('Inverts the movement at t.amount; moves 1 knob'))).toBe(true);
    expect(flipped).toHaveLength(1);
  });

  it('never stops the movement that a target is for', () => {
    const patch = patchOf(
      { a: ['lfo'], t: ['attenuverter', { amount: 0.6 }], x: ['filter'] },
      ['a.out > t.in', 't.out > x.cutoff'],
      { duration: 2 },
    );
    // The highest voltage at 0 V would need an amount of nothing.
    const high = solve(withTargets(patch, { at: 't.out', quantity: 'volts', low: null, high: 0 }), {
      free: ['t.amount'],
    });
    expect(high.feasible).toBe(false);
    const asked = solve(withTargets(patch, { at: 't.out', quantity: 'volts', low: 0, high: 0 }), {
      free: ['t.amount'],
    });
    expect(asked.feasible).toBe(true);
  });
});

describe('a hand on a knob', () => {
  const swept = (free: object = {}): Patch => ({
    ...patchOf(
      { a: ['lfo', { lowVolts: 0, highVolts: 2 }], x: ['filter', { cutoffHz: 200, ...free }] },
      ['a.out > x.cutoff'],
      { duration: 2 },
    ),
    hands: [
      {
        at: 'x.cutoffHz',
        points: [
          { t: 0, value: 200 },
          { t: 1, value: 20_000 },
        ],
        interpolation: 'linear',
        loop: false,
      },
    ],
  });

  it('on the destination counts in its target, as it does in its reading', () => {
    const target: Target = { at: 'x.cutoff', quantity: 'frequency', low: 200, high: 800 };
    const reading = predict(swept(), { simulation: false }).readings.find((r) => r.at === 'x.cutoff')!;
    expect(reading.high).toBeCloseTo(20_000, 0);
    const [standing] = standingsOf(withTargets(swept(), target));
    expect(standing!.met).toBe(false);
    expect(standing!.error).toBeCloseTo(Math.log2(20_000 / 800), 6);
    const still = { ...swept(), hands: [] };
    expect(standingsOf(withTargets(still, target))[0]!.met).toBe(true);
  });

  it('is never turned by an answer, nearest or not', () => {
    const patch: Patch = {
      ...patchOf({ a: ['lfo'], trim: ['offset'], x: ['filter'] }, ['a.out > trim.in', 'trim.out > x.cutoff']),
      hands: [{ at: 'trim.amount', points: [{ t: 0, value: 1 }], interpolation: 'linear', loop: false }],
    };
    const answer = solve(withTargets(patch, { at: 'x.cutoff', quantity: 'volts', low: -2, high: 2 }));
    const told = [...answer.solutions, ...(answer.nearest ? [answer.nearest] : [])].flatMap((s) => s.settings);
    expect(told.map((s) => s.at)).not.toContain('trim.amount');
    expect(answer.limits.map((l) => l.at)).not.toContain('trim.amount');
  });
});

describe('what is told', () => {
  it('of linear modulation are the volts that arrive', () => {
    const patch = patchOf(
      {
        a: ['lfo', { lowVolts: -1.25, highVolts: 1.25 }],
        o: ['oscillator', { fmLaw: 'linear', fmAmount: 1, baseHz: 200 }],
      },
      ['a.out > o.fm'],
      { duration: 0.5 },
    );
    const target: Target = { at: 'o.fm', quantity: 'frequency', low: 150, high: 250 };
    const { solutions } = solve(withTargets(patch, target));
    expect(solutions[0]!.targets[0]).toMatchObject({
      met: true,
      lowVolts: expect.closeTo(-1.25, 9),
      highVolts: expect.closeTo(1.25, 9),
    });
    const off = standingsOf(withTargets(patch, { ...target, high: 300 }))[0]!;
    expect(off.error).toBeCloseTo(1.25, 9);
  });

  it('of a knob that runs out is the end that it stands at', () => {
    const patch = patchOf({ a: ['lfo'], t: ['offset', { amount: -1, maxAmount: 2 }], x: ['filter'] }, [
      'a.out > t.in',
      't.out > x.cutoff',
    ]);
    const { limits } = solve(withTargets(patch, { at: 't.out', quantity: 'volts', low: -15, high: 15 }), {
      free: ['t.amount', 't.volts'],
    });
    // The rails are at 12 V: nothing reaches 15 V.
    expect(limits).toEqual([]);
    const reach = solve(withTargets(patch, { at: 't.out', quantity: 'volts', low: -11, high: 11 }), {
      free: ['t.amount', 't.volts'],
    });
    expect(reach.limits).toEqual([
      { at: 't.amount', needs: expect.closeTo(-2.2, 6), limit: -2, short: expect.closeTo(0.2, 6) },
    ]);
  });

  it('rounded is met only where it is', () => {
    const patch = patchOf(
      { a: ['lfo'], t: ['offset', { maxAmount: 4 }], o: ['oscillator', { baseHz: 100 }] },
      ['a.out > t.in', 't.out > o.pitch'],
      { duration: 0.5 },
    );
    const target: Target = { at: 'o.pitch', quantity: 'frequency', low: 107, high: 451 };
    const { feasible, solutions } = solve(withTargets(patch, target), { rounded: true, free: ['t.amount', 't.volts'] });
    expect(feasible).toBe(true);
    for (const s of solutions) {
      const [after] = standingsOf(applyEdits(withTargets(patch, target), editsOf(s)));
      expect(s.targets[0]!.met).toBe(after!.met);
      expect(s.targets[0]!.error).toBeCloseTo(after!.error, 6);
    }
  });
});

describe('time', () => {
  it.each([4, 8])('%s targets with locked filters are answered within the budget of looks', (count) => {
    const ids = Array.from({ length: count }, (_, i) => i);
    const patch = patchOf(
      Object.fromEntries([
        ['a', ['lfo']],
        ...ids.flatMap((i) => [
          [`t${i}`, ['offset']],
          [`x${i}`, ['filter']],
        ]),
      ]),
      ids.flatMap((i) => [`a.out > t${i}.in`, `t${i}.out > x${i}.cutoff`]),
    );
    const locked = {
      ...patch,
      modules: patch.modules.map((m) =>
        m.kind === 'filter' ? { ...m, locked: ['cutoffHz', 'cutoffAmount', 'cutoff2Amount', 'resonance'] } : m,
      ),
      targets: ids.map((i): Target => ({ at: `x${i}.cutoff`, quantity: 'frequency', low: 200 + 10 * i, high: 3200 })),
    };
    // What ends it is the count of looks: no clock, so that a slow machine answers alike.
    const answer = solve(locked, { seconds: Infinity });
    expect(answer.feasible).toBe(true);
    expect(answer.solutions[0]!.moved).toBe(2 * count);
    expect(answer.partial).toBeUndefined();
  });

  it('that runs out gives the best so far, and says so', () => {
    const patch = patchOf({ a: ['lfo'], t: ['offset'], x: ['filter'] }, ['a.out > t.in', 't.out > x.cutoff']);
    const answer = solve(withTargets(patch, { at: 'x.cutoff', quantity: 'volts', low: -9, high: 9 }), { seconds: 0 });
    expect(answer.partial).toBe(true);
    expect(answer.nearest ?? answer.solutions[0]).toBeTruthy();
  });
});
