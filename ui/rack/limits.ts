import { parseRack, printRack, readQuantity } from '@/core';
import type { ChannelMode, PanelPoint, PanelScale, ParamSpec, ParamValue, Rack } from '@/core';

/** How a channel holds a parameter. */
export type How = 'free' | 'fixed' | 'range' | 'choices';

export function howOf(mode: ChannelMode, name: string): How {
  if (Object.hasOwn(mode.fixed, name)) return 'fixed';
  if (Object.hasOwn(mode.ranges, name)) return 'range';
  return Object.hasOwn(mode.choices, name) ? 'choices' : 'free';
}

/** The ways that make sense for a parameter. */
export const waysFor = (spec: ParamSpec): readonly How[] =>
  spec.type === 'number' ? ['free', 'fixed', 'range', 'choices'] : ['free', 'fixed', 'choices'];

/** Parameters that a channel can limit: not lists and names. */
export const canLimit = (spec: ParamSpec): boolean => ['number', 'choice', 'flag'].includes(spec.type);

const without = <T>(x: Readonly<Record<string, T>>, name: string): Record<string, T> =>
  Object.fromEntries(Object.entries(x).filter(([key]) => key !== name));

/** What is typed, as a value of a parameter; null where it is none. */
export function readValue(spec: ParamSpec, text: string): ParamValue | undefined {
  if (spec.type === 'flag') return text === 'on' ? true : text === 'off' ? false : undefined;
  if (text === 'none' && spec.type === 'number' && spec.nullable) return null;
  if (spec.type === 'choice') return spec.options.find((o) => String(o) === text);
  const figure = Number(text.replace('\u2212', '-'));
  return text !== '' && Number.isFinite(figure) ? figure : undefined;
}

export const shownValue = (value: ParamValue): string =>
  typeof value === 'boolean' ? (value ? 'on' : 'off') : value === null ? 'none' : String(value);

/** What the field of a way shows. */
export function shownLimit(mode: ChannelMode, name: string): string {
  const how = howOf(mode, name);
  if (how === 'fixed') return shownValue(mode.fixed[name] as ParamValue);
  if (how === 'range') return (mode.ranges[name] ?? []).join(' … ');
  return how === 'choices' ? (mode.choices[name] ?? []).map(shownValue).join(', ') : '';
}

/** A mode with a parameter held another way, beginning with what its kind has. */
export function withWay(mode: ChannelMode, name: string, spec: ParamSpec, how: How): ChannelMode {
  const fixed = without(mode.fixed, name);
  const ranges = without(mode.ranges, name);
  const choices = without(mode.choices, name);
  const usual = spec.default as ParamValue;
  if (how === 'fixed') return { ...mode, fixed: { ...fixed, [name]: usual }, ranges, choices };
  if (how === 'range' && spec.type === 'number')
    return { ...mode, fixed, ranges: { ...ranges, [name]: [spec.min, spec.max] }, choices };
  if (how === 'choices') {
    const all: readonly ParamValue[] =
      spec.type === 'choice' ? spec.options : spec.type === 'flag' ? [true, false] : [usual];
    return { ...mode, fixed, ranges, choices: { ...choices, [name]: all } };
  }
  return { ...mode, fixed, ranges, choices };
}

/** A mode with what was typed for a parameter; a text says what cannot be read. */
export function withLimit(mode: ChannelMode, name: string, spec: ParamSpec, text: string): ChannelMode | string {
  const how = howOf(mode, name);
  const parts = text.split(how === 'range' ? /\s*(?:…|\.\.\.|,|\s)\s*/ : /\s*,\s*/).filter(Boolean);
  const values = parts.map((p) => readValue(spec, p));
  if (values.length === 0 || values.some((v) => v === undefined)) return `Can’t read “${text}”.`;
  const read = values as ParamValue[];
  if (how === 'fixed') return { ...mode, fixed: { ...mode.fixed, [name]: read[0] as ParamValue } };
  if (how === 'choices') return { ...mode, choices: { ...mode.choices, [name]: read } };
  if (read.length !== 2) return 'Enter two numbers: minimum and maximum.';
  return { ...mode, ranges: { ...mode.ranges, [name]: [Number(read[0]), Number(read[1])] } };
}

export const shownPanel = (panel: PanelScale | undefined): string => (panel ? panel.scale.join(' … ') : '');
export const shownPoints = (panel: PanelScale | undefined): string =>
  (panel?.points ?? [])
    .map(([position, figure, value]) => `${100 * position}: ${figure}${value === undefined ? '' : ` = ${value}`}`)
    .join(', ');

const figuresIn = (text: string): number[] =>
  text
    .split(/[\s:,;…]+/)
    .filter(Boolean)
    .map((t) => Number(t.replace('\u2212', '-')));

/** The printed ends of a panel; nothing for none. */
export function readPanel(text: string, before: PanelScale | undefined): PanelScale | null | string {
  if (text === '') return null;
  const [low, high, ...more] = figuresIn(text);
  if (low === undefined || high === undefined || more.length > 0 || !(low < high))
    return 'Enter two numbers: lowest and highest printed value.';
  return { ...before, scale: [low, high] };
}

/** Pointer positions in percent, each with the figure that stands there, and after a sign what the knob gives there. */
export function readPoints(text: string, before: PanelScale, unit: string): PanelScale | string {
  if (text === '') return { scale: before.scale };
  const points = text.split(/[,;]/).map((part): PanelPoint | null => {
    const [pair = '', given] = part.split('=');
    const [position, figure, ...more] = figuresIn(pair);
    const value = given === undefined ? undefined : readQuantity(given, unit);
    if (position === undefined || figure === undefined || more.length > 0 || value === null) return null;
    if (!Number.isFinite(position) || !Number.isFinite(figure)) return null;
    return value === undefined ? [position / 100, figure] : [position / 100, figure, value];
  });
  const read = points.filter((p): p is PanelPoint => p !== null);
  return read.length === points.length
    ? { ...before, points: read }
    : 'Enter pairs: position in %, then printed value; add what it gives there, if it is off: 50: 5 = 100 ms.';
}

/** What is wrong with a rack, the first of it; null where nothing is. */
export function rackFault(rack: Rack): string | null {
  const read = parseRack(JSON.parse(JSON.stringify(printRack(rack))));
  return read.ok ? null : (read.errors[0]?.message ?? 'could not be read');
}
