/** Printing of numbers on screen: true minus sign, no-break space before the unit, as many digits as mean something. */

const MINUS = '\u2212';
const SPACE = '\u00a0';

export function showNumber(x: number, digits: number, plus = false): string {
  const text = Math.abs(x).toFixed(digits);
  const zero = Number(text) === 0;
  return `${x < 0 && !zero ? MINUS : plus && !zero ? '+' : ''}${text}`;
}

export const withUnit = (text: string, unit: string): string =>
  unit === '%' ? `${text}%` : unit ? `${text}${SPACE}${unit}` : text;

export const showVolts = (x: number, plus = true): string => withUnit(showNumber(x, 2, plus), 'V');

/** `−2.00 to +4.50 V` */
export function showVoltRange(low: number, high: number): string {
  return `${showNumber(low, 2, true)} to ${showVolts(high)}`;
}

function significant(x: number, digits: number): string {
  if (x === 0) return '0';
  const decimals = Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(x)) + 1e-9));
  return showNumber(x, Math.min(decimals, 6));
}

export function showHz(hz: number): string {
  return Math.abs(hz) >= 999.5 ? withUnit(significant(hz / 1000, 3), 'kHz') : withUnit(significant(hz, 3), 'Hz');
}

export function showSeconds(s: number): string {
  if (s !== 0 && Math.abs(s) < 0.9995) return withUnit(significant(s * 1000, 3), 'ms');
  return withUnit(significant(s, 4), 's');
}

/** Takes away zeros that say nothing, before the unit. */
const brief = (text: string): string => text.replace(/(\.\d*?)0+(?=\u00a0)/, '$1').replace(/\.(?=\u00a0)/, '');

/** Without the zeros that say nothing: `4 s`, `1.5 s`; for labels. */
export const briefSeconds = (s: number): string => brief(showSeconds(s));

/** Most decimals of a time on a ruler. */
const FINEST = 6;

/**
 * Times along one ruler, all in the unit of its greatest, with the digits that tell them: `0 s`, `0.5 s`, `1 s`.
 *
 * @param ticks seconds, in even steps.
 */
export function rulerSeconds(ticks: readonly number[]): string[] {
  const most = Math.max(0, ...ticks.map(Math.abs));
  const [size, unit] = most >= 0.9995 || most === 0 ? [1, 's'] : [1e-3, 'ms'];
  const [first = 0, second = first + most] = ticks;
  const step = Math.abs(second - first) / size;
  const told = (digits: number): boolean =>
    ticks.every((t) => Math.abs(Number((t / size).toFixed(digits)) - t / size) <= step / 100);
  let digits = 0;
  while (digits < FINEST && !told(digits)) digits++;
  return ticks.map((t) => brief(withUnit(showNumber(t / size, digits), unit)));
}

export const showDb = (db: number | null): string => withUnit(db === null ? `${MINUS}∞` : showNumber(db, 1), 'dB');

/** A figure in a destination's own unit. */
export function showQuantity(value: number | null, unit: string): string {
  if (unit === 'dB' || unit === 'dBu' || unit === 'dBV')
    return withUnit(value === null ? `${MINUS}∞` : showNumber(value, 1), unit);
  if (value === null) return '–';
  if (unit === 'Hz') return showHz(value);
  if (unit === 's') return showSeconds(value);
  if (unit === 'V') return showVolts(value);
  if (unit === '%') return withUnit(showNumber(value, 1), unit);
  if (unit === '×') return `×${significant(value, 3)}`;
  return withUnit(significant(value, 4), unit);
}

/**
 * A figure as one types it, with its unit and all its digits up to six: `7.6 kHz`, `500 ms`, `−12 dB`; what it says is
 * read back as the same figure.
 */
export function figureText(x: number, unit: string): string {
  const [size, prefix] =
    unit === 'Hz' && Math.abs(x) >= 1000
      ? [1000, 'k']
      : unit === 's' && x !== 0 && Math.abs(x) < 1
        ? [0.001, 'm']
        : [1, ''];
  const figure = String(Number((x / size).toPrecision(6))).replace('-', MINUS);
  return unit === '×' ? `×${figure}` : withUnit(figure, `${prefix}${unit}`);
}

/** `212 Hz to 3.14 kHz`; the unit once where both share it. */
export function showRange(low: number | null, high: number | null, unit: string): string {
  const [a, b] = [showQuantity(low, unit), showQuantity(high, unit)];
  if (a === b) return a;
  const [first = '', firstUnit = ''] = a.split(SPACE);
  return firstUnit && firstUnit === b.split(SPACE)[1] ? `${first} to ${b}` : `${a} to ${b}`;
}
