import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { ModelStatic, Transaction, WhereOptions } from 'sequelize';
import { ApiError, notFound } from './checks/errors';
import type { Database } from './database';
import type { RevisedRow } from './models';

/** What goes out with every kept document. */
export interface RevisedHead {
  readonly id: string;
  readonly revision: number;
  readonly name: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}

interface Kept {
  readonly name: string;
  /** As JSON. */
  readonly body: string;
}

/** Documents that are saved revision on revision, and hidden instead of deleted. */
export class Revised<S> {
  /** @param called what one of them is, `set list`. @param stored what goes out of a row. */
  constructor(
    private readonly db: Database,
    private readonly rows: ModelStatic<RevisedRow>,
    private readonly called: string,
    private readonly stored: (head: RevisedHead, body: string) => S,
  ) {}

  private of(row: RevisedRow): S {
    const { id, revision, name, updatedAt, deletedAt, body } = row;
    const dates = { updatedAt: updatedAt.toISOString(), deletedAt: deletedAt?.toISOString() ?? null };
    return this.stored({ id, revision, name, ...dates }, body);
  }

  async list(deleted: boolean): Promise<S[]> {
    const where: WhereOptions = { deletedAt: deleted ? { [Op.ne]: null } : null };
    return (await this.rows.findAll({ where, order: [['updatedAt', 'DESC']] })).map((row) => this.of(row));
  }

  async get(id: string): Promise<S> {
    return this.of(await this.row(id));
  }

  async has(id: string): Promise<boolean> {
    return (await this.rows.findByPk(id, { attributes: ['id'] })) !== null;
  }

  private async row(id: string, transaction?: Transaction): Promise<RevisedRow> {
    const row = await this.rows.findByPk(id, transaction ? { transaction } : {});
    if (!row) throw notFound(`${this.called} ${id}`);
    return row;
  }

  create(kept: Kept, id: string = randomUUID()): Promise<S> {
    return this.db.write(async (transaction) => {
      const values = { ...kept, id, revision: 1, updatedAt: new Date(), deletedAt: null };
      return this.of(await this.rows.create(values, { transaction }));
    });
  }

  /** @throws 409 with theirs where somebody saved in between; nothing is overwritten. */
  save(id: string, baseRevision: number, kept: Kept): Promise<S> {
    return this.db.write(async (transaction) => {
      const row = await this.row(id, transaction);
      if (row.revision !== baseRevision) {
        const message = `This ${this.called} was saved elsewhere. Nothing was overwritten.`;
        throw new ApiError(409, 'conflict', message, { theirs: this.of(row) });
      }
      const changed = { ...kept, revision: row.revision + 1, updatedAt: new Date() };
      return this.of(await row.update(changed, { transaction }));
    });
  }

  setDeleted(id: string, deleted: boolean): Promise<S> {
    return this.db.write(async (transaction) => {
      const row = await this.row(id, transaction);
      return this.of(await row.update({ deletedAt: deleted ? new Date() : null }, { transaction }));
    });
  }
}
