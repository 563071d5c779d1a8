import { POINTER, kindNamed, paramLabel, placeNamed, showNumber, withUnit } from '@/core';
import type { Rack } from '@/core';

const NAMES: Readonly<Record<string, string>> = {
  gain: 'Gain',
  offsetVolts: 'Offset',
  fullVolts: 'Fully open at',
  timeScale: 'Times',
  rateScale: 'Rate',
  centsPerOctave: 'Octave',
};

/** What a trait of a channel is called. */
export function traitName(rack: Rack, channel: string, parameter: string): string {
  if (!parameter.startsWith(POINTER)) return NAMES[parameter] ?? parameter;
  const knob = parameter.slice(POINTER.length);
  const modes = placeNamed(rack, channel)?.channel.modes ?? [];
  const spec = modes.map((m) => kindNamed(m.kind)?.params[knob]).find(Boolean);
  return `${paramLabel(knob, spec)} pointer`;
}

/** Its figure, in the unit that people think of it in. */
export function traitText(parameter: string, value: number): string {
  if (parameter === 'gain') return `× ${showNumber(value, 4)}`;
  if (parameter === 'timeScale' || parameter === 'rateScale') return `× ${showNumber(value, 3)}`;
  if (parameter === 'offsetVolts') return withUnit(showNumber(1000 * value, 1, true), 'mV');
  if (parameter === 'fullVolts') return withUnit(showNumber(value, 3), 'V');
  if (parameter === 'centsPerOctave') return withUnit(showNumber(value, 1, true), 'cents');
  return `${showNumber(value, 2, true)}% of travel`;
}

/** Its standard error. */
export function errorText(parameter: string, error: number): string {
  if (parameter === 'offsetVolts') return withUnit(showNumber(1000 * error, 1), 'mV');
  if (parameter === 'fullVolts') return withUnit(showNumber(error, 3), 'V');
  if (parameter === 'centsPerOctave') return withUnit(showNumber(error, 1), 'cents');
  return parameter.startsWith(POINTER) ? `${showNumber(error, 2)}%` : showNumber(error, 4);
}
