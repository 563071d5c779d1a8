import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch, Target } from '../document/types';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { standingsOf } from './problem/runner';
import { solve } from '../testing/unhurried';
import { editsOf } from './types';

/** What a solution makes of a patch, read back from its document. */
function taken(patch: Patch, solution: Parameters<typeof editsOf>[0]): Patch {
  const result = parsePatch(JSON.parse(JSON.stringify(printPatch(applyEdits(patch, editsOf(solution))))));
  if (!result.ok) throw new Error(result.errors[0]?.path);
  return result.value;
}

const driveAt = (patch: Patch, at: string) =>
  predict(patch, { simulation: false }).readings.find((r) => r.at === at)!.driveVolts;

const withTargets = (patch: Patch, ...targets: Target[]): Patch => ({ ...patch, targets });

const sweep = patchOf(
  { swell: ['lfo'], trim: ['offset', { amount: 0.4, volts: 2 }], tone: ['filter', { cutoffHz: 200 }] },
  ['swell.out > trim.in', 'trim.out > tone.cutoff'],
  { duration: 2 },
);

describe('a range', () => {
  it('of ±5 V to 0 … 4 octaves is amount 0.4, lift 2 V, and nothing where that is set', () => {
    const target: Target = { at: 'tone.cutoff', quantity: 'frequency', low: 200, high: 3200 };
    const set = solve(withTargets(sweep, target));
    expect(set.solutions[0]).toMatchObject({ settings: [], moved: 0, why: 'No change needed' });
    const off = patchOf({ swell: ['lfo'], trim: ['offset'], tone: ['filter', { cutoffHz: 200 }] }, [
      'swell.out > trim.in',
      'trim.out > tone.cutoff',
    ]);
    const { feasible, solutions } = solve(withTargets(off, target), { free: ['trim.amount', 'trim.volts'] });
    expect(feasible).toBe(true);
    const found = solutions.map((s) => s.settings.map((x) => [x.at, x.value]));
    // Either way round the triangle is the same.
    expect(found).toEqual(
      expect.arrayContaining([
        [
          ['trim.amount', 0.4],
          ['trim.volts', 2],
        ],
      ]),
    );
    expect(found).toEqual(
      expect.arrayContaining([
        [
          ['trim.amount', -0.4],
          ['trim.volts', 2],
        ],
      ]),
    );
    const [amount] = solutions[0]!.settings;
    expect(amount).toMatchObject({
      percent: amount!.value > 0 ? 70 : 30,
      clock: amount!.value > 0 ? '2:00' : '10:00',
      from: 1,
    });
    const [lo, hi] = driveAt(taken(off, solutions[0]!), 'tone.cutoff');
    expect(lo).toBeCloseTo(0, 9);
    expect(hi).toBeCloseTo(4, 9);
  });
  it('with a free end asks for the other alone', () => {
    const { solutions } = solve(
      withTargets(sweep, { at: 'tone.cutoff', quantity: 'frequency', low: null, high: 6400 }),
    );
    const reading = predict(taken(sweep, solutions[0]!), { simulation: false }).readings[0]!;
    expect(reading.high).toBeCloseTo(6400, 5);
    expect(solutions[0]!.moved).toBe(1);
  });
  it('that is silent closes an amplifier and opens it to unity', () => {
    const patch = patchOf({ env: ['envelope', { mode: 'loop' }], voice: ['oscillator'], amp: ['vca', { bias: 1 }] }, [
      'env.out > amp.cv',
      'voice.saw > amp.in',
    ]);
    const { solutions } = solve(withTargets(patch, { at: 'amp.cv', quantity: 'gain', low: 'silent', high: 0 }));
    const [lo, hi] = driveAt(taken(patch, solutions[0]!), 'amp.cv');
    expect(lo).toBeLessThanOrEqual(1e-9);
    expect(hi).toBeCloseTo(5, 6);
  });
  it('8 V into 5 V is an amount of 62.5%', () => {
    const patch = patchOf({ env: ['envelope', { mode: 'loop' }], voice: ['oscillator'], amp: ['vca'] }, [
      'env.out > amp.cv',
      'voice.saw > amp.in',
    ]);
    const { solutions } = solve(withTargets(patch, { at: 'amp.cv', quantity: 'gain', low: null, high: 0 }), {
      free: ['amp.cvAmount'],
    });
    expect(solutions[0]!.settings[0]).toMatchObject({ at: 'amp.cvAmount', value: 0.625, from: 1 });
  });
});

