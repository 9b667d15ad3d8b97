import { SequelizeStorage, Umzug } from 'umzug';
import type { Database } from '../database.ts';
import { up as first } from './001-first.ts';
import { up as day } from './002-day.ts';

/** In order, and never changed once released. Listed by hand, so that the bundle holds them. */
const MIGRATIONS = [
  { name: '001-first', up: first },
  { name: '002-day', up: day },
];

export async function migrate({ sequelize }: Database): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({ name, up: () => up(sequelize) })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
}
