import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdits } from '../edit/edit';
import { predict } from '../answers/predict';
import { patchOf } from '../testing/patch';
import type { Finding } from './finding';

// What is meant is not accused, and what is not meant still is.

type Parts = Parameters<typeof patchOf>[0];

const osc = ['oscillator', { baseHz: 220 }] as const;
const out = ['lineOut', { padDb: 20 }] as const;
const fader = (volts: number, lowVolts: number, highVolts: number) =>
  ['constant', { volts, lowVolts, highVolts }] as const;
const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const make = (parts: object, cables: readonly string[], more: object = {}, settings: object = {}) =>
  patchOf(parts as Parts, cables, { duration: 2, sampleRate: 8000, ...settings }, more);
function found(code: string, ...patch: Parameters<typeof make>): Finding[] {
  return predict(make(...patch)).findings.filter((f) => f.code === code);
}
const severities = (list: readonly Finding[]): string[] => list.map((f) => f.severity);

describe('a hand is judged over its way', () => {
  const amplifier = (volts: number, low: number, high: number, params: object = {}) =>
    [{ w: fader(volts, low, high), o: osc, a: ['vca', params] }, ['w.out > a.cv', 'o.sine > a.in']] as const;

  it('an amplifier is short only where no position opens it, and over where any does', () => {
    fc.assert(
      fc.property(within(0.5, 9.5), within(0, 1), (high, at) => {
        const patch = amplifier(high * at, 0, high);
        expect(found('vca-short', ...patch)).toHaveLength(20 * Math.log10(high / 5) < -0.01 ? 1 : 0);
        expect(found('vca-over', ...patch)).toHaveLength(20 * Math.log10(high / 5) > 0.01 ? 1 : 0);
      }),
      { numRuns: 30 },
    );
  });
  it('an unmoved LFO of the same voltages is judged as it runs', () => {
    const lfo = { l: ['lfo', { lowVolts: 0, highVolts: 2 }], o: osc, a: ['vca'] };
    expect(found('vca-short', lfo, ['l.out > a.cv', 'o.sine > a.in'])).toHaveLength(1);
  });
  it('the fix of what a fader overdrives leaves it unity at its top', () => {
    const [over] = found('vca-over', ...amplifier(1, 0, 8));
    const mended = applyEdits(make(...amplifier(1, 0, 8)), over!.cure!.edits);
    expect(mended.modules.find((m) => m.id === 'a')!.params!.cvAmount).toBeCloseTo(5 / 8, 6);
  });
  it('a gate is never triggered, or stuck, only if so at every position', () => {
    const gate = (volts: number, low: number, high: number) =>
      [{ w: fader(volts, low, high), e: ['envelope'] }, ['w.out > e.gate']] as const;
    expect(found('gate-never', ...gate(0, 0, 5))).toEqual([]);
    expect(found('gate-never', ...gate(0, 0, 0.9))).toHaveLength(1);
    expect(found('gate-stuck', ...gate(5, 0, 5))).toEqual([]);
    expect(found('gate-stuck', ...gate(5, 2, 5))).toHaveLength(1);
  });
  it('a filter is pinned where the wheel can take it there', () => {
    const filter = (high: number) =>
      [
        { w: fader(0, 0, high), o: osc, f: ['filter', { cutoffHz: 5000 }] },
        ['w.out > f.cutoff', 'o.sine > f.in'],
      ] as const;
    // 20 kHz is two octaves over 5 kHz.
    expect(found('pinned', ...filter(1.99))).toEqual([]);
    expect(found('pinned', ...filter(2.1))).toHaveLength(1);
  });
  it('an amplifier leaks only where no position closes it', () => {
    const voice = (volts: number, low: number, high: number) =>
      [
        {
          k: ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }],
          e: ['envelope', { peakVolts: 3 }],
          w: fader(volts, low, high),
          o: osc,
          a: ['vca'],
        },
        ['k.out > e.gate', 'e.out > a.cv', 'w.out > a.cv2', 'o.sine > a.in'],
      ] as const;
    expect(found('vca-leak', ...voice(1, 0, 2))).toEqual([]);
    expect(found('vca-leak', ...voice(1, 0.5, 2))).toHaveLength(1);
  });
});

