import { REACH_RANK } from '@/core';
import type { MapRow, PatchMap } from '@/core';

/** How the rows are sorted: by a destination, the most moved first, or as the patch has them. */
export interface Order {
  /** The column's socket; null: as the patch has its sources. */
  readonly by: string | null;
}

export interface Part {
  readonly rows: readonly MapRow[];
  /** Indexes of the columns that are shown. */
  readonly columns: readonly number[];
}

/** The part of a map that words name, its rows in order. */
export function shownPart(map: PatchMap, places: readonly string[], words: string, { by }: Order): Part {
  const asked = words.trim().toLowerCase();
  const fits = (text: string): boolean => text.toLowerCase().includes(asked);
  const named = map.columns.map((_, i) => i).filter((i) => fits(places[i] ?? ''));
  const rowsNamed = map.rows.filter((r) => fits(`${r.name} ${r.about}`));
  const columns = asked === '' || named.length === 0 ? map.columns.map((_, i) => i) : named;
  // Words that name a destination show the sources that reach it.
  const reaching = map.rows.filter((r) => columns.some((i) => r.cells[i]?.reach !== 'none'));
  const rows = asked === '' ? map.rows : rowsNamed.length > 0 ? rowsNamed : named.length > 0 ? reaching : [];
  const at = map.columns.findIndex((c) => c.at === by);
  if (at < 0) return { rows, columns };
  const weight = (r: MapRow): number => {
    const cell = r.cells[at];
    return cell ? REACH_RANK[cell.reach] * 1e6 + cell.volts : 0;
  };
  return { rows: [...rows].sort((a, b) => weight(b) - weight(a)), columns };
}