describe('other targets', () => {
  it('span: four octaves about 400 Hz is 100 to 1600 Hz', () => {
    const { solutions } = solve(
      withTargets(sweep, { at: 'tone.cutoff', want: 'span', quantity: 'frequency', span: 4, centre: 400 }),
    );
    expect(solutions[0]!.targets[0]).toMatchObject({ want: 'span', met: true, unit: 'Hz' });
    expect(solutions[0]!.targets[0]!.low).toBeCloseTo(100, 6);
    expect(solutions[0]!.targets[0]!.high).toBeCloseTo(1600, 6);
  });
  it('within takes the widest that lies inside', () => {
    const target: Target = { at: 'tone.cutoff', want: 'within', quantity: 'volts', low: -1, high: 2 };
    const high = applyEdits(sweep, [{ do: 'set', module: 'trim', param: 'volts', value: 4 }]);
    const { solutions } = solve(withTargets(high, target), { free: ['trim.amount', 'trim.volts'] });
    const [lo, hi] = driveAt(taken(high, solutions[0]!), 'tone.cutoff');
    expect(lo).toBeCloseTo(-1, 9);
    expect(hi).toBeCloseTo(2, 9);
  });
  it('mean: of a triangle it is its middle', () => {
    const { solutions } = solve(withTargets(sweep, { at: 'tone.cutoff', want: 'mean', quantity: 'volts', value: 1 }), {
      free: ['trim.volts'],
    });
    expect(solutions[0]!.settings[0]!.value).toBeCloseTo(1, 6);
  });
  it('opposite: two ends of one source, the second amount minus the first', () => {
    const patch = patchOf(
      {
        swell: ['lfo'],
        a: ['attenuverter', { amount: 0.3 }],
        b: ['attenuverter', { amount: 0.1 }],
        x: ['filter'],
        y: ['filter'],
      },
      ['swell.out > a.in', 'swell.out > b.in', 'a.out > x.cutoff', 'b.out > y.cutoff'],
    );
    const { solutions } = solve(withTargets(patch, { at: 'x.cutoff', want: 'opposite', to: 'y.cutoff' }), {
      free: ['b.amount'],
    });
    expect(solutions[0]!.settings[0]).toMatchObject({ at: 'b.amount', value: -0.3 });
    const same = solve(withTargets(patch, { at: 'x.cutoff', want: 'same', to: 'y.cutoff' }), { free: ['b.amount'] });
    expect(same.solutions[0]!.settings[0]).toMatchObject({ at: 'b.amount', value: 0.3 });
  });
  it('steps: a gate on in the accented steps, as clear of its threshold as can be', () => {
    const steps = [5, 1, 3, 1].map((volts) => ({ volts, gate: true, tie: false }));
    const patch = patchOf(
      {
        beat: ['clock', { bpm: 240 }],
        row: ['sequencer', { steps }],
        lift: ['offset', { amount: 0.2 }],
        env: ['envelope'],
      },
      ['beat.out > row.clock', 'row.cv > lift.in', 'lift.out > env.gate'],
      { duration: 2 },
    );
    const target: Target = { at: 'env.gate', want: 'steps', of: 'row', steps: [0, 2] };
    const answer = solve(withTargets(patch, target));
    expect(answer.feasible).toBe(true);
    const after = taken(patch, answer.solutions[0]!);
    const { amount = 1, volts = 0 } = after.modules.find((m) => m.id === 'lift')!.params as {
      amount?: number;
      volts?: number;
    };
    for (const [v, on] of [
      [5, true],
      [1, false],
      [3, true],
    ] as const) {
      if (on) expect(v * amount + volts).toBeGreaterThanOrEqual(1.1 - 1e-6);
      else expect(v * amount + volts).toBeLessThanOrEqual(0.8 + 1e-6);
    }
  });
  it('duty: a triangle over a threshold, half of the time at its middle', () => {
    const patch = patchOf(
      { swell: ['lfo', { rateHz: 2 }], lift: ['offset', { volts: 4 }], env: ['envelope'] },
      ['swell.out > lift.in', 'lift.out > env.gate'],
      { duration: 2 },
    );
    const { solutions } = solve(withTargets(patch, { at: 'env.gate', want: 'duty', percent: 25 }), {
      free: ['lift.volts'],
    });
    // Up from 1 V, down from 0.9 V: a quarter of the time above is 2.5 V under the top of 5 V.
    expect(solutions[0]!.settings[0]!.value).toBeCloseTo(-1.55, 1);
  });
});

