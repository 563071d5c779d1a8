import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Reader } from '../../core/document/reader';
import { readField } from '../../core/document/readField';
import * as requests from '../../wire/requests';
import * as schemas from './schemas';

const takes = (schema: { validate(x: unknown): { error?: unknown } }, x: unknown): boolean =>
  schema.validate(x).error === undefined;

function reads(field: Parameters<typeof readField>[1], x: unknown): boolean {
  const r = new Reader();
  readField(r, field, x, 'body');
  return r.errors.length === 0;
}

const word = fc.oneof(fc.string({ maxLength: 130 }), fc.stringMatching(/^[A-Za-z0-9_-]{0,70}$/));
const figure = fc.oneof(fc.integer({ min: -2, max: 3 }), fc.double({ noNaN: true }), fc.constant(1e9 + 1));

describe('the server’s checks', () => {
  it.each([
    ['ids', schemas.idSchema, requests.storedId, word],
    ['revisions', schemas.revisionSchema, requests.revision, figure],
    [
      'ticks',
      schemas.ticksSchema,
      requests.ticksRequest,
      fc.record({
        ticks: fc.dictionary(
          word,
          fc.record(
            { done: fc.constantFrom(true, false, 1), at: figure, read: word },
            { requiredKeys: ['done', 'at'] },
          ),
          { maxKeys: 3 },
        ),
      }),
    ],
    ['tags', schemas.tagsSchema, requests.tagsRequest, fc.record({ tags: fc.array(word, { maxLength: 22 }) })],
    [
      'saves',
      schemas.saveSchema,
      requests.saveRequest,
      fc.record(
        { patch: fc.constantFrom({}, { a: 1 }, 7, null), baseRevision: figure, key: word },
        { requiredKeys: ['patch', 'baseRevision'] },
      ),
    ],
    [
      'pairings',
      schemas.pairingSchema,
      requests.pairingRequest,
      fc.record({ patch: word, rack: word, other: word }, { requiredKeys: [] }),
    ],
  ])('of %s take what their declaration takes, and refuse what it refuses', (_, schema, field, bodies) => {
    fc.assert(
      fc.property(bodies as fc.Arbitrary<unknown>, (x) => {
        expect(takes(schema, x)).toBe(reads(field, x));
      }),
      { numRuns: 300 },
    );
  });
  it('refuse a step called as what copying an object loses', () => {
    for (const done of [true, 1]) {
      const body: unknown = JSON.parse(`{"ticks":{"__proto__":{"done":${done},"at":1}}}`);
      expect(takes(schemas.ticksSchema, body)).toBe(false);
      expect(reads(requests.ticksRequest, body)).toBe(false);
    }
    expect(takes(schemas.ticksSchema, { ticks: { 'set-a': { done: true, at: 1 } } })).toBe(true);
  });
  it('fill in what an address leaves out, and read its flags', () => {
    expect(schemas.sheetSchema.validate({}).value).toEqual({ rack: '', measured: false, format: 'json', size: 'A4' });
    expect(schemas.listSchema.validate({ deleted: 'true' }).value).toEqual({ deleted: true });
    expect(schemas.removeSchema.validate({}).value).toEqual({ forever: false });
    expect(takes(schemas.sheetSchema, { format: 'doc' })).toBe(false);
  });
});
