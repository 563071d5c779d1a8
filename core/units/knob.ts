import { hzOfNote } from './pitch';
/** A knob's span; `log` spreads its travel evenly over the octaves. */
export interface Travel {
  readonly min: number;
  readonly max: number;
  readonly taper: 'linear' | 'log';
  /** What is printed around it; left out: its own figures, evenly. */
  readonly panel?: Panel;
}

/** A figure that stands at a pointer position, 0..1, and where the panel says so what the knob then gives. */
export type PanelPoint = readonly [position: number, figure: number, value?: number];

/** The printed ends of a panel, and which figure stands at which pointer position; straight in between. */
export interface Panel {
  readonly scale: readonly [number, number];
  readonly points?: readonly PanelPoint[];
}

/** Straight between points that rise, and on to both ends. */
function between(points: readonly (readonly [number, number])[], x: number): number {
  const at = points.findIndex(([from]) => from >= x);
  const [a, b] = [
    points[Math.max(0, at < 0 ? points.length - 2 : at - 1)],
    points[at < 0 ? points.length - 1 : Math.max(1, at)],
  ];
  if (!a || !b) return x;
  return a[1] + ((x - a[0]) / (b[0] - a[0])) * (b[1] - a[1]);
}

type Marks = readonly (readonly [number, number])[];

/** Pointer positions beside something that goes from 0 to 1, with both ends. */
function withEnds(marks: Marks): Marks {
  const first = marks.at(0)?.[0] === 0 ? [] : [[0, 0] as const];
  const last = marks.at(-1)?.[0] === 1 ? [] : [[1, 1] as const];
  return [...first, ...marks, ...last];
}

type Printed = Travel & { readonly panel: Panel };

/** Pointer positions beside shares of the printed scale. */
const printed = ({ scale: [low, high], points = [] }: Panel): Marks =>
  withEnds(points.map(([position, figure]) => [position, (figure - low) / (high - low)] as const));

/** Pointer positions beside shares of the electrical travel: of the values where the panel has them, else of its scale. */
function electric(travel: Printed): Marks {
  const {
    scale: [low, high],
    points = [],
  } = travel.panel;
  const share = ([, figure, value]: PanelPoint): number =>
    value === undefined ? (figure - low) / (high - low) : electrical(travel, value);
  return withEnds(points.map((point) => [point[0], share(point)] as const));
}

const turned = (marks: Marks): Marks => marks.map(([a, b]) => [b, a] as const);

const hasPoints = (travel: Travel): travel is Printed => travel.panel?.points !== undefined;

/** Where the pointer stands at a share of a knob's electrical travel, with what its panel says. */
export const pointerAt = (travel: Travel, share: number): number =>
  hasPoints(travel) ? between(turned(electric(travel)), share) : share;

/** The share of its electrical travel at a pointer position. */
export const shareAt = (travel: Travel, position: number): number =>
  hasPoints(travel) ? between(electric(travel), position) : position;

/** The figure that a panel shows at a value. */
export function figureOf(travel: Printed, value: number): number {
  const [low, high] = travel.panel.scale;
  return low + between(printed(travel.panel), positionOf(travel, value)) * (high - low);
}

/** Where a logarithmic knob that goes down to 0 begins its octaves; below it is 0. */
export const logFloor = ({ min, max }: Travel): number => (min > 0 ? min : max / 100_000);

/** The pointer's position 0..1 at a value. */
export const positionOf = (travel: Travel, value: number): number => pointerAt(travel, electrical(travel, value));

/** The share of its electrical travel at a value. */
function electrical(travel: Travel, value: number): number {
  const { min, max, taper } = travel;
  if (max === min) return 0;
  if (taper === 'linear') return (value - min) / (max - min);
  const floor = logFloor(travel);
  return value <= floor ? 0 : Math.log(value / floor) / Math.log(max / floor);
}

