import { LIMITS } from './types';

interface Nested {
  readonly value: object;
  readonly depth: number;
  readonly key: string;
  readonly above: Nested | null;
}

function pathOf(place: Nested): string {
  const keys: string[] = [];
  for (let at: Nested | null = place; at; at = at.above) keys.push(at.key);
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
    const isList = Array.isArray(place.value);
    for (const [key, value] of Object.entries(place.value) as [string, unknown][]) {
      if (typeof value !== 'object' || value === null) continue;
      stack.push({ value, depth: place.depth + 1, key: isList ? `[${key}]` : `.${key}`, above: place });
    }
  }
  return null;
}
