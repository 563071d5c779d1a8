import { any, byDefault, list, module, number, optional, record, text, whole } from '../document/fields';
import type { ValueOf } from '../document/fields';
import { documentFields } from '../document/depth';
import { LIMITS } from '../document/limits';
import { parsePatch } from '../document/parse';
import { noteModules } from '../document/patch';
import { placesOf } from '../document/rackTypes';
import type { Rack } from '../document/rackTypes';
import { own, Reader, shown } from '../document/reader';
import { documentSchema } from '../document/schema';
import type { Schema } from '../document/schema';
import { onlyOnce, readField } from '../document/readField';
import type { Patch, PatchError, Result } from '../document/types';
import type { Asset } from '../sheet/expect';
import { checkReadings, readingFields } from './readings';
import { READING_LIMITS } from './quantities';
import type { ReadQuantity } from './quantities';

export const LOG_LIMITS = { sessions: 5000, files: 2000, name: 200, note: 20_000, bytes: 50_000_000 } as const;

const logReading = record(
  {
    ...readingFields,
    /** When it was read. */
    time: optional(text(40)),
    /** The reading of this session, by its place in the list, that it takes the place of. */
    corrects: optional(whole(0, READING_LIMITS.most)),
    /** What the sheet expected, and how far off it might be. */
    expected: optional(number(-READING_LIMITS.value, READING_LIMITS.value)),
    expectedPlusMinus: optional(number(0, READING_LIMITS.value)),
  },
  { says: 'a figure that was read at a socket' },
);
export type LogReading = ValueOf<typeof logReading>;

/** A photograph or a recording of a session: a file beside the log. */
const logFile = record({
  file: text(LOG_LIMITS.name),
  /** The socket that was recorded. */
  at: optional(text(100)),
  note: optional(text(LOG_LIMITS.note)),
});

const logSession = record(
  {
    id: text(64),
    started: text(40),
    ended: optional(text(40)),
    /** Where it is kept in a library, for who brings it back there. */
    patchId: optional(text(64)),
    notes: optional(text(LOG_LIMITS.note)),
    /** The whole document, as it was. */
    patch: any,
    /** The name of the rack; null without one. */
    rack: { ...byDefault(text(LIMITS.name), ''), says: 'the rack’s name; empty without one' },
    assignment: byDefault(list(record({ module, rack: text(200) }), LIMITS.modules), []),
    ticks: optional(list(text(READING_LIMITS.step), LIMITS.cables)),
    readings: byDefault(list(logReading, READING_LIMITS.most), []),
    photographs: optional(list(logFile, LOG_LIMITS.files)),
    recordings: optional(list(logFile, LOG_LIMITS.files)),
    /** The rack was simulated: which one. */
    simulated: optional(number(0, 4_294_967_295, { whole: true })),
  },
  { says: 'one standing at a rack' },
);
type SessionDoc = ValueOf<typeof logSession>;

export interface LogSession extends Omit<SessionDoc, 'patch'> {
  readonly patch: Patch;
}

export interface BenchLog {
  readonly format: 'fenvo.log';
  readonly version: 1;
  readonly sessions: readonly LogSession[];
}

const logField = record({ sessions: byDefault(list(logSession, LOG_LIMITS.sessions), []) });

/** The JSON Schema of a log. */
export const logSchema = (): Schema => documentSchema('Fenvo log, version 1', 'fenvo.log', logField, {});

/** What is known of a patch that stands in several sessions. */
interface KnownPatch {
  readonly read: Result<Patch, PatchError[]>;
  readonly quantities: Map<string, readonly ReadQuantity[]>;
}

/** Whether a session was held at a rack: it has its name, or one of its channels. */
function isAt(session: SessionDoc, rack: Rack, channels: ReadonlySet<string>): boolean {
  return session.rack === rack.name || session.rack === '' || session.assignment.some((a) => channels.has(a.rack));
}

function checkSeats(r: Reader, session: SessionDoc, rack: Rack | null, path: string): void {
  const channels = new Set(rack ? placesOf(rack).map((p) => p.name) : []);
  session.assignment.forEach((seat, i) => {
    const place = `${path}.assignment[${i}]`;
    if (session.assignment.findIndex((s) => s.module === seat.module) < i)
      r.fail(`${place}.module`, `is used twice: ${seat.module}`);
    if (rack && isAt(session, rack, channels) && !channels.has(seat.rack))
      r.fail(`${place}.rack`, `${rack.name} has no channel ${shown(seat.rack)}`);
  });
}

/**
 * Reads a log of sessions.
 *
 * @param rack where it is given, every channel of a session that was held at it must be there.
 * @returns every fault with its place, `sessions[0].readings[1].at`, where it is refused.
 */
export function parseLog(json: unknown, rack: Rack | null = null, asset?: Asset): Result<BenchLog, PatchError[]> {
  const fields = documentFields(json, 'a log');
  if (!fields.ok) return fields;
  const r = new Reader();
  r.oneOf(own(fields.value, 'format'), 'format', ['fenvo.log']);
  r.oneOf(own(fields.value, 'version'), 'version', [1]);
  const patches = new Map<string, KnownPatch>();
  return r.settle((): BenchLog => {
    // Sockets and modules of a session are those of its own patch: they are read once that is known.
    const given = r.list(own(fields.value, 'sessions') ?? [], 'sessions', LOG_LIMITS.sessions);
    const sessions = given.flatMap((x, i) => readSession(r, x, `sessions[${i}]`, patches, rack, asset));
    if (r.errors.length === 0) eachOnce(r, sessions, 'sessions');
    return { format: 'fenvo.log', version: 1, sessions };
  });
}

const eachOnce = onlyOnce((s: LogSession) => s.id, '.id');

function readSession(
  r: Reader,
  x: unknown,
  path: string,
  patches: Map<string, KnownPatch>,
  rack: Rack | null,
  asset: Asset,
): LogSession[] {
  const given = r.object(x, path);
  const text = JSON.stringify(own(given, 'patch') ?? null);
  const known = patches.get(text) ?? { read: parsePatch(own(given, 'patch')), quantities: new Map() };
  patches.set(text, known);
  if (!known.read.ok) {
    for (const e of known.read.errors) r.fail(`${path}.patch${e.path ? `.${e.path}` : ''}`, e.message);
    return [];
  }
  const patch = known.read.value;
  const inner = new Reader();
  noteModules(inner, patch.modules);
  const session = readField(inner, logSession, given, path);
  if (inner.errors.length === 0) {
    checkSeats(inner, session, rack, path);
    checkReadings(inner, session.readings, patch, `${path}.readings`, asset, known.quantities);
    session.readings.forEach(({ corrects }, i) => {
      if (corrects !== undefined && corrects >= i)
        inner.fail(`${path}.readings[${i}].corrects`, `must name a reading before it; got ${corrects}`);
    });
  }
  for (const e of inner.errors) r.fail(e.path, e.message);
  return [{ ...session, patch }];
}

/** The readings of a session that still hold: those that no later one corrects, with their places in the list. */
export function standingReadings(
  readings: readonly LogReading[],
): { readonly index: number; readonly of: LogReading }[] {
  const corrected = new Set(readings.flatMap((x) => x.corrects ?? []));
  return readings.flatMap((of, index) => (corrected.has(index) ? [] : [{ index, of }]));
}
