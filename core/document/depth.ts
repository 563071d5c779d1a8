import { LIMITS } from './limits';
import { isObject, shown } from './reader';
import type { Fields } from './reader';
import type { PatchError, Result } from './result';

interface Nested {
  readonly value: object;
  readonly depth: number;
  /** Of what holds it: a key, or an index of a list. */
  readonly key: string | number;
  readonly above: Nested | null;
}

function pathOf(place: Nested): string {
  const keys: string[] = [];
  for (let at = place; at.above; at = at.above) keys.push(typeof at.key === 'number' ? `[${at.key}]` : `.${at.key}`);
  return keys.toReversed().join('').replace(/^\./, '');
}

/**
 * Where a value from JSON is nested deeper than documents may be, the value itself being the first level; null where it
 * nowhere is. Walks without recursion, so that no depth is too deep to be told.
 */
function tooDeep(json: unknown): string | null {
  if (typeof json !== 'object' || json === null) return null;
  const stack: Nested[] = [{ value: json, depth: 1, key: '', above: null }];
  for (let place = stack.pop(); place; place = stack.pop()) {
    if (place.depth > LIMITS.depth) return pathOf(place);
    const { value, depth } = place;
    const enter = (key: string | number, inner: unknown): void => {
      if (typeof inner === 'object' && inner !== null)
        stack.push({ value: inner, depth: depth + 1, key, above: place });
    };
    if (Array.isArray(value)) for (let i = 0; i < value.length; i++) enter(i, value[i]);
    else for (const key of Object.keys(value)) enter(key, (value as Record<string, unknown>)[key]);
  }
  return null;
}

/**
 * The fields of a document from JSON, before anything is asked of them.
 *
 * @param called what it should be, `a patch document`.
 * @returns why it is refused where it is no object, or nested too deep.
 */
export function documentFields(json: unknown, called: string): Result<Fields, PatchError[]> {
  const refused = (path: string, message: string): Result<Fields, PatchError[]> => ({
    ok: false,
    errors: [{ path, message }],
  });
  if (!isObject(json)) return refused('', `must be ${called} (an object), got ${shown(json)}`);
  const deep = tooDeep(json);
  return deep === null ? { ok: true, value: json } : refused(deep, `is nested deeper than ${LIMITS.depth} levels`);
}
