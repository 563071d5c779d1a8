import { describe, expect, it } from 'vitest';
import { demoPatches } from '../../demo/patches';
import { applyEdits } from '../edit/edit';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Patch } from '../document/types';
import { patchOf } from '../testing/patch';
import { predict } from '../answers/predict';
import { allRules, explain, issueTitle } from './index';
import type { Finding } from './finding';

type Case = readonly [parts: Parameters<typeof patchOf>[0], cables?: readonly string[], more?: object];

const make = ([parts, cables = [], more = {}]: Case, settings: object = {}): Patch =>
  patchOf(parts, cables, { duration: 2, ...settings }, more);
const found = (patch: Patch, code: string): Finding[] => predict(patch).findings.filter((f) => f.code === code);

const key = ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }] as const;
const osc = ['oscillator', { baseHz: 220 }] as const;
const steps = (...volts: number[]) => ({ steps: volts.map((v) => ({ volts: v, gate: true, tie: false })) });
/** An envelope of straight stages that sustains its peak, its attack and release in seconds. */
const straight = (attack: number, release = 0.1) =>
  ['envelope', { mode: 'ar', peakVolts: 5, attack, release, attackCurve: 0, decayCurve: 0 }] as const;
/** What an rc lag of T seconds leaves of a triangle: its extremes are where the two meet, a while after each turn. */
function rcShare(seconds: number, hertz: number): number {
  const [tau, half] = [seconds / 5, 1 / (2 * hertz)];
  return 1 - (2 * tau * Math.log(2 / (1 + Math.exp(-half / tau)))) / half;
}
const notes = ['sequencer', steps(0, 1)] as const;

