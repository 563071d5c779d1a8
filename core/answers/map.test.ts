import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { patchMap } from './map';
import type { MapCell, PatchMap } from './map';

const cell = (map: PatchMap, row: string, at: string): MapCell => {
  const column = map.columns.findIndex((c) => c.at === at);
  return map.rows.find((r) => r.id === row)!.cells[column]!;
};

describe('the map of a patch', () => {
  it('tells each source’s own width, in octaves where the unit counts them, and which way it goes', () => {
    const map = patchMap(
      patchOf(
        {
          swell: ['lfo'],
          tide: ['lfo', { lowVolts: 0, highVolts: 1 }],
          trim: ['offset', { amount: 0.4, volts: 2 }],
          turn: ['inverter'],
          sum: ['mixer'],
          left: ['filter', { cutoffHz: 200 }],
          right: ['filter', { cutoffHz: 400 }],
        },
        [
          'swell.out > trim.in',
          'trim.out > sum.in1',
          'tide.out > sum.in2',
          'sum.out > left.cutoff',
          'trim.out > turn.in',
          'turn.out > right.cutoff',
        ],
        { duration: 1 },
      ),
    );
    expect(map.columns.map((c) => [c.at, c.unit])).toEqual([
      ['left.cutoff', 'Hz'],
      ['right.cutoff', 'Hz'],
    ]);
    // ±5 V at 0.4 are 4 V, an octave each, whatever the other source does meanwhile.
    expect(cell(map, 'swell', 'left.cutoff')).toMatchObject({ reach: 'direct', sign: 1 });
    expect(cell(map, 'swell', 'left.cutoff').width).toBeCloseTo(4, 9);
    // The tide rests at 0.5 V: 200 Hz times 2^0.5 to 2^4.5.
    expect(cell(map, 'swell', 'left.cutoff').low).toBeCloseTo(200 * 2 ** 0.5, 6);
    expect(cell(map, 'tide', 'left.cutoff').width).toBeCloseTo(1, 9);
    expect(cell(map, 'swell', 'right.cutoff')).toMatchObject({ sign: -1 });
    expect(cell(map, 'tide', 'right.cutoff').reach).toBe('none');
  });

  it('tells what is multiplied apart from what moves nothing, with the other factor at its mean', () => {
    const map = patchMap(
      patchOf(
        {
          carrier: ['lfo'],
          depth: ['lfo', { lowVolts: 0, highVolts: 5 }],
          amp: ['vca', { response: 0, unityVolts: 5 }],
          tone: ['filter', { cutoffHz: 200 }],
        },
        ['carrier.out > amp.in', 'depth.out > amp.cv', 'amp.out > tone.cutoff'],
        { duration: 1 },
      ),
    );
    // The depth rests at 2.5 V: half of ±5 V.
    expect(cell(map, 'carrier', 'tone.cutoff')).toMatchObject({ reach: 'multiplied', sign: 1 });
    expect(cell(map, 'carrier', 'tone.cutoff').width).toBeCloseTo(5, 6);
    // The carrier rests at 0 V: nothing is left of the depth, but it is no empty cell.
    expect(cell(map, 'depth', 'tone.cutoff')).toMatchObject({ reach: 'multiplied', volts: 0 });
    expect(cell(map, 'depth', 'amp.cv').reach).toBe('direct');
  });

  it('tells what only starts something apart from what moves it', () => {
    const map = patchMap(
      patchOf(
        { beat: ['clock'], strike: ['envelope'], amp: ['vca'] },
        ['beat.out > strike.gate', 'strike.out > amp.cv'],
        { duration: 1 },
      ),
    );
    expect(cell(map, 'beat', 'amp.cv')).toMatchObject({ reach: 'gated', volts: 0 });
    expect(cell(map, 'strike', 'amp.cv').reach).toBe('direct');
  });

  it('counts a fader over its travel, and an automated knob over its points', () => {
    const patch = patchOf(
      {
        pedal: ['constant', { volts: 1, lowVolts: 0, highVolts: 3 }],
        swell: ['lfo', { lowVolts: 0, highVolts: 2 }],
        trim: ['attenuverter', { amount: 0.5 }],
        sum: ['mixer'],
        tone: ['filter', { cutoffHz: 200 }],
      },
      ['swell.out > trim.in', 'trim.out > sum.in1', 'pedal.out > sum.in2', 'sum.out > tone.cutoff'],
      { duration: 1 },
    );
    const points = [
      { t: 0, value: 0 },
      { t: 1, value: -1 },
    ];
    const map = patchMap({
      ...patch,
      hands: [{ at: 'trim.amount', points, interpolation: 'linear', loop: false }],
    });
    expect(cell(map, 'pedal', 'tone.cutoff').width).toBeCloseTo(3, 9);
    // The swell rests at 1 V: from −1 times that, as the knob rises, to nothing.
    expect(cell(map, 'trim.amount', 'tone.cutoff')).toMatchObject({ reach: 'direct', sign: 1 });
    expect(cell(map, 'trim.amount', 'tone.cutoff').width).toBeCloseTo(1, 6);
    // The knob rests at −0.5 meanwhile.
    expect(cell(map, 'swell', 'tone.cutoff').width).toBeCloseTo(1, 6);
  });

  it('takes the mean that a simulation saw', () => {
    const patch = patchOf(
      { a: ['lfo'], b: ['lfo', { lowVolts: 0, highVolts: 5 }], amp: ['vca', { response: 0 }], tone: ['filter'] },
      ['a.out > amp.in', 'b.out > amp.cv', 'amp.out > tone.cutoff'],
    );
    const map = patchMap(patch, { mean: (socket) => (socket === 'b.out' ? 1 : 0) });
    expect(cell(map, 'a', 'tone.cutoff').volts).toBeCloseTo(2, 6);
  });

  it('of a patch that only scales and adds, the widths of a column add up to its whole range', () => {
    const amount = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(amount, fc.double({ min: 0.1, max: 3, noNaN: true })), { minLength: 1, maxLength: 4 }),
        (list) => {
          const modules = Object.fromEntries(
            list.flatMap(([a, v], i) => [
              [`l${i}`, ['lfo', { lowVolts: -v, highVolts: v }]],
              [`t${i}`, ['attenuverter', { amount: a }]],
            ]),
          ) as Parameters<typeof patchOf>[0];
          const cables = list.flatMap((_, i) => [`l${i}.out > t${i}.in`, `t${i}.out > sum.in${i + 1}`]);
          const patch = patchOf(
            { ...modules, sum: ['mixer', { inputs: 4 }], tone: ['filter', { cutoffHz: 640 }] },
            [...cables, 'sum.out > tone.cutoff'],
            { railVolts: 24 },
          );
          const map = patchMap(patch);
          const sum = map.rows.reduce((total, r) => total + r.cells[0]!.volts, 0);
          const all = list.reduce((total, [a, v]) => total + 2 * Math.abs(a) * v, 0);
          expect(sum).toBeCloseTo(all, 6);
          list.forEach(([a], i) => {
            const { sign, volts } = cell(map, `l${i}`, 'tone.cutoff');
            if (volts > 1e-3) expect(sign).toBe(Math.sign(a));
          });
        },
      ),
      { numRuns: 60 },
    );
  });
});
