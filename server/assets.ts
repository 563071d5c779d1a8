import type { Database } from './database';
import { notFound } from './checks/errors';
import { AssetRow } from './models';
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

  async get(id: string): Promise<StoredAsset> {
    const row = await AssetRow.findByPk(id);
    if (!row) throw notFound(`recording ${id}`);
    return { id, name: row.name, sampleRate: row.sampleRate, volts: row.volts };
  }
}
