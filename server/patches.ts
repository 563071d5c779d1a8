import { randomUUID } from 'node:crypto';
import { Op, QueryTypes } from 'sequelize';
import type { Transaction } from 'sequelize';
import type { Database } from './database';
import { ApiError, notFound } from './checks/errors';
import { outgrown } from './history';
import { PatchRow, RevisionRow, TicksRow } from './models';
import { removeUnplayed } from './assets';
import { Summaries } from './summaries';
import type { ListedPatch, PatchHead, SavedVersion, StoredPatch } from '../wire/patches';
import { MOST_TAGS } from '../wire/requests';
import type { KeptFor, SaveRequest, SeveralRequest } from '../wire/requests';
import { readPatch } from './beside/tasks';
import type { ReadPatch } from './beside/tasks';

/** A patch with its body as it is stored: text, that need not be read to be handed on. */
export interface StoredText extends Omit<StoredPatch, 'patch'> {
  readonly body: string;
}

const HEAD = ['id', 'revision', 'name', 'tags', 'updatedAt', 'deletedAt'] as const;
const LISTED = [...HEAD, 'summary', 'summaryRevision'];

function headOf(row: PatchRow): PatchHead {
  return {
    id: row.id,
    revision: row.revision,
    tags: tagsOf(row.tags),
    updatedAt: row.updatedAt.toISOString(),
    deletedAt: row.deletedAt?.toISOString() ?? null,
  };
}

function tagsOf(text: string): readonly string[] {
  try {
    const tags: unknown = JSON.parse(text);
    return Array.isArray(tags) ? tags.filter((t) => typeof t === 'string') : [];
  } catch {
    return [];
  }
}

const stored = (row: PatchRow): StoredText => ({ ...headOf(row), saveKey: row.saveKey ?? null, body: row.body });

/** As an answer's text, a `StoredPatch`: the body goes through as it is. */
export function textOf({ body, ...head }: StoredText): string {
  return `${JSON.stringify(head).slice(0, -1)},"patch":${body}}`;
}

export type SaveOptions = Pick<SaveRequest, 'tags' | 'key' | 'changes'>;

/** What several patches are set to, and which of them. Of tags, those that were there come first. */
const SEVERAL: Readonly<Record<SeveralRequest['do'], string>> = {
  tag: `tags = (
      SELECT json_group_array(value) FROM (
        SELECT value FROM (
          SELECT value, key FROM json_each(CASE WHEN json_valid(tags) THEN tags ELSE '[]' END)
          UNION ALL SELECT value, 1e6 + key FROM json_each(:tags)
        ) GROUP BY value ORDER BY min(key) LIMIT :most
      )
    ) WHERE true`,
  delete: 'deletedAt = :now WHERE deletedAt IS NULL',
  restore: 'deletedAt = NULL WHERE deletedAt IS NOT NULL',
};

/** The patches, each with the versions that were saved of it. */
export class Patches {
  readonly summaries: Summaries;

  constructor(private readonly db: Database) {
    this.summaries = new Summaries(db);
  }

  /** Heads and summaries alone: no body is loaded, and what cannot be read is named in its own row. */
  async list(deleted: boolean): Promise<ListedPatch[]> {
    const rows = await PatchRow.findAll({
      attributes: LISTED,
      where: { deletedAt: deleted ? { [Op.ne]: null } : null },
      order: [
        ['updatedAt', 'DESC'],
        ['id', 'ASC'],
      ],
    });
    return rows.map((row) => this.listing(row));
  }

  /** The same of some patches, in any order. */
  async listed(ids: readonly string[]): Promise<ListedPatch[]> {
    const rows = await PatchRow.findAll({ attributes: LISTED, where: { id: [...ids] } });
    return rows.map((row) => this.listing(row));
  }

  private listing(row: PatchRow): ListedPatch {
    return { ...headOf(row), name: row.name, ...this.summaries.of(row) };
  }

  async get(id: string): Promise<StoredText> {
    const row = await PatchRow.findByPk(id);
    if (!row) throw notFound(`patch ${id}`);
    return stored(row);
  }

  /** How many patches there are. */
  count(): Promise<number> {
    return PatchRow.count({ where: { deletedAt: null } });
  }

  async has(id: string): Promise<boolean> {
    return (await PatchRow.count({ where: { id } })) > 0;
  }

  async create(json: unknown, tags: readonly string[] = [], id: string = randomUUID()): Promise<StoredText> {
    return this.createRead(readPatch(json), tags, id);
  }

