import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { storageProblem } from '../http/problem.ts';
import { type Database, openDatabase, type Writing } from './database.ts';
import { MIGRATIONS, migrate } from './migrations/index.ts';

let root: string;
let file: string;
let databases: Database[] = [];
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), 'mellow-database-'));
  file = join(root, 'mellow.sqlite');
});
afterEach(async () => {
  for (const database of databases) await database.close();
  databases = [];
  rmSync(root, { recursive: true, force: true });
});
const open = async (onFull?: () => Promise<boolean>): Promise<Database> => {
  const database = await openDatabase(file, onFull);
  databases.push(database);
  return database;
};
const numbers = async (database: Database) =>
  (await database.read<{ n: number }>('SELECT n FROM t ORDER BY n')).map((r) => r.n);

describe('writes', () => {
  it('that come together share a commit; one that fails takes no other along', async () => {
    const database = await open();
    await database.write((db) => db.run('CREATE TABLE t (n INTEGER PRIMARY KEY)'));
    const outcomes = await Promise.allSettled(
      Array.from({ length: 200 }, (_, n) =>
        database.write(async (db) => {
          await db.run('INSERT INTO t VALUES ($1)', [n]);
          if (n % 7 === 3) throw new Error(`no ${n}`);
          return n;
        }),
      ),
    );
    for (const [n, outcome] of outcomes.entries())
      expect(outcome).toMatchObject(n % 7 === 3 ? { reason: { message: `no ${n}` } } : { value: n });
    expect(await numbers(database)).toEqual(Array.from({ length: 200 }, (_, n) => n).filter((n) => n % 7 !== 3));
  });
  it('wait for a program that locks the database once, not one after the other, and go on after it', async () => {
    const database = await open();
    await database.write((db) => db.run('CREATE TABLE t (n INTEGER PRIMARY KEY)'));
    const other = new sqlite3.Database(file);
    await new Promise<void>((resolve) => other.exec('BEGIN EXCLUSIVE', () => resolve()));
    const beganMs = Date.now();
    const late = new Promise((resolve) => setTimeout(resolve, 1500)).then(() =>
      database.write((db) => db.run('INSERT INTO t VALUES (2)')),
    );
    const outcomes = await Promise.allSettled([database.write((db) => db.run('INSERT INTO t VALUES (1)')), late]);
    expect(Date.now() - beganMs).toBeLessThan(12_000);
    for (const outcome of outcomes)
      expect(storageProblem((outcome as PromiseRejectedResult).reason)).toMatchObject({ status: 503 });
    await new Promise<void>((resolve) => other.exec('ROLLBACK', () => other.close(() => resolve())));
    await database.write((db) => db.run('INSERT INTO t VALUES (3)'));
    expect(await numbers(database)).toEqual([3]);
  });
  it('that find the disk full leave nothing; those that free room may use what is given up for them', async () => {
    let given = 0;
    const database = await open(async () => ++given === 1);
    await database.write((db) => db.run('CREATE TABLE t (n INTEGER PRIMARY KEY, text TEXT)'));
    await database.write((db) => db.read('PRAGMA max_page_count = 40'));
    const put = (n: number, size: number) => (db: Writing) =>
      db.run('INSERT INTO t VALUES ($1, $2)', [n, 'x'.repeat(size)]);
    await database.write(put(1, 50_000));
    const full = (error: unknown) => storageProblem(error);
    // Alone and among others, which come through.
    expect(await database.write(put(2, 5_000_000)).catch(full)).toMatchObject({ status: 507, title: 'Disk full' });
    const both = await Promise.all([
      database.write(put(3, 5_000_000)).catch(full),
      database.write(put(4, 10)).catch(full),
    ]);
    expect(both).toMatchObject([{ status: 507 }, 1]);
    expect(given).toBe(0);
    let tries = 0;
    const freeing = async (db: Writing) => {
      // As a disk that has room only once something was given up.
      if (++tries === 1) await put(5, 5_000_000)(db);
      return db.run('DELETE FROM t WHERE n = 1');
    };
    expect(await database.free(freeing)).toBe(1);
    expect([given, tries]).toEqual([1, 2]);
    expect(await database.free(put(6, 5_000_000)).catch(full)).toMatchObject({ status: 507 });
    expect(await numbers(database)).toEqual([4]);
  });
});

describe('updates of the database', () => {
  it('are made whole or not at all, each with its record, after a copy of what was there', async () => {
    const database = await open();
    await migrate(database, root, MIGRATIONS.slice(0, 2));
    await database.write((db) => db.run(`INSERT INTO rigs VALUES ('a', 'A', '{}', 1, '2026', NULL)`));
    expect(readdirSync(root)).not.toContain('before 003-kept.sqlite');
    // One that fails in its middle leaves nothing of itself.
    const bad = [
      ...MIGRATIONS.slice(0, 2),
      { name: '003-bad', statements: ['CREATE TABLE half (n)', 'CREATE TABLE rigs (n)'] },
    ];
    await expect(migrate(database, root, bad)).rejects.toThrow();
    expect(await database.read("SELECT name FROM sqlite_master WHERE name = 'half'")).toEqual([]);
    await migrate(database, root);
    await migrate(database, root);
    expect((await database.read<{ name: string }>('SELECT name FROM SequelizeMeta')).map((r) => r.name)).toEqual(
      MIGRATIONS.map((m) => m.name),
    );
    expect(await database.read('SELECT id, summary FROM rigs')).toEqual([{ id: 'a', summary: null }]);
    const copy = join(root, 'before 003-kept.sqlite');
    expect(existsSync(copy)).toBe(true);
    const before = await openDatabase(copy);
    databases.push(before);
    expect(await before.read("SELECT name FROM pragma_table_info('rigs') WHERE name = 'summary'")).toEqual([]);
  });
  it('go on over tables that an earlier program was stopped between', async () => {
    const database = await open();
    await database.write((db) => db.run(MIGRATIONS[0]!.statements[0]!));
    await migrate(database, root);
    expect(await database.read('SELECT * FROM takes')).toEqual([]);
  });
  it('of a newer program are refused before anything is written', async () => {
    const database = await open();
    await migrate(database, root);
    await database.write((db) => db.run("INSERT INTO SequelizeMeta VALUES ('999-later')"));
    await expect(migrate(database, root)).rejects.toThrow(
      /newer Mellow Tap \(999-later\)\. Nothing was changed\. Update/,
    );
  });
  it('know again which photographs older rigs speak of', async () => {
    const database = await open();
    await migrate(database, root, MIGRATIONS.slice(0, 2));
    const sha256 = 'c'.repeat(64);
    const document = JSON.stringify({ devices: [{ photos: [{ sha256 }] }, {}] });
    await database.write(async (db) => {
      await db.run('INSERT INTO rigs VALUES ($1, $1, $2, 2, $1, NULL)', ['a', document]);
      await db.run('INSERT INTO revisions VALUES ($1, 1, $2, $1)', ['a', document]);
      await db.run('INSERT INTO revisions VALUES ($1, 2, $2, $1)', ['a', 'no JSON "photos"']);
    });
    await migrate(database, root);
    expect(await database.read('SELECT revision, sha256 FROM photoRefs ORDER BY revision')).toEqual([
      { revision: 1, sha256 },
      { revision: 2, sha256 },
    ]);
  });
});
