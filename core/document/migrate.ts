import { own, shown } from './reader';
import type { Fields, Reader } from './reader';

export const PATCH_VERSION = 1;

/** From each older version to the next. */
const steps: ReadonlyMap<number, (doc: Fields) => Fields> = new Map();

/** Brings an older document to this version, step by step; refuses what it does not know. */
export function migrate(r: Reader, doc: Fields): Fields {
  if (own(doc, 'format') !== 'fenvo.patch') {
    r.fail('format', `must be "fenvo.patch", got ${shown(own(doc, 'format'))}`);
    return doc;
  }
  const version = own(doc, 'version');
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    r.fail('version', `must be a whole number from 1 up, got ${shown(version)}`);
    return doc;
  }
  if (version > PATCH_VERSION) {
    r.fail('version', `${version} is newer than this Fenvo reads (${PATCH_VERSION}); nothing was changed`);
    return doc;
  }
  let [current, at] = [doc, version];
  for (let step = steps.get(at); step; step = steps.get(at)) {
    current = step(current);
    at++;
  }
  return current;
}
