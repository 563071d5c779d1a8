import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  byDefault,
  choice,
  constant,
  either,
  flag,
  id,
  list,
  map,
  number,
  optional,
  orNone,
  pair,
  record,
  text,
  whole,
} from './fields';
import type { Declared } from './fields';
import { Reader } from './reader';
import { onlyOnce, readField } from './readField';
import { schemaOf } from './schema';

const read = (field: Declared, x: unknown) => {
  const r = new Reader();
  const value = readField(r, field, x, 'here');
  return { value, faults: r.errors.map((e) => `${e.path}: ${e.message}`) };
};

/** Values that a declaration allows. */
function valuesOf(field: Declared): fc.Arbitrary<unknown> {
  switch (field.type) {
    case 'text':
      return field.pattern ? fc.stringMatching(field.pattern.shape) : fc.string({ maxLength: field.longest });
    case 'number': {
      const figure = field.whole
        ? fc.integer({ min: field.min, max: field.max })
        : fc.double({ min: field.min, max: field.max, noNaN: true });
      return field.none ? fc.oneof(figure, fc.constant(null)) : figure;
    }
    case 'choice':
      return fc.constantFrom(...field.options);
    case 'flag':
      return fc.boolean();
    case 'list':
      return fc.array(valuesOf(field.item), { minLength: field.least?.count ?? 0, maxLength: field.most });
    case 'pair':
      return fc.tuple(...field.of.map(valuesOf));
    case 'map':
      return fc.dictionary(fc.stringMatching(/^[a-z]{1,5}$/), valuesOf(field.item), { maxKeys: 4 });
    case 'record': {
      const requiredKeys = field.entries.filter(([, f]) => !f.optional).map(([key]) => key);
      const values = Object.fromEntries(field.entries.map(([key, f]) => [key, valuesOf(f)]));
      return fc.record(values, { requiredKeys });
    }
    case 'either':
      return fc.oneof(...field.of.map(valuesOf));
    default:
      return fc.anything();
  }
}

/** Declarations of any shape, two deep. */
const declared: fc.Arbitrary<Declared> = fc.letrec<{ leaf: Declared; any: Declared }>((tie) => ({
  leaf: fc.oneof(
    fc.nat(20).map((n) => text(n)),
    fc.constant(id),
    fc.tuple(fc.integer({ min: -99, max: 0 }), fc.integer({ min: 1, max: 99 })).map(([a, b]) => number(a, b)),
    fc.tuple(fc.integer({ min: -99, max: 0 }), fc.integer({ min: 1, max: 99 })).map(([a, b]) => orNone(whole(a, b))),
    fc.constantFrom<Declared>(flag, choice(['one', 'two', 3]), constant('only')),
  ),
  any: fc.oneof(
    { depthSize: 'small', maxDepth: 2 },
    tie('leaf'),
    fc
      .tuple(tie('any'), fc.nat(3))
      .map(([item, least]) => list(item, 5, { least: { count: least, words: 'must have more' } })),
    fc.tuple(tie('any'), tie('any')).map(([a, b]) => pair(a, b)),
    tie('any').map((item) => map(item)),
    fc.tuple(tie('any'), tie('any')).map(([a, b]) => record({ a, b: optional(b) })),
  ),
})).any;

describe('a declared field', () => {
  it('is read as it was written, whatever it is declared as', () => {
    const cases = declared.chain((field) => fc.tuple(fc.constant(field), valuesOf(field)));
    fc.assert(
      fc.property(cases, ([field, x]) => {
        const { value, faults } = read(field, x);
        expect(faults).toEqual([]);
        expect(value).toEqual(x);
      }),
      { numRuns: 500 },
    );
  });
  it('never throws, and names the place of what it refuses inside it', () => {
    fc.assert(
      fc.property(declared, fc.anything(), (field, x) => {
        for (const fault of read(field, x).faults) expect(fault).toMatch(/^here([.[].*)?: (must |is |unknown key)/s);
      }),
      { numRuns: 500 },
    );
  });
  it('has one limit in the parser and in the schema', () => {
    fc.assert(
      fc.property(fc.integer({ min: -99, max: 0 }), fc.integer({ min: 1, max: 99 }), (min, max) => {
        const { minimum, maximum } = schemaOf(number(min, max));
        expect([minimum, maximum]).toEqual([min, max]);
        expect(read(number(min, max), max).faults).toEqual([]);
        expect(read(number(min, max), max + 0.5).faults).toEqual([
          `here: must be between ${min} and ${max}, got ${max + 0.5}`,
        ]);
      }),
    );
  });
  it('that is left out has its default, is left out, or is missed', () => {
    const field = record({ a: byDefault(number(0, 1), 0.5), b: optional(flag), c: id });
    expect(read(field, {})).toEqual({ value: { a: 0.5, c: '' }, faults: ['here.c: must be text, got nothing'] });
    expect(schemaOf(field)).toMatchObject({ required: ['c'], properties: { a: { default: 0.5 } } });
  });
  it('of two sorts is told apart by looking', () => {
    const field = either([constant('auto'), number(1, 9)], (x) => (typeof x === 'string' ? 0 : 1));
    expect(read(field, 'auto').faults).toEqual([]);
    expect(read(field, 'other').faults).toEqual(['here: must be one of "auto", got "other"']);
    expect(read(field, 10).faults).toEqual(['here: must be between 1 and 9, got 10']);
  });
  it('is checked as a whole once its parts are sound, a list in any case', () => {
    const twice = onlyOnce(
      (x: { readonly n: number }) => String(x.n),
      '.n',
      (n) => `is used twice: ${n}`,
    );
    const field = list(record({ n: number(0, 9) }), 5, { check: twice });
    expect(read(field, [{ n: 1 }, { n: 'x' }, { n: 1 }]).faults).toEqual([
      'here[1].n: must be a finite number, got "x"',
      'here[2].n: is used twice: 1',
    ]);
    const rising = pair(number(0, 9), number(0, 9), {
      check: (r, [a, b], path) => void (a > b && r.fail(path, 'must rise')),
    });
    expect(read(rising, [5, 4]).faults).toEqual(['here: must rise']);
    expect(read(rising, [5, 'x']).faults).toHaveLength(1);
  });
});
