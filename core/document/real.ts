import { nameOf } from './sockets';
import type { Hand } from './hands';
import type { Kind } from '../kinds/kind';
import type { ParamValue, ParamValues } from '../kinds/params';
import { positionOf, valueAt } from '../units/knob';
import type { Travel } from '../units/knob';

/** How far a hand knob really stands from where its pointer says. */
export interface PointerError {
  readonly travel: Travel;
  /** A share of its travel; above 0 it stands further. */
  readonly by: number;
}

/** One sigma of what a module is still off by, as far as that is known: shares, and volts. */
export interface KnownErrors {
  readonly gain?: number;
  readonly offset?: number;
  /** By knob, as a share of its travel. */
  readonly knobs?: Readonly<Record<string, number>>;
}

/**
 * What a real module does otherwise than its kind’s law. No document says it of a module: a rack says it of a channel,
 * and `asMeasured` puts it into a patch.
 */
export interface RealModule {
  /** Its outputs are `gain · ideal + offsetVolts`, before rails and loading. */
  readonly gain: number;
  readonly offsetVolts: number;
  readonly pointers: Readonly<Record<string, PointerError>>;
  /** Where its control is fully open; null: as planned. */
  readonly fullVolts: number | null;
  readonly timeScale: number;
  readonly rateScale: number;
  readonly centsPerOctave: number;
  readonly errors?: KnownErrors;
}

export const TRUE_MODULE: RealModule = {
  gain: 1,
  offsetVolts: 0,
  pointers: {},
  fullVolts: null,
  timeScale: 1,
  rateScale: 1,
  centsPerOctave: 0,
};

/** A parameter’s value in force where its knob or its document says `value`. */
function realValue(kind: Kind, name: string, value: ParamValue, real: RealModule): ParamValue {
  const { times = [], rates = [], full } = kind.scale ?? {};
  if (name === full && real.fullVolts !== null) return real.fullVolts;
  if (typeof value !== 'number') return value;
  if (times.includes(name)) return value * real.timeScale;
  if (rates.includes(name)) return value * real.rateScale;
  if (name === kind.panel?.tempo?.beats) return value / real.rateScale;
  const pointer = real.pointers[name];
  return pointer ? valueAt(pointer.travel, positionOf(pointer.travel, value) + pointer.by) : value;
}

/** Complete parameters of a module as they are really in force, before its tempo is. */
export function realParams(kind: Kind, complete: ParamValues, real: RealModule | undefined): ParamValues {
  if (!real) return complete;
  const entries = Object.entries(complete).map(([name, value]) => [name, realValue(kind, name, value, real)] as const);
  return {
    ...Object.fromEntries(entries),
    ...(kind.scale?.octaves && { centsPerOctave: real.centsPerOctave }),
  };
}

/** Hands on a module’s knobs as the knobs really stand under them. */
export const realHands = (kind: Kind, hands: readonly Hand[], real: RealModule | undefined): readonly Hand[] =>
  real
    ? hands.map((h) => ({
        ...h,
        points: h.points.map((p) => ({ ...p, value: Number(realValue(kind, nameOf(h.at), p.value, real)) })),
      }))
    : hands;

/** What is left of it once the true values of its settings are written into the document. */
export const outputsOf = ({ gain, offsetVolts, centsPerOctave, errors }: RealModule): RealModule => ({
  ...TRUE_MODULE,
  ...(errors && { errors }),
  gain,
  offsetVolts,
  centsPerOctave,
});

/** The outputs that have a module’s gain and offset: the first, and others that are no gates. */
export const isMainOutput = (kind: Kind, name: string, index: number): boolean =>
  index === 0 || !(kind.timing?.gates ?? []).includes(name);

/** What a module’s own gain and offset do to one of its outputs; null where nothing. */
export function outputError(
  kind: Kind,
  name: string,
  index: number,
  real: RealModule | undefined,
): { readonly gain: number; readonly offset: number } | null {
  if (!real || (real.gain === 1 && real.offsetVolts === 0) || !isMainOutput(kind, name, index)) return null;
  const inverted = kind.negated?.[name] !== undefined;
  return { gain: real.gain, offset: inverted ? -real.offsetVolts : real.offsetVolts };
}

/** What the knob or the document says where a parameter is really at `value`: the other way round. */
export function saidValue(kind: Kind, name: string, value: number, real: RealModule): number {
  const { times = [], rates = [] } = kind.scale ?? {};
  if (times.includes(name)) return value / real.timeScale;
  if (rates.includes(name)) return value / real.rateScale;
  if (name === kind.panel?.tempo?.beats) return value * real.rateScale;
  const pointer = real.pointers[name];
  return pointer ? valueAt(pointer.travel, positionOf(pointer.travel, value) - pointer.by) : value;
}