  async createRead(
    { name, body }: ReadPatch,
    tags: readonly string[] = [],
    id: string = randomUUID(),
  ): Promise<StoredText> {
    const made = await this.db.write(async (transaction) => {
      if ((await PatchRow.count({ where: { id }, transaction })) > 0)
        throw new ApiError(409, 'exists', `There is already a patch ${id}.`);
      const now = new Date();
      const empty = { summary: null, summaryRevision: null, deletedAt: null };
      const values = { id, revision: 1, name, body, tags: JSON.stringify(tags), createdAt: now, updatedAt: now };
      const row = await PatchRow.create({ ...values, ...empty }, { transaction });
      await keep(row, transaction);
      return stored(row);
    });
    this.summaries.wantSoon(id);
    return made;
  }

  async save(id: string, baseRevision: number, json: unknown, options: SaveOptions = {}): Promise<StoredText> {
    return this.saveRead(id, baseRevision, readPatch(json), options);
  }

  /**
   * Saves a new revision on top of `baseRevision`. A save whose answer was lost may be sent again under its key.
   *
   * @throws 409 with both versions if somebody saved in between, 410 if the patch was deleted; nothing is overwritten.
   */
  async saveRead(
    id: string,
    baseRevision: number,
    { name, body }: ReadPatch,
    { tags, key, changes = [] }: SaveOptions = {},
  ): Promise<StoredText> {
    const saved = await this.db.write(async (transaction) => {
      const row = await PatchRow.findByPk(id, { transaction });
      if (!row) throw notFound(`patch ${id}`);
      if (key !== undefined && row.saveKey === key && row.revision === baseRevision + 1) return stored(row);
      if (row.deletedAt) {
        const message = 'This patch was deleted. Restore it before saving. Nothing was changed.';
        throw new ApiError(410, 'deleted', message, { deletedAt: row.deletedAt.toISOString() });
      }
      if (row.revision !== baseRevision) {
        const message = `This patch was saved elsewhere as revision ${row.revision}; yours is based on ${baseRevision}. Nothing was overwritten.`;
        const both = `{"theirs":${textOf(stored(row))},"yours":{"baseRevision":${baseRevision},"patch":${body}}}`;
        throw new ApiError(409, 'conflict', message, null, both);
      }
      const changed = { revision: row.revision + 1, name, body, updatedAt: new Date(), saveKey: key ?? null };
      await row.update(tags ? { ...changed, tags: JSON.stringify(tags) } : changed, { transaction });
      await keep(row, transaction, changes);
      await thin(id, transaction);
      return stored(row);
    });
    this.summaries.wantSoon(id);
    return saved;
  }

  /** Tags are about the patches list, not the patch: no new version comes of them. */
  setTags(id: string, tags: readonly string[]): Promise<PatchHead> {
    return this.db.write(async (transaction) => {
      const row = await PatchRow.findByPk(id, { transaction, attributes: [...HEAD] });
      if (!row) throw notFound(`patch ${id}`);
      await row.update({ tags: JSON.stringify([...new Set(tags)]) }, { transaction, silent: true });
      return headOf(row);
    });
  }

  /**
   * Tags several patches beside the tags that they have, deletes or restores them: all or none.
   *
   * @returns how many were changed: those that are not there any more are passed over.
   */
  several({ ids, do: what, tags }: SeveralRequest): Promise<number> {
    const values = { ids: JSON.stringify(ids), tags: JSON.stringify(tags), most: MOST_TAGS, now: new Date() };
    const sql = `UPDATE patches SET ${SEVERAL[what]} AND id IN (SELECT value FROM json_each(:ids))`;
    return this.db.write(async (transaction) => {
      const options = { replacements: values, transaction, type: QueryTypes.UPDATE } as const;
      const [, changed] = await this.db.sequelize.query(sql, options);
      return changed;
    });
  }

  /** Documents of several patches, as text. Those that are not there any more are left out. */
  async documents(ids: readonly string[]): Promise<string> {
    const rows = await PatchRow.findAll({ attributes: ['body'], where: { id: [...ids] } });
    return `{"documents":[${rows.map((r) => r.body).join()}]}`;
  }

  setDeleted(id: string, deleted: boolean): Promise<StoredText> {
    return this.db.write(async (transaction) => {
      const row = await PatchRow.findByPk(id, { transaction });
      if (!row) throw notFound(`patch ${id}`);
      await row.update({ deletedAt: deleted ? (row.deletedAt ?? new Date()) : null }, { transaction });
      return stored(row);
    });
  }

