import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import Papa from 'papaparse';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import type { Json, Patch, Result } from '../document/types';
import { kindNamed } from '../kinds';

/**
 * A patch as tables of modules, cables and settings, for spreadsheets and other programs. What a patch holds beside
 * those, as targets, automation and variants, is not in them.
 */

export interface PatchTables {
  readonly name: string;
  readonly modules: readonly TableModule[];
  readonly cables: readonly Cable[];
}

interface Cable {
  readonly from: string;
  readonly to: string;
}

interface TableModule {
  readonly id: string;
  readonly kind: string;
  readonly label: string;
  /** The cables that join its neighbours while it is bypassed; null where it is not. */
  readonly bypassed: readonly Cable[] | null;
  /** What differs from the defaults. */
  readonly settings: Readonly<Record<string, Json>>;
}

/** The module under which the patch's own settings stand. */
const PATCH = '';

type Settings = Readonly<Record<string, Json>>;
interface Printed {
  readonly settings: Settings;
  readonly modules: readonly Bare[];
  readonly cables: readonly Cable[];
  readonly bypassed?: readonly { readonly module: string; readonly cables: readonly Cable[] }[];
}
type Bare = { readonly id: string; readonly kind: string; readonly label?: string; readonly params?: Settings };

/** A patch as its tables; the settings of the patch itself are those of a first module without an id. */
export function tablesOf(patch: Patch): PatchTables {
  const { modules, settings, cables, bypassed = [] } = printPatch(patch) as unknown as Printed;
  const own: TableModule = { id: PATCH, kind: 'patch', label: patch.name, bypassed: null, settings };
  const others = modules.map(({ id, kind, label = '', params = {} }): TableModule => {
    const around = bypassed.find((b) => b.module === id)?.cables ?? null;
    return { id, kind, label, bypassed: around, settings: params };
  });
  return { name: patch.name, modules: [own, ...others], cables };
}

/**
 * The patch that tables describe.
 *
 * @returns it, or what is wrong, each with its place.
 */
