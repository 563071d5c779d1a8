import { QueryTypes } from 'sequelize';
import type { Sequelize, Transaction } from 'sequelize';

interface Stored {
  readonly rowid: number;
  readonly body: string;
}

/** The body mended; null where nothing changes, or where it cannot be read and is left alone. */
function mendedBody(body: string, mend: (doc: unknown) => unknown): string | null {
  try {
    const before = JSON.parse(body) as unknown;
    const after = mend(before);
    return after === before ? null : JSON.stringify(after);
  } catch {
    return null;
  }
}

/** Mends the stored documents, and their kept revisions, that hold a piece of text. */
export async function mendBodies(
  sequelize: Sequelize,
  transaction: Transaction,
  holds: string,
  mend: (doc: unknown) => unknown,
): Promise<void> {
  for (const table of ['patches', 'revisions']) {
    const rows = await sequelize.query<Stored>(`SELECT rowid, body FROM ${table} WHERE instr(body, ?) > 0`, {
      transaction,
      type: QueryTypes.SELECT,
      replacements: [holds],
    });
    for (const { rowid, body } of rows) {
      const mended = mendedBody(body, mend);
      if (mended === null) continue;
      await sequelize.query(`UPDATE ${table} SET body = ? WHERE rowid = ?`, {
        transaction,
        replacements: [mended, rowid],
      });
    }
  }
}
