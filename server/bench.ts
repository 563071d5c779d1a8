import { randomUUID } from 'node:crypto';
import { Op, QueryTypes } from 'sequelize';
import type { Transaction } from 'sequelize';
import { judge, readingUnit, readMeter } from '../core';
import type { MeterReading, ReadQuantity, Verdict } from '../core';
import type { SessionHead, Simulated, StoredReading, StoredSession, TrendPoint } from '../wire/bench';
import type { Document } from '../wire/patches';
import type { ChangeSessionRequest, OpenSessionRequest, SentReading, Ticks } from '../wire/requests';
import type { StepExpectation } from './beside/tasks';
import { threads } from './beside/thread';
import { ApiError, notFound } from './checks/errors';
import type { Database } from './database';
import { BenchFiles } from './benchFiles';
import { PatchRow, RackRow, ReadingRow, SessionRow } from './models';
import { instrument } from './preferences';
import { tracesOf } from './traces';

/** A session that nothing was done in for so long is over, milliseconds. */
const OVER_AFTER = 12 * 3_600_000;

/** Sessions that are being begun, by patch and rack. */
const opening = new Map<string, Promise<string | null>>();

type Expects = Readonly<Record<string, StepExpectation>>;

interface Counted {
  readonly readings: number;
  readonly wrong: number;
  readonly files: number;
}

const iso = (d: Date | null): string | null => d?.toISOString() ?? null;

const headOf = (row: SessionRow, { readings, wrong, files }: Counted): SessionHead => ({
  id: row.id,
  patchId: row.patchId,
  patch: row.patchName,
  rackId: row.rackId,
  rack: row.rackName,
  started: row.started.toISOString(),
  ended: iso(row.ended),
  deletedAt: iso(row.deletedAt),
  simulated: row.simulated !== null,
  seed: row.simulated === null ? null : (JSON.parse(row.simulated) as Simulated).seed,
  readings,
  wrong,
  files,
});

export const readingOf = (row: ReadingRow): StoredReading => ({
  id: row.id,
  at: row.at,
  quantity: row.quantity as ReadQuantity,
  value: row.value,
  unit: row.unit,
  ...(row.plusMinus !== null && { plusMinus: row.plusMinus }),
  ...(row.step !== null && { step: row.step }),
  knobs: JSON.parse(row.knobs) as StoredReading['knobs'],
  time: row.time.toISOString(),
  corrects: row.corrects,
  expected: row.expected,
  expectedPlusMinus: row.expectedPlusMinus,
  verdict: row.verdict as Verdict | null,
});

/** Everything of the list but the patches themselves. */
const LISTED = [
  'id',
  'patchId',
  'patchName',
  'patchRevision',
  'rackId',
  'rackName',
  'simulated',
  'started',
  'lastUsed',
  'ended',
  'deletedAt',
  'steps',
] as const;

/** What a sheet expects of a quantity at a socket: at the step where it was read, else anywhere with all plugged. */
function expectedOf(expects: Expects, { at, quantity, step }: SentReading): MeterReading | null {
  const known = step === undefined ? Object.values(expects).filter((e) => e.at === at) : [expects[step]];
  return known.flatMap((e) => e?.meter ?? []).find((m) => m.quantity === quantity) ?? null;
}

/** Sessions at the rack: what was ticked, read, noted, photographed and recorded there. */
export class Bench {
  constructor(private readonly db: Database) {}

  async list(deleted: boolean): Promise<SessionHead[]> {
    const rows = await SessionRow.findAll({
      attributes: [...LISTED],
      where: { deletedAt: deleted ? { [Op.ne]: null } : null },
      order: [
        ['started', 'DESC'],
        ['id', 'ASC'],
      ],
    });
    const counts = await this.counts();
    return rows.map((row) => headOf(row, counts.get(row.id) ?? { readings: 0, wrong: 0, files: 0 }));
  }

  private async counts(): Promise<ReadonlyMap<string, Counted>> {
    interface Row extends Counted {
      readonly sessionId: string;
    }
    const rows = await this.db.sequelize.query<Row>(
      `SELECT s.id AS sessionId, coalesce(r.readings, 0) AS readings, coalesce(r.wrong, 0) AS wrong,
        coalesce(f.files, 0) AS files
      FROM sessions s
      LEFT JOIN (SELECT sessionId, count(*) AS readings, sum(verdict = 'wrong') AS wrong FROM readings
        WHERE id NOT IN (SELECT corrects FROM readings WHERE corrects IS NOT NULL) GROUP BY sessionId) r
        ON r.sessionId = s.id
      LEFT JOIN (SELECT sessionId, count(*) AS files FROM files WHERE deletedAt IS NULL GROUP BY sessionId) f
        ON f.sessionId = s.id`,
      { type: QueryTypes.SELECT },
    );
    return new Map(rows.map((r) => [r.sessionId, r]));
  }

