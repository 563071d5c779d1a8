import type { QueryInterface, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as patches from './0001-patches';
import * as assets from './0002-assets';

/** In order; a migration that has shipped is never changed. */
const migrations = [
  { name: '0001-patches', up: patches.up, down: patches.down },
  { name: '0002-assets', up: assets.up, down: assets.down },
];

export async function migrateDatabase(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug<QueryInterface>({
    migrations: migrations.map(({ name, up, down }) => ({
      name,
      up: ({ context }) => up(context),
      down: ({ context }) => down(context),
    })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
}
