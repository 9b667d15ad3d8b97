import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { Sequelize, Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';

/** Each connection that Sequelize opens gets these; its own hook for them is never called on SQLite. */
const PRAGMAS = 'PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA busy_timeout=5000; PRAGMA foreign_keys=ON;';

class Tuned extends sqlite3.Database {
  constructor(file: string, mode: number, done: (error: Error | null) => void) {
    super(file, mode, (error) => {
      if (error) done(error);
      else this.exec(PRAGMAS, done);
    });
  }
}

export interface Database {
  readonly sequelize: Sequelize;
  /** Runs a write alone, as one transaction: waiting writers would starve the one that holds the lock. */
  write<T>(job: (transaction: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

export function openDatabase(file: string): Database {
  mkdirSync(dirname(file), { recursive: true });
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: file,
    dialectModule: { ...sqlite3, Database: Tuned },
    logging: false,
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  let tail: Promise<unknown> = Promise.resolve();
  return {
    sequelize,
    write(job) {
      const next = tail.then(() => sequelize.transaction(job));
      tail = next.catch(() => undefined);
      return next;
    },
    async close() {
      await tail;
      await sequelize.close();
    },
  };
}
