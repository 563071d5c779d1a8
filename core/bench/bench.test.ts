import { describe, expect, it } from 'vitest';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { stream } from '../kinds/random';
import { patchOf } from '../testing/patch';
import { diagnose } from './diagnose';
import { parseFault } from './faultFields';
import { cablesUnder, editsOf, faultyGraph } from './faults';
import type { Fault } from './faults';
import { faultText } from './faultText';
import { hypothesesOf } from './hypotheses';
import { bitsOf, logLikelihood, softmax } from './likelihood';
import { figuresIn } from './figures';
import { parseReadings, quantitiesAt } from './readings';
import type { BenchReading } from './readings';
import type { ReadQuantity } from './quantities';
import { benchReadings, SimulatedRack } from './simulated';

/** ±5 V at 0.25 Hz, times 0.5, joined with 0.7 of a fader at 2 V, plus 2 V; through an open amplifier to a filter. */
const patch = patchOf(
  {
    swell: ['lfo', { rateHz: 0.25 }],
    breath: ['constant', { volts: 2 }],
    trim: ['attenuverter', { amount: 0.5 }],
    join: ['mixer', { gain2: 0.7 }],
    lift: ['offset', { volts: 2 }],
    gain: ['vca', { bias: 5 }],
    tone: ['filter'],
  },
  [
    'swell.out > trim.in',
    'trim.out > join.in1',
    'breath.out > join.in2',
    'join.out > lift.in',
    'lift.out > gain.in',
    'gain.out > tone.cutoff',
  ],
  { duration: 4, sampleRate: 1000 },
);
const cable = (to: string) => patch.cables.find((c) => c.to === to)!;
/** What is read with faults in, true modules. */
function read(of: Patch, faults: readonly Fault[], at: string, quantity: ReadQuantity, knobs = []): number {
  return new SimulatedRack(of, { seed: 1, faults, ideal: true }).read({ at, quantity, knobs });
}

