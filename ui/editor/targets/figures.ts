import { typedRange } from '@/ui/parts/typedRange';
import { countsOctaves, figureLimits, figureText, quantityFault, readQuantity, targetText } from '@/core';
import type { Target } from '@/core';
import { readSteps } from '@/ui/parts/steps';

/** The figures of a target that can be typed, and what each is called. */
export const FIGURES: Readonly<Record<string, string>> = {
  low: 'min',
  high: 'max',
  span: 'width',
  centre: 'centre',
  value: 'average',
  percent: '%',
  db: 'dB',
  seconds: 's',
  least: 'min p–p (V)',
  steps: 'steps',
};

/** What a figure is in, whatever the destination's unit is. */
const OWN_UNITS: Readonly<Record<string, string>> = { percent: '%', db: 'dB', seconds: 's', least: 'V' };

const unitAt = (target: Target, name: string, unit: string): string =>
  OWN_UNITS[name] ?? (name === 'span' && 'quantity' in target && countsOctaves(target.quantity) ? 'oct' : unit);

/** A figure as it is typed, with its unit: steps count from 1, what is free is empty. */
export function typedOf(target: Target, name: string, unit: string): string {
  const value = (target as unknown as Readonly<Record<string, unknown>>)[name];
  if (Array.isArray(value)) return value.map((s) => Number(s) + 1).join(', ');
  if (typeof value === 'number') return figureText(value, unitAt(target, name, unit));
  return value === null || value === undefined ? '' : String(value);
}

const SILENT = /^(silen(t|ce)|off|[-\u2212](inf(inity)?|∞)(\s*dB)?)$/i;

type Read = { readonly value: unknown } | { readonly fault: string };

function read(target: Target, name: string, text: string, unit: string): Read {
  const plain = text.trim();
  if (name === 'steps') {
    const steps = readSteps(plain);
    return steps === null ? { fault: 'Enter step numbers from 1 to 64, for example 1, 3.' } : { value: steps };
  }
  const field = figureLimits(target, name);
  if (!field) return { fault: 'Choose this from the list.' };
  if (plain === '' && field.none) return { value: null };
  if (field.silent && SILENT.test(plain)) return { value: 'silent' };
  const own = unitAt(target, name, unit);
  const limits = [field.min, field.max] as const;
  const asked = quantityFault(plain, own, limits);
  if (asked !== null) return { fault: asked };
  const figure = readQuantity(plain, own, limits);
  if (figure === null || figure < field.min || figure > field.max)
    return { fault: `Enter a value${own ? ` in ${own}` : ''}${field.none ? ', or leave it empty for no limit' : ''}.` };
  return { value: figure };
}

type Changed = { readonly target: Target } | { readonly fault: string };

/** A target with one of its figures as typed; a whole range, `200 Hz to 3 kHz`, sets both of its ends. */
export function changedBy(target: Target, name: string, text: string, unit: string): Changed {
  const both = name === 'low' || name === 'high' ? typedRange(text) : null;
  if (both) {
    const [low, high] = [read(target, 'low', both[0], unit), read(target, 'high', both[1], unit)];
    if ('fault' in low) return low;
    if ('fault' in high) return high;
    return { target: { ...target, low: low.value, high: high.value } as Target };
  }
  const found = read(target, name, text, unit);
  return 'fault' in found ? found : { target: { ...target, [name]: found.value } as Target };
}

/** What a target asks for, without its figures. */
export function titleOf(t: Target, unit: string, other: string): string {
  switch (t.want) {
    case undefined:
    case 'range':
      return t.low === null || t.high === null ? 'Exact range (empty: no limit)' : 'Exact range';
    case 'within':
      return 'Stay within limits';
    case 'span':
      return unit === 'dB' ? 'Depth, around a centre' : 'Width, around a centre';
    case 'mean':
      return 'Average value';
    case 'opposite':
      return `Moves opposite to ${other}`;
    case 'same':
      return `Moves with ${other}`;
    case 'steps':
      return `High on these steps of ${other}, low on the rest`;
    case 'duty':
      return 'Duty cycle';
    case 'fall':
      return 'Decay: dB, in seconds';
    case 'dip':
      return 'Level dips';
    case 'arrive':
      return 'Steps arrive in';
    case 'like':
      return targetText([], t).replace(/^c/, 'C');
  }
}
