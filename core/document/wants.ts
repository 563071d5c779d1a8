/** What every target may say beside what it wants. */
interface Common {
  /** The socket that something is wanted at. */
  readonly at: string;
  /** Tells targets at one socket apart. */
  readonly id?: string;
  /** How much its error counts beside others, 0..100; 1 where it is left out. */
  readonly weight?: number;
}

interface Figures {
  readonly quantity: string;
}

/** The bound of the drive runs exactly from the drive of `low` to that of `high`; an end that is null is free. */
export interface RangeTarget extends Common, Figures {
  readonly want?: 'range';
  readonly low: number | 'silent' | null;
  readonly high: number | null;
}
/** The bound lies inside; the widest such is best. */
export interface WithinTarget extends Common, Figures {
  readonly want: 'within';
  readonly low: number | null;
  readonly high: number | null;
}
/** The bound is that wide, about that centre: octaves wherever a volt doubles, dB for a gain, else the unit. */
export interface SpanTarget extends Common, Figures {
  readonly want: 'span';
  readonly span: number;
  readonly centre: number | null;
}
/** The mean of the drive over the window. */
export interface MeanTarget extends Common, Figures {
  readonly want: 'mean';
  readonly value: number;
}
/** The sum (`opposite`) or difference (`same`) of two drives never changes. */
export interface TiedTarget extends Common {
  readonly want: 'opposite' | 'same';
  readonly to: string;
}
/** A gate input that is on in the listed steps of a sequencer (0 first) and off in the others. */
export interface StepsTarget extends Common {
  readonly want: 'steps';
  readonly of: string;
  readonly steps: readonly number[];
}
/** How long a gate input is on, % of a period. */
export interface DutyTarget extends Common {
  readonly want: 'duty';
  readonly percent: number;
}
/** How long a gain takes to fall by so many dB from its peaks. */
export interface FallTarget extends Common {
  readonly want: 'fall';
  readonly db: number;
  readonly seconds: number;
}
export const TARGET_SHAPES = ['triangle', 'sine', 'ramp', 'square'] as const;
export type TargetShape = (typeof TARGET_SHAPES)[number];
/** A waveform, whatever its scale, shift and phase. */
export interface LikeTarget extends Common {
  readonly want: 'like';
  readonly shape: TargetShape;
  /** Least volts peak to peak; 0.1 where it is left out. */
  readonly least?: number;
}

export type Target =
  | RangeTarget
  | WithinTarget
  | SpanTarget
  | MeanTarget
  | TiedTarget
  | StepsTarget
  | DutyTarget
  | FallTarget
  | LikeTarget;

export type Want = NonNullable<Target['want']>;
export const wantOf = (target: Target): Want => target.want ?? 'range';

/** How a field is read: one declaration serves the parser and the JSON Schema. */
export type TargetField =
  | { readonly type: 'quantity' }
  | {
      readonly type: 'number';
      readonly min: number;
      readonly max: number;
      readonly none?: true;
      readonly silent?: true;
    }
  | { readonly type: 'socket' }
  | { readonly type: 'module' }
  | { readonly type: 'steps' }
  | { readonly type: 'shape' };

const FIGURE = { type: 'number', min: -1e9, max: 1e9 } as const;
const ORNONE = { ...FIGURE, none: true } as const;
const QUANTITY = { type: 'quantity' } as const;

export const WANTS: Readonly<Record<Want, Readonly<Record<string, TargetField & { readonly optional?: true }>>>> = {
  range: { quantity: QUANTITY, low: { ...ORNONE, silent: true }, high: ORNONE },
  within: { quantity: QUANTITY, low: ORNONE, high: ORNONE },
  span: { quantity: QUANTITY, span: { ...FIGURE, min: 0 }, centre: ORNONE },
  mean: { quantity: QUANTITY, value: FIGURE },
  opposite: { to: { type: 'socket' } },
  same: { to: { type: 'socket' } },
  steps: { of: { type: 'module' }, steps: { type: 'steps' } },
  duty: { percent: { type: 'number', min: 0, max: 100 } },
  fall: { db: { type: 'number', min: 0.1, max: 200 }, seconds: { type: 'number', min: 0.0001, max: 120 } },
  like: { shape: { type: 'shape' }, least: { type: 'number', min: 0.001, max: 48, optional: true } },
};

export const TARGET_LIMITS = { quantity: 40, weight: [0, 100], steps: 64 } as const;

/** Which of the targets at a socket it is. */
export const isTarget = (t: Target, at: string, id?: string): boolean => t.at === at && t.id === id;

/** The sockets and modules that a target hangs on beside where it is. */
export const hangsOn = (t: Target): { readonly socket?: string; readonly module?: string } =>
  'to' in t ? { socket: t.to } : 'of' in t ? { module: t.of } : {};

/** The sockets that targets hang on. */
export const targetSockets = (targets: readonly Target[]): string[] =>
  targets.flatMap((t) => [t.at, hangsOn(t).socket ?? t.at]);
