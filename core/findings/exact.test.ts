import { describe, expect, it } from 'vitest';
import { demoPatches } from '../../demo/patches';
import { applyEdits } from '../edit/edit';
import { parsePatch } from '../document/parse';
import type { Patch } from '../document/types';
import { brokenPromiseOf } from '../testing/check';
import { patchOf } from '../testing/patch';
import { promisePatch } from '../testing/randomPatch';
import { predict } from '../answers/predict';
import type { Finding } from './finding';

const found = (patch: Patch, code: string): Finding[] => predict(patch).findings.filter((f) => f.code === code);
const step = (volts: number, more: object = {}) => ({ volts, gate: true, tie: false, ...more });
const osc = ['oscillator', { baseHz: 330 }] as const;

describe('a cure keeps its promise', () => {
  const each = Number(process.env.FENVO_PROMISES ?? 120);
  it.each(Array.from({ length: each / 40 }, (_, i) => 40 * i))('random patches from %i', (from) => {
    for (let seed = from; seed < from + 40; seed++) {
      const patch = promisePatch(seed);
      const prediction = predict(patch);
      const broken = brokenPromiseOf(patch, prediction);
      expect(broken === null ? null : `seed ${seed}: ${broken}`).toBeNull();
      // The same patch gives the same answers, cures and all.
      if (seed % 40 < 20) expect(predict(patch)).toEqual(prediction);
    }
  });
  it('and on every demo patch', () => {
    for (const { id, document } of demoPatches('demo/patches')) {
      const result = parsePatch(document);
      expect([id, result.ok && brokenPromiseOf(result.value)]).toEqual([id, null]);
    }
  });
  it('the lag’s makes up what the closed form says', () => {
    const patch = patchOf(
      {
        l: ['lfo', { shape: 'pulse', rateHz: 1.6, lowVolts: -3, highVolts: 3 }],
        s: ['slew', { law: 'rc', rise: 2.5, fall: 2.5 }],
        p: ['parameter', { low: -5, high: 5, cvAmount: 0.2 }],
      },
      ['l.out > s.in', 's.out > p.cv'],
      { duration: 20 },
    );
    const [finding] = found(patch, 'lag-short');
    const left = Math.tanh(1 / (1.6 * 4 * 0.5));
    expect(finding!.numbers.spanRatio).toBeCloseTo(left, 3);
    const cured = predict(applyEdits(patch, finding!.cure!.edits), { cures: false });
    expect(cured.outputs['mend.out']!.settled ?? cured.outputs['mend.out']!.seen).toEqual([
      expect.closeTo(-3, 2),
      expect.closeTo(3, 2),
    ]);
  });
});

describe('lag-late', () => {
  const glide = (law: string, time: number, notes: readonly number[], duration = 4) =>
    patchOf(
      {
        c: ['clock'],
        s: ['sequencer', { steps: notes.map((v) => step(v)) }],
        g: ['slew', { law, rise: time, fall: time }],
        o: osc,
      },
      ['c.out > s.clock', 's.cv > g.in', 'g.out > o.pitch'],
      { duration },
    );
  it.each([
    ['rc', 3],
    ['linear', 12],
  ])('%s: the cure is the longest time that ends within 3 cents', (law, time) => {
    const [finding] = found(glide(law, time, [0, 1, 0.25]), 'lag-late');
    const [edit] = finding!.cure!.edits;
    const told = edit?.do === 'set' ? Number(edit.value) : NaN;
    // The furthest way is an octave in half a second.
    const longest = law === 'rc' ? 2.5 / Math.log(400) : 5 / (1 - 1 / 400);
    expect(told).toBeLessThanOrEqual(longest);
    expect(told).toBeGreaterThan(0.9 * longest);
    expect(found(glide(law, told, [0, 1, 0.25]), 'lag-late')).toEqual([]);
    expect(found(glide(law, 1.1 * longest, [0, 1, 0.25]), 'lag-late')).toHaveLength(1);
  });
  it('judges the last step where the window holds it whole, and repeated notes at their own ends', () => {
    // Only the last of four steps moves; the window ends with it.
    expect(found(glide('linear', 12, [0, 0, 0, 1], 2), 'lag-late')).toHaveLength(1);
    expect(found(glide('linear', 12, [0, 0, 0, 1], 1.9), 'lag-late')).toEqual([]);
    expect(found(glide('linear', 12, [0, 1, 1, 1], 1.9), 'lag-late')).toHaveLength(1);
  });
});