describe('what a fault does', () => {
  const low = (faults: readonly Fault[], at = 'lift.out') => read(patch, faults, at, 'low');
  const high = (faults: readonly Fault[], at = 'lift.out') => read(patch, faults, at, 'high');
  it.each<readonly [string, Fault, string, number, number]>([
    ['a gain', { kind: 'gain', at: 'trim.out', gain: 0.4 }, 'trim.out', -1, 1],
    ['an offset', { kind: 'offset', at: 'trim.out', volts: 1.5 }, 'trim.out', -1, 4],
    ['nothing', { kind: 'dead', module: 'swell' }, 'trim.out', 0, 0],
    ['unipolar for bipolar', { kind: 'sourceRange', module: 'swell', gain: 0.5, volts: 2.5 }, 'swell.out', 0, 5],
    [
      'its inverted output too',
      { kind: 'sourceRange', module: 'swell', gain: 0.5, volts: 2.5 },
      'swell.inverted',
      -5,
      0,
    ],
    ['a knob', { kind: 'knob', at: 'trim.amount', value: -1 }, 'trim.out', -5, 5],
    ['a missing cable', { kind: 'cableMissing', cable: cable('trim.in') }, 'trim.out', 0, 0],
    [
      'the other output',
      { kind: 'cableElsewhere', cable: cable('trim.in'), end: 'from', socket: 'swell.pulse' },
      'trim.out',
      -2.5,
      2.5,
    ],
    [
      'the other input',
      { kind: 'cableElsewhere', cable: cable('join.in2'), end: 'to', socket: 'join.in4' },
      'join.in2',
      0,
      0,
    ],
    ['a jumper', { kind: 'jumper', at: 'swell.shape', value: 'sine' }, 'swell.out', -5, 5],
  ])('%s', (_, fault, at, least, most) => {
    expect(low([fault], at)).toBeCloseTo(least, 2);
    expect(high([fault], at)).toBeCloseTo(most, 2);
  });
  it('swaps cables, and one that is not plugged yet goes nowhere', () => {
    const swapped: Fault = { kind: 'cablesSwapped', cables: [cable('join.in1'), cable('join.in2')] };
    expect(cablesUnder(patch.cables, [swapped])).toContainEqual({ from: 'breath.out', to: 'join.in1' });
    expect(cablesUnder([cable('join.in1')], [swapped])).toEqual([{ from: 'trim.out', to: 'join.in2' }]);
    expect(cablesUnder([], [swapped, { kind: 'cableMissing', cable: cable('trim.in') }])).toEqual([]);
  });
  it('adds a normal that still acts, and takes a broken one away', () => {
    const normalled = { ...patch, normals: [{ to: 'lift.in', volts: 1 }] };
    expect(read(normalled, [{ kind: 'normalActs', to: 'lift.in', volts: 1 }], 'lift.out', 'mean')).toBeCloseTo(4.4, 2);
    const empty = applyEdits(normalled, [{ do: 'unplug', to: 'lift.in' }]);
    expect(read(empty, [], 'lift.out', 'steady')).toBeCloseTo(3, 6);
    expect(read(empty, [{ kind: 'normalBroken', to: 'lift.in' }], 'lift.out', 'steady')).toBeCloseTo(2, 6);
  });
  it('loads an output by its own resistance', () => {
    const soft = {
      ...patch,
      modules: patch.modules.map((m) => (m.id === 'trim' ? { ...m, outputOhms: { out: 10_000 } } : m)),
    };
    // 10 kΩ into 100 kΩ, and into 100 kΩ beside 10 kΩ.
    expect(read(soft, [], 'trim.out', 'high')).toBeCloseTo(2.5 * (100 / 110), 3);
    const beside = 1e6 / 110;
    const loaded = read(soft, [{ kind: 'load', at: 'trim.out', ohms: 10_000 }], 'trim.out', 'high');
    expect(loaded).toBeCloseTo((2.5 * beside) / (beside + 10_000), 3);
    expect(read(patch, [{ kind: 'load', at: 'trim.out', ohms: 10_000 }], 'trim.out', 'high')).toBeCloseTo(2.5, 6);
  });
  it('leaves a pointer where it is when a jumper changes how far its knob reaches', () => {
    const edits = editsOf(patch, { kind: 'jumper', at: 'lift.maxAmount', value: 2 });
    expect(edits).toContainEqual({ do: 'set', module: 'lift', param: 'amount', value: 2 });
  });
  it('holds for a reading at the value that its knob had then', () => {
    const rack = new SimulatedRack(patch, {
      seed: 1,
      ideal: true,
      faults: [{ kind: 'knob', at: 'trim.amount', value: 0 }],
    });
    const at = (knobs: readonly { at: string; value: number }[]) =>
      rack.read({ at: 'trim.out', quantity: 'high', knobs });
    expect(at([])).toBeCloseTo(0, 6);
    expect(at([{ at: 'trim.amount', value: 1 }])).toBeCloseTo(5, 2);
  });
  it('is said as at the rack', () => {
    const said = (fault: Fault) => faultText(patch.modules, fault).replaceAll('\u00a0', ' ');
    expect(said({ kind: 'cableMissing', cable: cable('trim.in') })).toBe(
      'The cable from LFO out to Attenuverter in is missing or broken',
    );
    expect(said({ kind: 'offset', at: 'trim.out', volts: -0.5 })).toBe('Attenuverter out is off by −0.50 V');
    for (const h of hypothesesOf(patch, null)) {
      const fault = h.is === 'fixed' ? h.fault : h.at(0.9);
      if (fault) expect(said(fault)).not.toMatch(/undefined|NaN/);
    }
  });
});

describe('scores', () => {
  it('are Gaussian near, straight far out, and probabilities of all', () => {
    // 0.98 of a normal density beside 0.02 of a Laplace one.
    expect(Math.exp(logLikelihood(0, 1))).toBeCloseTo(0.98 / Math.sqrt(2 * Math.PI) + 0.02 / 20, 9);
    expect(logLikelihood(300, 1) - logLikelihood(400, 1)).toBeCloseTo(10, 6);
    expect(Number.isFinite(logLikelihood(1e9, 1e-4))).toBe(true);
    expect(softmax([Math.log(3), 0])[0]).toBeCloseTo(0.75, 12);
  });
  it('of a measurement are a bit where it tells two apart, none where it cannot', () => {
    expect(bitsOf([0.5, 0.5], [0, 100], 1)).toBeCloseTo(1, 9);
    expect(bitsOf([0.5, 0.5], [1, 1], 1)).toBeCloseTo(0, 9);
    expect(bitsOf([0.25, 0.25, 0.25, 0.25], [0, 50, 100, 150], 1)).toBeCloseTo(2, 9);
  });
});

