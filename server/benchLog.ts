import { Op } from 'sequelize';
import type { CreationAttributes } from 'sequelize';
import { judge, readingUnit, LOG_LIMITS, packLog, parsePatch, printPatch, readingsToCsv, unpackLog } from '../core';
import type { BenchLog, LogFiles, LogReading, LogSession } from '../core';
import type { Ticks } from '../wire/requests';
import { readJson } from './beside/tasks';
import { threads } from './beside/thread';
import { readingOf } from './bench';
import { ApiError } from './checks/errors';
import type { Database } from './database';
import { FileRow, PatchRow, RackRow, ReadingRow, SessionRow } from './models';

export interface LogWanted {
  /** Of one rack alone. */
  readonly rack?: string;
  /** Of these sessions alone. */
  readonly sessions?: readonly string[];
  /** Of one simulated rack, by its seed; `none`: of real ones alone. */
  readonly simulated?: string;
}

const endings: Readonly<Record<string, string>> = { 'image/jpeg': 'jpg', 'image/png': 'png', 'audio/wav': 'wav' };

const fileName = ({ id, kind, type }: Pick<FileRow, 'id' | 'kind' | 'type'>): string =>
  `${kind}s/${id}.${endings[type] ?? 'bin'}`;

/** Readings as a log has them: a correction names the one before it by its place in the list. */
function logReadings(rows: readonly ReadingRow[]): LogReading[] {
  const index = new Map(rows.map((r, i) => [r.id, i]));
  return rows.map((row) => {
    const { id: _id, verdict: _verdict, corrects, expected, expectedPlusMinus, ...reading } = readingOf(row);
    const at = corrects === null ? undefined : index.get(corrects);
    return {
      ...reading,
      ...(at !== undefined && { corrects: at }),
      ...(expected !== null && { expected }),
      ...(expectedPlusMinus !== null && { expectedPlusMinus }),
    };
  });
}

async function sessionOf(row: SessionRow): Promise<LogSession | null> {
  const read = parsePatch(JSON.parse(row.body));
  if (!read.ok) return null;
  const [readings, files] = await Promise.all([
    ReadingRow.findAll({ where: { sessionId: row.id }, order: [['id', 'ASC']] }),
    FileRow.findAll({
      where: { sessionId: row.id, deletedAt: null },
      attributes: ['id', 'kind', 'name', 'type', 'at'],
    }),
  ]);
  const listed = (kind: string) =>
    files
      .filter((f) => f.kind === kind)
      .map((f) => ({ file: fileName(f), note: f.name, ...(f.at !== null && { at: f.at }) }));
  const [photographs, recordings] = [listed('photograph'), listed('recording')];
  const ticked = Object.entries(JSON.parse(row.ticks) as Ticks).flatMap(([step, t]) => (t.done ? [step] : []));
  const { seed } = (row.simulated === null ? {} : JSON.parse(row.simulated)) as { readonly seed?: number };
  return {
    id: row.id,
    started: row.started.toISOString(),
    ...(row.ended && { ended: row.ended.toISOString() }),
    patchId: row.patchId,
    ...(row.notes && { notes: row.notes }),
    patch: read.value,
    rack: row.rackName,
    assignment: JSON.parse(row.assignment) as LogSession['assignment'],
    ...(ticked.length > 0 && { ticks: ticked }),
    readings: logReadings(readings),
    ...(photographs.length > 0 && { photographs }),
    ...(recordings.length > 0 && { recordings }),
    ...(seed !== undefined && { simulated: seed }),
  };
}

/** Which simulated rack it was at, as text; null at a real one. */
const seedOf = ({ simulated }: SessionRow): string | null =>
  simulated === null ? null : String((JSON.parse(simulated) as { readonly seed: number }).seed);

