import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import type { BenchFile } from '../wire/bench';
import { notFound } from './checks/errors';
import type { Database } from './database';
import { FileRow, SessionRow } from './models';

/** Photographs and recordings of sessions; what is deleted is hidden, and can be given back. */
export class BenchFiles {
  constructor(private readonly db: Database) {}

  /** Those of a session, without what they hold. */
  async of(sessionId: string): Promise<BenchFile[]> {
    type Row = Omit<BenchFile, 'added' | 'deletedAt'> & { readonly added: string; readonly deletedAt: string | null };
    const rows = await this.db.sequelize.query<Row>(
      'SELECT id, kind, name, type, at, added, deletedAt, length(bytes) AS bytes FROM files WHERE sessionId = ? ORDER BY added, id',
      { type: QueryTypes.SELECT, replacements: [sessionId] },
    );
    return rows.map((r) => ({
      ...r,
      added: new Date(r.added).toISOString(),
      deletedAt: r.deletedAt === null ? null : new Date(r.deletedAt).toISOString(),
    }));
  }

  async add(
    sessionId: string,
    file: { readonly kind: string; readonly name: string; readonly type: string; readonly at?: string },
    bytes: Buffer,
  ): Promise<{ id: string }> {
    if ((await SessionRow.count({ where: { id: sessionId } })) === 0) throw notFound(`session ${sessionId}`);
    const id = randomUUID();
    await this.db.write(async (transaction) => {
      const { kind, name, type, at = null } = file;
      await FileRow.create(
        { id, sessionId, kind, name, type, at, bytes, added: new Date(), deletedAt: null },
        { transaction },
      );
    });
    return { id };
  }

  async get(id: string): Promise<FileRow> {
    const row = await FileRow.findByPk(id);
    if (!row) throw notFound(`file ${id}`);
    return row;
  }

  setDeleted(id: string, deleted: boolean): Promise<void> {
    return this.db.write(async (transaction) => {
      const row = await FileRow.findByPk(id, { attributes: ['id'], transaction });
      if (!row) throw notFound(`file ${id}`);
      await FileRow.update({ deletedAt: deleted ? new Date() : null }, { where: { id }, transaction });
    });
  }
}
