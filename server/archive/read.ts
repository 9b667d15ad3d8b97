import { randomUUID } from 'node:crypto';
import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { type Entry, fromFd, type ZipFile } from 'yauzl';
import { ZodError } from 'zod';
import type { BroughtBack } from '#api/index.ts';
import { parseRig, type Rig, RigError } from '#core/rig/index.ts';
import { DayEvent, MOST_EVENTS } from '#core/run/index.ts';
import { HttpProblem } from '../problem.ts';
import { LOG_FILE, MANIFEST_FILE, Manifest, RIG_FILE } from './manifest.ts';
import { whatIsMissing } from './torn.ts';
import type { ArchiveParts } from './write.ts';

const refuse = (detail: string): HttpProblem => new HttpProblem(422, 'Not whole', `${detail} Nothing was changed.`);
/** Text files of an archive are no larger than this. */
const LARGEST_TEXT_BYTES = 64_000_000;

/** An archive that is open: its files by name. */
interface Opened {
  readonly zip: ZipFile;
  readonly entries: ReadonlyMap<string, Entry>;
  close(): Promise<void>;
}

/** @throws HttpProblem 422 where it is no zip, or is cut: with what is missing */
async function openArchive(path: string): Promise<Opened> {
  const file = await open(path, 'r');
  try {
    const zip = await new Promise<ZipFile>((resolve, reject) =>
      fromFd(file.fd, { lazyEntries: true, autoClose: false }, (error, found) =>
        error ? reject(error) : resolve(found),
      ),
    );
    const entries = new Map<string, Entry>();
    await new Promise<void>((resolve, reject) => {
      zip.on('entry', (entry: Entry) => {
        entries.set(entry.fileName, entry);
        zip.readEntry();
      });
      zip.on('end', resolve);
      zip.on('error', reject);
      zip.readEntry();
    });
    return { zip, entries, close: () => file.close() };
  } catch {
    await file.close();
    const missing = await whatIsMissing(path);
    if (missing === null) throw refuse('This is no archive of Mellow Tap: choose the zip that was saved from the log.');
    throw refuse(`The archive is cut: ${sayMissing(missing)} Save it again from where it came.`);
  }
}

const sayMissing = (files: readonly string[]): string =>
  files.length === 0
    ? 'only its table of contents at the end is missing.'
    : `${files.slice(0, 4).join(', ')}${files.length > 4 ? ` and ${files.length - 4} more` : ''} ${files.length === 1 ? 'is' : 'are'} missing or not whole.`;

const streamOf = ({ zip }: Opened, entry: Entry): Promise<Readable> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))),
  );

async function textOf(archive: Opened, file: string): Promise<string> {
  const entry = archive.entries.get(file);
  if (!entry) throw refuse(`The archive has no ${file}.`);
  if (entry.uncompressedSize > LARGEST_TEXT_BYTES) throw refuse(`${file} is larger than any that Mellow Tap writes.`);
  const parts: Buffer[] = [];
  for await (const part of await streamOf(archive, entry)) parts.push(part as Buffer);
  return Buffer.concat(parts).toString('utf8');
}

async function read<T>(archive: Opened, file: string, parse: (json: unknown) => T): Promise<T> {
  const text = await textOf(archive, file);
  try {
    return parse(JSON.parse(text));
  } catch (error) {
    if (error instanceof RigError) throw error;
    const why =
      error instanceof ZodError ? `${error.issues[0]?.path.join('/')}: ${error.issues[0]?.message}` : 'it is not JSON';
    throw refuse(`${file} cannot be read: ${why}.`);
  }
}

/**
 * Brings an archive back: takes byte for byte, photographs, the rig, its log. What is there already under the same id
 * and with the same content is the same; a rig that is there already comes as another one beside it.
 * @throws HttpProblem 422 where something is missing or not what it was
 */
export async function readArchive(parts: ArchiveParts, path: string): Promise<BroughtBack> {
  const archive = await openArchive(path);
  const added: string[] = [];
  try {
    const manifest = await read(archive, MANIFEST_FILE, (json) => Manifest.parse(json));
    const lost = [...manifest.takes, ...manifest.photos].filter(
      (f) => archive.entries.get(f.file)?.uncompressedSize !== f.bytes,
    );
    if (lost.length > 0) throw refuse(`The archive is not whole: ${sayMissing(lost.map((f) => f.file))}`);
    const rig = await read(archive, RIG_FILE, parseRig);
    const events = await read(archive, LOG_FILE, (json) => DayEvent.array().parse(json));
    for (const photo of manifest.photos) {
      const kept = await parts.photos.add(await streamOf(archive, archive.entries.get(photo.file)!), photo.bytes);
      if (kept.sha256 !== photo.sha256) throw refuse(`${photo.file} is not what it was.`);
    }
    const known = new Map((await parts.takes.list()).map((t) => [t.id, t]));
    const takeIds = new Map<string, string>();
    for (const take of manifest.takes) {
      const there = known.get(take.id);
      const id = there && there.sha256 !== take.sha256 ? randomUUID() : take.id;
      takeIds.set(take.id, id);
      if (there?.sha256 === take.sha256) continue;
      const stream = await streamOf(archive, archive.entries.get(take.file)!);
      const kept = await parts.takes.add(id, take.name, stream, take.bytes);
      added.push(id);
      if (kept.sha256 !== take.sha256) throw refuse(`${take.file} is not what it was.`);
    }
    const rigId = (await parts.rigs.known(manifest.rigId)) ? randomUUID() : manifest.rigId;
    for (const take of manifest.takes) {
      const id = takeIds.get(take.id)!;
      if (take.notes && added.includes(id)) {
        const { speaksOf } = take.notes;
        const notes = {
          ...take.notes,
          speaksOf: speaksOf && { ...speaksOf, rigId: speaksOf.rigId === manifest.rigId ? rigId : speaksOf.rigId },
        };
        await parts.takes.note(id, notes, 1);
      }
    }
    await parts.rigs.create(rigId, withTakes(rig, takeIds));
    const told = rigId === manifest.rigId ? events : renamed(events);
    for (let at = 0; at < told.length; at += MOST_EVENTS) await parts.day.tell(rigId, told.slice(at, at + MOST_EVENTS));
    return { rigId, name: rig.name, takes: manifest.takes.length, events: told.length };
  } catch (error) {
    // What came in before it was found not to be whole goes again.
    for (const id of added) await parts.takes.remove(id).catch(() => undefined);
    throw error;
  } finally {
    await archive.close();
  }
}

const withTakes = (rig: Rig, ids: ReadonlyMap<string, string>): Rig => ({
  ...rig,
  measurements: rig.measurements.map((m) =>
    m.takeId !== undefined && ids.has(m.takeId) ? { ...m, takeId: ids.get(m.takeId)! } : m,
  ),
});

/** Events of a rig that is there already are another rig's: they get ids of their own. */
function renamed(events: readonly DayEvent[]): DayEvent[] {
  const ids = new Map(events.map((e) => [e.id, randomUUID()]));
  return events.map((e) => {
    const id = ids.get(e.id)!;
    return e.kind === 'unmark' ? { ...e, id, markId: ids.get(e.markId) ?? e.markId } : { ...e, id };
  });
}