describe('diagnosis', () => {
  it('of a rack that is as planned is consistent', () => {
    for (const seed of [1, 2, 3]) expect(diagnose(patch, benchReadings(patch, { seed })).consistent).toBe(true);
  });
  it.each<Fault>([
    { kind: 'cableMissing', cable: cable('join.in2') },
    { kind: 'cablesSwapped', cables: [cable('join.in1'), cable('join.in2')] },
    { kind: 'knob', at: 'trim.amount', value: -0.9 },
    { kind: 'knob', at: 'lift.volts', value: -3 },
    { kind: 'gain', at: 'lift.out', gain: 0.6 },
    { kind: 'offset', at: 'gain.out', volts: 1.2 },
    { kind: 'dead', module: 'trim' },
    { kind: 'sourceRange', module: 'swell', gain: 2, volts: 0 },
    { kind: 'jumper', at: 'lift.maxAmount', value: 2 },
  ])('finds $kind among all that can be wrong, with errors and noise', (fault) => {
    const readings = benchReadings(patch, { seed: 11, faults: [fault] });
    const found = diagnose(patch, readings);
    expect(found.consistent).toBe(false);
    const [first] = found.causes;
    const all = first!.faults.length === 1 ? [...first!.faults, ...first!.alike] : [];
    const said = all.map((f) => faultText(patch.modules, f));
    const same = all.find((f) => f.kind === fault.kind && sameBut(f, fault));
    expect(same ?? said, JSON.stringify(said)).toBe(same);
    expect(found.causes[0]!.predicted).toHaveLength(readings.length);
    expect(found.causes.map((c) => c.probability)).toEqual(
      found.causes.map((c) => c.probability).toSorted((a, b) => b - a),
    );
  });
  it('is the same to the byte', () => {
    const readings = benchReadings(patch, { seed: 4, faults: [{ kind: 'dead', module: 'breath' }] });
    expect(diagnose(patch, readings)).toEqual(diagnose(patch, readings));
  });
  it('of few readings asks for the one that tells most, and finds it in a few more', () => {
    const fault: Fault = { kind: 'gain', at: 'trim.out', gain: 0.4 };
    const rack = new SimulatedRack(patch, { seed: 5, faults: [fault] });
    const all: BenchReading[] = [
      {
        at: 'lift.out',
        quantity: 'high',
        value: rack.read({ at: 'lift.out', quantity: 'high', knobs: [] }),
        knobs: [],
      },
    ];
    let found = diagnose(patch, all);
    for (let n = 0; n < 6 && found.next; n++) {
      const { at, quantity } = found.next;
      expect(all.some((r) => r.at === at && r.quantity === quantity)).toBe(false);
      all.push({ at, quantity, value: rack.read({ at, quantity, knobs: [] }), knobs: [] });
      found = diagnose(patch, all);
    }
    const said = [...found.causes[0]!.faults, ...found.causes[0]!.alike];
    expect(said.some((f) => f.kind === 'gain' && f.at === 'trim.out')).toBe(true);
  });
});

/** The same fault, values that were solved for aside. */
function sameBut(a: Fault, b: Fault): boolean {
  const { value: _a, gain: _b, volts: _c, ohms: _d, ...rest } = a as unknown as Record<string, unknown>;
  const { value: _e, gain: _f, volts: _g, ohms: _h, ...other } = b as unknown as Record<string, unknown>;
  return JSON.stringify(rest) === JSON.stringify(other);
}

