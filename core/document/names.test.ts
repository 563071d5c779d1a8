import { describe, expect, it } from 'vitest';
import { allKinds } from '../kinds';
import { completeParams } from './params';
import { knobsOf } from '../kinds/knobs';
import { patchOf } from '../testing/patch';
import { knobPlace, placeName, recordingsOf, withNames } from './names';

const { modules } = patchOf({
  amp: ['vca', {}, { label: 'Lamp amp' }],
  lag: ['slew'],
  tape: ['recording', { assetId: 'hull' }],
});

describe('what places are called', () => {
  it('by the names that people gave, or that their kinds have', () => {
    expect(placeName(modules, 'amp.cv')).toBe('Lamp amp CV');
    expect(placeName(modules, 'amp')).toBe('Lamp amp');
    expect(placeName(modules, 'gone.out')).toBe('gone out');
    const two = patchOf({ a: ['vca'], b: ['vca', {}, { label: 'Mine' }], c: ['vca'] }).modules;
    expect(['a', 'b', 'c.out'].map((at) => placeName(two, at))).toEqual(['VCA', 'Mine', 'VCA 2 out']);
    expect(knobPlace(modules, 'amp.cvAmount')).toBe('Lamp amp CV amount');
    expect(knobPlace(modules, 'lag.riseAmount')).toMatch(/ rise CV amount$/);
    expect(knobPlace(modules, 'gone.rateHz')).toBe('gone rateHz');
  });
  it('no knob and no socket of any kind is shown as it is written in a document, where that is two words', () => {
    for (const kind of allKinds)
      for (const { name } of knobsOf(kind, completeParams(kind, {}))) {
        const told = knobPlace([{ id: 'm', kind: kind.name, label: 'M' }], `m.${name}`);
        expect(told).toMatch(/^M \S/);
        expect(told).not.toMatch(/[a-z][A-Z]/);
      }
    for (const kind of allKinds) {
      const params = completeParams(kind, {});
      for (const name of [...kind.inputs(params).map((s) => s.name), ...kind.outputs(params)])
        expect(placeName([{ id: 'm', kind, label: 'M' }], `m.${name}`)).toMatch(/^M (?!.*[a-z][A-Z])\S/);
    }
  });
  it('what an answer names by its id is said in words; all else stays as it is', () => {
    const said = (text: string): string => withNames(modules, text);
    expect(said('Turn amp.cvAmount to 0.5, then lag.rise: amp.cvAmount lacks 1.')).toBe(
      `Turn Lamp amp CV amount to 0.5, then ${knobPlace(modules, 'lag.rise')}: Lamp amp CV amount lacks 1.`,
    );
    for (const text of ['gone.rateHz to 0.5.', 'amp.nothing', 'x.amp.cvAmount', 'a file amp.csv', 'about 2.5 V', ''])
      expect(said(text)).toBe(text);
  });
  it('the traces that a patch plays are those of its recordings', () => {
    const patch = patchOf({ tape: ['recording', { assetId: 'hull' }], none: ['recording'], l: ['lfo'] });
    expect(recordingsOf(patch)).toEqual(['hull']);
  });
});
