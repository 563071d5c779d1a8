import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import { parseRack, printRack } from '../core';
import type { Rack } from '../core';
import { mergedTicks } from '../wire/racks';
import type { KeptTicks, ListedRack, RackHead, StoredRack } from '../wire/racks';
import type { Ticks } from '../wire/requests';
import type { Document } from '../wire/patches';
import { ApiError, notFound } from './checks/errors';
import type { Database } from './database';
import { RackRow, TicksRow } from './models';

/** Reads a rack as the core does; what it refuses is not stored. */
export function readRackDocument(json: unknown): Rack {
  const result = parseRack(json);
  if (result.ok) return result.value;
  const [first] = result.errors;
  const place = first?.path ? `${first.path}: ` : '';
  throw new ApiError(400, 'bad-rack', `The rack was not stored. ${place}${first?.message ?? ''}`, result.errors);
}

const headOf = (row: RackRow): RackHead => ({
  id: row.id,
  revision: row.revision,
  updatedAt: row.updatedAt.toISOString(),
  deletedAt: row.deletedAt?.toISOString() ?? null,
});

const stored = (row: RackRow): StoredRack => ({ ...headOf(row), rack: JSON.parse(row.body) as Document });

/** Counted in the text as it is stored: what is stored was read by the core before. */
function counts(body: string): { readonly modules: number; readonly channels: number } {
  try {
    const { modules } = JSON.parse(body) as { readonly modules: readonly { readonly channels: readonly unknown[] }[] };
    return { modules: modules.length, channels: modules.reduce((n, m) => n + m.channels.length, 0) };
  } catch {
    return { modules: 0, channels: 0 };
  }
}

/** A tick dated in the future would win for ever: it is dated now. */
const clamped = (ticks: Ticks, now: number): Ticks =>
  Object.fromEntries(Object.entries(ticks).map(([step, tick]) => [step, { ...tick, at: Math.min(tick.at, now) }]));

const keptOf = ({ body, since }: TicksRow): KeptTicks => ({
  ticks: JSON.parse(body) as Ticks,
  since: since?.getTime() ?? null,
});

/** The racks that a person owns, and what was ticked of sheets. */
export class Racks {
  constructor(private readonly db: Database) {}

  async list(deleted: boolean): Promise<ListedRack[]> {
    const rows = await RackRow.findAll({
      where: { deletedAt: deleted ? { [Op.ne]: null } : null },
      order: [
        ['name', 'ASC'],
        ['id', 'ASC'],
      ],
    });
    return rows.map((row) => ({ ...headOf(row), name: row.name, ...counts(row.body) }));
  }

  async get(id: string): Promise<StoredRack> {
    const row = await RackRow.findByPk(id);
    if (!row) throw notFound(`rack ${id}`);
    return stored(row);
  }

  async has(id: string): Promise<boolean> {
    return (await RackRow.count({ where: { id } })) > 0;
  }

  async create(json: unknown, id: string = randomUUID()): Promise<StoredRack> {
    const rack = readRackDocument(json);
    return this.db.write(async (transaction) => {
      if ((await RackRow.count({ where: { id }, transaction })) > 0)
        throw new ApiError(409, 'exists', `There is already a rack ${id}.`);
      const now = new Date();
      const values = { id, revision: 1, name: rack.name, body: JSON.stringify(printRack(rack)), saveKey: null };
      const row = await RackRow.create({ ...values, createdAt: now, updatedAt: now, deletedAt: null }, { transaction });
      return stored(row);
    });
  }

  /**
   * Saves a new revision on top of `baseRevision`. A save whose answer was lost may be sent again under its key.
   *
   * @throws 409 with both versions if somebody saved in between, 410 if it was deleted; nothing is overwritten.
   */
  async save(id: string, baseRevision: number, json: unknown, key: string | null = null): Promise<StoredRack> {
    const rack = readRackDocument(json);
    const body = printRack(rack);
    return this.db.write(async (transaction) => {
      const row = await RackRow.findByPk(id, { transaction });
      if (!row) throw notFound(`rack ${id}`);
      if (key !== null && row.saveKey === key && row.revision === baseRevision + 1) return stored(row);
      if (row.deletedAt) {
        const message = 'This rack was deleted. Restore it before saving. Nothing was changed.';
        throw new ApiError(410, 'deleted', message, { deletedAt: row.deletedAt.toISOString() });
      }
      if (row.revision !== baseRevision) {
        const message = `This rack was saved elsewhere as revision ${row.revision}; yours is based on ${baseRevision}. Nothing was overwritten.`;
        throw new ApiError(409, 'conflict', message, { theirs: stored(row), yours: { baseRevision, rack: body } });
      }
      const changed = { revision: row.revision + 1, name: rack.name, body: JSON.stringify(body), saveKey: key };
      await row.update({ ...changed, updatedAt: new Date() }, { transaction });
      return stored(row);
    });
  }

  setDeleted(id: string, deleted: boolean): Promise<StoredRack> {
    return this.db.write(async (transaction) => {
      const row = await RackRow.findByPk(id, { transaction });
      if (!row) throw notFound(`rack ${id}`);
      await row.update({ deletedAt: deleted ? (row.deletedAt ?? new Date()) : null }, { transaction });
      return stored(row);
    });
  }

  async ticks(patchId: string, rackId: string): Promise<KeptTicks> {
    const row = await TicksRow.findOne({ where: { patchId, rackId } });
    return row ? keptOf(row) : { ticks: {}, since: null };
  }

  /** Adds ticks to those that are there; of each step the later word counts. */
  addTicks(patchId: string, rackId: string, ticks: Ticks): Promise<KeptTicks> {
    return this.db.write(async (transaction) => {
      const row = await TicksRow.findOne({ where: { patchId, rackId }, transaction });
      const since = row?.since?.getTime() ?? 0;
      const counted = Object.fromEntries(Object.entries(clamped(ticks, Date.now())).filter(([, t]) => t.at > since));
      const merged = mergedTicks(row ? (JSON.parse(row.body) as Ticks) : {}, counted);
      const values = { patchId, rackId, body: JSON.stringify(merged), updatedAt: new Date() };
      const written = row
        ? await row.update(values, { transaction })
        : await TicksRow.create({ ...values, since: null }, { transaction });
      return keptOf(written);
    });
  }

  /** Begins a sheet anew: what was ticked up to now counts no more, whoever sends it again. */
  clearTicks(patchId: string, rackId: string): Promise<KeptTicks> {
    return this.db.write(async (transaction) => {
      const now = new Date();
      const row = await TicksRow.findOne({ where: { patchId, rackId }, transaction });
      const values = { patchId, rackId, body: '{}', updatedAt: now, since: now };
      const written = row ? await row.update(values, { transaction }) : await TicksRow.create(values, { transaction });
      return keptOf(written);
    });
  }
}
