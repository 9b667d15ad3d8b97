import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Umzug } from 'umzug';
import { StartError } from '#server/http/problem.ts';
import type { Database } from '../database.ts';
import { first } from './001-first.ts';
import { day } from './002-day.ts';
import { kept } from './003-kept.ts';

/** In order, and never changed once released. Listed by hand, so that the bundle holds them. */
export const MIGRATIONS: readonly { readonly name: string; readonly statements: readonly string[] }[] = [
  { name: '001-first', statements: first },
  { name: '002-day', statements: day },
  { name: '003-kept', statements: kept },
];

/**
 * Brings the database up to date: each step with its record in one transaction, after a copy was kept of what was there.
 * @param copies  the folder for that copy
 * @throws StartError for a database that a newer program has written: nothing is changed then
 */
export async function migrate(database: Database, copies: string, steps = MIGRATIONS): Promise<void> {
  const done = await namesDone(database);
  const unknown = done.filter((name) => !steps.some((s) => s.name === name));
  if (unknown.length > 0)
    throw new StartError(
      `The data were written by a newer Mellow Tap (${unknown.join(', ')}). Nothing was changed. Update this one; or stop, and put the copy from before the update (in ${copies}) in the place of mellow.sqlite.`,
    );
  await database.write((db) => db.run('CREATE TABLE IF NOT EXISTS SequelizeMeta (name TEXT PRIMARY KEY)'));
  const next = steps.find((s) => !done.includes(s.name));
  if (next && done.length > 0) {
    const copy = join(copies, `before ${next.name}.sqlite`);
    await rm(`${copy}.new`, { force: true });
    await database.copyTo(`${copy}.new`);
    await rename(`${copy}.new`, copy);
  }
  const umzug = new Umzug({
    migrations: steps.map(({ name, statements }) => ({
      name,
      up: () =>
        database.write(async (db) => {
          for (const statement of statements) await db.run(statement);
          await db.run('INSERT INTO SequelizeMeta (name) VALUES ($1)', [name]);
        }),
    })),
    // The record is written in the step's own transaction: nothing may come between the two.
    storage: { executed: async () => done, logMigration: async () => undefined, unlogMigration: async () => undefined },
    logger: undefined,
  });
  await umzug.up();
}

async function namesDone(database: Database): Promise<string[]> {
  const [table] = await database.read("SELECT 1 FROM sqlite_master WHERE name = 'SequelizeMeta'");
  if (!table) return [];
  return (await database.read<{ name: string }>('SELECT name FROM SequelizeMeta ORDER BY name')).map((r) => r.name);
}