describe('click', () => {
  const through = (params: object, more: readonly string[] = ['a.out > x.left']) =>
    patchOf(
      {
        k: ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }],
        e: ['envelope', { peakVolts: 5, attackCurve: 0, decayCurve: 0, decay: 0.2, release: 0.2, ...params }],
        o: osc,
        a: ['vca'],
        x: ['lineOut', { padDb: 20 }],
      },
      ['k.out > e.gate', 'e.out > a.cv', 'o.sine > a.in', ...more],
      { duration: 1 },
    );
  it('an attack of 100 ms does not, whatever its curve', () => {
    expect(found(through({ attack: 0.1, attackCurve: 1 }), 'click')).toEqual([]);
  });
  it('nor does what no line output hears', () => {
    expect(found(through({ attack: 0.001 }, []), 'click')).toEqual([]);
    expect(found(through({ attack: 0.001 }), 'click')).toHaveLength(1);
  });
  it('amplitude modulation by sound is no click', () => {
    const patch = patchOf(
      { o: osc, m: ['oscillator', { baseHz: 90 }], a: ['vca', { bias: 2.5 }], x: ['lineOut', { padDb: 20 }] },
      ['o.sine > a.in', 'm.pulse > a.cv', 'a.out > x.left'],
      { duration: 0.5 },
    );
    expect(found(patch, 'click')).toEqual([]);
  });
  it('a crossfade, a polarizer and a low-pass gate click too', () => {
    const gate = ['lfo', { shape: 'pulse', rateHz: 3, lowVolts: 0, highVolts: 5 }] as const;
    const kinds = {
      crossfade: { position: 0, cvAmount: 1, fullVolts: 5 },
      polarizer: { modulation: 1 },
      lowPassGate: { lag: 0 },
    };
    for (const [kind, params] of Object.entries(kinds)) {
      const patch = patchOf(
        { k: gate, o: osc, a: [kind, params], x: ['lineOut', { padDb: 20 }] } as never,
        ['o.sine > a.in', 'k.out > a.cv', 'a.out > x.left'],
        { duration: 1 },
      );
      expect([kind, found(patch, 'click').length]).toEqual([kind, 1]);
    }
  });
});

describe('what takes an amplifier below zero', () => {
  const severity = (parts: object, cables: readonly string[], settings: object = {}) =>
    found(patchOf({ o: osc, a: ['vca', settings], ...parts } as never, ['o.sine > a.in', ...cables]), 'vca-shut').map(
      (f) => f.severity,
    );
  it('by itself is an error, by a hand, a sequence or an envelope a note', () => {
    expect(severity({ l: ['lfo'] }, ['l.out > a.cv'])).toEqual(['error']);
    const move = { points: [0, 1].map((t) => ({ t, volts: 4 * t - 2 })) };
    expect(severity({ g: ['gesture', move] }, ['g.out > a.cv'])).toEqual(['note']);
    expect(severity({ l: ['lfo'], e: ['envelope'] }, ['l.out > e.gate', 'e.inverted > a.cv'], { bias: 5 })).toEqual([
      'note',
    ]);
  });
  it('of several causes it is the one that reaches below', () => {
    const both = (depth: number, bias: number) =>
      severity(
        { k: ['clock'], e: ['envelope'], l: ['lfo'], m: ['mixer', { gain2: depth }] },
        ['k.out > e.gate', 'e.out > m.in1', 'l.out > m.in2', 'm.out > a.cv'],
        { bias },
      );
    expect(both(0.2, 0)).toEqual(['error']);
    expect(both(0.2, -2)).toEqual(['note']);
  });
});

