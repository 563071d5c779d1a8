import { QUANTITIES } from '../kinds/traits';
import {
  choice,
  constant,
  either,
  id,
  list,
  module,
  number,
  optional,
  orNone,
  record,
  socket,
  text,
  typed,
  whole,
} from './fields';
import type { Declared, ValuesOf } from './fields';
import { quantitiesIn } from './quantities';
import type { KnownModule, Reader } from './reader';

/** Limits of targets. */
export const TARGET_LIMITS = { quantity: 40, weight: [0, 100], steps: 64 } as const;

const quantity = text(TARGET_LIMITS.quantity, {
  examples: QUANTITIES,
  says: `one of ${QUANTITIES.join(', ')} that the socket has; of a parameter also its unit`,
});
const figure = number(-1e9, 1e9);
const free = orNone(figure);
/** What its figures are of: what can never be left (if left out, as older documents mean it), or what arrives. */
export const TARGET_BASES = ['bound', 'arrives'] as const;
const basis = optional(choice(TARGET_BASES));
export const TARGET_SHAPES = ['triangle', 'sine', 'ramp', 'square'] as const;
export type TargetShape = (typeof TARGET_SHAPES)[number];

/** What can be wanted, and the fields that say it. */
export const WANTS = {
  /** The bound of the drive runs exactly from the drive of `low` to that of `high`; an end that is null is free. */
  range: { quantity, low: either([free, constant('silent')], (x) => (x === 'silent' ? 1 : 0)), high: free, basis },
  /** The bound lies inside; the widest such is best. */
  within: { quantity, low: free, high: free, basis },
  /** The bound is that wide, about that centre: octaves wherever a volt doubles, dB for a gain, else the unit. */
  span: { quantity, span: number(0, 1e9), centre: free, basis },
  /** The mean of the drive over the window. */
  mean: { quantity, value: figure },
  /** The sum of two drives never changes. */
  opposite: { to: socket('any') },
  /** The difference of two drives never changes. */
  same: { to: socket('any') },
  /** A gate input that is on in the listed steps of a sequencer (0 first) and off in the others. */
  steps: {
    of: module,
    steps: list(whole(0, TARGET_LIMITS.steps - 1), TARGET_LIMITS.steps, { words: 'a list of step numbers, 0 first' }),
  },
  /** How long a gate input is on, % of a period. */
  duty: { percent: number(0, 100) },
  /** How long a gain takes to fall by a number of dB from its peaks. */
  fall: { db: number(0.1, 200), seconds: number(0.0001, 120) },
  /** How far a sound's level falls between its highest and its lowest 50 ms, dB. */
  dip: { db: number(0.1, 200) },
  /** How long the slowest step takes to arrive behind a lag. */
  arrive: { seconds: number(0.0001, 120) },
  /** A waveform, whatever its scale, shift and phase; `least` volts peak to peak, 0.1 where it is left out. */
  like: { shape: choice(TARGET_SHAPES), least: optional(number(0.001, 48)) },
} as const;

export type Want = keyof typeof WANTS;
const wantNames = Object.keys(WANTS) as Want[];

const common = {
  /** The socket that something is wanted at. */
  at: socket('any'),
  /** Tells targets at one socket apart. */
  id: optional(id),
  /** How much its error counts beside others, 0..100; 1 where it is left out. */
  weight: optional(number(...TARGET_LIMITS.weight)),
};

type Said<W extends Want> = W extends 'range' ? { readonly want?: W } : { readonly want: W };
type TargetOf<W extends Want> = W extends Want
  ? ValuesOf<typeof common> & Said<W> & ValuesOf<(typeof WANTS)[W]>
  : never;
export type Target = TargetOf<Want>;

/** The same about what arrives, where its figures can be of that: as people mean it who set one now. */
export function ofArrival<T extends { readonly want?: Want }>(target: T): T {
  const ranged = ['range', 'within', 'span'].includes(target.want ?? 'range');
  return ranged && (target as { quantity?: string }).quantity !== 'level' ? { ...target, basis: 'arrives' } : target;
}

export const wantOf = (target: Target): Want => target.want ?? 'range';

/** What no single field can say. */
function checkFigures(r: Reader, target: Target, path: string): void {
  if ('low' in target) {
    const { low, high } = target;
    if (low === null && high === null)
      r.fail(`${path}.low`, 'must not be null when high is null: the target would have no limits');
    if (typeof low === 'number' && high !== null && low > high)
      r.fail(`${path}.low`, `must not be above high, got ${low} and ${high}`);
  }
  if ('quantity' in target) checkQuantity(r, target, path);
}

/** A quantity that its socket does not have is refused, never read as another. */
function checkQuantity(r: Reader, { at, quantity }: Extract<Target, { quantity: string }>, path: string): void {
  const known = quantitiesIn(r.modules, at);
  if (known.includes(quantity)) return;
  const last = known.at(-1) ?? 'volts';
  const names = known.length > 1 ? `${known.slice(0, -1).join(', ')} or ${last}` : last;
  r.fail(`${path}.quantity`, `${at} has ${names}, got ${quantity}`);
}

/** A target: a range, or what its word says. */
export const targetField = typed<Target>({
  type: 'tagged',
  key: 'want',
  usual: 'range',
  of: new Map(
    wantNames.map((want) => {
      const word = want === 'range' ? optional(constant(want)) : constant(want);
      const { at, ...more } = common;
      const fields: Record<string, Declared> = { at, want: word, ...more, ...WANTS[want] };
      return [want, record(fields, { check: (r, x, path) => checkFigures(r, x as unknown as Target, path) })] as const;
    }),
  ),
});

/** The limits of a figure of a target, and whether it may be nothing or `silent`; null where it is no figure. */
export function figureLimits(
  target: Target,
  name: string,
): { readonly min: number; readonly max: number; readonly none: boolean; readonly silent: boolean } | null {
  const fields: Readonly<Record<string, Declared>> = WANTS[wantOf(target)];
  const field = Object.hasOwn(fields, name) ? fields[name] : undefined;
  const number = field?.type === 'either' ? field.of.find((f) => f.type === 'number') : field;
  if (number?.type !== 'number') return null;
  return { min: number.min, max: number.max, none: number.none === true, silent: field?.type === 'either' };
}

/** Which of the targets at a socket it is. */
export const isTarget = (t: Target, at: string, id?: string): boolean => t.at === at && t.id === id;

/** The sockets and modules that a target hangs on beside where it is. */
export const hangsOn = (t: Target): { readonly socket?: string; readonly module?: string } =>
  'to' in t ? { socket: t.to } : 'of' in t ? { module: t.of } : {};

/** The sockets that targets hang on. */
export const targetSockets = (targets: readonly Target[]): string[] =>
  targets.flatMap((t) => [t.at, hangsOn(t).socket ?? t.at]);

/** A target as its socket reads it now: a parameter's unit by another name is its value; null where it cannot be read. */
export function fittingTarget(target: Target, modules: readonly KnownModule[]): Target | null {
  if (!('quantity' in target)) return target;
  const known = quantitiesIn(modules, target.at);
  if (known.includes(target.quantity)) return target;
  return known.includes('value') ? { ...target, quantity: 'value' } : null;
}