describe('targets that a trace tells', () => {
  it('fall: a straight decay of 0.5 s is 20 dB down after nine tenths of it', () => {
    const patch = patchOf(
      {
        beat: ['clock', { bpm: 60, width: 0.1 }],
        env: ['envelope', { mode: 'ad', attack: 0.01, decay: 0.2, decayCurve: 0, peakVolts: 5 }],
        voice: ['oscillator'],
        amp: ['vca'],
      },
      ['beat.out > env.gate', 'env.out > amp.cv', 'voice.saw > amp.in'],
      { duration: 2, sampleRate: 4000 },
    );
    const { solutions } = solve(withTargets(patch, { at: 'amp.cv', want: 'fall', db: 20, seconds: 0.45 }), {
      free: ['env.decay'],
    });
    expect(solutions[0]!.settings[0]!.value).toBeCloseTo(0.5, 2);
  });
  it('dip: a gain between 1 and x dips a tone by −20·log x', () => {
    const patch = patchOf(
      {
        voice: ['oscillator', { baseHz: 400 }],
        swell: ['lfo', { shape: 'pulse', rateHz: 1, lowVolts: -4, highVolts: 0 }],
        trim: ['offset', { amount: 0.2, volts: 5 }],
        amp: ['vca'],
        out: ['lineOut'],
      },
      ['voice.sine > amp.in', 'swell.out > trim.in', 'trim.out > amp.cv', 'amp.out > out.left'],
      { duration: 2, sampleRate: 8000 },
    );
    for (const at of ['amp.out', 'out.left']) {
      const asked = withTargets(patch, { at, want: 'dip', db: 12 });
      const { solutions } = solve(asked, { free: ['trim.amount'], plain: true });
      // 5 − 4·amount of 5 V.
      const amount = (5 * (1 - 10 ** (-12 / 20))) / 4;
      expect(solutions[0]!.settings[0]!.value).toBeCloseTo(amount, 1);
      const after = taken(asked, solutions[0]!);
      expect(standingsOf(after)[0]!.met).toBe(true);
      expect(Math.abs(predict(after, { cures: false }).levels!['amp.out']!.dipDb! - 12)).toBeLessThan(0.1);
    }
  });
  it('dip: into silence is as far off as the level is told, and never met by 12 dB', () => {
    const patch = patchOf(
      {
        voice: ['oscillator', { baseHz: 400 }],
        swell: ['lfo', { shape: 'pulse', rateHz: 1, lowVolts: 0, highVolts: 5 }],
        amp: ['vca'],
      },
      ['voice.sine > amp.in', 'swell.out > amp.cv'],
      { duration: 2, sampleRate: 8000 },
    );
    const [standing] = standingsOf(withTargets(patch, { at: 'amp.out', want: 'dip', db: 12 }));
    expect([standing!.met, Math.round(standing!.error / 10)]).toEqual([false, 20]);
  });
  it('arrive: steps of 1 V behind a lag of so many seconds for 10 V', () => {
    const steps = [0, 1].map((volts) => ({ volts, gate: true, tie: false }));
    const patch = patchOf(
      {
        beat: ['clock', { bpm: 60 }],
        row: ['sequencer', { steps }],
        lag: ['slew', { rise: 1, fall: 1 }],
        tone: ['oscillator'],
      },
      ['beat.out > row.clock', 'row.cv > lag.in', 'lag.out > tone.pitch'],
      { duration: 4, sampleRate: 4000 },
    );
    for (const at of ['lag.out', 'tone.pitch']) {
      const asked = withTargets(patch, { at, want: 'arrive', seconds: 0.2 });
      expect(standingsOf(asked)[0]!.met).toBe(false);
      const { solutions } = solve(asked, { free: ['lag.rise', 'lag.fall'], plain: true });
      const after = taken(asked, solutions[0]!);
      expect(standingsOf(after)[0]!.met).toBe(true);
      const told = predict(after, { cures: false }).arriveSeconds!['lag.out']!;
      expect(Math.abs(told.worst! - 0.2)).toBeLessThan(0.0021);
    }
    const [standing] = standingsOf(withTargets(patch, { at: 'beat.out', want: 'arrive', seconds: 1 }));
    expect(standing!.met).toBe(false);
  });
  it('like: a square through a lag of 10 V in half its period is a triangle', () => {
    const patch = patchOf(
      { swell: ['lfo', { shape: 'pulse', rateHz: 1 }], lag: ['slew', { rise: 0.3, fall: 0.3 }] },
      ['swell.out > lag.in'],
      { duration: 2, sampleRate: 2000 },
    );
    const target: Target = { at: 'lag.out', want: 'like', shape: 'triangle', least: 1 };
    expect(standingsOf(withTargets(patch, target))[0]!.met).toBe(false);
    const { feasible, solutions } = solve(withTargets(patch, target), { free: ['lag.rise', 'lag.fall'], plain: true });
    expect(feasible).toBe(true);
    expect(standingsOf(taken(withTargets(patch, target), solutions[0]!))[0]!.met).toBe(true);
  });
  it('a triangle is like a triangle, a sine is not', () => {
    const patch = patchOf({ swell: ['lfo', { rateHz: 2, phase: 0.3 }] }, [], { duration: 2 });
    const like = (at: string, shape: 'triangle' | 'sine' | 'ramp' | 'square') =>
      standingsOf(withTargets(patch, { at, want: 'like', shape }))[0]!;
    for (const [socket, shape] of [
      ['swell.triangle', 'triangle'],
      ['swell.sine', 'sine'],
      ['swell.ramp', 'ramp'],
      ['swell.pulse', 'square'],
    ] as const)
      expect([socket, like(socket, shape).met, like(socket, shape).error < 0.01]).toEqual([socket, true, true]);
    expect(like('swell.sine', 'square').met).toBe(false);
    expect(like('swell.ramp', 'triangle').met).toBe(false);
  });
  it('level: RMS of a sine of 5 V is 13.2 dBu, and a pad’s worth less is asked for', () => {
    const patch = patchOf(
      { voice: ['oscillator', { baseHz: 100 }], trim: ['attenuator'], out: ['lineOut', { padDb: 0 }] },
      ['voice.sine > trim.in', 'trim.out > out.left'],
      { duration: 1 },
    );
    const asked = (db: number): Target => ({ at: 'out.left', quantity: 'level', low: db - 0.05, high: db + 0.05 });
    const dbu = 20 * Math.log10(5 / Math.SQRT2 / 0.7746);
    expect(standingsOf(withTargets(patch, asked(dbu)))[0]!.met).toBe(true);
    const { solutions } = solve(withTargets(patch, asked(4)), { free: ['trim.amount'] });
    expect(20 * Math.log10(Number(solutions[0]!.settings[0]!.value))).toBeGreaterThan(4 - dbu - 0.06);
    expect(20 * Math.log10(Number(solutions[0]!.settings[0]!.value))).toBeLessThan(4 - dbu + 0.06);
  });
});

