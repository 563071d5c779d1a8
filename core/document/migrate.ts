import { isObject, own, shown } from './reader';
import type { Fields, Reader } from './reader';

interface Format {
  readonly name: string;
  readonly version: number;
  /** From each older version to the next. */
  readonly steps: ReadonlyMap<number, (doc: Fields) => Fields>;
}

const PATCH: Format = { name: 'fenvo.patch', version: 1, steps: new Map() };
const RACK: Format = { name: 'fenvo.rack', version: 1, steps: new Map() };

/** Brings an older document to this version, step by step; refuses what it does not know. */
function migrated(r: Reader, doc: Fields, format: Format): Fields {
  if (own(doc, 'format') !== format.name) {
    r.fail('format', `must be "${format.name}", got ${shown(own(doc, 'format'))}`);
    return doc;
  }
  const version = own(doc, 'version');
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    r.fail('version', `must be a whole number from 1 up, got ${shown(version)}`);
    return doc;
  }
  if (version > format.version) {
    r.fail('version', `${version} is newer than this Fenvo supports (${format.version}); nothing was changed`);
    return doc;
  }
  let [current, at] = [doc, version];
  for (let step = format.steps.get(at); step; step = format.steps.get(at)) {
    current = step(current);
    at++;
  }
  return current;
}

export const migrate = (r: Reader, doc: Fields): Fields => migrated(r, doc, PATCH);
export const migrateRack = (r: Reader, doc: Fields): Fields => migrated(r, doc, RACK);

/** A stored document with its state and each variant's mended alike; the same object where nothing is to be done. */
export function inEachState<T>(doc: T, mend: <S>(state: S) => S): T {
  const mended = mend(doc);
  if (!isObject(mended) || !Array.isArray(mended.variants)) return mended;
  const variants = (mended.variants as unknown[]).map((v) => mend(v));
  return variants.every((v, i) => v === (mended.variants as unknown[])[i]) ? mended : { ...mended, variants };
}
