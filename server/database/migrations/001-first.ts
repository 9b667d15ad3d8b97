/**
 * Written in SQL: Sequelize's own column changes rebuild tables on SQLite and take dependent rows with them. What is there
 * is left: an earlier program could be stopped between a table and the record of it.
 */
export const first: readonly string[] = [
  `CREATE TABLE IF NOT EXISTS rigs (
    id TEXT PRIMARY KEY, name TEXT NOT NULL, document TEXT NOT NULL, revision INTEGER NOT NULL,
    updatedAt TEXT NOT NULL, deletedAt TEXT)`,
  `CREATE TABLE IF NOT EXISTS revisions (
    rigId TEXT NOT NULL REFERENCES rigs (id) ON DELETE CASCADE, revision INTEGER NOT NULL, document TEXT NOT NULL,
    savedAt TEXT NOT NULL, PRIMARY KEY (rigId, revision))`,
  `CREATE TABLE IF NOT EXISTS takes (
    id TEXT PRIMARY KEY, name TEXT NOT NULL, bytes INTEGER NOT NULL, sha256 TEXT NOT NULL, addedAt TEXT NOT NULL,
    notes TEXT, revision INTEGER NOT NULL)`,
  `CREATE INDEX IF NOT EXISTS takesByHash ON takes (sha256)`,
  // No reference to takes: a figure stays although its take was deleted.
  `CREATE TABLE IF NOT EXISTS measurements (
    rigId TEXT NOT NULL REFERENCES rigs (id) ON DELETE CASCADE, id TEXT NOT NULL, takeId TEXT, kind TEXT NOT NULL,
    paths TEXT NOT NULL, takenAt TEXT NOT NULL, PRIMARY KEY (rigId, id))`,
  `CREATE INDEX IF NOT EXISTS measurementsByTake ON measurements (takeId)`,
];
