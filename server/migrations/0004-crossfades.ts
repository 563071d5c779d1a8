import { QueryTypes } from 'sequelize';
import type { QueryInterface, Transaction } from 'sequelize';
import { withOldDefaults } from '../../core';

interface Stored {
  readonly rowid: number;
  readonly body: string;
}

/** Writes into stored documents the crossfade amount that they were made under, which a crossfade no longer begins with. */
export async function up({ sequelize }: QueryInterface, transaction: Transaction): Promise<void> {
  for (const table of ['patches', 'revisions']) {
    const select = `SELECT rowid, body FROM ${table} WHERE body LIKE '%"crossfade"%'`;
    const rows = await sequelize.query<Stored>(select, { transaction, type: QueryTypes.SELECT });
    for (const { rowid, body } of rows) {
      const mended = mendedBody(body);
      if (mended === null) continue;
      await sequelize.query(`UPDATE ${table} SET body = ? WHERE rowid = ?`, {
        transaction,
        replacements: [mended, rowid],
      });
    }
  }
}

/** The body with its defaults written out; null where nothing changes, or where it cannot be read and is left alone. */
function mendedBody(body: string): string | null {
  try {
    const before = JSON.parse(body) as unknown;
    const after = withOldDefaults(before);
    return after === before ? null : JSON.stringify(after);
  } catch {
    return null;
  }
}
