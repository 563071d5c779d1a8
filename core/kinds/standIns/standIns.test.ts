import { describe, expect, it } from 'vitest';
import { applyEdits } from '../../edit/edit';
import { assignRack } from '../../plan/assign';
import { simulate } from '../../simulate/simulate';
import { patchOf } from '../../testing/patch';
import { rackOf } from '../../testing/racks';
import { standIns } from '.';
import type { ParamValues } from '../params';

/** A patch whose module `x` needs a channel that only another kind can give. */
interface Case {
  readonly params: ParamValues;
  /** What comes in, by socket: a slow wave between two voltages, or a gate. */
  readonly fed?: Readonly<Record<string, readonly [string, ParamValues]>>;
  readonly channel?: Readonly<Record<string, unknown>>;
  readonly out?: string;
  /** How far it may be off where something differs, volts. */
  readonly off?: number;
  /** Compared from then on, seconds: a lag starts at its first input. */
  readonly after?: number;
}

const wave = (lowVolts: number, highVolts: number): readonly [string, ParamValues] => [
  'lfo',
  { shape: 'triangle', rateHz: 3, lowVolts, highVolts },
];
const gate = ['clock', { bpm: 120, highVolts: 8 }] as const;
const both = { in: wave(-5, 5) };
const product = { in: wave(-4, 4), cv: ['lfo', { shape: 'sine', rateHz: 0.7, lowVolts: 0, highVolts: 5 }] } as const;
const ring = { a: wave(-4, 4), b: ['lfo', { shape: 'sine', rateHz: 0.7 }] } as const;

const cases: Readonly<Record<string, readonly Case[]>> = {
  'attenuator by attenuverter': [{ params: { amount: 0.3 }, fed: both }],
  'attenuator by offset': [{ params: { amount: 0.3 }, fed: both }],
  'attenuator by mixer': [
    { params: { amount: 0.3 }, fed: both },
    { params: { amount: 0.3 }, fed: both, channel: { fixed: { inverting: true } } },
    { params: { amount: 0.3 }, fed: both, channel: { fixed: { law: 'average', inputs: 2 } } },
  ],
  'attenuator by polarizer': [{ params: { amount: 0.3 }, fed: both }],
  'attenuverter by offset': [{ params: { amount: -0.7 }, fed: both }],
  'attenuverter by polarizer': [{ params: { amount: -0.7 }, fed: both }],
  'attenuverter by mixer': [{ params: { amount: -0.7 }, fed: both, channel: { fixed: { bipolar: true } } }],
  'offset by mixer': [
    { params: { amount: 0.4, volts: -2.5 }, fed: both },
    { params: { amount: 0.4, volts: 2, order: 'shiftThenScale' }, fed: both },
    { params: { amount: 0.4, volts: 2 }, fed: both, channel: { fixed: { inverting: true } } },
  ],
  'inverter by attenuverter': [{ params: {}, fed: both }],
  'inverter by offset': [{ params: {}, fed: both }],
  'inverter by mixer': [
    { params: {}, fed: both },
    { params: {}, fed: both, channel: { fixed: { inverting: true, bipolar: false } } },
  ],
  'constant by offset': [
    { params: { volts: 2.25 } },
    { params: { volts: 2.25 }, channel: { fixed: { order: 'shiftThenScale' } } },
    { params: { volts: -2.25 }, channel: { normals: [{ to: 'in', volts: 5 }] } },
  ],
  'constant by attenuverter': [
    { params: { volts: 2.25 }, channel: { normals: [{ to: 'in', volts: 5 }] } },
    { params: { volts: -1 }, channel: { fixed: { normalVolts: 5 } } },
  ],
  'vca by ringMod': [{ params: {}, fed: product }],
  'vca by polarizer': [{ params: {}, fed: product }],
  'vca by lowPassGate': [{ params: {}, fed: product, off: 2 }],
  'ringMod by vca': [{ params: { coupling: 'dc' }, fed: ring, channel: { fixed: { quadrants: 4 } } }],
  'ringMod by polarizer': [{ params: { coupling: 'dc', scaleVolts: 6 }, fed: ring }],
  'clock by lfo': [
    { params: { bpm: 120 } },
    { params: { bpm: 90, beats: 0.5, width: 0.2, lowVolts: -1, highVolts: 8 } },
  ],
  'envelope by slew': [
    {
      params: { mode: 'ar', attack: 0.1, release: 0.15, attackCurve: 0, decayCurve: 0 },
      fed: { gate },
      off: 0.02,
      after: 0.45,
    },
  ],
  'comparator by follower': [
    {
      params: { thresholdVolts: 2 },
      fed: { in: ['lfo', { shape: 'pulse', rateHz: 2, lowVolts: 0, highVolts: 5 }] },
      off: 5,
    },
  ],
};

describe('stand-ins', () => {
  for (const { wanted, by, differs } of standIns) {
    const key = `${wanted} by ${by}`;
    it(`${key}: ${differs ? 'what differs is small, or said' : 'the same output to 1e-9 V'}`, () => {
      expect(cases[key]).toBeDefined();
      for (const { params, fed = {}, channel = {}, off = 1e-9, after: start = 0 } of cases[key] ?? []) {
        const sources = Object.entries(fed).map(([socket, doc]) => [`from_${socket}`, doc] as const);
        const patch = patchOf(
          { ...Object.fromEntries(sources), x: [wanted, params], end: ['parameter'] },
          [...Object.keys(fed).map((socket) => `from_${socket}.out > x.${socket}`), `x.out > end.cv`],
          { duration: 2, sampleRate: 8000, loading: 'ideal' },
          { probes: [{ at: 'end.cv' }] },
        );
        const own = Object.fromEntries(sources.map(([id, [kind]]) => [id, kind]));
        const rack = rackOf({ m: { y: { kind: by, ...channel }, ...own } });
        const { assigned, short } = assignRack(patch, rack);
        expect({ key, short }).toEqual({ key, short: [] });
        const seat = assigned.find((a) => a.module === 'x')!;
        expect(seat.standIn).toBeTruthy();
        const after = applyEdits(
          patch,
          assigned.flatMap((a) => a.edits),
        );
        expect(after.modules.find((m) => m.id === 'x')!.kind).toBe(by);
        const [before, now] = [patch, after].map((p) => simulate(p, { traces: ['end.cv'] }).traces.get('end.cv')!);
        let most = 0;
        before!.forEach((v, i) => (most = i < start * 8000 ? 0 : Math.max(most, Math.abs(v - now![i]!))));
        expect({ key, most: most <= off ? 'within' : most }).toEqual({ key, most: 'within' });
        if (off <= 1e-9) expect(differs).toBeUndefined();
      }
    });
  }

  it('does not stand in where it would not be the same', () => {
    const rack = rackOf({ m: { y: 'ringMod' } });
    const short = (params: ParamValues, fed: readonly [string, ParamValues]) =>
      assignRack(
        patchOf({ s: fed, a: ['lfo'], x: ['vca', params] }, ['a.out > x.in', 's.out > x.cv']),
        rack,
      ).short.some((s) => s.module === 'x');
    expect(short({}, wave(0, 5))).toBe(false);
    expect(short({}, wave(-1, 5))).toBe(true);
    expect(short({ response: 1 }, wave(0, 5))).toBe(true);
    expect(short({ bias: 1 }, wave(0, 5))).toBe(true);
    const track = patchOf({ x: ['sampleHold', { mode: 'track' }] });
    expect(assignRack(track, rack).short[0]!.covers).toEqual(['sampleHold']);
  });
});
