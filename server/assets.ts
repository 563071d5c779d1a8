import { createHash } from 'node:crypto';
import { ASSET, recordingsOf } from '../core';
import type { AssetLookup, Patch } from '../core';
import type { Database } from './database';
import { ApiError, notFound } from './errors';
import { AssetRow } from './models';

/** An imported trace, volts as 32-bit floats, little-endian. */
export interface StoredAsset {
  readonly id: string;
  readonly name: string;
  readonly sampleRate: number;
  readonly volts: Buffer;
}

const idOf = (volts: Buffer, sampleRate: number): string =>
  createHash('sha256').update(`${sampleRate} `).update(volts).digest('hex').slice(0, 32);

/** A copy, since a buffer from the database need not stand where floats may. */
const samplesOf = (volts: Buffer): Float32Array =>
  new Float32Array(volts.buffer.slice(volts.byteOffset, volts.byteOffset + volts.byteLength));

/** Imported traces, named by what they hold: the same trace twice is kept once, and none is ever changed. */
export class Assets {
  constructor(private readonly db: Database) {}

  async put(name: string, sampleRate: number, volts: Buffer): Promise<{ id: string }> {
    const whole = volts.byteLength > 0 && volts.byteLength % 4 === 0;
    if (!whole) throw new ApiError(400, 'bad-asset', 'A recording is 32-bit floats. Nothing was stored.');
    const strange = samplesOf(volts).findIndex((v) => !(Math.abs(v) <= ASSET.volts));
    if (strange >= 0) {
      const message = `Sample ${strange} of the recording is no voltage within \u00b1${ASSET.volts} V. Nothing was stored.`;
      throw new ApiError(400, 'bad-asset', message);
    }
    const id = idOf(volts, sampleRate);
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

  /** The traces that a patch plays, as far as they are kept here. */
  async of(patch: Patch): Promise<AssetLookup> {
    const ids = recordingsOf(patch);
    const rows = ids.length > 0 ? await AssetRow.findAll({ where: { id: ids } }) : [];
    const known = new Map(rows.map(({ id, sampleRate, volts }) => [id, { sampleRate, volts: samplesOf(volts) }]));
    return (id) => known.get(id) ?? null;
  }
}
