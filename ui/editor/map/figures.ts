import { countsOctaves, showNumber, showQuantity, withUnit } from '@/core';
import type { MapCell, PatchMap } from '@/core';

const signOf = ({ sign }: MapCell): string => (sign > 0 ? '+' : sign < 0 ? '\u2212' : '\u00b1');

/** How far a source moves a destination, in a few characters: `+4.0 oct`, `× −6.0 dB`, `gates`; empty where it does not. */
export function cellText(
  cell: MapCell,
  { quantity, unit }: { readonly quantity: string; readonly unit: string },
): string {
  if (cell.reach === 'none') return '';
  if (cell.reach === 'gated') return 'gates';
  const by = cell.reach === 'multiplied' ? '\u00d7 ' : '';
  if (cell.volts < 1e-9) return `${by}0`;
  // A level is of sound: what counts is how far its voltage swings.
  if (quantity === 'level') return `${by}${withUnit(showNumber(cell.volts, 2), 'V')}`;
  if (cell.width === null) return `${by}from \u2212\u221e`;
  const amount = countsOctaves(quantity)
    ? withUnit(showNumber(cell.width, 1), 'oct')
    : unit === 'dB'
      ? withUnit(showNumber(cell.width, 1), 'dB')
      : showQuantity(cell.width, unit).replace(/^\+/, '');
  return `${by}${signOf(cell)}${amount}`;
}

/** The whole of a cell, for screen readers and on hover. */
export function cellSays(
  cell: MapCell,
  row: string,
  column: { readonly place: string; readonly unit: string },
): string {
  const { reach, low, high, sign } = cell;
  if (reach === 'none') return `${row} does not reach ${column.place}. Suggest a route.`;
  if (reach === 'gated') return `${row} starts or times what reaches ${column.place}.`;
  const way = sign > 0 ? 'rises with it' : sign < 0 ? 'falls as it rises' : 'moves either way';
  const range = `${showQuantity(low, column.unit)} to ${showQuantity(high, column.unit)}`;
  const multiplied = reach === 'multiplied' ? ' Multiplied by another signal, taken at its mean.' : '';
  return `${row} alone: ${column.place} ${range}, ${way}.${multiplied}`;
}

/** The map as a table of comma-separated values, a row for each source. */
export const mapTable = (map: PatchMap, places: readonly string[]): readonly (readonly string[])[] => [
  ['source', ...places],
  ...map.rows.map((r) => [r.name, ...r.cells.map((c, i) => cellText(c, map.columns[i] ?? { quantity: '', unit: '' }))]),
];