describe('what cannot be', () => {
  it('says which knob runs out, by how much, and what would do', () => {
    const answer = solve(withTargets(sweep, { at: 'tone.cutoff', quantity: 'volts', low: -8, high: 8 }), {
      free: ['trim.amount', 'trim.volts'],
    });
    expect(answer).toMatchObject({
      feasible: false,
      solutions: [],
      limits: [{ at: 'trim.amount', needs: 1.6, limit: 1, short: 0.6 }],
    });
    expect(answer.nearest!.targets[0]!.error).toBeCloseTo(3, 6);
    expect(answer.suggestion!.text).toMatch(/^Set trim\.maxAmount to 2, then /);
    const after = applyEdits(sweep, answer.suggestion!.edits);
    expect(driveAt(after, 'tone.cutoff')[1]).toBeCloseTo(8, 6);
  });
  it('names the lock that stands in the way, and changes nothing of it', () => {
    const locked = patchOf({ swell: ['lfo'], trim: ['offset'], tone: ['filter'] }, [
      'swell.out > trim.in',
      'trim.out > tone.cutoff',
    ]);
    const modules = locked.modules.map((m) => (m.id === 'trim' ? { ...m, locked: ['amount'] } : m));
    const answer = solve(
      { ...locked, modules, targets: [{ at: 'tone.cutoff', quantity: 'volts', low: -1, high: 1 }] },
      { free: ['trim.amount', 'trim.volts'] },
    );
    expect(answer).toMatchObject({ feasible: false, limits: [], suggestion: { edits: [] } });
    expect(answer.suggestion!.text).toMatch(/lock on trim\.amount/);
  });
  it('tells two targets that contradict each other', () => {
    const patch = patchOf({ swell: ['lfo'], trim: ['offset'], x: ['filter'], y: ['filter'] }, [
      'swell.out > trim.in',
      'trim.out > x.cutoff',
      'trim.out > y.cutoff',
    ]);
    const answer = solve(
      withTargets(
        patch,
        { at: 'x.cutoff', quantity: 'volts', low: -1, high: 1 },
        { at: 'y.cutoff', quantity: 'volts', low: -2, high: 2 },
      ),
      { free: ['trim.amount', 'trim.volts'] },
    );
    expect(answer.contradictory).toEqual([['x.cutoff', 'y.cutoff']]);
  });
});

