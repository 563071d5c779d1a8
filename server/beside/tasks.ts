import { traceId } from '../traceId';
import type { Schema } from 'joi';
import {
  applyEdits,
  ASSET,
  assignRack,
  changeOf,
  kindTitle,
  parseLog,
  setListOf,
  parsePatch,
  parseRack,
  patchPicture,
  placeName,
  printPatch,
  sheetOf,
} from '../../core';
import type { AssetLookup, BenchLog, MeterReading, MeterSpec, Patch, Rack, Sheet } from '../../core';
import type { RackFit } from '../../wire/patches';
import type { ChangeSheet, SetListSheet } from '../../wire/setLists';
import { ApiError } from '../checks/errors';
import { createSchema, saveSchema } from '../checks/schemas';
import { summarise } from './summary';

/** What is worked out beside the server's own thread. Only text and bytes go to and fro. */

/** A patch as it is stored: read by the core, printed, with its name. */
export interface ReadPatch {
  readonly name: string;
  readonly body: string;
}

export interface ReadRequest extends ReadPatch {
  readonly tags?: readonly string[];
  readonly baseRevision?: number;
  readonly key?: string;
}

export interface StoredTrace {
  readonly id: string;
  readonly sampleRate: number;
  readonly volts: Uint8Array;
}

/** Reads a document as the core does; what it refuses is not stored. */
export function readDocument(json: unknown): Patch {
  const result = parsePatch(json);
  if (result.ok) return result.value;
  const [first] = result.errors;
  const place = first?.path ? `${first.path}: ` : '';
  throw new ApiError(400, 'bad-patch', `Patch not saved. ${place}${first?.message ?? ''}`, result.errors);
}

export function readPatch(json: unknown): ReadPatch {
  const patch = readDocument(json);
  return { name: patch.name, body: JSON.stringify(printPatch(patch)) };
}

export function check<T>(schema: Schema<T>, value: unknown, where: string): T {
  const { error, value: checked } = schema.validate(value, { abortEarly: false, convert: true });
  if (!error) return checked as T;
  const details = error.details.map((d) => ({ path: d.path.join('.'), message: d.message }));
  throw new ApiError(400, 'bad-request', `Invalid request ${where}: ${error.message}.`, details);
}

export function readJson(bytes: Uint8Array): unknown {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new ApiError(400, 'bad-text', 'The body is not UTF-8. Nothing was stored.');
  }
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    const why = error instanceof Error ? error.message : 'unreadable';
    throw new ApiError(400, 'bad-json', `The body is not JSON: ${why}.`);
  }
}

/** The traces of stored bytes, by id. */
function lookup(traces: readonly StoredTrace[]): AssetLookup {
  const known = new Map(
    traces.map(({ id, sampleRate, volts }) => {
      // A copy: what came from elsewhere need not stand where floats may.
      return [id, { sampleRate, volts: new Float32Array(volts.slice().buffer) }] as const;
    }),
  );
  return (id) => known.get(id) ?? null;
}

/** A stored patch and a stored rack. */
interface OnRack {
  readonly body: string;
  /** Null where no rack is chosen. */
  readonly rack: string | null;
}

/** What a sheet expects at one of its steps. */
export interface StepExpectation {
  readonly at: string;
  readonly meter: readonly MeterReading[];
}

/** What expects readings: of what the instrument is off by. */
interface ByInstrument {
  readonly meter: MeterSpec;
}

/** What a session begins with. */
interface Standing {
  readonly body: string;
  readonly rack: string;
  readonly assignment: readonly { readonly module: string; readonly rack: string }[];
  /** By step. */
  readonly expects: Readonly<Record<string, StepExpectation>>;
  readonly steps: number;
}

interface SheetWanted extends OnRack, ByInstrument {
  readonly traces: readonly StoredTrace[];
  /** With the rack's modules as they were measured. */
  readonly measured: boolean;
}

/** A stored patch, or a variant of it by its name; empty for the patch as it is. */
interface VariantWanted {
  readonly body: string;
  readonly variant: string;
}

interface ChangeWanted extends ByInstrument {
  readonly from: VariantWanted;
  readonly to: VariantWanted;
  readonly rack: string | null;
  readonly traces: readonly StoredTrace[];
}

interface SetListWanted extends ByInstrument {
  readonly name: string;
  readonly rack: string | null;
  readonly items: readonly (VariantWanted & { readonly notes: string; readonly minutes: number })[];
  readonly traces: readonly StoredTrace[];
}

function variantOf({ body, variant }: VariantWanted): Patch {
  const patch = readDocument(JSON.parse(body));
  const found = patch.variants.find((v) => v.name === variant);
  if (variant !== '' && !found)
    throw new ApiError(404, 'not-found', `“${patch.name}” has no variant “${variant}” any more.`);
  return found ? { ...patch, ...found, name: `${patch.name}, ${variant}` } : patch;
}

/** Stored racks were read before they were stored. */
function readStoredRack(text: string): Rack {
  const read = parseRack(JSON.parse(text));
  if (!read.ok) throw new ApiError(500, 'bad-rack', 'The saved rack could not be read.', read.errors);
  return read.value;
}

