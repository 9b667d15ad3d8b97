/** Events of a session, in the order received: `seq` tells a screen what it has not seen yet. */
export const day: readonly string[] = [
  `CREATE TABLE IF NOT EXISTS dayEvents (
    seq INTEGER PRIMARY KEY AUTOINCREMENT, id TEXT NOT NULL UNIQUE,
    rigId TEXT NOT NULL REFERENCES rigs (id) ON DELETE CASCADE, sessionId TEXT NOT NULL, at TEXT NOT NULL,
    body TEXT NOT NULL, receivedAt TEXT NOT NULL)`,
  `CREATE INDEX IF NOT EXISTS dayEventsByRig ON dayEvents (rigId, seq)`,
  // What happened at the door of the phones.
  `CREATE TABLE IF NOT EXISTS doorNotes (
    id INTEGER PRIMARY KEY AUTOINCREMENT, at TEXT NOT NULL, "from" TEXT NOT NULL, says TEXT NOT NULL,
    count INTEGER NOT NULL)`,
  // Passes of paired phones, by their hashes: this table doesn't let its reader in.
  `CREATE TABLE IF NOT EXISTS doorPasses (hash TEXT PRIMARY KEY, until TEXT NOT NULL)`,
];