  async row(id: string, transaction?: Transaction): Promise<SessionRow> {
    const row = await SessionRow.findByPk(id, transaction ? { transaction } : {});
    if (!row) throw notFound(`session ${id}`);
    return row;
  }

  async get(id: string): Promise<StoredSession> {
    const row = await this.row(id);
    const [readings, files] = await Promise.all([
      ReadingRow.findAll({ where: { sessionId: id }, order: [['id', 'ASC']] }),
      new BenchFiles(this.db).of(id),
    ]);
    const list = readings.map(readingOf);
    const corrected = new Set(list.map((r) => r.corrects));
    const standing = list.filter((r) => !corrected.has(r.id));
    const counted = {
      readings: standing.length,
      wrong: standing.filter((r) => r.verdict === 'wrong').length,
      files: files.filter((f) => f.deletedAt === null).length,
    };
    return {
      ...headOf(row, counted),
      revision: row.patchRevision,
      document: JSON.parse(row.body) as Document,
      assignment: JSON.parse(row.assignment) as StoredSession['assignment'],
      notes: row.notes,
      ticks: JSON.parse(row.ticks) as Ticks,
      steps: row.steps,
      list,
      attached: files,
      rackIsSimulated: row.simulated === null ? null : (JSON.parse(row.simulated) as Simulated),
    };
  }

  /** Begins a session with the patch as it is stored now; one that is open there is ended. */
  async open({ patch, rack, simulated }: OpenSessionRequest): Promise<StoredSession> {
    const row = await PatchRow.findByPk(patch);
    if (!row || row.deletedAt !== null) throw notFound(`patch ${patch}`);
    const owned = rack === '' ? null : await RackRow.findByPk(rack);
    if (rack !== '' && !owned) throw notFound(`rack ${rack}`);
    const traces = await tracesOf(row.body);
    const found = await threads().painter.run('standing', {
      body: row.body,
      rack: owned?.body ?? null,
      traces,
      meter: await instrument(),
    });
    const id = randomUUID();
    const now = new Date();
    await this.db.write(async (transaction) => {
      await SessionRow.update(
        { ended: now },
        { where: { patchId: patch, rackId: rack, ended: null, simulated: null }, transaction },
      );
      await SessionRow.create(
        {
          id,
          patchId: patch,
          patchName: row.name,
          patchRevision: row.revision,
          body: found.body,
          rackId: rack,
          rackName: found.rack,
          assignment: JSON.stringify(found.assignment),
          expects: JSON.stringify(found.expects),
          steps: found.steps,
          ticks: '{}',
          notes: '',
          simulated: simulated ? JSON.stringify(simulated) : null,
          started: now,
          lastUsed: now,
          ended: null,
          deletedAt: null,
        },
        { transaction },
      );
    });
    return this.get(id);
  }

  /**
   * The session that is open for a sheet, at a real rack; null where none is, where nothing was done in it for long, or
   * where the patch was changed since: it expects other figures.
   */
  async openFor(patchId: string, rackId: string): Promise<SessionRow | null> {
    const row = await SessionRow.findOne({
      where: { patchId, rackId, ended: null, deletedAt: null, simulated: null },
      order: [['started', 'DESC']],
    });
    if (!row || Date.now() - row.lastUsed.getTime() > OVER_AFTER) return null;
    const patch = await PatchRow.findByPk(patchId, { attributes: ['revision'] });
    return patch?.revision === row.patchRevision ? row : null;
  }

  /** The session of a sheet, begun where none is open; a phone and a screen that begin at once begin the same. */
  private openOnce(patchId: string, rackId: string, begins: boolean): Promise<string | null> {
    const key = `${patchId} ${rackId}`;
    const waiting = opening.get(key);
    if (waiting) return waiting;
    const found = this.openFor(patchId, rackId)
      .then(async (known) => known?.id ?? (begins ? (await this.open({ patch: patchId, rack: rackId })).id : null))
      .finally(() => opening.delete(key));
    opening.set(key, found);
    return found;
  }

  /** Takes what a sheet collected into the session that is open there, or begins one. @param ticks those that are new. */
  async collect(patchId: string, rackId: string, ticks: Ticks): Promise<string | null> {
    const said = Object.values(ticks).some((t) => t.done || t.read || Object.keys(t.reads ?? {}).length > 0);
    const id = await this.openOnce(patchId, rackId, said);
    if (id === null) return null;
    await this.db.write(async (transaction) => {
      const row = await this.row(id, transaction);
      const expects = JSON.parse(row.expects) as Expects;
      const merged = { ...(JSON.parse(row.ticks) as Ticks), ...ticks };
      await row.update({ ticks: JSON.stringify(merged), lastUsed: new Date() }, { transaction });
      for (const [step, tick] of Object.entries(ticks))
        for (const reading of readingsOfTick(step, tick.reads ?? {}, expects))
          await this.addOne(row, reading, expects, transaction);
    });
    return id;
  }