describe('readings', () => {
  const doc = (readings: readonly object[]) => ({ format: 'fenvo.readings', version: 1, readings });
  it('of a simulated rack are a document again, as planned and as the sheet goes', () => {
    for (const steps of [false, true]) {
      const readings = benchReadings(patch, { seed: 2, steps });
      expect(readings.length).toBeGreaterThan(12);
      expect(parseReadings(JSON.parse(JSON.stringify(doc(readings))), patch)).toEqual({
        ok: true,
        value: doc(readings),
      });
      expect(benchReadings(patch, { seed: 2, steps })).toEqual(readings);
    }
  });
  it.each([
    [[{ at: 'gone.out', quantity: 'low', value: 1 }], 'readings[0].at'],
    [[{ at: 'trim.nothing', quantity: 'low', value: 1 }], 'readings[0].at'],
    [[{ at: 'trim.out', quantity: 'loud', value: 1 }], 'readings[0].quantity'],
    [[{ at: 'trim.out', quantity: 'rms', value: 1 }], 'readings[0].quantity'],
    [[{ at: 'trim.out', quantity: 'low', value: 'x' }], 'readings[0].value'],
    [[{ at: 'trim.out', quantity: 'low', value: 1, plusMinus: -1 }], 'readings[0].plusMinus'],
    [
      [
        { at: 'trim.out', quantity: 'low', value: 1 },
        { at: 'trim.out', quantity: 'low', value: 1, step: 'measure-gone' },
      ],
      'readings[1].step',
    ],
    [
      [{ at: 'trim.out', quantity: 'low', value: 1, knobs: [{ at: 'trim.nothing', value: 1 }] }],
      'readings[0].knobs[0].at',
    ],
    [
      [{ at: 'trim.out', quantity: 'low', value: 1, knobs: [{ at: 'trim.amount', value: 9 }] }],
      'readings[0].knobs[0].value',
    ],
  ])('are refused with their place: %j', (readings, path) => {
    const result = parseReadings(doc(readings), patch);
    expect(result.ok || result.errors[0]!.path).toBe(path);
  });
  it('are refused where they are no readings', () => {
    for (const [json, path] of [
      [[], ''],
      [{ format: 'fenvo.patch', version: 1 }, 'format'],
      [{ format: 'fenvo.readings', version: 2 }, 'version'],
    ] as const) {
      const result = parseReadings(json, patch);
      expect(result.ok || result.errors[0]!.path).toBe(path);
    }
  });
  it('can be taken of what there is', () => {
    expect(quantitiesAt(patch, 'trim.out')).toEqual(['low', 'high', 'mean']);
    expect(quantitiesAt(patch, 'join.in1')).toEqual(['low', 'high', 'mean']);
    expect(quantitiesAt(patch, 'join.in3')).toEqual(['steady']);
    const sound = patchOf({ o: ['oscillator'], c: ['clock'] }, []);
    expect(quantitiesAt(sound, 'o.saw')).toEqual(['rms', 'mean', 'hz']);
    expect(quantitiesAt(sound, 'c.out')).toEqual(['low', 'high', 'percent', 'pulses']);
  });
  it('of a pitch and a gate are counted', () => {
    const sound = patchOf({ o: ['oscillator', { baseHz: 110 }], c: ['clock', { bpm: 120, width: 0.25 }] }, [], {
      duration: 4,
    });
    const graph = buildGraph(sound);
    const at = (s: string, quantity: ReadQuantity, rate: number) =>
      figuresIn(graph, [{ at: s, quantity }], { rate, seconds: 4 })[0]!;
    expect(at('o.saw', 'hz', 48_000)).toBeCloseTo(110, 2);
    expect(at('c.out', 'percent', 1000)).toBeCloseTo(25, 0);
    expect(at('c.out', 'pulses', 1000)).toBeCloseTo(2, 1);
  });
});

describe('a fault as it is written down', () => {
  it('is read where it fits the patch, whatever kind it is', () => {
    const random = stream(3);
    for (const h of hypothesesOf(patch, null)) {
      const fault = h.is === 'fixed' ? h.fault : h.at(random());
      if (fault) expect(parseFault(JSON.parse(JSON.stringify(fault)), patch)).toEqual({ ok: true, value: fault });
    }
  });
  it.each([
    [{ kind: 'flood' }, 'kind'],
    [{ kind: 'dead', module: 'gone' }, 'module'],
    [{ kind: 'cableMissing', cable: { from: 'swell.out', to: 'join.in3' } }, 'cable'],
    [{ kind: 'knob', at: 'trim.amount', value: 7 }, 'value'],
    [{ kind: 'knob', at: 'trim.gone', value: 0 }, 'at'],
    [{ kind: 'jumper', at: 'swell.shape', value: 'round' }, 'value'],
    [{ kind: 'jumper', at: 'trim.amount', value: 1 }, 'at'],
    [{ kind: 'gain', at: 'trim.in', gain: 1 }, 'at'],
  ])('is refused with its place: %j', (json, path) => {
    const result = parseFault(json, patch);
    expect(result.ok || result.errors[0]!.path).toBe(path);
  });
  it('leaves a patch without it as it is', () => {
    expect(faultyGraph(patch, patch.cables, [], []).modules).toEqual(buildGraph(patch).modules);
  });
});
