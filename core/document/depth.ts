import { LIMITS } from './limits';

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
export function tooDeep(json: unknown): string | null {
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
