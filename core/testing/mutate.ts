import { stream } from '../kinds/random';

type Random = () => number;

const strange: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  -1e308,
  5e-324,
  '',
  'sine',
  '__proto__',
  'constructor',
  [],
  {},
  [[]],
  { t: 0 },
  'a.b.c',
  '\u0000',
  Array(70).fill(0),
];

const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.min(list.length - 1, Math.floor(random() * list.length))] as T;

/** Changes one place of a document: another value, a key more or fewer, two entries swapped. */
function mutateOnce(random: Random, node: unknown, depth: number): unknown {
  if (typeof node !== 'object' || node === null || random() < 0.15 * depth) {
    if (typeof node === 'number' && random() < 0.5) return node * (random() * 4 - 2);
    return structuredClone(pick(random, strange));
  }
  if (Array.isArray(node)) {
    const list: unknown[] = [...(node as unknown[])];
    const at = Math.floor(random() * list.length);
    const way = random();
    if (list.length === 0 || way < 0.15) list.push(structuredClone(pick(random, strange)));
    else if (way < 0.3) list.splice(at, 1);
    else if (way < 0.4) list.push(structuredClone(list[at]));
    else list[at] = mutateOnce(random, list[at], depth + 1);
    return list;
  }
  const entries = Object.entries(node);
  const at = Math.floor(random() * entries.length);
  const entry = entries[at];
  const way = random();
  if (!entry || way < 0.1)
    entries.push([pick(random, ['__proto__', 'x', 'params', 'id', 'volts', 'toString']), pick(random, strange)]);
  else if (way < 0.2) entries.splice(at, 1);
  else entry[1] = mutateOnce(random, entry[1], depth + 1);
  return Object.fromEntries(entries);
}

/** A document with a few places changed; the same seed, the same changes. */
export function mutateDocument(document: unknown, seed: number): unknown {
  const random = stream(seed);
  let changed = document;
  for (let n = 1 + Math.floor(random() * 3); n > 0; n--) changed = mutateOnce(random, changed, 0);
  return changed;
}

/** The text with a few bytes changed, dropped, doubled. */
export function mutateText(text: string, seed: number): string {
  const random = stream(seed);
  let changed = text;
  for (let n = 1 + Math.floor(random() * 4); n > 0; n--) {
    const at = Math.floor(random() * changed.length);
    const put = random() < 0.5 ? String.fromCharCode(32 + Math.floor(random() * 95)) : changed.slice(at, at + 8);
    changed = changed.slice(0, at) + put + changed.slice(at + Math.floor(random() * 3));
  }
  return changed;
}