describe('hang', () => {
  const held = (clock: readonly [string, object], steps: readonly object[], from = 's.gate') =>
    found(
      patchOf(
        { c: clock, s: ['sequencer', { steps }], e: ['envelope'] } as never,
        [`c.${clock[0] === 'clock' ? 'out' : 'pulse'} > s.clock`, `${from} > e.gate`],
        { duration: 4 },
      ),
      'hang',
    );
  it('not over a tie, which joins its steps to one note: into a step with a gate, into one without, all round', () => {
    const tied = [step(1, { tie: true }), step(2), step(0, { gate: false }), step(0, { gate: false })];
    expect(held(['clock', {}], tied)).toEqual([]);
    expect(held(['clock', {}], [step(1, { tie: true }), step(0, { gate: false })])).toEqual([]);
    expect(held(['clock', {}], [step(1, { tie: true }), step(2, { tie: true })])).toEqual([]);
  });
  it('whatever clocks it', () => {
    const lfo = ['lfo', { rateHz: 3, lowVolts: 0 }] as const;
    expect(held(lfo, [step(2), step(3)], 's.cv')).toHaveLength(1);
  });
});

describe('what is meant', () => {
  it('an amplifier without a signal is not accused, whatever opens it', () => {
    const silent = patchOf({ l: ['lfo', { lowVolts: -2, highVolts: 8 }], a: ['vca', { bias: 0.5 }] }, ['l.out > a.cv']);
    const codes = ['vca-shut', 'vca-short', 'vca-over', 'vca-leak'] as const;
    for (const code of codes) expect(found(silent, code)).toEqual([]);
    const fed = patchOf({ l: ['lfo', { lowVolts: -2, highVolts: 8 }], o: osc, a: ['vca'] }, [
      'l.out > a.cv',
      'o.sine > a.in2',
    ]);
    expect(found(fed, 'vca-over')).toHaveLength(1);
  });
  it('an inversion that is chosen is no issue: an inverter, a negative amount, an inverted output', () => {
    for (const [module, from] of [
      [['inverter'], 'i.out'],
      [['attenuverter', { amount: -1 }], 'i.out'],
      [['mixer'], 'i.inverted'],
    ] as const) {
      const input = module[0] === 'mixer' ? 'i.in1' : 'i.in';
      const patch = patchOf({ l: ['lfo'], i: module, f: ['filter'] }, [`l.out > ${input}`, `${from} > f.cutoff`]);
      expect(found(patch, 'polarity')).toEqual([]);
    }
  });
  it('nor one that a target asks for, nor one of sound', () => {
    const modules = { l: ['lfo'], i: ['mixer', { inverting: true }], f: ['filter'], g: ['filter'] } as const;
    const patch = patchOf(modules, ['l.out > i.in1', 'i.out > f.cutoff', 'l.out > g.cutoff']);
    expect(found(patch, 'polarity')).toHaveLength(1);
    for (const [at, to] of [
      ['f.cutoff', 'g.cutoff'],
      ['g.cutoff', 'f.cutoff'],
    ] as const)
      expect(found({ ...patch, targets: [{ at, want: 'opposite', to }] }, 'polarity')).toEqual([]);
    const sound = patchOf({ o: osc, i: ['mixer', { inverting: true }], x: ['lineOut'] }, [
      'o.sine > i.in1',
      'i.out > x.left',
    ]);
    expect(found(sound, 'polarity')).toEqual([]);
  });
});

