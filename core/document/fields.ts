import type { Reader } from './reader';
import { ID_PATTERN } from './limits';

/**
 * How a value in a document is declared. One declaration serves the parser (`readField`), the JSON Schema (`schemaOf`),
 * the server's checks of what it is sent, the limits of the editor, and the types (`ValueOf`).
 */
export type Field<T = unknown> = Declared & Typed<T>;

/** The type of the value, for the compiler alone. */
interface Typed<T> {
  readonly is?: T;
}

export type ValueOf<F> = F extends Typed<infer T> ? T : never;

/** Which side of a module a socket must be on. */
export type Side = 'input' | 'output' | 'any';

export type Declared =
  | TextField
  | NumberField
  | ChoiceField
  | FlagField
  | AnyField
  | SocketField
  | ModuleField
  | ListField
  | PairField
  | MapField
  | RecordField
  | TaggedField
  | EitherField;

interface Common {
  /** A description in the schema. */
  readonly says?: string;
  /** What is read where the value is left out. */
  readonly default?: unknown;
  /** What stands for it where it is left out and stays so. */
  readonly implied?: unknown;
  /** Left out of its record where it is not given. */
  readonly optional?: true;
  /** What no declaration can say: looks at a value that was read without a fault (a list: in any case). */
  check?(r: Reader, value: unknown, path: string): void;
}

export interface TextField extends Common {
  readonly type: 'text';
  readonly longest: number;
  readonly least?: number;
  /** Blanks around it do not count. */
  readonly trimmed?: true;
  /** What the text must look like, as a regular expression and in words. */
  readonly pattern?: { readonly shape: RegExp; readonly words: string };
  readonly examples?: readonly string[];
}
export interface NumberField extends Common {
  readonly type: 'number';
  readonly min: number;
  readonly max: number;
  readonly whole?: true;
  /** May be null: none. */
  readonly none?: boolean;
}
export interface ChoiceField extends Common {
  readonly type: 'choice';
  readonly options: readonly (string | number)[];
}
export interface FlagField extends Common {
  readonly type: 'flag';
}
/** Something that is read elsewhere. */
export interface AnyField extends Common {
  readonly type: 'any';
  readonly object?: true;
}
export interface SocketField extends Common {
  readonly type: 'socket';
  readonly side: Side;
}
export interface ModuleField extends Common {
  readonly type: 'module';
}
export interface ListField extends Common {
  readonly type: 'list';
  readonly item: Declared;
  readonly most: number;
  /** The fewest entries, and how a shorter list is refused. */
  readonly least?: { readonly count: number; readonly words: string };
  /** What it is, in words, for the error message. */
  readonly words?: string;
  /** A variant may name the place of an equal list instead. */
  readonly shared?: true;
  /** Notes each entry as soon as it is read, faults or not: later fields may refer to it. */
  each?(r: Reader, entry: unknown, path: string): void;
}
/** A list of two. */
export interface PairField extends Common {
  readonly type: 'pair';
  readonly of: readonly [Declared, Declared];
}
/** Values of one sort under keys of any name. */
export interface MapField extends Common {
  readonly type: 'map';
  readonly item: Declared;
  readonly most?: number;
  readonly key?: TextField;
}
export interface RecordField extends Common {
  readonly type: 'record';
  readonly fields: Readonly<Record<string, Declared>>;
  readonly entries: readonly (readonly [key: string, field: Declared])[];
  /** What a key that is not declared fails to be, where that is not "known here". */
  readonly member?: string;
}
/** Records of several sorts, told apart by the word under one key. */
export interface TaggedField extends Common {
  readonly type: 'tagged';
  readonly key: string;
  readonly of: ReadonlyMap<string, RecordField>;
  /** The sort that is meant where the key is left out. */
  readonly usual?: string;
  /** A word that names no sort, refused in its own words; in the record's place stands what it returns. */
  unknown?(r: Reader, given: Readonly<Record<string, unknown>>, path: string): unknown;
}
/** One of several, told apart by looking. */
export interface EitherField extends Common {
  readonly type: 'either';
  readonly of: readonly Declared[];
  pick(x: unknown): number;
}

