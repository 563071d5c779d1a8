import { describe, expect, it } from 'vitest';
import { applyEdits } from '../edit/edit';
import { seatOffers } from '../plan/seats';
import { solve } from '../testing/unhurried';
import { patchOf } from '../testing/patch';
import { rackOf } from '../testing/racks';
import { clockOf, figureOf, positionOf, readTyped, valueAt } from '../units/knob';
import { channelFaults, channelLimits, settledEdits } from './limits';

const rack = rackOf({
  lifts: {
    a: {
      kind: 'offset',
      fixed: { maxAmount: 1 },
      ranges: { volts: [0, 5], amount: [0, 1] },
      knobs: {
        amount: {
          scale: [0, 10],
          points: [
            [0, 0],
            [0.5, 2],
            [1, 10],
          ],
        },
      },
    },
    b: 'mixer',
  },
});
const sweep = (params: object, place?: string) =>
  patchOf(
    {
      slow: ['lfo'],
      trim: ['offset', params as never, place ? { rack: place } : {}],
      tone: ['filter', { cutoffHz: 200 }],
    },
    ['slow.out > trim.in', 'trim.out > tone.cutoff'],
    {},
    { targets: [{ at: 'tone.cutoff', quantity: 'frequency', low: 200, high: 3200 }] },
  );

describe('a stage on a channel', () => {
  it('is held to what the channel allows, and says so where it is set otherwise', () => {
    const patch = sweep({ amount: -0.5, volts: 2 }, 'lifts/a');
    expect(channelLimits(patch, rack).limits.get('trim.volts')).toEqual([0, 5]);
    expect(channelFaults(patch, rack)[0]!.message).toContain('Gain ranges from 0 to 1');
    const mended = applyEdits(patch, settledEdits(patch, rack, 'trim'));
    expect(channelFaults(mended, rack)).toEqual([]);
    expect(mended.modules[1]!.params).toMatchObject({ amount: 0, volts: 2 });
  });

  it('is told where its channel is another kind, not there, or taken', () => {
    const faults = (place: string) => channelFaults(sweep({}, place), rack).map((f) => f.message);
    expect(faults('lifts/b')[0]).toContain('Mixer');
    expect(faults('lifts/z')[0]).toContain('no channel');
    const two = patchOf({ a: ['offset', {}, { rack: 'lifts/a' }], b: ['offset', {}, { rack: 'lifts/a' }] });
    expect(channelFaults(two, rack).map((f) => f.message)).toContain('already used by Scale and offset');
  });

  it('is solved within its channel, clock positions as its panel has them', () => {
    const patch = sweep({}, 'lifts/a');
    const channels = channelLimits(patch, rack);
    const free = ['trim.amount', 'trim.volts'];
    const { solutions } = solve(patch, { free, channels });
    const amount = solutions[0]!.settings.find((s) => s.at === 'trim.amount')!;
    // ±5 V times 0.4 and up by 2 V is 0 … 4 V: 4 on the panel, a quarter of the way from noon to its end.
    expect(amount.value).toBeCloseTo(0.4, 9);
    expect(amount.percent).toBeCloseTo(62.5, 6);
    expect(amount.clock).toBe(clockOf(0.625));
    // A wanted range below the filter's own knob needs a negative offset, which this channel has not.
    const below = solve(
      { ...patch, targets: [{ at: 'tone.cutoff', quantity: 'frequency', low: 50, high: 200 }] },
      { free, channels },
    );
    expect(below.feasible).toBe(false);
    expect(
      solve({ ...patch, targets: [{ at: 'tone.cutoff', quantity: 'frequency', low: 50, high: 200 }] }, { free })
        .feasible,
    ).toBe(true);
  });

  it('is offered the channels that can play it, free ones of its kind first', () => {
    const patch = sweep({ amount: 0.4, volts: 2 });
    const offers = seatOffers(patch, rack, 'trim');
    expect(offers.map((o) => [o.rack, o.standIn === null])).toEqual([
      ['lifts/a', true],
      ['lifts/b', false],
    ]);
    const seated = applyEdits(patch, offers[1]!.edits);
    expect(seated.modules[1]).toMatchObject({ kind: 'mixer', rack: 'lifts/b', params: { gain1: 0.4, biasVolts: 2 } });
    expect(seated.cables).toContainEqual({ from: 'slow.out', to: 'trim.in1' });
  });
});

describe('a panel with figures of its own', () => {
  const travel = { min: 0, max: 1, taper: 'linear', panel: { scale: [0, 10], points: [[0.5, 2]] } } as const;
  it('turns pointer positions into values and back, and reads what is typed off it', () => {
    expect(positionOf(travel, 0.2)).toBeCloseTo(0.5, 12);
    expect(valueAt(travel, 0.75)).toBeCloseTo(0.6, 12);
    for (const p of [0, 0.1, 0.5, 0.9, 1]) expect(positionOf(travel, valueAt(travel, p))).toBeCloseTo(p, 12);
    expect(figureOf(travel, 0.6)).toBeCloseTo(6, 12);
    expect(readTyped('6', travel, '')).toEqual({ ok: true, value: expect.closeTo(0.6, 12) });
    expect(readTyped('12:00', travel, '')).toEqual({ ok: true, value: expect.closeTo(0.2, 12) });
    expect(readTyped('11', travel, '').ok).toBe(false);
  });
});
