import { describe, expect, it } from 'vitest';
import { planEnds, predict } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { requestFor, sourcesOf } from './severalEnds';
import { stagesText } from '@/ui/parts/stagesText';
import { rackOf } from '@/core/testing/racks';

const patch = patchOf(
  {
    tide: ['lfo', { lowVolts: -5, highVolts: 5 }],
    turn: ['inverter'],
    tone: ['filter', {}],
    amp: ['vca', {}],
  },
  ['tide.out > turn.in', 'turn.out > tone.cutoff'],
);

describe('several ends from one source', () => {
  it('asks for each in its direction, without the stages that lead there now', () => {
    const request = requestFor(patch, 'tide.out', [
      { to: 'tone.cutoff', from: 2000, until: 500 },
      { to: 'amp.cv', from: -20, until: 0 },
    ]);
    expect(request.patch.modules.map((m) => m.id)).toEqual(['tide', 'tone', 'amp']);
    expect(request.ends).toEqual([
      { to: 'tone.cutoff', target: { quantity: 'frequency', low: 500, high: 2000 }, direction: 'against' },
      { to: 'amp.cv', target: { quantity: 'gain', low: -20, high: 0 }, direction: 'with' },
    ]);
  });

  it('and what is planned reads as asked', () => {
    const plan = planEnds(requestFor(patch, 'tide.out', [{ to: 'tone.cutoff', from: 2000, until: 500 }]));
    expect(plan.met).toBe(true);
    const [reading] = predict(plan.patch, { simulation: false }).readings.filter((r) => r.at === 'tone.cutoff');
    expect([reading!.low, reading!.high]).toEqual([expect.closeTo(500, 0), expect.closeTo(2000, 0)]);
  });

  it('names sources first, and chains by their channels', () => {
    expect(sourcesOf(patch).map(([socket]) => socket)[0]).toBe('tide.out');
    expect(sourcesOf(patch).map(([socket]) => socket)).not.toContain('tone.out');
    expect(stagesText([], null)).toContain('own knobs');
    const rack = rackOf({ lift: { a: 'offset', b: 'offset' } });
    const stage = { kind: 'offset', params: {}, rack: 'lift/a', standIn: null };
    expect(stagesText([stage], rack)).toMatch(/\(.*, channel A\)$/);
  });
});