describe('an amplifier that closes', () => {
  const shut = (l: object, params: object = {}, more: object = {}) =>
    found('vca-shut', { l: ['lfo', l], o: osc, a: ['vca', params] }, ['l.out > a.cv', 'o.sine > a.in'], more);

  it('is a note where a pulse chops, also behind an inverter, and an error where a triangle sweeps', () => {
    expect(severities(shut({ shape: 'pulse' }))).toEqual(['note']);
    expect(severities(shut({ shape: 'triangle' }))).toEqual(['error']);
    const parts = { l: ['lfo', { shape: 'pulse' }], i: ['inverter'], o: osc, a: ['vca'] };
    expect(severities(found('vca-shut', parts, ['l.out > i.in', 'i.out > a.cv', 'o.sine > a.in']))).toEqual(['note']);
    const lagged = { l: ['lfo', { shape: 'pulse' }], s: ['slew', { rise: 0.2, fall: 0.2 }], o: osc, a: ['vca'] };
    expect(severities(found('vca-shut', lagged, ['l.out > s.in', 's.out > a.cv', 'o.sine > a.in']))).toEqual(['error']);
  });
  it('is a note where its control repeats at 20 Hz or faster', () => {
    expect(severities(shut({ rateHz: 20 }))).toEqual(['note']);
    expect(severities(shut({ rateHz: 19 }))).toEqual(['error']);
  });
  it('is an error where it is closed throughout while something moves it, two levels or not', () => {
    expect(severities(shut({ shape: 'pulse', lowVolts: -5, highVolts: -1 }))).toEqual(['error']);
    expect(severities(shut({ shape: 'triangle', lowVolts: -5, highVolts: -1 }))).toEqual(['error']);
  });
  it('is silent where a target asks for silence', () => {
    const target = { at: 'a.cv', quantity: 'gain', low: 'silent', high: 0 };
    expect(shut({ shape: 'triangle' }, {}, { targets: [target] })).toEqual([]);
  });
  it('counts from its dead zone, which four quadrants have not', () => {
    fc.assert(
      fc.property(within(0.1, 2), within(-3, 0), (deadVolts, lowVolts) => {
        const [finding] = shut({ lowVolts, highVolts: 5 }, { deadVolts });
        expect(finding!.numbers.missingVolts).toBeCloseTo(deadVolts - lowVolts, 6);
        expect(finding!.numbers.shutPercent).toBeCloseTo((100 * (deadVolts - lowVolts)) / (5 - lowVolts), 0);
        expect(shut({ lowVolts, highVolts: 5 }, { deadVolts, quadrants: 4 })).toEqual([]);
      }),
      { numRuns: 15 },
    );
    expect(shut({ lowVolts: 0.5, highVolts: 5 }, { deadVolts: 0.5 })).toEqual([]);
  });
});

describe('an amplifier that leaks', () => {
  const leak = (envelope: object, params: object) =>
    found(
      'vca-leak',
      {
        k: ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }],
        e: ['envelope', { peakVolts: 4, ...envelope }],
        o: osc,
        a: ['vca', params],
      },
      ['k.out > e.gate', 'e.out > a.cv', 'o.sine > a.in'],
    );
  it('not where its envelope loops, nor with four quadrants', () => {
    expect(leak({}, { bias: 0.5 })).toHaveLength(1);
    expect(leak({ mode: 'loop' }, { bias: 0.5 })).toEqual([]);
    expect(leak({}, { bias: 0.5, quadrants: 4 })).toEqual([]);
  });
  it('its true zero is the bias at which its control rests at the dead zone', () => {
    expect(leak({}, { bias: 0.4, deadVolts: 0.5 })).toEqual([]);
    const [finding] = leak({}, { bias: 0.8, deadVolts: 0.5 });
    expect(finding!.cure!.edits).toContainEqual({ do: 'set', module: 'a', param: 'bias', value: 0.5 });
  });
});