/** The value at a position 0..1. */
export function valueAt(travel: Travel, position: number): number {
  const { min, max, taper } = travel;
  const p = Math.min(1, Math.max(0, shareAt(travel, Math.min(1, Math.max(0, position)))));
  if (taper === 'linear') return min + p * (max - min);
  if (p === 0) return min;
  const floor = logFloor(travel);
  return floor * (max / floor) ** p;
}

/** `7:00` at 0 through noon to `5:00` at 1, to the minute. */
export function clockOf(position: number): string {
  const minutes = Math.round((12 + 10 * (position - 0.5)) * 60);
  const hours = Math.floor(minutes / 60);
  return `${hours > 12 ? hours - 12 : hours}:${String(minutes % 60).padStart(2, '0')}`;
}

/** The pointer's angle in degrees clockwise from noon. */
export const angleOf = (position: number): number => 300 * (position - 0.5);

function clockPosition(hours: number, minutes: number): number | null {
  if (minutes > 59 || hours < 1 || hours > 12) return null;
  const at = (hours < 6 ? hours + 12 : hours) + minutes / 60;
  const position = (at - 12) / 10 + 0.5;
  return position < -1e-9 || position > 1 + 1e-9 ? null : Math.min(1, Math.max(0, position));
}

const scales: Readonly<Record<string, number>> = { k: 1000, m: 0.001, '': 1, µ: 1e-6, M: 1e6 };

const unspaced = (text: string): string => text.replace(/\u2212/g, '-').replace(/\s+/g, '');

/** A comma with three digits behind it, and nothing that says whether it groups thousands or begins decimals. */
const UNCLEAR = /^[+-]?[1-9]\d{0,2},\d{3}(?![\d.,])/;
/** Commas that can only group thousands: before a dot, or more than one. */
const GROUPED = /^[+-]?\d{1,3}(?:,\d{3})+(?=\.\d)|^[+-]?\d{1,3}(?:,\d{3}){2,}/;

/**
 * What is typed, as a number is written: without spaces, with a hyphen for minus and a dot for decimals. Two where a
 * comma can be read in two ways: with decimals, and with thousands.
 */
function plainOf(text: string): readonly [string, ...string[]] {
  const bare = unspaced(text);
  const decimal = bare.replace(',', '.');
  if (GROUPED.test(bare)) return [bare.replaceAll(',', '')];
  return UNCLEAR.test(bare) ? [decimal, bare.replace(',', '')] : [decimal];
}

/** What is asked of a figure that can be read in two ways. */
const unclear = (text: string): string => {
  const [decimal, thousands = decimal] = plainOf(text);
  return `${unspaced(text)} can be read in two ways: type ${decimal.replace(/0+(?=[^\d]|$)/, '')} or ${thousands}.`;
};

export type Typed = { readonly ok: true; readonly value: number } | { readonly ok: false; readonly message: string };

/**
 * Reads what a person types at a knob: `2:30` (clock), `40%` (of its travel), or a number with or without its unit
 * (`-0.4`, `1.5V`, `3.2k`, `200 ms`), a frequency also as a note (`C4`).
 */
export function readTyped(text: string, travel: Travel, unit: string): Typed {
  const [first, ...others] = plainOf(text).map((plain) => readPlain(plain, travel, unit));
  const read = [first, ...others].filter((t) => t?.ok);
  if (read.length > 1) return { ok: false, message: unclear(text) };
  return read[0] ?? first ?? { ok: false, message: 'Type a number.' };
}

