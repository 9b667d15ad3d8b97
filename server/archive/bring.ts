import { randomUUID } from 'node:crypto';
import type { BroughtBack, TakeNotes } from '#api/index.ts';
import { DayEvent } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Database, Writing } from '../database/database.ts';
import { type Entry, entryOf } from '../journal/service.ts';
import { makeQueues } from '../storage/queues.ts';
import type { Staged, Storage } from '../storage/storage.ts';
import type { ReadArchive } from './read.ts';
import type { ArchiveParts } from './write.ts';

const queues = makeQueues();

/**
 * Puts what an archive held in its place: takes byte for byte, photographs, the rig, its log; all of it in one write, or
 * nothing. What is there already under the same id and with the same content is the same, and gets its marks where it had
 * none; a rig that is there already comes as another one beside it.
 */
export const bringIn = (parts: ArchiveParts, archive: ReadArchive): Promise<BroughtBack> =>
  // One after another: two of the same archive would both find nothing there.
  queues.alone('bring', () => bring(parts, archive));

async function bring(parts: ArchiveParts, { manifest, rig, events, takes, photos }: ReadArchive): Promise<BroughtBack> {
  const { database } = parts;
  const stage = async (storage: Storage, files: ReadArchive['takes']): Promise<Staged[]> => {
    const staged: Staged[] = [];
    for (const { path, sha256, bytes } of files) staged.push(await storage.adopt(path, sha256, bytes));
    return staged;
  };
  const rigId = (await parts.rigs.known(manifest.rigId)) ? randomUUID() : manifest.rigId;
  const there = await knownTakes(
    database,
    manifest.takes.map((t) => t.id),
  );
  const ids = new Map(
    manifest.takes.map((t) => {
      const known = there.get(t.id);
      return [t.id, known !== undefined && known !== t.sha256 ? randomUUID() : t.id] as const;
    }),
  );
  // What may be refused comes before anything is staged.
  const made = await parts.rigs.prepare(withTakes(rig, ids));
  for (const photo of photos) await parts.photos.checkPicture(photo);
  const stagedPhotos = await stage(parts.photoContent.storage, photos);
  // Photographs of an archive whose rig is refused are referenced by nothing, and deleted within a day.
  await parts.photoContent.keep(stagedPhotos, async (db) => {
    for (const { sha256, bytes } of photos) await parts.photos.addWithin(db, { sha256, bytes });
  });
  const stagedTakes = await stage(parts.takeContent.storage, takes);
  const told = rigId === manifest.rigId ? events : renamed(events);
  const after = await parts.takeContent.keep(stagedTakes, async (db) => {
    for (const take of manifest.takes) {
      const id = ids.get(take.id)!;
      const notes = take.notes && speakingOf(take.notes, manifest.rigId, rigId);
      if (there.get(id) !== take.sha256)
        await parts.takes.addWithin(db, { id, name: take.name, bytes: take.bytes, sha256: take.sha256, notes });
      else if (notes)
        await db.run('UPDATE takes SET notes = $1, revision = revision + 1 WHERE id = $2 AND notes IS NULL', [
          JSON.stringify(notes),
          id,
        ]);
    }
    const done = await parts.rigs.createWithin(db, rigId, made);
    await parts.day.tellWithin(db, rigId, told);
    return done;
  });
  after();
  return { rigId, name: rig.name, takes: manifest.takes.length, events: told.length };
}

async function knownTakes(db: Pick<Database | Writing, 'read'>, ids: readonly string[]): Promise<Map<string, string>> {
  const rows = await db.read<{ id: string; sha256: string }>(
    'SELECT id, sha256 FROM takes WHERE id IN (SELECT value FROM json_each($1))',
    [JSON.stringify(ids)],
  );
  return new Map(rows.map((r) => [r.id, r.sha256]));
}

const speakingOf = (notes: TakeNotes, from: string, to: string): TakeNotes => ({
  ...notes,
  speaksOf: notes.speaksOf && { ...notes.speaksOf, rigId: notes.speaksOf.rigId === from ? to : notes.speaksOf.rigId },
});

const withTakes = (rig: Rig, ids: ReadonlyMap<string, string>): Rig => ({
  ...rig,
  measurements: rig.measurements.map((m) =>
    m.takeId !== undefined && ids.has(m.takeId) ? { ...m, takeId: ids.get(m.takeId)! } : m,
  ),
});

/** Events of a rig that is there already are another rig's: they get ids of their own. */
function renamed(entries: readonly Entry[]): Entry[] {
  const ids = new Map(entries.map((e) => [e.id, randomUUID()]));
  return entries.map((entry) => {
    const event = DayEvent.parse(JSON.parse(entry.body));
    const id = ids.get(entry.id)!;
    return entryOf(
      event.kind === 'unmark' ? { ...event, id, markId: ids.get(event.markId) ?? event.markId } : { ...event, id },
    );
  });
}