/** For each code a patch that shows it, what it must say, and a near twin that must not. */
const cases: Readonly<Record<string, { shows: Case; says: Record<string, unknown>; twin: Case; curable?: false }>> = {
  'vca-shut': {
    shows: [{ l: ['lfo'], o: osc, a: ['vca'] }, ['l.out > a.cv', 'o.sine > a.in']],
    says: { at: 'a.cv', severity: 'error', numbers: { shutPercent: expect.closeTo(50, 1), missingVolts: 5 } },
    twin: [{ l: ['lfo'], a: ['vca'] }, ['l.out > a.cv']],
  },
  'vca-short': {
    shows: [
      { l: ['lfo', { lowVolts: 0, highVolts: 2.5 }], o: osc, a: ['vca', { cvAmount: 0.5 }] },
      ['l.out > a.cv', 'o.sine > a.in'],
    ],
    says: { at: 'a.cv', numbers: { peakDb: expect.closeTo(-12.04, 2) } },
    twin: [{ l: ['lfo', { lowVolts: 0, highVolts: 5 }], o: osc, a: ['vca'] }, ['l.out > a.cv', 'o.sine > a.in']],
  },
  'vca-over': {
    shows: [{ e: ['lfo', { lowVolts: 0, highVolts: 8 }], o: osc, a: ['vca'] }, ['e.out > a.cv', 'o.sine > a.in']],
    says: { at: 'a.cv', numbers: { peakDb: expect.closeTo(4.08, 2), overPercent: expect.closeTo(37.5, 1) } },
    twin: [
      { e: ['lfo', { lowVolts: 0, highVolts: 8 }], o: osc, a: ['vca', { cvAmount: 0.625 }] },
      ['e.out > a.cv', 'o.sine > a.in'],
    ],
  },
  'vca-leak': {
    shows: [
      { k: key, e: ['envelope', { peakVolts: 4 }], o: osc, a: ['vca', { bias: 0.5 }] },
      ['k.out > e.gate', 'e.out > a.cv', 'o.sine > a.in'],
    ],
    says: { at: 'a.cv', numbers: { restDb: expect.closeTo(-20, 6) } },
    twin: [
      { k: key, e: ['envelope', { peakVolts: 5 }], o: osc, a: ['vca'] },
      ['k.out > e.gate', 'e.out > a.cv', 'o.sine > a.in'],
    ],
  },
  click: {
    shows: [
      { k: key, e: [...straight(0.1, 0.002)], o: osc, a: ['vca'], x: ['lineOut', { padDb: 20 }] },
      ['k.out > e.gate', 'e.out > a.cv', 'o.sine > a.in', 'a.out > x.left'],
    ],
    says: { at: 'a.cv', severity: 'warning', numbers: { percentPerMs: expect.closeTo(50, 3) } },
    twin: [
      { k: key, e: straight(0.005), o: osc, a: ['vca'], x: ['lineOut', { padDb: 20 }] },
      ['k.out > e.gate', 'e.out > a.cv', 'o.sine > a.in', 'a.out > x.left'],
    ],
  },
  clip: {
    shows: [{ l: ['lfo'], o: ['offset', { amount: 3, maxAmount: 4 }] }, ['l.out > o.in']],
    says: { at: 'o.out', numbers: { clippedPercent: expect.closeTo(20, 1) } },
    twin: [{ l: ['lfo'], o: ['offset', { amount: 2.4, maxAmount: 4 }] }, ['l.out > o.in']],
  },
  pinned: {
    shows: [{ l: ['lfo'], p: ['parameter'] }, ['l.out > p.cv']],
    says: {
      at: 'p.cv',
      numbers: { pinnedLowPercent: expect.closeTo(25, 1), pinnedHighPercent: expect.closeTo(25, 1) },
    },
    twin: [{ l: ['lfo'], p: ['parameter', { cvAmount: 0.5 }] }, ['l.out > p.cv']],
  },
  'gate-never': {
    shows: [
      { l: ['lfo', { lowVolts: 0, highVolts: 3 }], e: ['envelope', { thresholdVolts: 4.5 }] },
      ['l.out > e.gate'],
    ],
    says: { at: 'e.gate', severity: 'error', numbers: { highestVolts: 3, thresholdVolts: 4.5 } },
    twin: [
      { l: ['lfo', { lowVolts: 0, highVolts: 4.5 }], e: ['envelope', { thresholdVolts: 4.5 }] },
      ['l.out > e.gate'],
    ],
  },
  'gate-stuck': {
    shows: [{ l: ['lfo', { lowVolts: 1, highVolts: 5 }], e: ['envelope'] }, ['l.out > e.gate']],
    says: { at: 'e.gate', numbers: { lowestVolts: 1, thresholdVolts: 1 } },
    twin: [{ l: ['lfo', { lowVolts: 0.8, highVolts: 5 }], e: ['envelope'] }, ['l.out > e.gate']],
  },
  hang: {
    shows: [{ c: ['clock'], s: ['sequencer', steps(2, 3)], e: ['envelope'] }, ['c.out > s.clock', 's.cv > e.gate']],
    says: { at: 'e.gate', numbers: { hangSeconds: expect.closeTo(2, 3) } },
    twin: [{ c: ['clock'], s: ['sequencer', steps(2, 0)], e: ['envelope'] }, ['c.out > s.clock', 's.cv > e.gate']],
  },
  'lost-negative': {
    shows: [
      { l: ['lfo', { lowVolts: -1, highVolts: 3 }], q: ['quantizer', { accepts: 'positive' }] },
      ['l.out > q.in'],
    ],
    says: { at: 'q.in', numbers: { lostPercent: expect.closeTo(25, 1), lowestVolts: -1 } },
    twin: [{ l: ['lfo', { lowVolts: -1, highVolts: 3 }], q: ['quantizer'] }, ['l.out > q.in']],
  },
  'lag-short': {
    shows: [
      {
        l: ['lfo', { rateHz: 5 }],
        s: ['slew', { law: 'rc', rise: 0.5, fall: 0.5 }],
        p: ['parameter', { cvAmount: 0.5 }],
      },
      ['l.out > s.in', 's.out > p.cv'],
    ],
    says: { at: 's.out', numbers: { spanRatio: expect.closeTo(rcShare(0.5, 5), 3) } },
    twin: [
      { l: ['lfo', { rateHz: 0.5 }], s: ['slew', { rise: 0.1, fall: 0.1 }], p: ['parameter'] },
      ['l.out > s.in', 's.out > p.cv'],
    ],
  },
  'lag-late': {
    shows: [
      { c: ['clock'], s: notes, g: ['slew', { rise: 8, fall: 8 }], o: osc },
      ['c.out > s.clock', 's.cv > g.in', 'g.out > o.pitch'],
    ],
    says: { at: 'g.out', numbers: { cents: expect.closeTo(450, 0) } },
    twin: [
      { c: ['clock'], s: notes, g: ['slew', { rise: 1, fall: 1 }], o: osc },
      ['c.out > s.clock', 's.cv > g.in', 'g.out > o.pitch'],
    ],
  },
  'pitch-scale': {
    shows: [
      { c: ['clock'], s: notes, m: ['mixer', { gain1: 0.98 }], o: osc },
      ['c.out > s.clock', 's.cv > m.in1', 'm.out > o.pitch'],
    ],
    says: { at: 'o.pitch', numbers: { centsPerOctave: expect.closeTo(-24, 6) } },
    twin: [{ c: ['clock'], s: notes, m: ['mixer'], o: osc }, ['c.out > s.clock', 's.cv > m.in1', 'm.out > o.pitch']],
  },
  loading: {
    shows: [
      {
        c: ['clock'],
        s: ['sequencer', steps(0, 1), { outputOhms: { cv: 1000 } }],
        m: ['mult', { build: 'passive' }],
        o: osc,
        p: osc,
      },
      ['c.out > s.clock', 's.cv > m.in', 'm.out1 > o.pitch', 'm.out2 > p.pitch'],
    ],
    says: {
      at: 's.cv',
      severity: 'warning',
      numbers: { percent: expect.closeTo(1.961, 2), cents: expect.closeTo(23.5, 1) },
    },
    twin: [
      { c: ['clock'], s: ['sequencer', steps(0, 1), { outputOhms: { cv: 100 } }], m: ['mult'], o: osc, p: osc },
      ['c.out > s.clock', 's.cv > m.in', 'm.out1 > o.pitch', 'm.out2 > p.pitch'],
    ],
    curable: false,
  },
  'normal-active': {
    shows: [
      { l: ['lfo', { lowVolts: -1, highVolts: 1 }], v: ['polarizer', { biasAmount: 0.1 }], p: ['parameter'] },
      ['l.out > v.in', 'v.out > p.cv'],
    ],
    says: { at: 'v.bias', numbers: { volts: 5 } },
    twin: [
      { l: ['lfo', { lowVolts: -1, highVolts: 1 }], v: ['polarizer'], p: ['parameter'] },
      ['l.out > v.in', 'v.out > p.cv'],
    ],
  },
  'normal-broken': {
    shows: [
      { c: ['constant'], a: ['vca'], b: ['vca'], x: ['inverter'] },
      ['c.out > a.in', 'a.out > x.in'],
      { normals: [{ to: 'b.chain', from: 'a.out', brokenBy: 'source' }] },
    ],
    says: { at: 'b.chain' },
    twin: [
      { c: ['constant'], a: ['vca'], b: ['vca'], x: ['inverter'] },
      ['c.out > a.in', 'b.out > x.in'],
      { normals: [{ to: 'b.chain', from: 'a.out', brokenBy: 'source' }] },
    ],
  },
  polarity: {
    shows: [{ l: ['lfo'], i: ['mixer', { inverting: true }], f: ['filter'] }, ['l.out > i.in1', 'i.out > f.cutoff']],
    says: { at: 'f.cutoff', severity: 'note' },
    twin: [
      { l: ['lfo'], i: ['mixer', { inverting: true }], f: ['filter', { cutoffAmount: -1 }] },
      ['l.out > i.in1', 'i.out > f.cutoff'],
    ],
  },
  'dc-out': {
    shows: [
      { o: osc, m: ['offset', { volts: 1 }], x: ['lineOut', { padDb: 20 }] },
      ['o.sine > m.in', 'm.out > x.left'],
    ],
    says: { at: 'x.left', numbers: { volts: expect.closeTo(0.1, 3) } },
    twin: [{ o: osc, m: ['offset'], x: ['lineOut', { padDb: 20 }] }, ['o.sine > m.in', 'm.out > x.left']],
  },
  'hot-out': {
    shows: [{ o: osc, x: ['lineOut'] }, ['o.sine > x.left']],
    says: { at: 'x.left', numbers: { overDb: expect.closeTo(20 * Math.log10(5 / Math.SQRT2 / 0.7746) - 4, 3) } },
    twin: [{ o: osc, x: ['lineOut', { padDb: 10 }] }, ['o.sine > x.left']],
  },
  'weak-in': {
    shows: [{ l: ['lfo', { lowVolts: -0.1, highVolts: 0.1 }], i: ['lineIn', { gainDb: 10 }] }, ['l.out > i.in']],
    says: { at: 'i.out', numbers: { overDb: expect.closeTo(20 * Math.log10(0.1 / 5) + 10, 3) } },
    twin: [{ l: ['lfo', { lowVolts: -0.1, highVolts: 0.1 }], i: ['lineIn', { gainDb: 20 }] }, ['l.out > i.in']],
  },
  'ac-loses-dc': {
    shows: [{ l: ['lfo', { lowVolts: 0 }], o: osc, r: ['ringMod'] }, ['l.out > r.a', 'o.sine > r.b']],
    says: { at: 'r.a', numbers: { volts: expect.closeTo(2.5, 3) } },
    twin: [
      { l: ['lfo', { lowVolts: 0 }], o: osc, r: ['ringMod', { coupling: 'dc' }] },
      ['l.out > r.a', 'o.sine > r.b'],
    ],
  },
  drift: {
    shows: [
      { a: ['lfo'], b: ['lfo', { rateHz: 1.04 }], m: ['mixer'], p: ['parameter'] },
      ['a.out > m.in1', 'b.out > m.in2', 'm.out > p.cv'],
    ],
    says: { at: 'p.cv', numbers: { driftSeconds: expect.closeTo(6.25, 6) } },
    twin: [
      { a: ['lfo'], b: ['lfo', { rateHz: 1.04 }], m: ['mixer'], p: ['parameter'] },
      ['a.out > m.in1', 'b.out > m.in2', 'm.out > p.cv', 'a.out > b.reset'],
    ],
  },
  carrier: {
    // A mean of 0.5 V beside a sine of 2 V: 0.5 / (2/√2).
    shows: [
      {
        l: ['lfo', { shape: 'sine', rateHz: 2, lowVolts: -1.5, highVolts: 2.5 }],
        o: osc,
        a: ['vca', { quadrants: 4 }],
      },
      ['l.out > a.cv', 'o.sine > a.in'],
    ],
    says: { at: 'a.cv', severity: 'note', numbers: { carrierDb: expect.closeTo(-9.03, 2) } },
    twin: [
      { l: ['lfo', { shape: 'sine', rateHz: 2, lowVolts: -2, highVolts: 2 }], o: osc, a: ['vca', { quadrants: 4 }] },
      ['l.out > a.cv', 'o.sine > a.in'],
    ],
  },
  bleed: {
    shows: [{ o: osc, p: osc, r: ['ringMod', { bleedA: 0.01 }] }, ['o.sine > r.a', 'p.sine > r.b']],
    says: { at: 'r.a', numbers: { bleedDb: expect.closeTo(-40, 6) } },
    twin: [{ o: osc, p: osc, r: ['ringMod', { bleedA: 0.01, trimA: -0.01 }] }, ['o.sine > r.a', 'p.sine > r.b']],
  },
  runaway: {
    shows: [
      { c: ['constant', { volts: 0.01 }], m: ['mixer', { gain2: 1.1, maxGain: 2 }], o: ['offset'] },
      ['c.out > m.in1', 'o.out > m.in2', 'm.out > o.in'],
    ],
    says: { at: 'm.out', numbers: { loopDb: expect.closeTo(20 * Math.log10(1.1), 6) } },
    twin: [
      { c: ['constant', { volts: 0.01 }], m: ['mixer', { gain2: 0.9, maxGain: 2 }], o: ['offset'] },
      ['c.out > m.in1', 'o.out > m.in2', 'm.out > o.in'],
    ],
  },
  tied: {
    shows: [
      { a: ['lfo'], b: ['lfo', { rateHz: 3 }, { outputOhms: { out: 40 } }], j: ['junction'] },
      ['a.out > j.in1', 'b.out > j.in3'],
    ],
    says: { at: 'j.out', severity: 'warning', numbers: { ohms: expect.closeTo(40, 9) } },
    twin: [
      { a: ['lfo'], b: ['lfo', { rateHz: 3 }, { outputOhms: { out: 100 } }], j: ['junction'] },
      ['a.out > j.in1', 'b.out > j.in3'],
    ],
  },
  'dead-end': {
    shows: [{ l: ['lfo'], i: ['inverter'] }, ['l.out > i.in']],
    says: { at: 'i' },
    twin: [{ l: ['lfo'], i: ['inverter'] }, ['l.out > i.in'], { probes: [{ at: 'i.out' }] }],
    curable: false,
  },
  'no-source': {
    shows: [{ i: ['inverter'], p: ['parameter'] }, ['i.out > p.cv']],
    says: { at: 'i' },
    twin: [{ l: ['lfo'], i: ['inverter'], p: ['parameter'] }, ['l.out > i.in', 'i.out > p.cv']],
    curable: false,
  },
};

