import { scaleNamed, scaleNames, scaleTitle } from '@/core';
import type { GesturePoint, Step } from '@/core';
import type { Read } from './LinesField';

/** Lists as lines of text, and back. */

const MOST_VOLTS = 12;

const words = (line: string): string[] =>
  line
    .replace(/\u2212/g, '-')
    .trim()
    .split(/[\s;,]+/)
    .filter(Boolean);

const fits = (volts: number): boolean => Math.abs(volts) <= MOST_VOLTS;

export const pointsText = (points: readonly GesturePoint[]): string =>
  points.map((p) => `${p.t}  ${p.volts}`).join('\n');

/** `seconds volts` a line, times rising from 0 up. */
export function readPoints(text: string): Read<GesturePoint[]> {
  const values: GesturePoint[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    const parts = words(line);
    if (parts.length === 0) continue;
    const [t = NaN, volts = NaN] = parts.map(Number);
    if (parts.length !== 2 || !(t >= 0) || !fits(volts)) {
      return { fault: `Line ${i + 1}: enter a time (s) and a voltage within ±12 V, for example “1.5 4”.` };
    }
    const last = values.at(-1);
    if (last && t <= last.t) return { fault: `Line ${i + 1}: ${t} s must be later than the previous line.` };
    values.push({ t, volts });
  }
  return values.length > 0 ? { values } : { fault: 'Enter at least one line.' };
}

export const stepsText = (steps: readonly Step[]): string =>
  steps.map((s) => `${s.volts}${s.gate ? '' : ' rest'}${s.tie ? ' tie' : ''}`).join('\n');

/** `volts` a line, then `rest` where its gate is off and `tie` where it is held. */
export function readSteps(text: string): Read<Step[]> {
  const values: Step[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    const [first, ...marks] = words(line);
    if (first === undefined) continue;
    const volts = Number(first);
    if (!fits(volts) || marks.some((m) => m !== 'rest' && m !== 'tie')) {
      return {
        fault: `Line ${i + 1}: enter a voltage within ±12 V, optionally followed by “rest” or “tie”, for example “0.5 tie”.`,
      };
    }
    values.push({ volts, gate: !marks.includes('rest'), tie: marks.includes('tie') });
  }
  if (values.length > 64) return { fault: `${values.length} steps entered; the limit is 64.` };
  return values.length > 0 ? { values } : { fault: 'Enter at least one line.' };
}

export const scaleText = (scale: string | readonly number[]): string =>
  typeof scale === 'string' ? scaleTitle(scale) : scale.join(' ');

/** A scale's name, or semitones above the root. */
export function readScale(text: string): Read<string | number[]> {
  const name = scaleNamed(text);
  if (name !== undefined) return { values: name };
  const values = words(text).map(Number);
  if (values.length > 0 && values.every((v) => v >= 0 && v <= 12)) return { values };
  return { fault: `Enter a scale name (${scaleNames.map(scaleTitle).join(', ')}) or semitones from 0 to 12.` };
}