  /** Adds a reading; the same figure at the same place once more is none, another one corrects it. */
  private async addOne(
    row: SessionRow,
    sent: SentReading,
    expects: Expects,
    transaction: Transaction,
  ): Promise<ReadingRow | null> {
    const { at, quantity, value, step, knobs = [], plusMinus, corrects } = sent;
    const before =
      corrects === undefined && step !== undefined
        ? await ReadingRow.findOne({
            where: { sessionId: row.id, at, quantity, step },
            order: [['id', 'DESC']],
            transaction,
          })
        : null;
    if (before?.value === value) return null;
    const expected = knobs.length > 0 ? null : expectedOf(expects, sent);
    return ReadingRow.create(
      {
        sessionId: row.id,
        at,
        quantity,
        value,
        unit: readingUnit(quantity),
        plusMinus: plusMinus ?? null,
        step: step ?? null,
        knobs: JSON.stringify(knobs),
        corrects: corrects ?? before?.id ?? null,
        expected: expected?.value ?? null,
        expectedPlusMinus: expected?.plusMinus ?? null,
        verdict: expected ? judge(value, expected) : null,
        time: new Date(),
      },
      { transaction },
    );
  }

  /** Adds readings to a session. @throws 400 where one names a reading that the session has not. */
  async addReadings(id: string, readings: readonly SentReading[]): Promise<StoredReading[]> {
    return this.db.write(async (transaction) => {
      const row = await this.row(id, transaction);
      if (row.deletedAt) throw new ApiError(410, 'deleted', 'This session was deleted. Restore it first.');
      const expects = JSON.parse(row.expects) as Expects;
      const added: StoredReading[] = [];
      for (const [i, sent] of readings.entries()) {
        if (sent.corrects !== undefined) {
          const there = await ReadingRow.count({ where: { id: sent.corrects, sessionId: id }, transaction });
          if (there === 0)
            throw new ApiError(400, 'bad-request', `readings[${i}].corrects: this session has no such reading.`);
        }
        const made = await this.addOne(row, sent, expects, transaction);
        if (made) added.push(readingOf(made));
      }
      await row.update({ lastUsed: new Date() }, { transaction });
      return added;
    });
  }

  /** @throws 409 where a real rack would become a simulated one. */
  change(id: string, { notes, ended, simulated }: ChangeSessionRequest): Promise<void> {
    return this.db.write(async (transaction) => {
      const row = await this.row(id, transaction);
      const end = ended === undefined ? {} : { ended: ended ? (row.ended ?? new Date()) : null };
      if (simulated && row.simulated === null)
        throw new ApiError(409, 'real-rack', 'This session was at a real rack. Nothing was changed.');
      const changed = {
        ...(notes !== undefined && { notes }),
        ...(simulated && { simulated: JSON.stringify(simulated) }),
      };
      await row.update({ ...changed, ...end, lastUsed: new Date() }, { transaction });
    });
  }

  setDeleted(id: string, deleted: boolean): Promise<void> {
    return this.db.write(async (transaction) => {
      const row = await this.row(id, transaction);
      const now = new Date();
      await row.update(
        { deletedAt: deleted ? (row.deletedAt ?? now) : null, ended: row.ended ?? now },
        { transaction },
      );
    });
  }

  /** What was read at a socket over the sessions of a patch, at real racks, the oldest first. */
  async trend(patch: string, at: string, quantity: ReadQuantity): Promise<TrendPoint[]> {
    interface Row extends Omit<TrendPoint, 'started'> {
      readonly started: string;
    }
    const rows = await this.db.sequelize.query<Row>(
      `SELECT r.sessionId AS session, s.started, r.quantity, r.value, r.unit, r.expected, r.verdict
      FROM readings r JOIN sessions s ON s.id = r.sessionId
      WHERE s.patchId = ? AND s.deletedAt IS NULL AND s.simulated IS NULL AND r.at = ? AND r.quantity = ?
        AND NOT EXISTS (SELECT 1 FROM readings c WHERE c.sessionId = r.sessionId AND c.corrects = r.id)
      ORDER BY s.started, r.id`,
      { type: QueryTypes.SELECT, replacements: [patch, at, quantity] },
    );
    return rows.map((r) => ({ ...r, started: new Date(r.started).toISOString() }));
  }
}

/** The figures of a step that can be read as such; what cannot stays a word of the sheet. */
function readingsOfTick(step: string, reads: Readonly<Record<string, string>>, expects: Expects): SentReading[] {
  const expect = expects[step];
  if (!expect) return [];
  return expect.meter.flatMap(({ quantity, unit }): SentReading[] => {
    const value = readMeter(reads[quantity] ?? '', quantity, unit);
    return value === null ? [] : [{ at: expect.at, quantity, value, step }];
  });
}
