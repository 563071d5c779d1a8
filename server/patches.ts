import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { Transaction } from 'sequelize';
import { parsePatch, printPatch } from '../core';
import type { Json, Patch } from '../core';
import { Assets } from './assets';
import type { Database } from './database';
import { ApiError, notFound } from './errors';
import { PatchRow, RevisionRow } from './models';
import { summarise } from './summary';
import type { Summary } from './summary';

export type Document = { readonly [key: string]: Json };

export interface StoredPatch {
  readonly id: string;
  readonly revision: number;
  readonly patch: Document;
  readonly tags: readonly string[];
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}

export interface ListedPatch {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly tags: readonly string[];
  readonly updatedAt: string;
  readonly deletedAt: string | null;
  readonly summary: Summary | null;
}

const parse = (text: string): Document => JSON.parse(text) as Document;

function stored(row: PatchRow): StoredPatch {
  return {
    id: row.id,
    revision: row.revision,
    patch: parse(row.body),
    tags: JSON.parse(row.tags) as string[],
    updatedAt: row.updatedAt.toISOString(),
    deletedAt: row.deletedAt?.toISOString() ?? null,
  };
}

/** Reads a document as the core does; what it refuses is not stored. */
export function readDocument(json: unknown): Patch {
  const result = parsePatch(json);
  if (result.ok) return result.value;
  const [first] = result.errors;
  const place = first?.path ? `${first.path}: ` : '';
  throw new ApiError(400, 'bad-patch', `The patch was not stored. ${place}${first?.message ?? ''}`, result.errors);
}

/** The patches, each with every version that was ever saved. */
export class Patches {
  constructor(private readonly db: Database) {}

  async list(deleted: boolean): Promise<ListedPatch[]> {
    const rows = await PatchRow.findAll({
      where: { deletedAt: deleted ? { [Op.ne]: null } : null },
      order: [
        ['updatedAt', 'DESC'],
        ['id', 'ASC'],
      ],
    });
    const list: ListedPatch[] = [];
    for (const row of rows) {
      const { patch: _body, ...head } = stored(row);
      list.push({ ...head, name: row.name, summary: await this.summaryOf(row) });
    }
    return list;
  }

  /** The shelf's picture of a patch; worked out once a revision. */
  private async summaryOf(row: PatchRow): Promise<Summary | null> {
    if (row.summary !== null && row.summaryRevision === row.revision) return JSON.parse(row.summary) as Summary;
    const result = parsePatch(parse(row.body));
    if (!result.ok) return null;
    const summary = summarise(result.value, await new Assets(this.db).of(result.value));
    const values = { summary: JSON.stringify(summary), summaryRevision: row.revision };
    await this.db.write((transaction) =>
      PatchRow.update(values, { where: { id: row.id, revision: row.revision }, transaction }),
    );
    return summary;
  }

  async get(id: string): Promise<StoredPatch> {
    const row = await PatchRow.findByPk(id);
    if (!row) throw notFound(`patch ${id}`);
    return stored(row);
  }

  /** How many are on the shelf. */
  count(): Promise<number> {
    return PatchRow.count({ where: { deletedAt: null } });
  }

  async has(id: string): Promise<boolean> {
    return (await PatchRow.count({ where: { id } })) > 0;
  }

  async create(json: unknown, tags: readonly string[] = [], id: string = randomUUID()): Promise<StoredPatch> {
    const patch = readDocument(json);
    return this.db.write(async (transaction) => {
      if (await PatchRow.findByPk(id, { transaction }))
        throw new ApiError(409, 'exists', `There is already a patch ${id}.`);
      const now = new Date();
      const row = await PatchRow.create(
        {
          id,
          revision: 1,
          name: patch.name,
          body: JSON.stringify(printPatch(patch)),
          tags: JSON.stringify(tags),
          summary: null,
          summaryRevision: null,
          createdAt: now,
          updatedAt: now,
          deletedAt: null,
        },
        { transaction },
      );
      await keep(row, transaction);
      return stored(row);
    });
  }

  /**
   * Saves a new revision on top of `baseRevision`.
   *
   * @throws 409 with both versions if somebody saved in between; nothing is overwritten.
   */
  async save(id: string, baseRevision: number, json: unknown, tags?: readonly string[]): Promise<StoredPatch> {
    const patch = readDocument(json);
    const body = printPatch(patch);
    return this.db.write(async (transaction) => {
      const row = await PatchRow.findByPk(id, { transaction });
      if (!row) throw notFound(`patch ${id}`);
      if (row.revision !== baseRevision) {
        const message = `This patch was saved elsewhere as revision ${row.revision}; yours is based on ${baseRevision}. Nothing was overwritten.`;
        throw new ApiError(409, 'conflict', message, { theirs: stored(row), yours: { baseRevision, patch: body } });
      }
      const changed = {
        revision: row.revision + 1,
        name: patch.name,
        body: JSON.stringify(body),
        updatedAt: new Date(),
      };
      await row.update(tags ? { ...changed, tags: JSON.stringify(tags) } : changed, { transaction });
      await keep(row, transaction);
      return stored(row);
    });
  }

  setDeleted(id: string, deleted: boolean): Promise<StoredPatch> {
    return this.db.write(async (transaction) => {
      const row = await PatchRow.findByPk(id, { transaction });
      if (!row) throw notFound(`patch ${id}`);
      await row.update({ deletedAt: deleted ? (row.deletedAt ?? new Date()) : null }, { transaction });
      return stored(row);
    });
  }

  async history(id: string): Promise<{ revision: number; name: string; savedAt: string }[]> {
    await this.get(id);
    const rows = await RevisionRow.findAll({ where: { patchId: id }, order: [['revision', 'DESC']] });
    return rows.map((r) => ({ revision: r.revision, name: r.name, savedAt: r.savedAt.toISOString() }));
  }

  async revision(id: string, revision: number): Promise<{ revision: number; savedAt: string; patch: Document }> {
    const row = await RevisionRow.findOne({ where: { patchId: id, revision } });
    if (!row) throw notFound(`revision ${revision} of patch ${id}`);
    return { revision, savedAt: row.savedAt.toISOString(), patch: parse(row.body) };
  }
}

async function keep(row: PatchRow, transaction: Transaction): Promise<void> {
  const { id: patchId, revision, name, body, updatedAt: savedAt } = row;
  await RevisionRow.create({ patchId, revision, name, body, savedAt }, { transaction });
}
