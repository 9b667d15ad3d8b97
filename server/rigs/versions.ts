import type { RigRecord } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import type { Database, Writing } from '../database/database.ts';
import { notFound } from '../http/problem.ts';
import { unpack } from './packed.ts';
import { toRecord } from './record.ts';
import { thin } from './thin.ts';

/** Maximum number of sentences kept per version. */
export const MAX_CHANGES = 20;

export async function readVersion(database: Database, id: string, revision: number): Promise<RigRecord> {
  const [row] = await database.read<{ document: string | Buffer; savedAt: string }>(
    'SELECT document, savedAt FROM revisions WHERE rigId = $1 AND revision = $2',
    [id, revision],
  );
  if (!row) throw notFound(say.thisVersion());
  return toRecord({ id, name: '', revision, updatedAt: row.savedAt, document: await unpack(row.document) });
}

/** Drops versions that need not be kept; their changes are listed with the next one. */
export async function thinOut(db: Writing, rigId: string, nowMs: number): Promise<void> {
  const rows = await db.read<{ revision: number; savedAt: string; changes: string }>(
    'SELECT revision, savedAt, changes FROM revisions WHERE rigId = $1 ORDER BY revision',
    [rigId],
  );
  const drop = new Set(
    thin(
      rows.map((r) => ({ revision: r.revision, savedAtMs: Date.parse(r.savedAt) })),
      nowMs,
    ),
  );
  if (drop.size === 0) return;
  let carried: string[] = [];
  for (const { revision, changes } of rows) {
    if (drop.has(revision)) {
      carried = [...carried, ...readChanges(changes)];
      await db.run('DELETE FROM revisions WHERE rigId = $1 AND revision = $2', [rigId, revision]);
      await db.run('DELETE FROM photoRefs WHERE rigId = $1 AND revision = $2', [rigId, revision]);
    } else if (carried.length > 0) {
      await db.run('UPDATE revisions SET changes = $1 WHERE rigId = $2 AND revision = $3', [
        JSON.stringify([...carried, ...readChanges(changes)].slice(-MAX_CHANGES)),
        rigId,
        revision,
      ]);
      carried = [];
    }
  }
}

export function readChanges(text: string): string[] {
  try {
    const found: unknown = JSON.parse(text);
    return Array.isArray(found) ? found.filter((c) => typeof c === 'string') : [];
  } catch {
    return [];
  }
}
