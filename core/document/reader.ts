import type { PatchError, Result } from './result';
import type { ParamValues } from '../kinds/params';

/** What is known of a module by those that refer to it. */
export interface KnownModule {
  readonly id: string;
  readonly kind: string;
  readonly label?: string;
  readonly params?: ParamValues;
}

/** The sockets of the modules read so far, by their ids. */
export type Sockets = Map<string, { readonly inputs: ReadonlySet<string>; readonly outputs: ReadonlySet<string> }>;

export type Fields = Readonly<Record<string, unknown>>;

export function isObject(x: unknown): x is Fields {
  return typeof x === 'object' && x !== null && !Array.isArray(x);
}

/** Own keys only: a document's `__proto__` or `constructor` is a key like any other. */
export const own = (x: Fields, key: string): unknown => (Object.hasOwn(x, key) ? x[key] : undefined);

/** The place of a field of what stands at a place; the document itself has none. */
export const placeIn = (path: string, key: string): string => (path ? `${path}.${key}` : key);

/** What a value is, for a message; short. */
export function shown(x: unknown): string {
  if (x === undefined) return 'nothing';
  const text = typeof x === 'number' ? String(x) : (JSON.stringify(x) ?? typeof x);
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}

/** The most faults that are reported, as many as a person would mend; a file that is wrong throughout is refused at once. */
const MOST_FAULTS = 1000;
class TooManyFaults extends Error {}

/** Reads values and gathers every error with its place; each reader returns a usable value in any case. */
export class Reader {
  readonly errors: PatchError[] = [];
  /** What later fields may refer to. */
  readonly sockets: Sockets = new Map();
  readonly modules: KnownModule[] = [];
  /** Lists that were read before and are referred to again. */
  readonly trusted: WeakSet<object>;

  constructor(trusted = new WeakSet<object>()) {
    this.trusted = trusted;
  }

  fail(path: string, message: string): void {
    if (this.errors.length >= MOST_FAULTS) throw new TooManyFaults();
    this.errors.push({ path, message });
  }

  /** What is read, or its faults; where there are too many of them it ends early and says so. */
  settle<T>(read: () => T): Result<T, PatchError[]> {
    try {
      const value = read();
      return this.errors.length > 0 ? { ok: false, errors: this.errors } : { ok: true, value };
    } catch (error) {
      if (!(error instanceof TooManyFaults)) throw error;
      const more = { path: '', message: `has more faults than these ${MOST_FAULTS}; the rest was not read` };
      return { ok: false, errors: [...this.errors, more] };
    }
  }

  object(x: unknown, path: string): Fields {
    if (isObject(x)) return x;
    this.fail(path, `must be an object, got ${shown(x)}`);
    return {};
  }

  known(x: Fields, path: string, keys: readonly string[]): void {
    for (const key of Object.keys(x)) {
      if (!keys.includes(key)) this.fail(placeIn(path, key), `unknown key; expected one of ${keys.join(', ')}`);
    }
  }

  list(x: unknown, path: string, most: number): readonly unknown[] {
    if (x === undefined) return [];
    if (!Array.isArray(x)) {
      this.fail(path, `must be a list, got ${shown(x)}`);
      return [];
    }
    if (x.length > most) {
      this.fail(path, `must have at most ${most} entries, got ${x.length}`);
      return [];
    }
    return x;
  }

  text(x: unknown, path: string, longest: number): string {
    if (typeof x !== 'string') this.fail(path, `must be text, got ${shown(x)}`);
    else if (x.length > longest) this.fail(path, `must be at most ${longest} characters, got ${x.length}`);
    else return x;
    return '';
  }

  number(x: unknown, path: string, min: number, max: number): number {
    if (typeof x !== 'number' || !Number.isFinite(x)) this.fail(path, `must be a finite number, got ${shown(x)}`);
    else if (x < min || x > max) this.fail(path, `must be between ${min} and ${max}, got ${x}`);
    else return x;
    return min;
  }

  whole(x: unknown, path: string, min: number, max: number): number {
    const n = this.number(x, path, min, max);
    if (Number.isInteger(n)) return n;
    this.fail(path, `must be a whole number, got ${n}`);
    return min;
  }

  oneOf<T>(x: unknown, path: string, options: readonly T[]): T {
    const found = options.find((option) => option === x);
    if (found === undefined) this.fail(path, `must be one of ${options.map(shown).join(', ')}, got ${shown(x)}`);
    return found ?? (options[0] as T);
  }

  flag(x: unknown, path: string): boolean {
    if (typeof x !== 'boolean') this.fail(path, `must be true or false, got ${shown(x)}`);
    return x === true;
  }
}
