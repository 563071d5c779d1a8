import type { Declared, Field, ListField, RecordField, TaggedField, TextField } from './fields';
import { own, placeIn, shown } from './reader';
import type { Fields, Reader } from './reader';
import { isSocket, partsOf } from './sockets';

/**
 * Reads a value as it is declared. Every fault is reported to the reader with its place; a usable value comes back in
 * any case.
 *
 * @param x the value; undefined where the document leaves it out. @param path its place, `modules[2].params.rateHz`.
 */
export function readField<T>(r: Reader, field: Field<T>, x: unknown, path: string): T {
  if (x === undefined && field.default !== undefined) return field.default as T;
  const before = r.errors.length;
  const value = readDeclared(r, field, x, path);
  if (field.check && (field.type === 'list' || r.errors.length === before)) field.check(r, value, path);
  return value as T;
}

function readDeclared(r: Reader, field: Declared, x: unknown, path: string): unknown {
  switch (field.type) {
    case 'text':
      return readText(r, field, x, path);
    case 'number':
      if (field.none && x === null) return null;
      return field.whole ? r.whole(x, path, field.min, field.max) : r.number(x, path, field.min, field.max);
    case 'choice':
      return r.oneOf<string | number>(x, path, field.options);
    case 'flag':
      return r.flag(x, path);
    case 'any':
      return field.object ? r.object(x, path) : x;
    case 'socket':
      return readSocket(r, x, path, field.side);
    case 'module':
      return readModule(r, x, path);
    case 'list':
      return readList(r, field, x, path);
    case 'pair': {
      const given = r.list(x ?? null, path, 2);
      return field.of.map((item, i) => readField(r, item, given[i], `${path}[${i}]`));
    }
    case 'map': {
      const given = Object.entries(r.object(x, path));
      const { most = Infinity, key: keyField } = field;
      if (given.length > most) r.fail(path, `must have at most ${most} entries, got ${given.length}`);
      if (keyField) for (const [key] of given) readField(r, keyField, key, placeIn(path, key));
      return Object.fromEntries(given.map(([key, item]) => [key, readField(r, field.item, item, `${path}.${key}`)]));
    }
    case 'record':
      return readRecord(r, field, r.object(x, path), path);
    case 'tagged':
      return readTagged(r, field, r.object(x, path), path);
    case 'either': {
      const picked = field.of[field.pick(x)];
      return picked && readField(r, picked, x, path);
    }
  }
}

function readText(r: Reader, { longest, least = 0, trimmed, pattern }: TextField, x: unknown, path: string): string {
  const before = r.errors.length;
  const text = r.text(trimmed && typeof x === 'string' ? x.trim() : x, path, longest);
  if (r.errors.length === before && text.length < least)
    r.fail(path, `must be at least ${least} characters, got ${text.length}`);
  if (pattern && r.errors.length === before && !pattern.shape.test(text))
    r.fail(path, `must be ${pattern.words}, got ${shown(x)}`);
  return text;
}

/** A socket `moduleId.name` that exists, on the side asked for. */
function readSocket(r: Reader, x: unknown, path: string, side: 'input' | 'output' | 'any'): string {
  const text = r.text(x, path, 100);
  if (typeof x !== 'string') return text;
  const { id, name } = partsOf(text);
  const found = r.sockets.get(id);
  if (!isSocket(text)) r.fail(path, `must be moduleId.socketName, got ${shown(text)}`);
  else if (!found) r.fail(path, `there is no module ${shown(id)}`);
  else {
    const fits = (side !== 'output' && found.inputs.has(name)) || (side !== 'input' && found.outputs.has(name));
    if (fits) return text;
    const known = side === 'any' ? [...found.inputs, ...found.outputs] : [...found[`${side}s`]];
    const what = side === 'any' ? 'a socket' : `an ${side}`;
    r.fail(path, `${shown(name)} is not ${what} of ${id}; expected one of ${known.join(', ') || 'none'}`);
  }
  return text;
}

function readModule(r: Reader, x: unknown, path: string): string {
  const id = r.text(x, path, 32);
  if (typeof x === 'string' && !r.sockets.has(id)) r.fail(path, `there is no module ${shown(id)}`);
  return id;
}

function readList(r: Reader, field: ListField, x: unknown, path: string): unknown {
  if (field.shared && Array.isArray(x) && r.trusted.has(x)) return x;
  if (!Array.isArray(x)) {
    r.fail(path, `must be ${field.words ?? 'a list'}, got ${shown(x)}`);
    return [];
  }
  const given = r.list(x, path, field.most);
  if (field.least && x.length < field.least.count) r.fail(path, field.least.words);
  return given.map((item, i) => {
    const entry = readField(r, field.item, item, `${path}[${i}]`);
    field.each?.(r, entry, `${path}[${i}]`);
    return entry;
  });
}

/** The fields that a record declares; of others it has none. */
/** A record in the order in which it is written; what is left out stands behind. */
function readRecord(r: Reader, { fields, entries, member }: RecordField, given: Fields, path: string): unknown {
  const read: Record<string, unknown> = {};
  for (const key of Object.keys(given)) {
    const field = Object.hasOwn(fields, key) ? fields[key] : undefined;
    const at = placeIn(path, key);
    if (field?.optional && given[key] === undefined) continue;
    if (field) read[key] = readField(r, field, given[key], at);
    else
      r.fail(
        at,
        `${member === undefined ? 'unknown key' : `is not ${member}`}; expected one of ${Object.keys(fields).join(', ') || 'none'}`,
      );
  }
  for (const [key, field] of entries)
    if (!field.optional && !Object.hasOwn(read, key)) read[key] = readField(r, field, undefined, placeIn(path, key));
  return read;
}

/** The fields that a record declares, in that order, out of an object that may hold others. */
export function readDeclaredFields<T>(
  r: Reader,
  { entries }: RecordField & { readonly is?: T },
  given: Fields,
  path: string,
): T {
  const read: Record<string, unknown> = {};
  for (const [key, field] of entries) {
    const x = own(given, key);
    if (!field.optional || x !== undefined) read[key] = readField(r, field, x, placeIn(path, key));
  }
  return read as T;
}

function readTagged(r: Reader, field: TaggedField, given: Fields, path: string): unknown {
  const word = own(given, field.key);
  const sort = field.of.get(String(word === undefined ? field.usual : word));
  if (sort && (word === undefined || typeof word === 'string')) return readField(r, sort, given, path);
  if (field.unknown) return field.unknown(r, given, path);
  r.oneOf(word, `${path}.${field.key}`, [...field.of.keys()]);
  return given;
}

/** Checks that no two entries of a list have the same word; for a list's own check. */
export function onlyOnce<T>(
  wordOf: (item: T) => string,
  at: string,
  words = (word: string): string => `is used twice: ${word}`,
): (r: Reader, items: readonly T[], path: string) => void {
  return (r, items, path) => {
    const taken = new Set<string>();
    items.forEach((item, i) => {
      const word = wordOf(item);
      if (word !== '' && taken.has(word)) r.fail(`${path}[${i}]${at}`, words(word));
      taken.add(word);
    });
  };
}
