import { describe, expect, it } from 'vitest';
import { patchOf } from '../testing/patch';
import { applyEdits } from '../edit/edit';
import { inverseOf } from '../edit/between';
import { differencesOf } from '../edit/differences';
import { withKnownQuantities } from './oldTargets';
import { parsePatch } from './parse';
import { printPatch } from './print';
import { patchSchema } from './schema';
import { targetText } from './targetText';
import type { Target } from './types';
import { WANTS } from './targets';

const targets: readonly Target[] = [
  { at: 'tone.cutoff', quantity: 'frequency', low: 200, high: 3200 },
  { at: 'amp.cv', id: 'shut', want: 'range', quantity: 'gain', low: 'silent', high: null, weight: 2 },
  { at: 'tone.cutoff', id: 'inside', want: 'within', quantity: 'frequency', low: null, high: 5000 },
  { at: 'tone.cutoff', id: 'wide', want: 'span', quantity: 'frequency', span: 4, centre: 400 },
  { at: 'tone.cutoff', id: 'mean', want: 'mean', quantity: 'frequency', value: 500 },
  { at: 'tone.cutoff', id: 'against', want: 'opposite', to: 'amp.cv' },
  { at: 'amp.cv', id: 'along', want: 'same', to: 'tone.cutoff' },
  { at: 'env.gate', want: 'steps', of: 'row', steps: [0, 2] },
  { at: 'env.gate', id: 'duty', want: 'duty', percent: 25 },
  { at: 'amp.cv', id: 'fall', want: 'fall', db: 20, seconds: 0.3 },
  { at: 'swell.out', want: 'like', shape: 'triangle', least: 1 },
  { at: 'amp.out', want: 'dip', db: 12 },
  { at: 'swell.out', id: 'arrive', want: 'arrive', seconds: 0.1 },
];

const parts = {
  swell: ['lfo'],
  row: ['sequencer'],
  env: ['envelope'],
  amp: ['vca'],
  tone: ['filter'],
} as const;

const patchWith = (list: readonly unknown[]) =>
  parsePatch({
    format: 'fenvo.patch',
    version: 1,
    modules: Object.entries(parts).map(([id, [kind]]) => ({ id, kind })),
    targets: list,
  });

describe('targets of a document', () => {
  it('of every want are read and printed as they are', () => {
    const result = patchWith(targets);
    expect(result.ok && result.value.targets).toEqual(targets);
    expect(result.ok && printPatch(result.value).targets).toEqual(targets);
    expect(new Set(targets.map((t) => t.want ?? 'range'))).toEqual(new Set(Object.keys(WANTS)));
  });
  it('without `want` are ranges', () => {
    const { targets: read } = patchOf({ tone: ['filter'] }, [], {}, { targets: [targets[0]] });
    expect(read).toEqual([targets[0]]);
  });
  it('stand in the schema, each by its word', () => {
    const { properties } = patchSchema() as unknown as {
      properties: { targets: { items: { oneOf: { properties: { want: { const: string } } }[] } } };
    };
    expect(properties.targets.items.oneOf.map((x) => x.properties.want.const)).toEqual(Object.keys(WANTS));
  });
  it.each([
    [{ at: 'tone.cutoff', quantity: 'frequency', low: 5, high: 3 }, 'targets[0].low', /must not be above high/],
    [{ at: 'tone.cutoff', quantity: 'frequency', low: null, high: null }, 'targets[0].low', /would have no limits/],
    [{ at: 'tone.cutoff', want: 'wish' }, 'targets[0].want', /must be one of "range"/],
    [
      { at: 'tone.cutoff', want: 'span', quantity: 'frequency', span: -1, centre: null },
      'targets[0].span',
      /between 0/,
    ],
    [{ at: 'tone.cutoff', want: 'opposite', to: 'amp.none' }, 'targets[0].to', /not a socket of amp/],
    [{ at: 'env.gate', want: 'steps', of: 'nobody', steps: [0] }, 'targets[0].of', /there is no module/],
    [{ at: 'env.gate', want: 'steps', of: 'row', steps: [64] }, 'targets[0].steps[0]', /between 0 and 63/],
    [{ at: 'env.gate', want: 'steps', of: 'row' }, 'targets[0].steps', /got nothing/],
    [{ at: 'env.gate', want: 'duty', percent: 101 }, 'targets[0].percent', /between 0 and 100/],
    [{ at: 'swell.out', want: 'like', shape: 'blob' }, 'targets[0].shape', /must be one of/],
    [
      { at: 'tone.cutoff', quantity: 'frequency', low: 1, high: 2, id: 'No' },
      'targets[0].id',
      /must be a small letter/,
    ],
    [
      { at: 'tone.cutoff', quantity: 'frequency', low: 1, high: 2, weight: 101 },
      'targets[0].weight',
      /between 0 and 100/,
    ],
    [{ at: 'tone.cutoff', want: 'mean', quantity: 'frequency', value: 1, low: 2 }, 'targets[0].low', /unknown key/],
  ])('%j is refused at its place', (target, path, message) => {
    const result = patchWith([target]);
    expect(result.ok).toBe(false);
    const found = result.ok ? undefined : result.errors.find((e) => e.path === path);
    expect(found?.message).toMatch(message);
  });
  it('are told in words, and told apart at one socket by differences and edits', () => {
    const result = patchWith(targets);
    if (!result.ok) throw new Error('refused');
    const patch = result.value;
    const said = targets.map((t) => targetText(patch.modules, t));
    expect(said).toContain('4 octaves wide, centred on 400\u00a0Hz');
    expect(said).toContain('high on steps 1, 3 of Sequencer');
    const without = { ...patch, targets: patch.targets.filter((t) => t.id !== 'mean') };
    const differences = differencesOf(without, patch);
    expect(differences.map((d) => d.what)).toEqual(['Target at Filter (VCF) cutoff CV']);
    const taken = applyEdits(without, differences[0]!.edits);
    expect(new Set(taken.targets)).toEqual(new Set(patch.targets));
    const edit = { do: 'target', at: 'tone.cutoff', id: 'mean', target: null } as const;
    expect(applyEdits(applyEdits(patch, [edit]), inverseOf(patch, [edit])).targets).toEqual(patch.targets);
  });
  it('go with what they hang on', () => {
    const result = patchWith(targets);
    if (!result.ok) throw new Error('refused');
    const left = applyEdits(result.value, [
      { do: 'remove', id: 'row' },
      { do: 'remove', id: 'amp' },
    ]).targets;
    expect(left.every((t) => t.want !== 'steps' && t.at !== 'amp.cv' && !('to' in t))).toBe(true);
    expect(left).toHaveLength(7);
  });
});

