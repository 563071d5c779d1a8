import Papa from 'papaparse';
import type { PatchMap } from '@/core';
import { saveFile } from '@/ui/parts/files';
import { mapTable } from './figures';

/** Hands the map to the browser as a table; cells that a spreadsheet would take for a formula are escaped. */
export function saveMap(name: string, map: PatchMap, places: readonly string[]): void {
  const text = Papa.unparse(mapTable(map, places) as string[][], { escapeFormulae: true });
  saveFile(`${name} map.csv`, new Blob([`\ufeff${text}\r\n`], { type: 'text/csv' }));
}
