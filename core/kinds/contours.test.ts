import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { predict } from '../answers/predict';
import { buildGraph } from '../graph/graph';
import { simulateGraph } from '../simulate/simulate';
import { patchOf } from '../testing/patch';

const RATE = 1000;
type Parts = Parameters<typeof patchOf>[0];

function run(parts: object, cables: readonly string[], ...sockets: string[]): Float64Array[] {
  const patch = patchOf(parts as Parts, cables, { duration: 1, sampleRate: RATE });
  const { traces } = simulateGraph(buildGraph(patch), { traces: sockets });
  return sockets.map((s) => traces.get(s)!);
}

/** High from 0.1 s to 0.5 s, once. */
const key = (volts: number) =>
  [
    'gesture',
    {
      points: [
        { t: 0, volts: 0 },
        { t: 0.1, volts },
        { t: 0.5, volts: 0 },
      ],
      interpolation: 'hold',
    },
  ] as const;
const straight = (more: object) =>
  [
    'envelope',
    { attack: 0.1, decay: 0.1, release: 0.2, sustain: 0.5, attackCurve: 0, decayCurve: 0, ...more },
  ] as const;

describe('an envelope', () => {
  it('says while it falls: from the end of its attack to its end', () => {
    const [falling] = run({ k: key(5), e: straight({}) }, ['k.out > e.gate'], 'e.falling');
    expect([150, 199, 201, 400, 600, 699, 701].map((k) => falling![k])).toEqual([0, 0, 5, 5, 5, 5, 0]);
  });
  it('tracks its level at every sample, from its rest', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -4, max: 0, noNaN: true }),
        fc.double({ min: 1, max: 8, noNaN: true }),
        (restVolts, top) => {
          const parts = {
            k: key(5),
            l: ['lfo', { rateHz: 3, lowVolts: 0, highVolts: top }],
            e: straight({ restVolts, tracksLevel: true }),
            u: straight({ restVolts: 0, peakVolts: 1 }),
          };
          const cables = ['k.out > e.gate', 'k.out > u.gate', 'l.out > e.level'];
          const [out, level, unit] = run(parts, cables, 'e.out', 'l.out', 'u.out');
          out!.forEach((v, k) => expect(v).toBeCloseTo(restVolts + unit![k]! * (level![k]! - restVolts), 9));
          const patch = patchOf(parts as never, cables, { duration: 1, sampleRate: RATE });
          const { bound } = predict(patch, { cures: false }).outputs['e.out']!;
          expect(bound).toEqual([restVolts, expect.closeTo(top, 9)]);
        },
      ),
      { numRuns: 10 },
    );
  });
  it('tracks the gate’s last voltage while it was high where its level is unpatched', () => {
    const [out] = run({ k: key(3), e: straight({ tracksLevel: true }) }, ['k.out > e.gate'], 'e.out');
    // The peak is the gate's 3 V; the release starts at half of it, though the gate is at 0 V.
    expect(out![200]).toBeCloseTo(3, 9);
    expect(out![600]).toBeCloseTo(0.75, 9);
  });
  it('does not follow and track its level at once', () => {
    const e = { id: 'e', kind: 'envelope', params: { followsLevel: true, tracksLevel: true } };
    const read = parsePatch({ format: 'fenvo.patch', version: 1, name: 'x', modules: [e] });
    expect(read.ok ? [] : read.errors.map((x) => x.path)).toEqual(['modules[0].params.tracksLevel']);
  });
});

describe('an LFO’s single cycle', () => {
  const single = (more: object, ...sockets: string[]) =>
    run(
      { k: key(5), l: ['lfo', { mode: 'once', shape: 'rampUp', rateHz: 4, lowVolts: 0, highVolts: 4, ...more }] },
      ['k.out > l.reset'],
      ...sockets,
    );
  it('rests at its start, or once it ran at its end', () => {
    const at = (x: Float64Array): number[] => [50, 225, 400, 900].map((k) => x[k]!);
    expect(at(single({}, 'l.out')[0]!)).toEqual([0, 2, 0, 0].map((v) => expect.closeTo(v, 6)));
    expect(at(single({ rest: 'end' }, 'l.out')[0]!)).toEqual([0, 2, 4, 4].map((v) => expect.closeTo(v, 6)));
  });
  it('at its end with its quadrature a quarter on', () => {
    const [out, quadrature] = single({ rest: 'end', phase: 0.5 }, 'l.out', 'l.quadrature');
    expect([out![50], out![900]]).toEqual([2, 2].map((v) => expect.closeTo(v, 6)));
    expect([quadrature![50], quadrature![900]]).toEqual([3, 3].map((v) => expect.closeTo(v, 6)));
  });
});

describe('a clock’s rate', () => {
  const rises = (x: Float64Array): number =>
    x.reduce((n, v, i) => n + (v > 2 && (i === 0 || x[i - 1]! <= 2) ? 1 : 0), 0);
  it('doubles with each volt', () => {
    for (const [volts, pulses] of [
      [-1, 4],
      [0, 8],
      [1, 16],
      [2, 32],
    ] as const) {
      const [out] = run({ v: ['constant', { volts }], c: ['clock', { bpm: 480 }] }, ['v.out > c.rate'], 'c.out');
      expect(rises(out!)).toBe(pulses);
    }
  });
  it('follows as it moves: as many pulses as its rate adds up to', () => {
    // From 8 pulses a second to 16 in a second, even in volts: 8/ln 2 in all.
    const v = [
      'gesture',
      {
        points: [
          { t: 0, volts: 0 },
          { t: 1, volts: 1 },
        ],
      },
    ];
    const [out] = run({ v, c: ['clock', { bpm: 480 }] }, ['v.out > c.rate'], 'c.out');
    expect(rises(out!)).toBe(Math.floor(8 / Math.LN2) + 1);
  });
  it('reads as pulses a second, and repeats where its voltage stands', () => {
    const patch = patchOf({ v: ['constant', { volts: 1 }], c: ['clock', { bpm: 120 }] }, ['v.out > c.rate'], {
      duration: 2,
    });
    const { readings, outputs } = predict(patch, { cures: false });
    expect(readings.find((r) => r.at === 'c.rate')).toMatchObject({ quantity: 'rate', low: 4, high: 4 });
    expect(outputs['c.out']!.repeatsEvery).toBeCloseTo(0.25, 9);
  });
});
