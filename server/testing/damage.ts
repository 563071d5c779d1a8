import { closeSync, openSync, writeSync } from 'node:fs';
import sqlite3 from 'sqlite3';
import { withFile } from '../libraryFile';

const PAGE = 4096;

/** Writes over pages of a database's file, which starts with page 1. */
export function overwrite(file: string, pages: readonly number[], fill: (at: number) => number = () => 0): void {
  const fd = openSync(file, 'r+');
  for (const page of pages)
    writeSync(
      fd,
      Uint8Array.from({ length: PAGE }, (_, i) => fill(i)),
      0,
      PAGE,
      (page - 1) * PAGE,
    );
  closeSync(fd);
}

/** Writes over the first page that holds rows of a table; nobody else may have the file open. */
export async function damageTable(file: string, table: string): Promise<void> {
  const page = await withFile(
    file,
    async (ask) => {
      await ask('PRAGMA wal_checkpoint(TRUNCATE)');
      const [leaf] = await ask("SELECT pageno FROM dbstat WHERE name = ? AND pagetype = 'leaf' LIMIT 1", [table]);
      return Number(leaf?.pageno);
    },
    sqlite3.OPEN_READWRITE,
  );
  overwrite(file, [page]);
}
