import { describe, expect, it } from 'vitest';
import { buildGraph, endsOf, parsePatch, predict, printPatch, placeName } from '@/core';
import type { TargetStanding, Patch, Target } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { histogram, sharesShown } from './spread';
import { choicesAt, missOf, named, standing } from './words';

const patch = patchOf(
  {
    beat: ['clock'],
    row: [
      'sequencer',
      {
        steps: [
          { volts: 1, gate: true, tie: false },
          { volts: 2, gate: true, tie: false },
        ],
      },
    ],
    env: ['envelope'],
    swell: ['lfo'],
    amp: ['vca', {}, { label: 'Bell' }],
    tone: ['filter', {}, { label: 'Lamp' }],
  },
  ['beat.out > row.clock', 'row.cv > env.gate', 'env.out > amp.cv', 'swell.out > tone.cutoff'],
  { duration: 1 },
);
const graph = buildGraph(patch);
const { readings } = predict(patch, { simulation: false });
const at = (socket: string) => choicesAt(graph, socket, readings, (s) => placeName(patch.modules, s));

/** Whether a patch may hold that target. */
const holds = (target: Target): boolean =>
  parsePatch(JSON.parse(JSON.stringify(printPatch({ ...patch, targets: [target] } as Patch)))).ok;

describe('what can be wanted', () => {
  it('is offered where it makes sense, in words', () => {
    const titles = (socket: string): string[] => at(socket).map((c) => c.title);
    expect(titles('amp.cv')).toEqual(
      expect.arrayContaining(['Never closed (−24 to 0 dB)', 'Peak at unity gain', 'Moves opposite to Lamp cutoff CV']),
    );
    expect(titles('tone.cutoff')).toContain('Width in octaves, around a centre');
    expect(titles('tone.cutoff')).not.toContain('Never closed (−24 to 0 dB)');
    expect(titles('env.gate')).toContain('High on chosen steps of Sequencer');
    expect(titles('env.gate')).not.toContain('Exact range');
    expect(titles('swell.out')).toContain('Close to a triangle');
  });
  it('is a target that a document may hold, at every end and gate', () => {
    for (const socket of [...endsOf(graph), 'env.gate', 'swell.out'])
      for (const { target, key } of at(socket)) expect([socket, key, holds(target)]).toEqual([socket, key, true]);
  });
  it('begins with what is there: met at once', () => {
    const range = at('tone.cutoff').find((c) => c.key === 'range')!.target;
    expect(range).toEqual({ basis: 'arrives', at: 'tone.cutoff', quantity: 'frequency', low: 31.3, high: 20000 });
  });
  it('of another kind at a socket has an id of its own, of the same kind takes its place', () => {
    const [first, second] = at('tone.cutoff').map((c) => c.target);
    const one = named([], first!);
    expect(one.id).toBeUndefined();
    const two = named([one], second!);
    expect(two.id).toBe('within');
    expect(named([one, two], second!).id).toBe('within');
    expect(named([one, two], first!).id).toBeUndefined();
  });
});

describe('how it stands', () => {
  const target: Target = { at: 'tone.cutoff', quantity: 'frequency', low: 1, high: 2 };
  const miss = (t: Target, error: number): TargetStanding => ({ target: t, met: false, error });
  it('is told in its own figure', () => {
    expect(standing({ target, met: true, error: 0 }, null)).toBe('Target met');
    expect(standing(miss(target, 1.234), null)).toBe('Off by 1.23\u00a0V');
    expect(standing(miss({ at: 'env.gate', want: 'duty', percent: 50 }, 12), null)).toBe('12.0% off');
    expect(standing(miss({ at: 'amp.cv', want: 'fall', db: 20, seconds: 1 }, 0.25), null)).toBe('0.250\u00a0s off');
    expect(standing(miss({ at: 'swell.out', want: 'like', shape: 'sine' }, 0.1), null)).toBe('10.0% difference');
    expect(standing(miss(target, Infinity), null)).toBe('Can’t be evaluated');
  });
  it('is of the very target, or of the last run where only that tells', () => {
    const other = { ...target };
    expect(missOf([miss(target, 1)], target)?.error).toBe(1);
    expect(missOf([miss(target, 1)], other)).toBeNull();
    const duty: Target = { at: 'env.gate', want: 'duty', percent: 50 };
    expect(missOf([miss(duty, 3)], { ...duty })?.error).toBe(3);
  });
});

describe('the spread', () => {
  it('is shown as bars at the middles of its parts', () => {
    const bars = histogram({ from: 0, to: 4, counts: [1, 2, 3, 4] });
    expect(bars.map((b) => b.at)).toEqual([0.5, 1.5, 2.5, 3.5]);
    expect(bars.reduce((sum, b) => sum + b.count, 0)).toBe(10);
  });
  it('names the knobs that make it, the greatest first, of that end alone', () => {
    const share = (knob: string, low: number, high: number, end = 'tone.cutoff') => ({
      at: end,
      knob,
      low,
      high,
      perDegree: [1, -2] as const,
      unit: 'cents',
    });
    const shares = [
      share('a.x', 0.1, 0.2),
      share('b.x', 0.9, 0.8),
      share('c.x', 0.001, 0),
      share('d.x', 1, 1, 'amp.cv'),
    ];
    expect(sharesShown({ shares }, 'tone.cutoff').map((s) => [s.knob, s.perDegree])).toEqual([
      ['b.x', -2],
      ['a.x', -2],
    ]);
  });
});
