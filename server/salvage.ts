import { mkdirSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { DATABASE, migrateFolder } from './database';
import { holdingsIn, quoted, withFile } from './libraryFile';
import type { Ask } from './libraryFile';
import { traceId } from './traceId';
import type { Damage } from '../wire/library';

/**
 * Reads what can be read of a damaged library, row by row, into a sound one. SQLite ends a query at the first page that
 * makes no sense; rows on other pages are reached by their numbers.
 */

/** Tables that are made of others, and the step that makes them. */
const DERIVED = /^(patch_index|patch_words|fits)/;
const DERIVES = '0013-search';

type Row = Readonly<Record<string, unknown>>;

/** Whether all pages of a library's file make sense. */
export const isWhole = (file: string): Promise<boolean> =>
  withFile(file, async (ask) => (await ask('PRAGMA quick_check(1)'))[0]?.quick_check === 'ok').catch(() => false);

/** The numbers of a table's rows, as the first of its indexes tells them that can be read; null where none can. */
async function numbersOf(ask: Ask, table: string): Promise<readonly number[] | null> {
  const indexes = await ask(`SELECT name FROM pragma_index_list('${table}')`).catch(() => []);
  for (const { name } of indexes) {
    const sql = `SELECT rowid AS n FROM ${quoted(table)} INDEXED BY ${quoted(String(name))}`;
    const rows = await ask(sql).catch(() => null);
    if (rows) return rows.map(({ n }) => Number(n)).sort((a, b) => a - b);
  }
  return null;
}

/** Rows that are looked for at once: a document may have 5 MB, a recording 100. */
const AT_ONCE = 8;
const LARGE = /\bBLOB\b/i;
/** Where nothing tells how many rows there are, so many are looked for. */
const UNTOLD = 10_000;

interface Rows {
  readonly rows: readonly Row[];
  /** Rows that could not be read. */
  readonly lost: number;
}

/** The number of a table's last row, as the table itself tells it. */
async function lastOf(ask: Ask, table: string): Promise<number> {
  const [last] = await ask(`SELECT MAX(rowid) AS n FROM ${quoted(table)}`).catch(() => [{ n: UNTOLD }]);
  return Number(last?.n ?? 0);
}

/** What can be read of a table, part by part. */
async function* readable(ask: Ask, table: string, atOnce: number): AsyncGenerator<Rows> {
  const numbers = await numbersOf(ask, table);
  const count = numbers?.length ?? (await lastOf(ask, table));
  const numberAt = (i: number): number => numbers?.[i] ?? i + 1;
  const sql = `SELECT * FROM ${quoted(table)} WHERE rowid BETWEEN ? AND ?`;
  const part = async (from: number, to: number): Promise<Rows> => {
    const rows = await ask(sql, [numberAt(from), numberAt(to - 1)]).catch(() => null);
    if (rows) return { rows, lost: 0 };
    if (to - from === 1) return { rows: [], lost: 1 };
    const middle = Math.floor((from + to) / 2);
    const [a, b] = [await part(from, middle), await part(middle, to)];
    return { rows: [...a.rows, ...b.rows], lost: a.lost + b.lost };
  };
  for (let from = 0; from < count; from += atOnce) yield await part(from, Math.min(count, from + atOnce));
}

/** Whether a row that could be read is what was written: a page may be damaged where only text or samples lie. */
function isSound({ id, body, sampleRate, volts }: Row): boolean {
  if (Buffer.isBuffer(volts)) return id === traceId(Number(sampleRate), volts);
  if (typeof body !== 'string') return true;
  try {
    JSON.parse(body);
    return true;
  } catch {
    return false;
  }
}

/** Copies a table. @returns how many rows are lost. */
async function copyTable(from: Ask, to: Ask, table: string, schema: string): Promise<number> {
  let lost = 0;
  await to(schema);
  for await (const part of readable(from, table, LARGE.test(schema) ? 1 : AT_ONCE)) {
    lost += part.lost;
    for (const row of part.rows) {
      const names = Object.keys(row);
      const sql = `INSERT OR IGNORE INTO ${quoted(table)} (${names.map(quoted).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`;
      if (isSound(row)) await to(sql, Object.values(row));
      else lost += 1;
    }
  }
  return lost;
}

/** Patches whose row is lost come back as their newest version that could be read. @returns how many. */
async function revive(to: Ask): Promise<number> {
  const all = (what: string): string => `(SELECT ${what} FROM revisions one WHERE one.patchId = newest.patchId)`;
  await to(`INSERT INTO patches (id, revision, name, body, createdAt, updatedAt)
    SELECT patchId, revision, name, body, ${all('MIN(savedAt)')}, savedAt FROM revisions newest
    WHERE patchId NOT IN (SELECT id FROM patches) AND revision = ${all('MAX(revision)')}`);
  return Number((await to('SELECT changes() AS n'))[0]?.n);
}

/**
 * Makes a sound library of what can be read of a damaged one, with its schema brought up to date.
 *
 * @param folder where it is made: one that holds no library yet.
 * @throws where not even the file's schema can be read.
 */
export async function salvage(file: string, folder: string): Promise<Damage> {
  mkdirSync(folder, { recursive: true });
  const made = path.join(folder, DATABASE);
  const lost: Record<string, number> = {};
  let revived = 0;
  await withFile(file, async (from) => {
    const schema = await from(
      "SELECT type, tbl_name AS name, sql FROM sqlite_master WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite_%'",
    );
    const own = schema.filter(({ name }) => !DERIVED.test(String(name)));
    const ofType = (type: string) => own.filter((s) => s.type === type);
    if (!ofType('table').some(({ name }) => name === 'patches')) throw new Error('SQLITE_CORRUPT: no table of patches');
    await withFile(
      made,
      async (to) => {
        await to('PRAGMA foreign_keys = OFF');
        await to('BEGIN');
        for (const { name, sql } of ofType('table')) {
          const missing = await copyTable(from, to, String(name), String(sql));
          if (missing > 0) lost[String(name)] = missing;
        }
        if (lost.patches) revived = await revive(to);
        for (const { sql } of ofType('index')) await to(String(sql));
        await to('DELETE FROM SequelizeMeta WHERE name = ?', [DERIVES]);
        await to('COMMIT');
      },
      sqlite3.OPEN_READWRITE | sqlite3.OPEN_CREATE,
    );
  });
  await migrateFolder(folder);
  return { lost, revived, holdings: await withFile(made, holdingsIn) };
}