describe('a carrier', () => {
  it('comes through by the mean of what multiplies it, and its fix nulls it to 1e-4 of the span', () => {
    fc.assert(
      fc.property(within(0.1, 1.5), (mean) => {
        const l = ['lfo', { shape: 'sine', rateHz: 2, lowVolts: mean - 2, highVolts: mean + 2 }] as const;
        const parts = { l, o: osc, r: ['ringMod', { coupling: 'dc' }] };
        const patch = [parts, ['l.out > r.a', 'o.sine > r.b']] as const;
        const [finding] = found('carrier', ...patch);
        expect(finding!.numbers.carrierDb).toBeCloseTo(20 * Math.log10(mean / Math.SQRT2), 2);
        const mended = predict(applyEdits(make(...patch), finding!.cure!.edits), { cures: false });
        const { min, max } = { min: mended.outputs['mend.out']!.seen![0], max: mended.outputs['mend.out']!.seen![1] };
        expect(Math.abs(min + max) / 2).toBeLessThan(1e-4 * 4);
      }),
      { numRuns: 8 },
    );
  });
  it('counts feedthrough and trim, and not what never changes sign, or is AC coupled', () => {
    const ring = (l: object, params: object) =>
      found('carrier', { l: ['lfo', { shape: 'sine', rateHz: 2, ...l }], o: osc, r: ['ringMod', params] }, [
        'l.out > r.a',
        'o.sine > r.b',
      ]);
    expect(ring({}, { coupling: 'dc' })).toEqual([]);
    // The signal's own feedthrough, 0.05, against a product of 1/√2.
    expect(ring({}, { coupling: 'dc', bleedB: 0.05 })[0]!.numbers.carrierDb).toBeCloseTo(
      20 * Math.log10(0.05 * Math.SQRT2),
      1,
    );
    expect(ring({}, { coupling: 'dc', bleedB: 0.05, trimB: -0.05 })).toEqual([]);
    expect(ring({ lowVolts: 1 }, { coupling: 'dc' })).toEqual([]);
    expect(ring({ lowVolts: -1 }, { coupling: 'ac' })).toEqual([]);
  });
});

describe('an edge', () => {
  const struck = (envelope: object, source: object = { o: osc }, from = 'o.sine') =>
    found(
      'click',
      {
        k: ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }],
        e: ['envelope', { mode: 'ar', peakVolts: 5, attackCurve: 0, decayCurve: 0, ...envelope }],
        ...source,
        a: ['vca'],
        x: out,
      },
      ['k.out > e.gate', 'e.out > a.cv', `${from} > a.in`, 'a.out > x.left'],
    );
  it('that opens is a note of what is struck; one that closes a warning, whose fix leaves the attack', () => {
    expect(severities(struck({ attack: 0.001, release: 0.1 }))).toEqual(['note']);
    expect(struck({ attack: 0.001, release: 0.1 })[0]!.cure).toBeUndefined();
    const [both] = struck({ attack: 0.001, release: 0.001 });
    expect(both!.severity).toBe('warning');
    expect(both!.cure!.edits.map((e) => 'param' in e && e.param)).toEqual(['release']);
  });
  it('of noise is none', () => {
    expect(struck({ attack: 0.001, release: 0.001 }, { n: ['noise'] }, 'n.out')).toEqual([]);
  });
  it('of a lag that a gate feeds is struck, of a gate itself a click', () => {
    const parts = (s: object) => ({
      k: ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }],
      s: ['slew', s],
      o: osc,
      a: ['vca'],
      x: out,
    });
    const cables = ['k.out > s.in', 's.out > a.cv', 'o.sine > a.in', 'a.out > x.left'];
    expect(severities(found('click', parts({ rise: 0, fall: 0.2 }), cables))).toEqual(['note']);
    expect(severities(found('click', parts({ rise: 0.2, fall: 0 }), cables))).toEqual(['warning']);
  });
  it('of what runs by itself stays a warning', () => {
    const l = ['lfo', { shape: 'rampDown', rateHz: 2, lowVolts: 0, highVolts: 5 }];
    expect(
      severities(
        found('click', { l, o: osc, a: ['vca'], x: out }, ['l.out > a.cv', 'o.sine > a.in', 'a.out > x.left']),
      ),
    ).toEqual(['warning']);
  });
});

describe('normals', () => {
  it('are a source where a module is patched as one, and still active beside a signal', () => {
    const parts = { l: ['lfo'], t: ['mixer', { inputs: 2 }], p: ['parameter'] };
    const normal = { normals: [{ to: 't.in2', volts: 2 }] };
    expect(found('normal-active', parts, ['t.out > p.cv'], normal)).toEqual([]);
    expect(found('normal-active', parts, ['l.out > t.in1', 't.out > p.cv'], normal)).toHaveLength(1);
  });
  it('that a send breaks are meant, and its fix never closes a loop', () => {
    const parts = { l: ['lfo'], a: ['attenuverter'], b: ['attenuverter'], x: ['parameter'], y: out };
    const normal = { normals: [{ to: 'b.in', from: 'a.out', brokenBy: 'source' }] };
    const broken = (cables: readonly string[], more: object = {}) =>
      found('normal-broken', parts, ['l.out > a.in', ...cables], { ...normal, ...more });
    expect(broken(['a.out > x.cv', 'b.out > y.left'])).toHaveLength(1);
    expect(broken(['a.out > x.cv', 'b.out > y.left'], { probes: [{ at: 'x.cv' }] })).toEqual([]);
    expect(broken(['a.out > y.left', 'b.out > x.cv'])).toEqual([]);
    const [ahead] = broken(['a.out > x.cv', 'b.out > y.left']);
    expect(ahead!.cure!.edits).toEqual([{ do: 'plug', cable: { from: 'a.out', to: 'b.in' } }]);
    const [back] = found('normal-broken', parts, ['b.out > a.in', 'a.out > x.cv'], normal);
    expect(back!.cure).toBeUndefined();
  });
});

