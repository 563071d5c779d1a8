import { col, fn, Op, QueryTypes, where } from 'sequelize';
import type { Sequelize, Transaction } from 'sequelize';
import type { Database } from './database';
import { notFound } from './checks/errors';
import { AssetRow, PatchRow, RevisionRow } from './models';
import type { UnusedAsset } from '../wire/patches';
import { threads } from './beside/thread';

/** An imported trace, volts as 32-bit floats, little-endian. */
export interface StoredAsset {
  readonly id: string;
  readonly name: string;
  readonly sampleRate: number;
  readonly volts: Buffer;
}

/** Imported traces, named by what they hold: the same trace twice is kept once, and none is ever changed. */
export class Assets {
  constructor(private readonly db: Database) {}

  async put(name: string, sampleRate: number, volts: Buffer): Promise<{ id: string }> {
    const id = await threads().reader.run('trace', { bytes: volts, sampleRate });
    await this.db.write(async (transaction) => {
      if (await AssetRow.findByPk(id, { transaction, attributes: ['id'] })) return;
      await AssetRow.create({ id, name, sampleRate, volts, createdAt: new Date() }, { transaction });
    });
    return { id };
  }

  /** Recordings that no patch plays, and none of its kept versions; what came in lately may still be on its way. */
  async unused(now = new Date()): Promise<UnusedAsset[]> {
    const rows = await sized(this.db.sequelize, new Date(now.getTime() - SETTLED));
    const free = [];
    for (const row of rows) if (!(await isPlayed(row.id))) free.push(row);
    return free;
  }

  /** Removes recordings of a list, as far as nothing plays them. */
  removeUnused(ids: readonly string[]): Promise<{ readonly removed: number }> {
    return this.db.write(async (transaction) => ({ removed: await removeUnplayed(ids, transaction) }));
  }

  async get(id: string): Promise<StoredAsset> {
    const row = await AssetRow.findByPk(id);
    if (!row) throw notFound(`recording ${id}`);
    return { id, name: row.name, sampleRate: row.sampleRate, volts: row.volts };
  }
}

/** A recording that came in so lately may belong to a patch that is being saved, milliseconds. */
const SETTLED = 3_600_000;

interface AssetHead {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
}

/** Names and sizes; no voltage is loaded. */
const sized = (sequelize: Sequelize, before: Date): Promise<AssetHead[]> =>
  sequelize.query<AssetHead>(
    'SELECT id, name, length(volts) AS bytes FROM assets WHERE createdAt < ? ORDER BY length(volts) DESC, id',
    { type: QueryTypes.SELECT, replacements: [before] },
  );

/** Whether a stored patch, or a kept version of one, names a recording; deleted ones can be restored. */
async function isPlayed(id: string, transaction?: Transaction): Promise<boolean> {
  const named = { where: where(fn('instr', col('body'), id), Op.gt, 0), ...(transaction && { transaction }) };
  return (await PatchRow.count(named)) > 0 || (await RevisionRow.count(named)) > 0;
}

/** Removes recordings that nothing plays any more; how many. */
export async function removeUnplayed(ids: readonly string[], transaction: Transaction): Promise<number> {
  let removed = 0;
  for (const id of ids)
    if (!(await isPlayed(id, transaction))) removed += await AssetRow.destroy({ where: { id }, transaction });
  return removed;
}