  /** Removes a deleted patch for good, with its versions, its ticks, and the recordings that nothing else plays. */
  removeForGood(id: string): Promise<{ readonly id: string }> {
    return this.db.write(async (transaction) => {
      const row = await PatchRow.findByPk(id, { transaction, attributes: ['id', 'deletedAt'] });
      if (!row) throw notFound(`patch ${id}`);
      if (!row.deletedAt) throw new ApiError(409, 'not-deleted', 'Only a deleted patch can be removed permanently.');
      const played = await recordingsIn(id, transaction);
      await RevisionRow.destroy({ where: { patchId: id }, transaction });
      await TicksRow.destroy({ where: { patchId: id }, transaction });
      await PatchRow.destroy({ where: { id }, transaction });
      await removeUnplayed(played, transaction);
      return { id };
    });
  }

  /** The versions' heads; no body is loaded. */
  async history(id: string): Promise<SavedVersion[]> {
    if (!(await this.has(id))) throw notFound(`patch ${id}`);
    const rows = await RevisionRow.findAll({
      attributes: ['revision', 'name', 'savedAt', 'keptFor', 'changes'],
      where: { patchId: id },
      order: [['revision', 'DESC']],
    });
    return rows.map((r) => ({
      revision: r.revision,
      name: r.name,
      savedAt: r.savedAt.toISOString(),
      keptFor: r.keptFor as KeptFor | null,
      changes: changesIn(r.changes),
    }));
  }

  async revision(id: string, revision: number): Promise<{ revision: number; savedAt: string; body: string }> {
    const row = await RevisionRow.findOne({ where: { patchId: id, revision } });
    if (!row) throw notFound(`revision ${revision} of patch ${id}`);
    return { revision, savedAt: row.savedAt.toISOString(), body: row.body };
  }

  /** Keeps a version for ever. */
  async keepForEver(id: string, revision: number, why: KeptFor): Promise<void> {
    const [count] = await this.db.write((transaction) =>
      RevisionRow.update({ keptFor: why }, { where: { patchId: id, revision }, transaction }),
    );
    if (count === 0) throw notFound(`revision ${revision} of patch ${id}`);
  }
}

/** The recordings that a patch and its kept versions play. */
async function recordingsIn(patchId: string, transaction: Transaction): Promise<string[]> {
  const [patch, versions] = await Promise.all([
    PatchRow.findByPk(patchId, { attributes: ['body'], transaction }),
    RevisionRow.findAll({ attributes: ['body'], where: { patchId }, transaction }),
  ]);
  const bodies = [patch, ...versions].flatMap((row) => row?.body ?? []);
  return [...new Set(bodies.flatMap((body) => [...body.matchAll(/"assetId":"([^"]+)"/g)].map((m) => m[1] ?? '')))];
}

const MINUTE = 60_000;
const minuteOf = (at: Date): number => Math.floor(at.getTime() / MINUTE);

/** The most changes named for one version; the last ones where there are more. */
const MOST_CHANGES = 40;

const changesIn = (text: string | null): readonly string[] => (text === null ? [] : (JSON.parse(text) as string[]));

/** Keeps what was saved. Saves of one minute share one kept version: the last, unless one was kept on purpose. */
async function keep(row: PatchRow, transaction: Transaction, changes: readonly string[] = []): Promise<void> {
  const { id: patchId, revision, name, body, updatedAt: savedAt } = row;
  const before = await RevisionRow.findOne({
    attributes: ['revision', 'savedAt', 'keptFor', 'changes'],
    where: { patchId, revision: revision - 1 },
    transaction,
  });
  const shared =
    before && before.revision > 1 && before.keptFor === null && minuteOf(before.savedAt) === minuteOf(savedAt);
  if (shared) await RevisionRow.destroy({ where: { patchId, revision: before.revision }, transaction });
  const all = [...(shared ? changesIn(before.changes) : []), ...changes].slice(-MOST_CHANGES);
  const said = all.length > 0 ? JSON.stringify(all) : null;
  await RevisionRow.create({ patchId, revision, name, body, savedAt, keptFor: null, changes: said }, { transaction });
}

/** Lets go of versions that the history has outgrown. */
async function thin(patchId: string, transaction: Transaction): Promise<void> {
  const rows = await RevisionRow.findAll({
    attributes: ['revision', 'savedAt', 'keptFor'],
    where: { patchId },
    transaction,
  });
  const gone = outgrown(rows, new Date());
  if (gone.length > 0) await RevisionRow.destroy({ where: { patchId, revision: gone }, transaction });
}