describe('the rest of the table', () => {
  it('an offset that nothing drives is a source', () => {
    const patch = patchOf({ o: ['offset', { volts: 2 }], f: ['filter'], w: osc }, ['o.out > f.cutoff', 'w.saw > f.in']);
    expect(found(patch, 'no-source')).toEqual([]);
  });
  it('two outputs of one slow oscillator do not drift', () => {
    const patch = patchOf({ l: ['lfo'], m: ['mixer'], p: ['parameter', { cvAmount: 0.1 }] }, [
      'l.out > m.in1',
      'l.quadrature > m.in2',
      'm.out > p.cv',
    ]);
    expect(found(patch, 'drift')).toEqual([]);
  });
  it('a latched loop runs away', () => {
    const patch = patchOf(
      { c: ['constant', { volts: 1 }], m: ['mixer'], x: ['shaper', { gain: 3, clipVolts: 5 }] },
      ['c.out > m.in1', 'x.out > m.in2', 'm.out > x.in'],
      { duration: 0.5 },
    );
    const [finding] = found(patch, 'runaway');
    expect(finding!.numbers.loopDb).toBeCloseTo(20 * Math.log10(3), 6);
    expect(finding!.cure).toBeDefined();
  });
  it('a plain level is open on purpose', () => {
    const patch = patchOf(
      { k: ['clock'], e: ['envelope'], o: osc, a: ['vca', { cvAmount: 0, bias: 4 }], x: ['lineOut', { padDb: 20 }] },
      ['k.out > e.gate', 'e.out > a.cv', 'o.sine > a.in', 'a.out > x.left'],
    );
    expect(found(patch, 'vca-leak')).toEqual([]);
  });
  it('clipping is told of a second output, of a kind’s own limit, and as a note of a shaper', () => {
    const second = patchOf(
      { l: ['lfo', { lowVolts: -9, highVolts: 9 }], f: ['filter', { cutoffHz: 2000, resonance: 1 }], n: ['noise'] },
      ['n.out > f.in'],
      { duration: 0.5 },
    );
    expect(found({ ...second, probes: [{ at: 'f.highpass' }] }, 'clip').map((f) => f.at)).toContain('f.highpass');
    const own = patchOf({ l: ['lfo'], q: ['polarizer', { gain: 3, clipVolts: 10 }] }, ['l.out > q.in']);
    expect(found(own, 'clip')).toMatchObject([
      { severity: 'warning', numbers: { clippedPercent: expect.closeTo(33.3, 0) } },
    ]);
    const shaped = patchOf({ l: ['lfo'], q: ['shaper', { gain: 2, clipVolts: 5 }] }, ['l.out > q.in']);
    expect(found(shaped, 'clip')).toMatchObject([
      { severity: 'note', numbers: { clippedPercent: expect.closeTo(50, 0) } },
    ]);
  });
  it('every window pins: a filter, a crossfade, a delay’s feedback', () => {
    const wide = ['lfo', { lowVolts: -11, highVolts: 11 }] as const;
    const codes = (parts: object, cables: readonly string[]) =>
      found(patchOf({ l: wide, ...parts } as never, cables, { duration: 1 }), 'pinned').map((f) => f.at);
    expect(codes({ f: ['filter'], o: osc }, ['l.out > f.cutoff', 'o.saw > f.in'])).toEqual(['f.cutoff']);
    expect(codes({ x: ['crossfade', { cvAmount: 1 }] }, ['l.out > x.cv'])).toEqual(['x.cv']);
    expect(codes({ d: ['delay'] }, ['l.out > d.feedback'])).toEqual(['d.feedback']);
  });
  it('a junction of unequal outputs is off the mean that ideal wires give', () => {
    const tied = (loading: string) =>
      patchOf(
        {
          a: ['constant', { volts: 4 }, { outputOhms: { out: 1000 } }],
          b: ['constant', { volts: -1 }, { outputOhms: { out: 3000 } }],
          j: ['junction'],
        },
        ['a.out > j.in1', 'b.out > j.in2'],
        { loading } as never,
      );
    const [finding] = found(tied('electrical'), 'loading');
    expect(finding).toMatchObject({ at: 'j.out', numbers: { percent: expect.closeTo((100 * (2.75 - 1.5)) / 1.5, 6) } });
    expect(found(tied('ideal'), 'loading')).toEqual([]);
  });
  it('what is in a loop, or behind it, repeats no more', () => {
    const patch = patchOf({ l: ['lfo'], m: ['mixer', { gain2: 0.5 }], i: ['inverter'] }, [
      'l.out > m.in1',
      'm.out > m.in2',
      'm.out > i.in',
    ]);
    const { outputs } = predict(patch, { cures: false });
    expect([outputs['l.out']!.repeatsEvery, outputs['m.out']!.repeatsEvery, outputs['i.out']!.repeatsEvery]).toEqual([
      1,
      null,
      null,
    ]);
  });
});