export const tasks = {
  /** What of a patch has no channel on a rack, and how many stand in. */
  fit({ body, rack }: OnRack): RackFit {
    const patch = readDocument(JSON.parse(body));
    const { short, assigned } = assignRack(patch, readStoredRack(rack ?? ''));
    const kinds = new Map(patch.modules.map((m) => [m.id, kindTitle(m.kind)]));
    return {
      short: short.map((s) => ({ name: placeName(patch.modules, s.module), kind: kinds.get(s.module) ?? '' })),
      standIns: assigned.filter((a) => a.standIn !== null).length,
    };
  },
  /** A patch as one picture. */
  picture({ body, traces }: { readonly body: string; readonly traces: readonly StoredTrace[] }): string {
    return patchPicture(readDocument(JSON.parse(body)), lookup(traces));
  },
  /** The steps of a patch at a rack. */
  sheet({ body, rack, traces, measured, meter }: SheetWanted): Sheet {
    const patch = readDocument(JSON.parse(body));
    return sheetOf(patch, {
      asset: lookup(traces),
      meter,
      ...(rack !== null && { rack: readStoredRack(rack), asMeasured: measured }),
    });
  },
  /** From one patch, or a variant of it, to another. */
  change({ from, to, rack, traces, meter }: ChangeWanted): ChangeSheet {
    const owned = rack === null ? null : readStoredRack(rack);
    const options = { asset: lookup(traces), meter, ...(owned && { rack: owned }) };
    return { ...changeOf(variantOf(from), variantOf(to), options), rack: owned?.name ?? null };
  },
  /** An evening: its patches in their order, with the way from each to the next. */
  setList({ name, rack, items, traces, meter }: SetListWanted): SetListSheet {
    const owned = rack === null ? null : readStoredRack(rack);
    const options = { asset: lookup(traces), meter, ...(owned && { rack: owned }) };
    const patches = items.map((item) => {
      const patch = variantOf(item);
      return { patch, name: patch.name, notes: item.notes, minutes: item.minutes };
    });
    return { name, rack: owned?.name ?? null, entries: setListOf(patches, options) };
  },
  /** A log, read as the core does. */
  log({ log }: { readonly log: unknown }): BenchLog {
    const read = parseLog(log);
    if (read.ok) return read.value;
    const [first] = read.errors;
    const place = first?.path ? `${first.path}: ` : '';
    throw new ApiError(400, 'bad-log', `Couldn’t import the log. ${place}${first?.message ?? ''}`, read.errors);
  },
  /** A patch as it stands on a rack’s channels, and what its sheet expects there: the beginning of a session. */
  standing({
    body,
    rack,
    traces,
    meter,
  }: OnRack & ByInstrument & { readonly traces: readonly StoredTrace[] }): Standing {
    const given = readDocument(JSON.parse(body));
    const owned = rack === null ? null : readStoredRack(rack);
    const assignment = owned && assignRack(given, owned);
    const patch = applyEdits(given, assignment?.assigned.flatMap((a) => a.edits) ?? []);
    const sheet = sheetOf(patch, { asset: lookup(traces), meter, ...(owned && { rack: owned }) });
    return {
      body: JSON.stringify(printPatch({ ...patch, variants: [] })),
      rack: owned?.name ?? '',
      assignment: (assignment?.assigned ?? []).map((a) => ({ module: a.module, rack: a.rack })),
      expects: Object.fromEntries(
        sheet.steps.flatMap((s) => (s.do === 'measure' ? [[s.id, { at: s.expect.at, meter: s.expect.meter }]] : [])),
      ),
      steps: sheet.steps.length,
    };
  },
  /** A request to create or to save, checked and printed as it will be stored. */
  read({ bytes, what }: { readonly bytes: Uint8Array; readonly what: 'create' | 'save' }): ReadRequest {
    const json = readJson(bytes);
    if (what === 'create') {
      const { patch, tags } = check(createSchema, json, 'body');
      return { ...readPatch(patch), ...(tags && { tags }) };
    }
    const { patch, ...rest } = check(saveSchema, json, 'body');
    return { ...readPatch(patch), ...rest };
  },
  /** The id of a trace. Refuses what is no trace, with the sample that is not. */
  trace({ bytes, sampleRate }: { readonly bytes: Uint8Array; readonly sampleRate: number }): string {
    const whole = bytes.byteLength > 0 && bytes.byteLength % 4 === 0;
    if (!whole) throw new ApiError(400, 'bad-asset', 'A recording is 32-bit floats. Nothing was stored.');
    const strange = new Float32Array(bytes.slice().buffer).findIndex((v) => !(Math.abs(v) <= ASSET.volts));
    if (strange >= 0) {
      const message = `Recording rejected: sample ${strange} is outside \u00b1${ASSET.volts} V. Nothing was saved.`;
      throw new ApiError(400, 'bad-asset', message);
    }
    return traceId(sampleRate, bytes);
  },
  /** What the patches list shows of a stored body, as text; `null` where it cannot be read. */
  summary({ body, traces }: { readonly body: string; readonly traces: readonly StoredTrace[] }): string | null {
    const result = parsePatch(JSON.parse(body) as unknown);
    return result.ok ? JSON.stringify(summarise(result.value, lookup(traces))) : null;
  },
};

export type Tasks = typeof tasks;
export type Ask<K extends keyof Tasks = keyof Tasks> = K extends keyof Tasks
  ? { readonly task: K; readonly with: Parameters<Tasks[K]>[0] }
  : never;

export type Answer =
  | { readonly ok: true; readonly value: unknown }
  | {
      readonly ok: false;
      readonly status: number;
      readonly code: string;
      readonly message: string;
      readonly details: unknown;
    };

/** Runs a task; a fault that is the caller's comes back as an answer. */
export function runTask(ask: Ask): Answer {
  try {
    const run = tasks[ask.task] as (x: unknown) => unknown;
    return { ok: true, value: run(ask.with) };
  } catch (error) {
    if (error instanceof ApiError) {
      const { status, code, message, details } = error;
      return { ok: false, status, code, message, details };
    }
    return { ok: false, status: 500, code: 'internal', message: String(error), details: null };
  }
}
