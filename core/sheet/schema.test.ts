import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parsePatch } from '../document/parse';
import { readField } from '../document/readField';
import { Reader } from '../document/reader';
import type { Field } from '../document/fields';
import { changeOf } from './change';
import { changeField, changeSchema, sheetField, sheetSchema } from './schema';
import { sheetOf } from './sheet';

/** Some of them have sound, gates, automation and a bus. */
const NAMES = ['fog-bank-breathing', 'morse-key-slewed', 'two-lamps-opposite-ways'];
const patches = NAMES.map((name) => {
  const read = parsePatch(JSON.parse(readFileSync(`demo/patches/${name}.fenvo.json`, 'utf8')));
  if (!read.ok) throw new Error(name);
  return read.value;
});

/** Faults of a document against what its fields declare: unknown keys, missing ones, other types. */
function faults(field: unknown, document: object): unknown {
  const r = new Reader();
  const {
    format: _format,
    version: _version,
    ...rest
  } = JSON.parse(JSON.stringify(document)) as Record<string, unknown>;
  readField(r, field as Field<unknown>, rest, '');
  return r.errors;
}

describe('the schemas of sheets', () => {
  it('hold of sheets and change sheets of the demo patches', () => {
    patches.forEach((patch, i) => {
      expect(faults(sheetField, sheetOf(patch))).toEqual([]);
      const next = patches[(i + 1) % patches.length]!;
      expect(faults(changeField, changeOf(patch, next))).toEqual([]);
    });
  });
  it('name their formats', () => {
    expect(JSON.stringify(sheetSchema())).toContain('"fenvo.sheet"');
    expect(JSON.stringify(changeSchema())).toContain('"unplug"');
  });
});
