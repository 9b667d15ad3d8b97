/** How each rig was judged, what its versions changed, which photographs they speak of, and what is to go from the disk. */
export const kept: readonly string[] = [
  `ALTER TABLE rigs ADD COLUMN summary TEXT`,
  `ALTER TABLE rigs ADD COLUMN judgedBy TEXT`,
  // When a document changes, its former judgment no longer applies.
  `CREATE TRIGGER rigChanged AFTER UPDATE OF document ON rigs WHEN NEW.document IS NOT OLD.document
    BEGIN UPDATE rigs SET summary = NULL WHERE id = NEW.id; END`,
  // The list of rigs is read from this alone: documents are long.
  `CREATE INDEX rigsListed ON rigs (deletedAt, updatedAt, id, name, revision, summary, judgedBy)`,
  `ALTER TABLE revisions ADD COLUMN changes TEXT NOT NULL DEFAULT '[]'`,
  `ALTER TABLE revisions ADD COLUMN summary TEXT`,
  `CREATE INDEX revisionsListed ON revisions (rigId, revision, savedAt, changes, summary)`,
  `CREATE TABLE photos (sha256 TEXT PRIMARY KEY, bytes INTEGER NOT NULL, addedAt TEXT NOT NULL)`,
  `CREATE TABLE photoRefs (
    rigId TEXT NOT NULL REFERENCES rigs (id) ON DELETE CASCADE, revision INTEGER NOT NULL, sha256 TEXT NOT NULL,
    PRIMARY KEY (rigId, revision, sha256)) WITHOUT ROWID`,
  `CREATE INDEX photoRefsByHash ON photoRefs (sha256)`,
  `INSERT OR IGNORE INTO photoRefs (rigId, revision, sha256)
    SELECT v.rigId, v.revision, json_extract(photo.value, '$.sha256')
    FROM (SELECT rigId, revision, document FROM revisions UNION ALL SELECT id, revision, document FROM rigs) v,
      json_each(CASE WHEN instr(v.document, '"photos"') > 0 AND json_valid(v.document) THEN v.document ELSE '{}' END,
        '$.devices') device,
      json_each(device.value, '$.photos') photo
    WHERE json_extract(photo.value, '$.sha256') IS NOT NULL`,
  // Bytes whose row is gone: they go when no one reads them any more, and at the next start at the latest.
  `CREATE TABLE doomed (folder TEXT NOT NULL, sha256 TEXT NOT NULL, PRIMARY KEY (folder, sha256)) WITHOUT ROWID`,
  `DROP TABLE doorPasses`,
  `CREATE TABLE doorPasses (
    hash TEXT PRIMARY KEY, until TEXT NOT NULL, id TEXT NOT NULL, device TEXT NOT NULL, address TEXT NOT NULL,
    pairedAt TEXT NOT NULL, seenAt TEXT NOT NULL)`,
];