function readPlain(plain: string, travel: Travel, unit: string): Typed {
  const note = unit === 'Hz' ? hzOfNote(plain) : null;
  if (note !== null) return inside(note, travel, note < travel.min || note > travel.max);
  const clock = /^(\d{1,2}):(\d{2})$/.exec(plain);
  if (clock) {
    const position = clockPosition(Number(clock[1]), Number(clock[2]));
    return position === null
      ? { ok: false, message: 'Clock positions run from 7:00 through 12:00 to 5:00.' }
      : { ok: true, value: valueAt(travel, position) };
  }
  const percent = /^([+-]?\d*\.?\d+)%$/.exec(plain);
  if (percent)
    return inside(
      valueAt(travel, Number(percent[1]) / 100),
      travel,
      Number(percent[1]) > 100 || Number(percent[1]) < 0,
    );
  const number = /^([+-]?\d*\.?\d+(?:e[+-]?\d+)?)([kmMµ]?)([A-Za-zΩ]*)$/.exec(plain);
  if (!number)
    return {
      ok: false,
      message: `Enter a number${unit ? ` in ${unit}` : ''}, a clock position (2:30) or a percentage (40%).`,
    };
  const [, digits = '', scale = '', suffix = ''] = number;
  // "m" alone could be a unit's first letter; a bare "m" or "k" is a thousandth or a thousand.
  if (suffix && suffix.toLowerCase() !== unit.toLowerCase())
    return { ok: false, message: `This knob takes ${unit || 'plain numbers'}.` };
  const typed = Number(digits) * (scales[scale] ?? 1);
  const { panel } = travel;
  // A bare number is read off the panel.
  const value = panel && !suffix ? ofFigure({ ...travel, panel }, typed) : typed;
  return inside(value, travel, value < travel.min || value > travel.max);
}

/** The value at a figure of the panel. */
function ofFigure(travel: Printed, figure: number): number {
  const [low, high] = travel.panel.scale;
  const share = (figure - low) / (high - low);
  if (share < -1e-9 || share > 1 + 1e-9) return NaN;
  return valueAt(travel, between(turned(printed(travel.panel)), share));
}

function inside(value: number, { min, max }: Travel, out: boolean): Typed {
  return out || !Number.isFinite(value)
    ? { ok: false, message: `Must be between ${Number(min.toPrecision(6))} and ${Number(max.toPrecision(6))}.` }
    : { ok: true, value };
}

const EVERYTHING = [-Infinity, Infinity] as const;

/** All ways to read a typed figure, each with whether it lies within the limits. */
const waysToRead = (text: string, unit: string, [min, max]: readonly [number, number]) =>
  plainOf(text).map((plain) => {
    const value = quantityOf(plain, unit);
    return { value, fits: value !== null && value >= min && value <= max };
  });

/**
 * A figure as a person types it, with or without its unit (`3.2k`, `200 Hz`, `−12 dB`, `40%`), a frequency also as a note
 * (`C4`); null where it is none,
 * or where a comma can be read in two ways within its limits.
 */
export function readQuantity(
  text: string,
  unit: string,
  limits: readonly [number, number] = EVERYTHING,
): number | null {
  const ways = waysToRead(text, unit, limits);
  if (ways.length === 1) return ways[0]?.value ?? null;
  const fitting = ways.filter((w) => w.fits);
  return fitting.length === 1 ? (fitting[0]?.value ?? null) : null;
}

/** What to ask where a typed figure can be read in two ways within its limits; null where it cannot. */
export function quantityFault(
  text: string,
  unit: string,
  limits: readonly [number, number] = EVERYTHING,
): string | null {
  const ways = waysToRead(text, unit, limits);
  return ways.length > 1 && ways.every((w) => w.fits) ? unclear(text) : null;
}

function quantityOf(plain: string, unit: string): number | null {
  if (unit === 'Hz') {
    const hz = hzOfNote(plain);
    if (hz !== null) return hz;
  }
  const times = unit === '×' ? plain.replace(/^[×x]|[×x]$/i, '') : plain;
  const bare = unit && times.toLowerCase().endsWith(unit.toLowerCase()) ? times.slice(0, -unit.length) : times;
  const number = /^([+-]?\d*\.?\d+(?:e[+-]?\d+)?)([kmMµ]?)$/.exec(bare);
  return number ? Number(number[1]) * (scales[number[2] ?? ''] ?? 1) : null;
}