/** The sessions that are wanted, as a log; the oldest first. */
export async function logOf({ rack, sessions, simulated }: LogWanted): Promise<BenchLog> {
  const rows = await SessionRow.findAll({
    where: {
      deletedAt: null,
      ...(rack !== undefined && { rackId: rack }),
      ...(sessions && { id: { [Op.in]: sessions } }),
      ...(simulated === 'none' && { simulated: null }),
    },
    order: [
      ['started', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  const wanted = rows.filter((row) => simulated === undefined || simulated === 'none' || seedOf(row) === simulated);
  const found = await Promise.all(wanted.map(sessionOf));
  return { format: 'fenvo.log', version: 1, sessions: found.flatMap((s) => s ?? []) };
}

export const printLog = (log: BenchLog): object => ({
  ...log,
  sessions: log.sessions.map((s) => ({ ...s, patch: printPatch(s.patch) })),
});

/** A log in the form that is asked for. */
export async function logAnswer(wanted: LogWanted, format: 'zip' | 'json' | 'csv'): Promise<Response> {
  const log = await logOf(wanted);
  if (format === 'json') return Response.json(printLog(log));
  const name = (ending: string): Record<string, string> => ({
    'Content-Disposition': `attachment; filename="bench-log.${ending}"`,
  });
  if (format === 'csv')
    return new Response(readingsToCsv(log), { headers: { 'Content-Type': 'text/csv; charset=utf-8', ...name('csv') } });
  const ids = log.sessions.map((s) => s.id);
  const files = await FileRow.findAll({ where: { sessionId: { [Op.in]: ids }, deletedAt: null } });
  const zip = packLog(printLog(log), Object.fromEntries(files.map((f) => [fileName(f), new Uint8Array(f.bytes)])));
  return new Response(zip as Uint8Array<ArrayBuffer>, {
    headers: { 'Content-Type': 'application/zip', ...name('zip') },
  });
}

async function readLog(bytes: Buffer): Promise<{ readonly log: BenchLog; readonly files: LogFiles }> {
  const zipped = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const unpacked = zipped ? unpackLog(bytes) : { ok: true as const, value: { log: readJson(bytes), files: {} } };
  if (!unpacked.ok) throw new ApiError(400, 'bad-log', `Couldn’t import the log. ${unpacked.errors}`);
  // What can be read where is worked out for every patch of it: beside this thread.
  return { log: await threads().painter.run('log', { log: unpacked.value.log }), files: unpacked.value.files };
}

export const LOG_BYTES = 3 * LOG_LIMITS.bytes;

/** Brings the sessions of a log in, with their files; those that are there already stay as they are. */
export async function importLog(db: Database, bytes: Buffer): Promise<{ added: number; there: number }> {
  const { log, files } = await readLog(bytes);
  return db.write(async (transaction) => {
    let added = 0;
    for (const session of log.sessions) {
      if ((await SessionRow.count({ where: { id: session.id }, transaction })) > 0) continue;
      const patch = session.patchId ? await PatchRow.findByPk(session.patchId, { transaction }) : null;
      const rack = session.rack ? await RackRow.findOne({ where: { name: session.rack }, transaction }) : null;
      const started = dateOf(session.started);
      await SessionRow.create(
        {
          id: session.id,
          patchId: session.patchId ?? '',
          patchName: session.patch.name,
          patchRevision: patch?.revision ?? 1,
          body: JSON.stringify(printPatch(session.patch)),
          rackId: rack?.id ?? '',
          rackName: session.rack,
          assignment: JSON.stringify(session.assignment),
          expects: '{}',
          steps: session.ticks?.length ?? 0,
          ticks: JSON.stringify(
            Object.fromEntries((session.ticks ?? []).map((s) => [s, { done: true, at: +started }])),
          ),
          notes: session.notes ?? '',
          simulated:
            session.simulated === undefined
              ? null
              : JSON.stringify({ seed: session.simulated, faults: [], surprise: false }),
          started,
          lastUsed: started,
          ended: session.ended === undefined ? started : dateOf(session.ended),
          deletedAt: null,
        },
        { transaction },
      );
      await addReadings(session, started, transaction);
      await addFiles(session, files, started, transaction);
      added++;
    }
    return { added, there: log.sessions.length - added };
  });
}

type Within = Parameters<Parameters<Database['write']>[0]>[0];

const dateOf = (text: string): Date => {
  const date = new Date(text);
  return Number.isNaN(+date) ? new Date() : date;
};

type ReadingValues = CreationAttributes<ReadingRow>;

function valuesOf(id: string, started: Date, r: LogReading): ReadingValues {
  const known = r.expected !== undefined && r.expectedPlusMinus !== undefined;
  return {
    sessionId: id,
    at: r.at,
    quantity: r.quantity,
    value: r.value,
    unit: r.unit ?? readingUnit(r.quantity),
    plusMinus: r.plusMinus ?? null,
    step: r.step ?? null,
    knobs: JSON.stringify(r.knobs),
    corrects: null,
    expected: r.expected ?? null,
    expectedPlusMinus: r.expectedPlusMinus ?? null,
    verdict: known ? judge(r.value, { value: r.expected ?? 0, plusMinus: r.expectedPlusMinus ?? 0 }) : null,
    time: r.time === undefined ? started : dateOf(r.time),
  };
}

async function addReadings({ id, readings }: LogSession, started: Date, transaction: Within): Promise<void> {
  const values = readings.map((r) => valuesOf(id, started, r));
  if (readings.every((r) => r.corrects === undefined)) {
    await ReadingRow.bulkCreate(values, { transaction });
    return;
  }
  // A correction names the row of the one before it, which must be there by then.
  const ids: number[] = [];
  for (const [i, { corrects }] of readings.entries()) {
    const before = corrects === undefined ? null : (ids[corrects] ?? null);
    const row = await ReadingRow.create({ ...(values[i] as ReadingValues), corrects: before }, { transaction });
    ids.push(row.id);
  }
}

async function addFiles(session: LogSession, files: LogFiles, added: Date, transaction: Within): Promise<void> {
  const named = [
    ...(session.photographs ?? []).map((f) => ({ ...f, kind: 'photograph' })),
    ...(session.recordings ?? []).map((f) => ({ ...f, kind: 'recording' })),
  ];
  for (const { file, kind, at = null, note = '' } of named) {
    const bytes = files[file];
    if (!bytes) continue;
    const ending = file.split('.').at(-1) ?? '';
    const type = Object.entries(endings).find(([, e]) => e === ending)?.[0] ?? 'image/jpeg';
    const id = crypto.randomUUID();
    await FileRow.create(
      {
        id,
        sessionId: session.id,
        kind,
        name: note || file,
        type,
        at,
        bytes: Buffer.from(bytes),
        added,
        deletedAt: null,
      },
      { transaction },
    );
  }
}