describe('the quantity of a target', () => {
  const read = (kind: object, target: object) =>
    parsePatch({ format: 'fenvo.patch', version: 1, modules: [{ id: 'tone', ...kind }], targets: [target] });
  const fault = (kind: object, target: object): string => {
    const result = read(kind, target);
    return result.ok ? '' : `${result.errors[0]?.path}: ${result.errors[0]?.message}`;
  };
  const range = { low: 1, high: 2 };
  it('is one that its socket has, and refused with its place otherwise', () => {
    expect(fault({ kind: 'filter' }, { at: 'tone.cutoff', quantity: 'seconds', ...range })).toBe(
      'targets[0].quantity: tone.cutoff has frequency or volts, got seconds',
    );
    expect(fault({ kind: 'filter' }, { at: 'tone.in', quantity: 'frequency', ...range })).toBe(
      'targets[0].quantity: tone.in has volts, got frequency',
    );
    for (const quantity of ['frequency', 'volts'])
      expect(fault({ kind: 'filter' }, { at: 'tone.cutoff2', quantity, ...range })).toBe('');
  });
  it('of a parameter is its value, or the unit that a person gave it', () => {
    const knob = { kind: 'parameter', params: { unit: 'BPM' } };
    for (const quantity of ['value', 'BPM', 'volts'])
      expect(fault(knob, { at: 'tone.cv', quantity, ...range })).toBe('');
    expect(fault(knob, { at: 'tone.cv', quantity: 'frequency', ...range })).toMatch(
      /value, BPM or volts, got frequency/,
    );
  });
  it('follows a parameter’s new unit, and goes where another kind has none such', () => {
    const made = read({ kind: 'parameter', params: { unit: 'BPM' } }, { at: 'tone.cv', quantity: 'BPM', ...range });
    if (!made.ok) throw new Error('not read');
    const renamed = applyEdits(made.value, [{ do: 'set', module: 'tone', param: 'unit', value: 'ms' }]);
    expect(renamed.targets).toEqual([{ at: 'tone.cv', quantity: 'value', ...range }]);
    expect(parsePatch(printPatch(renamed)).ok).toBe(true);
    const replaced = applyEdits(made.value, [{ do: 'replace', module: { id: 'tone', kind: 'vca' } }]);
    expect(parsePatch(printPatch(replaced)).ok).toBe(true);
  });
  it('that a stored document calls by any word is what that was read as', () => {
    const stored = {
      modules: [{ id: 'tone', kind: 'filter' }],
      targets: [
        { at: 'tone.cutoff', quantity: 'seconds', ...range },
        { at: 'tone.in', quantity: 'loudness', ...range },
        { at: 'tone.cutoff', quantity: 'volts', id: 'b', ...range },
      ],
    };
    const mended = withKnownQuantities({ ...stored, variants: [{ name: 'a', ...stored }] });
    const words = (x: { targets: { quantity: string }[] }) => x.targets.map((t) => t.quantity);
    expect(words(mended)).toEqual(['frequency', 'volts', 'volts']);
    expect(words(mended.variants[0]!)).toEqual(['frequency', 'volts', 'volts']);
    expect(withKnownQuantities(mended)).toBe(mended);
  });
});