export function patchOfTables({ name, modules, cables }: PatchTables): Result<Patch, string[]> {
  const own = modules.find((m) => m.id === PATCH);
  const others = modules.filter((m) => m.id !== PATCH);
  const bypassed = others.flatMap((m) => (m.bypassed ? [{ module: m.id, cables: m.bypassed }] : []));
  const read = parsePatch({
    format: 'fenvo.patch',
    version: 1,
    name,
    ...(own && { settings: own.settings }),
    modules: others.map(({ id, kind, label, settings }) => ({
      id,
      kind,
      ...(label !== '' && { label }),
      ...(Object.keys(settings).length > 0 && { params: settings }),
    })),
    cables,
    ...(bypassed.length > 0 && { bypassed }),
  });
  if (read.ok) return read;
  return { ok: false, errors: read.errors.map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`) };
}

/** A value as a cell: texts as they are, all else as JSON. */
const cellOf = (value: Json): string => (typeof value === 'string' ? value : JSON.stringify(value));

/** A cell as the value of a setting: a text where the setting is one, or where it is no JSON. */
function valueOf(cell: string, kind: string, setting: string): Json {
  const spec = kindNamed(kind)?.params[setting];
  if (spec?.type === 'text') return cell;
  try {
    return JSON.parse(cell) as Json;
  } catch {
    return cell;
  }
}

const FILES = ['modules.csv', 'cables.csv', 'settings.csv'] as const;
type TableFile = (typeof FILES)[number];

const COLUMNS: Readonly<Record<TableFile, readonly string[]>> = {
  'modules.csv': ['id', 'kind', 'label', 'bypassed'],
  'cables.csv': ['from', 'to'],
  'settings.csv': ['module', 'setting', 'value'],
};

/** The three tables as CSV, each under its name. */
export function tablesToCsv({ modules, cables }: PatchTables): Readonly<Record<TableFile, string>> {
  const csv = (file: TableFile, data: readonly (readonly string[])[]): string =>
    `${Papa.unparse({ fields: [...COLUMNS[file]], data: data.map((row) => [...row]) }, { newline: '\n' })}\n`;
  return {
    'modules.csv': csv(
      'modules.csv',
      modules.map((m) => [m.id, m.kind, m.label, m.bypassed ? JSON.stringify(m.bypassed) : '']),
    ),
    'cables.csv': csv(
      'cables.csv',
      cables.map(({ from, to }) => [from, to]),
    ),
    'settings.csv': csv(
      'settings.csv',
      modules.flatMap((m) => Object.entries(m.settings).map(([setting, value]) => [m.id, setting, cellOf(value)])),
    ),
  };
}

/** The cables around a bypassed module; @throws Error where the cell is none. */
function aroundOf(cell: string): readonly Cable[] | null {
  if (cell === '') return null;
  try {
    return JSON.parse(cell) as readonly Cable[];
  } catch {
    throw new Error(`modules.csv: “${cell}” is no list of the cables around a bypassed module.`);
  }
}

/** The rows of one table by its columns; @throws Error with the file and the line. */
function rowsOf(file: TableFile, text: string): Readonly<Record<string, string>>[] {
  const { data, errors, meta } = Papa.parse<Record<string, string>>(text, {
    header: true,
    delimiter: ',',
    skipEmptyLines: true,
  });
  const [fault] = errors;
  if (fault) throw new Error(`${file}, line ${(fault.row ?? 0) + 2}: ${fault.message}`);
  const missing = COLUMNS[file].find((column) => !meta.fields?.includes(column));
  if (missing !== undefined) throw new Error(`${file}: there is no column “${missing}”.`);
  return data;
}

/**
 * Reads the three tables.
 *
 * @returns them, or what is wrong and where.
 */
export function tablesOfCsv(files: Readonly<Record<TableFile, string>>): Result<PatchTables, string[]> {
  try {
    const rows = rowsOf('modules.csv', files['modules.csv']);
    const known = new Map(rows.map((row) => [row.id ?? '', row]));
    const settings = new Map<string, Record<string, Json>>();
    for (const [i, { module = '', setting = '', value = '' }] of rowsOf(
      'settings.csv',
      files['settings.csv'],
    ).entries()) {
      const of = known.get(module);
      if (!of) throw new Error(`settings.csv, line ${i + 2}: there is no module “${module}”.`);
      const held = settings.get(module) ?? {};
      held[setting] = valueOf(value, of.kind ?? '', setting);
      settings.set(module, held);
    }
    const modules = rows.map(({ id = '', kind = '', label = '', bypassed = '' }): TableModule => {
      return { id, kind, label, bypassed: aroundOf(bypassed), settings: settings.get(id) ?? {} };
    });
    const cables = rowsOf('cables.csv', files['cables.csv']).map(({ from = '', to = '' }) => ({ from, to }));
    return { ok: true, value: { name: known.get(PATCH)?.label || 'Imported patch', modules, cables } };
  } catch (error) {
    return { ok: false, errors: [error instanceof Error ? error.message : String(error)] };
  }
}

/** A patch's tables as one zip. */
export const packTables = (patch: Patch): Uint8Array<ArrayBuffer> =>
  zipSync(
    Object.fromEntries(Object.entries(tablesToCsv(tablesOf(patch))).map(([name, text]) => [name, strToU8(text)])),
  );

/** Unpacked, a table is no larger than this, bytes. */
const LARGEST = 20_000_000;

/** The patch of a zip of tables; null where it is none. @throws Error where it is no zip. */
export function unpackTables(bytes: Uint8Array): Result<Patch, string[]> | null {
  const held = unzipSync(bytes, {
    filter: ({ name, originalSize }) => (FILES as readonly string[]).includes(name) && originalSize <= LARGEST,
  });
  if (!FILES.every((name) => held[name])) return null;
  const text = (name: TableFile): string => strFromU8(held[name] as Uint8Array);
  const read = tablesOfCsv({
    'modules.csv': text('modules.csv'),
    'cables.csv': text('cables.csv'),
    'settings.csv': text('settings.csv'),
  });
  return read.ok ? patchOfTables(read.value) : read;
}
