import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { sheetOf } from './sheet';
import { ticksFromCode, ticksToCode } from './tickCode';

const sheet = sheetOf(patchOf({ slow: ['lfo'], trim: ['offset'] }, ['slow.out > trim.in']));

describe('ticks as a code', () => {
  it('come back as they were, with readings of any text', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ done: fc.boolean(), read: fc.option(fc.string({ minLength: 1, unit: 'grapheme' })) })),
        fc.integer({ min: 0, max: 4e12 }),
        (states, at) => {
          const ticks = sheet.steps.flatMap((s, i) => {
            const state = states[i];
            if (!state || (!state.done && state.read === null)) return [];
            return [{ step: s.id, done: state.done, ...(state.read !== null && { read: state.read }) }];
          });
          expect(ticksFromCode(sheet, ticksToCode(sheet, ticks, at))).toEqual({ ticks, at });
        },
      ),
    );
  });

  it('of another sheet, another version or another thing are refused', () => {
    const other = sheetOf(patchOf({ trim: ['offset'] }));
    const code = ticksToCode(other, [], 1);
    expect(() => ticksFromCode(sheet, code)).toThrow('another sheet');
    expect(() => ticksFromCode(sheet, 'https://example.org')).toThrow('not a ticks code');
    expect(() => ticksFromCode(other, code.replace(' 1 ', ' 2 '))).toThrow('version 2');
    expect(() => ticksFromCode(other, code.replace(/ [01]+ $/, ' 012 '))).toThrow('another sheet');
  });
});
