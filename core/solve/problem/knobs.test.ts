import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { allKinds } from '../../kinds';
import { completeParams } from '../../document/params';
import { buildGraph } from '../../graph/graph';
import { patchOf } from '../../testing/patch';
import { positionOf } from '../../units/knob';
import { canRead, driveFor } from '../../answers/drive';
import { freeFaults, freeKnobs, settingAt, valueBeyond } from './knobs';
import { combinations } from '../search/ranking';

describe('positions', () => {
  it('and values of a knob are each other’s inverse, beyond the ends of a linear one too', () => {
    const span = { min: -4, max: 4, taper: 'linear' } as const;
    fc.assert(
      fc.property(fc.double({ min: -3, max: 4, noNaN: true }), (p) => {
        expect(positionOf(span, valueBeyond(span, p))).toBeCloseTo(p, 9);
      }),
    );
    const log = { min: 16, max: 20_000, taper: 'log' } as const;
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), (p) => {
        expect(positionOf(log, valueBeyond(log, p))).toBeCloseTo(p, 9);
      }),
    );
  });
  it('are kept within the travel, without the last digits’ rounding', () => {
    const span = { min: -1, max: 1, taper: 'linear' } as const;
    expect(settingAt(span, 0.7)).toBe(0.4);
    expect(settingAt(span, 0.5 + 1e-16)).toBe(0);
    expect(settingAt(span, 1.2)).toBe(1);
  });
});

describe('free knobs', () => {
  const patch = patchOf(
    {
      swell: ['lfo'],
      trim: ['offset', {}, { locked: ['volts'] }],
      beside: ['attenuverter'],
      tone: ['filter'],
    },
    ['swell.out > trim.in', 'trim.out > tone.cutoff'],
  );
  const graph = buildGraph(patch);
  const target = { at: 'tone.cutoff', quantity: 'volts', low: 0, high: 1 };
  const names = (options = {}) => freeKnobs(graph, [target], options).map((k) => k.name);

  it('are those of stages and ends behind the target that are not locked', () => {
    expect(names()).toEqual([
      'trim.amount',
      'tone.cutoffHz',
      'tone.cutoffAmount',
      'tone.cutoff2Amount',
      'tone.resonance',
    ]);
  });
  it('are exactly those named, of sources too; the one in the hand stays', () => {
    expect(names({ free: ['trim.amount', 'swell.phase'] })).toEqual(['swell.phase', 'trim.amount']);
    expect(names({ held: ['trim.amount'] })).not.toContain('trim.amount');
  });
  it('that are named and are none are told', () => {
    expect(freeFaults(graph, ['trim.amount'])).toEqual([]);
    expect(freeFaults(graph, ['trim.maxAmount'])[0]).toMatch(/is not a knob of trim; expected one of amount, volts/);
    expect(freeFaults(graph, ['nobody.amount'])[0]).toMatch(/there is no module nobody/);
    expect(freeFaults(graph, ['trim.volts'])[0]).toMatch(/is locked/);
  });
});

describe('a figure’s drive', () => {
  it('gives that figure back, of every destination', () => {
    for (const kind of allKinds) {
      const params = completeParams(kind);
      for (const end of kind.ends ?? []) {
        const window = end.window(params);
        if (!window || end.quantity === 'note') continue;
        const [from, to] = [Math.max(0, window[0], -8), Math.min(window[1], 8)];
        for (const share of [0.2, 0.5, 0.9]) {
          const figure = end.value(params, from + share * (to - from));
          if (figure === null) continue;
          expect(end.value(params, driveFor(end, params, figure))).toBeCloseTo(figure, 6);
          expect(canRead(end, params, figure)).toBe(true);
        }
      }
    }
  });
  it('that cannot be read is known', () => {
    const filter = allKinds.find((k) => k.name === 'filter')!;
    expect(canRead(filter.ends![0]!, completeParams(filter), 30_000)).toBe(false);
  });
});

it('combinations are all, in order', () => {
  expect(combinations(4, 2)).toEqual([
    [0, 1],
    [0, 2],
    [0, 3],
    [1, 2],
    [1, 3],
    [2, 3],
  ]);
  expect(combinations(3, 0)).toEqual([[]]);
  expect(combinations(2, 3)).toEqual([]);
});
