import type { MeterSpec } from '../core';
import { USUAL } from '../wire/usual';
import type { Preferences as Chosen, StoredPreferences } from '../wire/preferences';
import type { Database } from './database';
import { PreferencesRow } from './models';

const ONLY = 1;

async function chosen(): Promise<Chosen | null> {
  const row = await PreferencesRow.findByPk(ONLY);
  return row ? { ...USUAL, ...(JSON.parse(row.body) as Chosen) } : null;
}

/** What the instrument is off by, for what is expected of readings. */
export async function instrument(): Promise<MeterSpec> {
  const { meterPercent, meterVolts, meterAcPercent } = (await chosen()) ?? USUAL;
  return { share: meterPercent / 100, volts: meterVolts, acShare: meterAcPercent / 100 };
}

/** What is chosen once for the whole library. */
export class Preferences {
  constructor(private readonly db: Database) {}

  async get(): Promise<StoredPreferences> {
    return { preferences: await chosen() };
  }

  async put(preferences: Chosen): Promise<StoredPreferences> {
    const row = { id: ONLY, body: JSON.stringify(preferences), updatedAt: new Date() };
    await this.db.write((transaction) => PreferencesRow.upsert(row, { transaction }));
    return { preferences };
  }

  /** Goes back to what is usual. */
  async remove(): Promise<StoredPreferences> {
    await this.db.write((transaction) => PreferencesRow.destroy({ where: { id: ONLY }, transaction }));
    return { preferences: null };
  }
}
