import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { ChangeSheet, SetListSheet, StoredSetList } from '../wire/setLists';
import type { CreateSetListRequest, SaveSetListRequest } from '../wire/requests';
import { threads } from './beside/thread';
import { ApiError, notFound } from './checks/errors';
import type { Database } from './database';
import { PatchRow, RackRow, SetListRow } from './models';
import { tracesOf } from './traces';

const stored = (row: SetListRow): StoredSetList => ({
  ...(JSON.parse(row.body) as CreateSetListRequest),
  id: row.id,
  revision: row.revision,
  name: row.name,
  updatedAt: row.updatedAt.toISOString(),
  deletedAt: row.deletedAt?.toISOString() ?? null,
});

async function bodyOf(id: string): Promise<{ readonly body: string; readonly name: string }> {
  const row = await PatchRow.findByPk(id, { attributes: ['body', 'name'] });
  if (!row) throw notFound(`patch ${id}`);
  return { body: row.body, name: row.name };
}

const rackOf = async (id: string): Promise<string | null> =>
  id === '' ? null : ((await RackRow.findByPk(id))?.body ?? null);

/** Evenings, and the ways from one patch to the next. */
export class SetLists {
  constructor(private readonly db: Database) {}

  async list(deleted: boolean): Promise<StoredSetList[]> {
    const rows = await SetListRow.findAll({
      where: { deletedAt: deleted ? { [Op.ne]: null } : null },
      order: [['updatedAt', 'DESC']],
    });
    return rows.map(stored);
  }

  async get(id: string): Promise<StoredSetList> {
    return stored(await this.row(id));
  }

  async has(id: string): Promise<boolean> {
    return (await SetListRow.count({ where: { id } })) > 0;
  }

  private async row(id: string): Promise<SetListRow> {
    const row = await SetListRow.findByPk(id);
    if (!row) throw notFound(`set list ${id}`);
    return row;
  }

  create(wanted: CreateSetListRequest, id: string = randomUUID()): Promise<StoredSetList> {
    return this.db.write(async (transaction) => {
      const values = { id, revision: 1, name: wanted.name, body: JSON.stringify(wanted), updatedAt: new Date() };
      return stored(await SetListRow.create({ ...values, deletedAt: null }, { transaction }));
    });
  }

  /** @throws 409 with theirs where somebody saved in between; nothing is overwritten. */
  save(id: string, { baseRevision, ...wanted }: SaveSetListRequest): Promise<StoredSetList> {
    return this.db.write(async (transaction) => {
      const row = await this.row(id);
      if (row.revision !== baseRevision) {
        const message = 'This set list was saved elsewhere. Nothing was overwritten.';
        throw new ApiError(409, 'conflict', message, { theirs: stored(row) });
      }
      const changed = { revision: row.revision + 1, name: wanted.name, body: JSON.stringify(wanted) };
      return stored(await row.update({ ...changed, updatedAt: new Date() }, { transaction }));
    });
  }

  setDeleted(id: string, deleted: boolean): Promise<StoredSetList> {
    return this.db.write(async (transaction) => {
      const row = await this.row(id);
      return stored(await row.update({ deletedAt: deleted ? new Date() : null }, { transaction }));
    });
  }

  /** The whole evening as one document. */
  async sheet(id: string): Promise<SetListSheet> {
    const { name, rack, items } = await this.get(id);
    const bodies = await Promise.all(items.map((item) => bodyOf(item.patch)));
    const traces = (await Promise.all(bodies.map((b) => tracesOf(b.body)))).flat();
    return threads().painter.run('setList', {
      name,
      rack: await rackOf(rack),
      items: items.map((item, i) => ({ ...item, body: bodies[i]?.body ?? '' })),
      traces,
    });
  }

  /** From one patch, or variant of it, to another. */
  async change(wanted: {
    readonly from: string;
    readonly fromVariant: string;
    readonly to: string;
    readonly toVariant: string;
    readonly rack: string;
  }): Promise<ChangeSheet> {
    const [a, b] = await Promise.all([bodyOf(wanted.from), bodyOf(wanted.to)]);
    const traces = [...(await tracesOf(a.body)), ...(await tracesOf(b.body))];
    return threads().painter.run('change', {
      from: { body: a.body, variant: wanted.fromVariant },
      to: { body: b.body, variant: wanted.toVariant },
      rack: await rackOf(wanted.rack),
      traces,
    });
  }
}
