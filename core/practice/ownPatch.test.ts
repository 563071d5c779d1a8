import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import type { Patch } from '../document/types';
import { patchOf } from '../testing/patch';
import { OwnPatch } from './ownPatch';

function read(json: unknown): Patch {
  const result = parsePatch(json);
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  return result.value;
}

const DEMO = 'demo/patches';
const demo = readdirSync(DEMO).map(
  (name) => [name, read(JSON.parse(readFileSync(`${DEMO}/${name}`, 'utf8')))] as const,
);

const chain = patchOf(
  {
    swell: ['lfo', { rateHz: 0.5 }],
    trim: ['attenuverter', { amount: -0.4 }, { label: 'Trim' }],
    lift: ['offset', { amount: 0.5, volts: 2 }, { label: 'Lift' }],
    fog: ['filter', { cutoffHz: 500 }],
  },
  ['swell.out > trim.in', 'trim.out > lift.in', 'lift.out > fog.cutoff'],
  { duration: 4, sampleRate: 2000 },
);

describe('a patch of one’s own', () => {
  it('is asked about stage by stage, in the order of its path, then in the destination’s unit', () => {
    const own = new OwnPatch(chain);
    expect(own.questions.map((q) => [q.ask.at, q.ask.answer, q.ask.unit])).toEqual([
      ['trim.out', 'range', 'V'],
      ['lift.out', 'range', 'V'],
      ['fog.cutoff', 'unit', 'Hz'],
    ]);
    expect(own.questions[0]!.ask.hidden).toEqual(['trim.out', 'lift.out', 'fog.cutoff']);
    expect(own.questions[2]!.ask.hidden).toEqual(['fog.cutoff']);
  });

  it('is marked by what is predicted of it, and names the mistake', () => {
    const own = new OwnPatch(chain);
    expect(own.mark(0, { low: -2, high: 2 })).toMatchObject({ right: true, score: 1, slip: null });
    expect(own.mark(0, { low: -5, high: 5 })).toMatchObject({ right: false, slip: 'That is without Trim’s gain.' });
    // 2 + 0.5 · ±2
    expect(own.mark(1, { low: 1, high: 3 }).right).toBe(true);
    expect(own.mark(1, { low: 0, high: 2 })).toMatchObject({ slip: 'That adds the offset before the gain.' });
    expect(own.mark(1, { low: -1, high: 1 })).toMatchObject({ slip: 'That forgets Lift’s offset.' });
    // 500 Hz · 2^3
    expect(own.mark(2, { value: 4000 })).toMatchObject({
      right: true,
      truth: { value: expect.closeTo(4000, 3) as number },
    });
    expect(() => own.mark(3, { value: 1 })).toThrow('no question');
  });

  it('tells what a voltage stands at where it does not move, and asks nothing where nothing arrives', () => {
    const held = patchOf({ hand: ['constant', { volts: 3 }], trim: ['attenuator', { amount: 0.5 }], fog: ['filter'] }, [
      'hand.out > trim.in',
      'trim.out > fog.cutoff',
    ]);
    const own = new OwnPatch(held);
    expect(own.questions[0]!.ask).toMatchObject({ at: 'trim.out', answer: 'volts' });
    expect(own.mark(0, { value: 1.5 }).right).toBe(true);
    expect(new OwnPatch(patchOf({ fog: ['filter'] })).questions).toEqual([]);
  });

  it.each(demo)('asks only what it can mark: %s', (_name, patch) => {
    const own = new OwnPatch(patch);
    expect(own.questions.length).toBeGreaterThan(0);
    own.questions.forEach(({ ask }, i) => {
      const { truth } = own.mark(i, ask.answer === 'range' ? { low: 99, high: 100 } : { value: 1e6 });
      expect(own.mark(i, truth)).toMatchObject({ right: true, slip: null });
      expect(ask.hidden).toContain(ask.at);
    });
  });
});
