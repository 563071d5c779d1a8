/** How a kind's parameters are declared: one declaration serves the parser, the JSON Schema, the editor and the docs. */

export type Unit = 'V' | 'Hz' | 's' | 'Ω' | 'dB' | 'bpm' | 'ct' | 'semitones' | 'beats' | '';

export interface GesturePoint {
  readonly t: number;
  readonly volts: number;
}
export interface Step {
  readonly volts: number;
  readonly gate: boolean;
  readonly tie: boolean;
}
export type Scale = string | readonly number[];
export type ParamValue =
  number | string | boolean | null | readonly GesturePoint[] | readonly Step[] | readonly number[];
export type ParamValues = Readonly<Record<string, ParamValue>>;

interface Common<T> {
  readonly default: T;
  /** What people call it; its kind says so. */
  readonly label?: string;
  /** One line for the editor and the docs. */
  readonly says?: string;
  /** Whether the parameter exists, given the others. */
  readonly exists?: (p: ParamValues) => boolean;
  /** A builder sets it once; a player's hand does not reach for it. */
  readonly setUp?: boolean;
  /** At its default most modules have no such knob: there it has no error, and no fix turns it. */
  readonly rare?: boolean;
  /** Only says how far another knob reaches, or how many sockets there are: a wider one does the same. */
  readonly reach?: boolean;
}
export interface NumberSpec<T extends number | null = number> extends Common<T> {
  readonly type: 'number';
  readonly min: number;
  readonly max: number;
  readonly unit: Unit;
  /** How a knob's travel is spread; `log` from `logFrom` where the lower end is 0. */
  readonly taper: 'linear' | 'log';
  readonly nullable: boolean;
  readonly whole: boolean;
  /** The knob's own range, when other parameters set it; inside min..max. */
  readonly limits?: (p: ParamValues) => readonly [number, number];
  /** How fast it moves at most while it is turned and heard, in its unit a second; left out: at once. */
  readonly glides?: number;
  /** Takes its default from the patch's settings. */
  readonly fromSetting?: 'bpm';
}
export interface ChoiceSpec<T extends string | number> extends Common<T> {
  readonly type: 'choice';
  readonly options: readonly T[];
  /** What people call them; its kind says so. */
  readonly optionLabels?: Readonly<Record<string, string>>;
}
export interface FlagSpec extends Common<boolean> {
  readonly type: 'flag';
}
export interface TextSpec extends Common<string> {
  readonly type: 'text';
  readonly longest: number;
}
export interface PointsSpec extends Common<readonly GesturePoint[]> {
  readonly type: 'points';
  readonly most: number;
}
export interface StepsSpec extends Common<readonly Step[]> {
  readonly type: 'steps';
  readonly most: number;
}
export interface ScaleSpec extends Common<Scale> {
  readonly type: 'scale';
}

export type ParamSpec =
  | NumberSpec
  | NumberSpec<number | null>
  | ChoiceSpec<string>
  | ChoiceSpec<number>
  | FlagSpec
  | TextSpec
  | PointsSpec
  | StepsSpec
  | ScaleSpec;
export type ParamSpecs = Readonly<Record<string, ParamSpec>>;

export type Values<S extends ParamSpecs> = { readonly [K in keyof S]: S[K] extends Common<infer T> ? T : never };

/** The same parameter, as one that is set once. */
export const setUp = <S extends ParamSpec>(spec: S): S => ({ ...spec, setUp: true });

/** The same parameter, as one that only says how far others reach. */
export const reach = <S extends ParamSpec>(spec: S): S => ({ ...spec, reach: true });

/** The same parameter, as a knob that most modules lack. */
export const rare = <S extends ParamSpec>(spec: S): S => ({ ...spec, rare: true });

type NumberOptions = Partial<Omit<NumberSpec, 'type' | 'default' | 'min' | 'max' | 'unit' | 'nullable'>>;

export function number(
  fallback: number,
  min: number,
  max: number,
  unit: Unit = '',
  options: NumberOptions = {},
): NumberSpec {
  return {
    type: 'number',
    default: fallback,
    min,
    max,
    unit,
    taper: 'linear',
    nullable: false,
    whole: false,
    ...options,
  };
}

export const volts = (fallback: number, options: NumberOptions = {}): NumberSpec =>
  number(fallback, -12, 12, 'V', options);

export const hertz = (fallback: number, min: number, max: number): NumberSpec =>
  number(fallback, min, max, 'Hz', { taper: 'log' });

export const seconds = (fallback: number, min: number, max: number): NumberSpec =>
  number(fallback, min, max, 's', { taper: 'log' });

export const ohms = (fallback: number, min = 1, max = 10_000_000): NumberSpec =>
  number(fallback, min, max, 'Ω', { taper: 'log' });

export function orNone(
  fallback: number | null,
  min: number,
  max: number,
  unit: Unit,
  options: NumberOptions = {},
): NumberSpec<number | null> {
  return {
    type: 'number',
    default: fallback,
    min,
    max,
    unit,
    taper: 'linear',
    nullable: true,
    whole: false,
    ...options,
  };
}

export function choice<const T extends string | number>(
  options: readonly [T, ...T[]],
  fallback: NoInfer<T> = options[0],
): ChoiceSpec<T> {
  return { type: 'choice', options, default: fallback };
}

export const flag = (fallback: boolean): FlagSpec => ({ type: 'flag', default: fallback });

export const text = (fallback: string, longest: number): TextSpec => ({ type: 'text', default: fallback, longest });

/** A knob whose span is ± another parameter. */
export const within = (name: string) => ({
  limits: (p: ParamValues): readonly [number, number] => [-Number(p[name]), Number(p[name])],
});

/** A knob whose span lies between two other parameters. */
export const between = (low: string, high: string) => ({
  limits: (p: ParamValues): readonly [number, number] => [Number(p[low]), Number(p[high])],
});