describe('what is given', () => {
  it('is the same each time, and moves nothing that is locked or not named', () => {
    const patch = withTargets(sweep, { at: 'tone.cutoff', quantity: 'frequency', low: 300, high: 900 });
    expect(solve(patch)).toEqual(solve(patch));
    const { solutions } = solve(patch, { free: ['trim.amount', 'trim.volts'] });
    expect(new Set(solutions.flatMap((s) => s.settings.map((x) => x.at)))).toEqual(
      new Set(['trim.amount', 'trim.volts']),
    );
  });
  it('sets a jumper only when it may, and says so', () => {
    const patch = withTargets(sweep, { at: 'tone.cutoff', quantity: 'volts', low: -8, high: 8 });
    const free = ['trim.amount', 'trim.volts'];
    expect(solve(patch, { free }).feasible).toBe(false);
    const { solutions } = solve(patch, { free, jumpers: true });
    expect(solutions[0]!.jumpers).toEqual([{ at: 'trim.maxAmount', value: 2, from: 1 }]);
    expect(driveAt(taken(patch, solutions[0]!), 'tone.cutoff')[1]).toBeCloseTo(8, 9);
  });
  it('rounded stands on steps of half a percent', () => {
    const patch = withTargets(sweep, { at: 'tone.cutoff', quantity: 'frequency', low: 212, high: 2977 });
    const { solutions } = solve(patch, { rounded: true });
    expect(solutions.length).toBeGreaterThan(0);
    for (const { percent } of solutions.flatMap((s) => s.settings)) expect((percent / 0.5) % 1).toBeCloseTo(0, 6);
  });
});