type DeclaredFields = Readonly<Record<string, Declared>>;
type OptionalKeys<F extends DeclaredFields> = { [K in keyof F]: F[K] extends { optional: true } ? K : never }[keyof F];
export type ValuesOf<F extends DeclaredFields> = {
  readonly [K in Exclude<keyof F, OptionalKeys<F>>]: ValueOf<F[K]>;
} & { readonly [K in OptionalKeys<F>]?: ValueOf<F[K]> };

export type RecordOf<F extends DeclaredFields> = Omit<RecordField, 'fields'> & { readonly fields: F } & Typed<
    ValuesOf<F>
  >;

type Plain = Pick<Common, 'says'>;
type Checked<T> = Plain & { check?(r: Reader, value: T, path: string): void };

export const text = (
  longest: number,
  more: Omit<Partial<TextField>, 'type' | 'longest'> = {},
): TextField & Typed<string> => ({
  type: 'text',
  longest,
  ...more,
});
/** An id of a document. */
export const id = text(32, {
  pattern: { shape: new RegExp(ID_PATTERN), words: 'a small letter, then up to 31 of a-z 0-9 _ -' },
});
export const number = (
  min: number,
  max: number,
  more: Plain & { readonly whole?: true } = {},
): NumberField & Typed<number> => ({ type: 'number', min, max, ...more });
export const whole = (min: number, max: number): NumberField & Typed<number> => number(min, max, { whole: true });
export const choice = <const T extends string | number>(options: readonly T[]): ChoiceField & Typed<T> => ({
  type: 'choice',
  options,
});
export const constant = <const T extends string | number>(value: T): ChoiceField & Typed<T> => choice([value]);
export const flag: FlagField & Typed<boolean> = { type: 'flag' };
export const any: AnyField & Typed<unknown> = { type: 'any' };
export const anyObject: AnyField & Typed<unknown> = { type: 'any', object: true };
export const socket = (side: Side): SocketField & Typed<string> => ({ type: 'socket', side });
export const module: ModuleField & Typed<string> = { type: 'module' };

export const list = <F extends Declared>(
  item: F,
  most: number,
  more: Checked<readonly ValueOf<F>[]> &
    Pick<ListField, 'least' | 'words' | 'shared'> & { each?(r: Reader, entry: ValueOf<F>, path: string): void } = {},
): ListField & Typed<readonly ValueOf<F>[]> => ({ type: 'list', item, most, ...(more as object) });
export const pair = <F extends Declared>(
  a: F,
  b: Declared = a,
  more: Checked<readonly [ValueOf<F>, ValueOf<F>]> = {},
): PairField & Typed<readonly [ValueOf<F>, ValueOf<F>]> => ({ type: 'pair', of: [a, b], ...(more as object) });
export const map = <F extends Declared>(
  item: F,
  more: Checked<Readonly<Record<string, ValueOf<F>>>> & Pick<MapField, 'most' | 'key'> = {},
): MapField & Typed<Readonly<Record<string, ValueOf<F>>>> => ({ type: 'map', item, ...(more as object) });
export const record = <const F extends DeclaredFields>(
  fields: F,
  more: Checked<ValuesOf<F>> & Pick<RecordField, 'member'> = {},
): RecordOf<F> => ({
  type: 'record',
  fields,
  entries: Object.entries(fields),
  ...(more as object),
});
export const either = <const F extends readonly Declared[]>(
  of: F,
  pick: (x: unknown) => number,
): EitherField & Typed<ValueOf<F[number]>> => ({ type: 'either', of, pick });

/** A field of its record that may be left out. */
export const optional = <F extends Declared>(field: F): F & { readonly optional: true } => ({
  ...field,
  optional: true,
});
/** A field that is read as `value` where it is left out. */
export const byDefault = <F extends Declared>(field: F, value: ValueOf<F>): F => ({ ...field, default: value });
/** A number, or null for none. */
export const orNone = <F extends NumberField>(field: F): NumberField & Typed<number | null> => ({
  ...field,
  none: true,
});
/** The same field, of a type that its builder cannot tell. */
export const typed = <T>(field: Declared): Field<T> => field as Field<T>;