describe('findings', () => {
  it('have a case each', () => expect(Object.keys(cases).sort()).toEqual(allRules.map((r) => r.code).sort()));

  it.each(Object.entries(cases))('%s fires with its number, and not on a near twin', (code, { shows, says, twin }) => {
    const [finding] = found(make(shows), code);
    expect(finding).toMatchObject({ code, ...says });
    expect(found(make(twin), code)).toEqual([]);
  });

  it.each(Object.entries(cases).filter(([, c]) => c.curable !== false))(
    'the cure of %s makes a valid patch without it',
    (code, { shows }) => {
      const patch = make(shows);
      const [finding] = found(patch, code);
      expect(finding?.cure?.edits.length).toBeGreaterThan(0);
      const cured = applyEdits(patch, finding!.cure!.edits);
      const read = parsePatch(JSON.parse(JSON.stringify(printPatch(cured))));
      expect(read.ok ? null : read.errors).toBeNull();
      expect(found(cured, code).filter((f) => f.at === finding!.at)).toEqual([]);
    },
  );

  it('loading: an active pot cures it; a buffered mult leaves the load of one input', () => {
    const pot = make([
      { l: ['lfo'], k: ['attenuator', { amount: 0.5, build: 'passive' }], p: ['parameter'] },
      ['l.out > k.in', 'k.out > p.cv'],
    ]);
    const [finding] = found(pot, 'loading');
    expect(found(applyEdits(pot, finding!.cure!.edits), 'loading')).toEqual([]);
    const mult = make([
      {
        s: notes,
        c: ['clock'],
        m: ['mult', { build: 'passive' }],
        a: ['oscillator'],
        b: ['oscillator'],
        d: ['oscillator'],
      },
      ['c.out > s.clock', 's.cv > m.in', 'm.out1 > a.pitch', 'm.out2 > b.pitch', 'm.out3 > d.pitch'],
    ]);
    const behind = (ohms: number) => ({
      ...mult,
      modules: mult.modules.map((m) => (m.id === 's' ? { ...m, outputOhms: { cv: ohms } } : m)),
    });
    const [light, heavy] = [behind(200), behind(1000)].map((p) => found(p, 'loading').find((f) => f.at === 's.cv')!);
    expect(light!.numbers.percent).toBeCloseTo(100 * (1 - 1 / 1.006), 6);
    expect(found(applyEdits(behind(200), light!.cure!.edits), 'loading')).toEqual([]);
    // The one input that is left takes too much of a kilohm by itself: no buffer cures that, so none is offered.
    expect(heavy!.numbers.percent).toBeCloseTo(100 * (1 - 1 / 1.03), 6);
    expect(heavy!.cure).toBeUndefined();
  });

  it('one that the patch dismisses with a reason is not said again', () => {
    const patch = make(cases.clip!.shows);
    expect(
      found({ ...patch, dismissed: [{ code: 'clip', at: 'o.out', reason: 'clipping is the point' }] }, 'clip'),
    ).toEqual([]);
  });

  it('each has a title, and explains itself in two or three sentences', () => {
    for (const rule of allRules)
      expect([rule.code, issueTitle(rule.code), explain(rule.code)]).toEqual([
        rule.code,
        expect.stringMatching(/^[A-Z][\w /-]+$/),
        expect.stringMatching(/^([^.]|\.(?! |$))+\.( ([^.]|\.(?! |$))+\.){1,2}$/),
      ]);
    expect([issueTitle('unheard-of'), explain('unheard-of')]).toEqual(['unheard-of', '']);
  });

  it('none fires on the demo patches that are meant to be sound', () => {
    const meant = new Set(['lamp-sweep-shut']);
    for (const { id, document } of demoPatches('demo/patches')) {
      const result = parsePatch(document);
      if (!result.ok || meant.has(id)) continue;
      expect({ id, codes: predict(result.value).findings.map((f) => `${f.code} ${f.at}`) }).toEqual({ id, codes: [] });
    }
  });
});
