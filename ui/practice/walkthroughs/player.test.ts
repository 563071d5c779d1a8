import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nextState, readingTime, startOf } from './player';
import type { PlayerEvent, PlayerState } from './player';

const question = { text: 'How low?', at: 'amp.cv', figure: 'low' as const };
const steps = [{}, { question }, {}];
const after = (...events: PlayerEvent[]): PlayerState =>
  events.reduce((state, event) => nextState(steps, state, event), startOf(steps));

describe('a walkthrough', () => {
  it('moves, rests, and waits at a question until it is answered', () => {
    expect(after()).toMatchObject({ at: 0, phase: 'moving' });
    expect(after({ is: 'arrived' })).toMatchObject({ at: 0, phase: 'resting' });
    expect(after({ is: 'arrived' }, { is: 'next' })).toMatchObject({ at: 1, phase: 'asking' });
    expect(after({ is: 'next' }, { is: 'arrived' })).toMatchObject({ at: 1, phase: 'asking' });
    expect(after({ is: 'next' }, { is: 'answer', value: 2 })).toMatchObject({ at: 1, phase: 'moving', answer: 2 });
    expect(after({ is: 'next' }, { is: 'show' })).toMatchObject({ at: 1, phase: 'moving', answer: null });
  });

  it('goes back and ahead at once, without a movement', () => {
    expect(after({ is: 'goTo', at: 2 })).toMatchObject({ at: 2, phase: 'resting' });
    expect(after({ is: 'goTo', at: 2 }, { is: 'back' })).toMatchObject({ at: 1, phase: 'resting' });
    expect(after({ is: 'goTo', at: 3 }).at).toBe(0);
  });

  it('stands still in the middle of a movement, and goes on from there', () => {
    const paused = after({ is: 'play' }, { is: 'pause' });
    expect(paused).toMatchObject({ phase: 'moving', runs: false, paused: true });
    expect(nextState(steps, paused, { is: 'play' })).toMatchObject({ phase: 'moving', runs: true, paused: false });
  });

  it('ends by itself at the last step, and plays from the start again', () => {
    const end = after({ is: 'play' }, { is: 'goTo', at: 2 }, { is: 'next' });
    expect(end).toMatchObject({ at: 2, runs: false });
    expect(nextState(steps, end, { is: 'play' })).toMatchObject({ at: 0, runs: true, phase: 'moving' });
  });

  it('stays within its steps, whatever is pressed', () => {
    const event = fc.oneof(
      fc.constantFrom<PlayerEvent['is']>('next', 'back', 'show', 'arrived', 'play', 'pause').map((is) => ({ is })),
      fc.integer({ min: -2, max: 5 }).map((at) => ({ is: 'goTo' as const, at })),
      fc.double({ noNaN: true }).map((value) => ({ is: 'answer' as const, value })),
    ) as fc.Arbitrary<PlayerEvent>;
    fc.assert(
      fc.property(fc.array(event), (events) => {
        const { at, phase } = after(...events);
        expect(steps[at]).toBeDefined();
        if (phase === 'asking') expect(steps[at]?.question).toBeDefined();
      }),
    );
  });

  it('gives a longer sentence more time', () => {
    expect(readingTime('a'.repeat(200))).toBeGreaterThan(2 * readingTime('a'));
  });
});