describe('a lag', () => {
  const lag = (s: object, l: object = {}) =>
    found(
      'lag-short',
      {
        l: ['lfo', { rateHz: 4, lowVolts: 0, highVolts: 5, ...l }],
        s: ['slew', { law: 'linear', ...s }],
        p: ['parameter', { high: 5 }],
      },
      ['l.out > s.in', 's.out > p.cv'],
      {},
      { duration: 4 },
    );
  it('whose fall is slow on purpose is judged by its tops', () => {
    expect(lag({ rise: 0, fall: 2 })).toEqual([]);
    expect(lag({ rise: 1, fall: 1 })).toHaveLength(1);
  });
  it('whose fall is the shorter by the worse of tops and bottoms', () => {
    // Up 5 V in at least 1 s of its 10 V time of 2 s: the top of a quarter-second cycle never comes.
    const [finding] = lag({ rise: 2, fall: 0 }, { shape: 'rampUp' });
    expect(finding!.numbers.spanRatio).toBeCloseTo(0.25, 1);
  });
  it('is made up for by a stage tested through that input alone', () => {
    const parts = (gain1: number) => ({
      l: ['lfo', { rateHz: 4, shape: 'pulse' }],
      s: ['slew', { law: 'linear', rise: 0.2, fall: 0.2 }],
      w: ['lfo', { rateHz: 0.5 }],
      m: ['mixer', { inputs: 2, maxGain: 2, gain1 }],
      p: ['parameter', { low: -20, high: 20 }],
    });
    const cables = ['l.out > s.in', 's.out > m.in1', 'w.out > m.in2', 'm.out > p.cv'];
    // 50 V/s for an eighth of a second: 6.25 of 10 V.
    expect(found('lag-short', parts(1.6), cables)).toEqual([]);
    expect(found('lag-short', parts(1), cables)).toHaveLength(1);
  });
});

describe('the rest', () => {
  it('a junction that carries pitch becomes a mixer that adds', () => {
    const parts = {
      k: ['clock'],
      s: [
        'sequencer',
        {
          steps: [
            { volts: 0, gate: true, tie: false },
            { volts: 1, gate: true, tie: false },
          ],
        },
      ],
      v: ['constant', { volts: 0, lowVolts: 0, highVolts: 1 }],
      j: ['junction'],
      o: osc,
    };
    const [finding] = found('tied', parts, [
      'k.out > s.clock',
      's.cv > j.in1',
      'v.out > j.in2',
      'j.out > o.pitch',
    ]).filter((f) => f.at === 'j.out');
    expect(finding?.cure?.edits).toContainEqual(
      expect.objectContaining({ module: expect.objectContaining({ params: expect.objectContaining({ law: 'sum' }) }) }),
    );
  });
  it('slew times under CV are never pinned', () => {
    const parts = {
      l: ['lfo', { lowVolts: -12, highVolts: 12 }],
      k: ['lfo'],
      s: ['slew', { rise: 0.1 }],
      p: ['parameter', { low: -20, high: 20 }],
    };
    const pinned = found('pinned', parts, ['k.out > s.in', 'l.out > s.bothCv', 's.out > p.cv']);
    expect(pinned.filter((f) => f.at.startsWith('s.'))).toEqual([]);
  });
  it('a target silences an issue that asks for its opposite', () => {
    const pinned = { l: ['lfo', { lowVolts: 0, highVolts: 12 }], p: ['parameter'] };
    const cable = ['l.out > p.cv'];
    expect(found('pinned', pinned, cable)).toHaveLength(1);
    const target = { at: 'p.cv', quantity: 'value', low: null, high: 1 };
    expect(found('pinned', pinned, cable, { targets: [target] })).toEqual([]);
    const stuck = { l: ['lfo', { lowVolts: 2, highVolts: 5 }], e: ['envelope'] };
    expect(found('gate-stuck', stuck, ['l.out > e.gate'])).toHaveLength(1);
    const always = { targets: [{ at: 'e.gate', want: 'duty', percent: 100 }] };
    expect(found('gate-stuck', stuck, ['l.out > e.gate'], always)).toEqual([]);
  });
});
