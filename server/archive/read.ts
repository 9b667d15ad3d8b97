import { ZodError } from 'zod';
import { LARGEST_RIG_BYTES, LARGEST_TAKE_BYTES } from '#api/index.ts';
import { DayEvent } from '#core/live/run/index.ts';
import { parseRig, type Rig, RigError } from '#core/model/rig/index.ts';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';
import { type Entry, entryOf } from '../journal/service.ts';
import { LOG_FILE, MANIFEST_FILE, Manifest, RIG_FILE } from './manifest.ts';
import { type Extracted, extract, type Opened, openZip, refuse, textOf } from './open.ts';
import { sayMissing, whatIsMissing } from './torn.ts';

/** What an archive holds: checked, and taken out of it. */
export interface ReadArchive {
  readonly manifest: Manifest;
  readonly rig: Rig;
  readonly events: readonly Entry[];
  readonly takes: readonly Extracted[];
  readonly photos: readonly Extracted[];
}
export interface ReadJob {
  readonly path: string;
  /** Where files are taken out to. */
  readonly folder: string;
}

const LARGEST_MANIFEST_BYTES = 16_000_000;
/** Some fifty thousand entries: a session a day for many years. */
const LARGEST_LOG_BYTES = 24_000_000;

/**
 * Reads an archive to its end and takes its files out, each held against its hash. Nothing of ours is touched: it runs in
 * a thread of its own, since its cost depends on who made the archive.
 * @throws HttpProblem 422 where something is missing or not what it was; RigError
 */
export async function readArchive({ path, folder }: ReadJob): Promise<ReadArchive> {
  const archive = await openArchive(path);
  try {
    const manifest = await read(archive, MANIFEST_FILE, LARGEST_MANIFEST_BYTES, (json) => Manifest.parse(json));
    const files = [...manifest.takes, ...manifest.photos];
    const lost = files.filter((f) => archive.entries.get(f.file)?.uncompressedSize !== f.bytes);
    if (lost.length > 0) throw refuse(say.archiveIsIncomplete({ missing: sayMissing(lost.map((f) => f.file)) }));
    if (files.some((f) => f.bytes > LARGEST_TAKE_BYTES)) throw refuse(say.archiveHoldsTakeThat());
    const rig = await read(archive, RIG_FILE, LARGEST_RIG_BYTES, parseRig);
    const events = await read(archive, LOG_FILE, LARGEST_LOG_BYTES, (json) =>
      DayEvent.array().parse(json).map(entryOf),
    );
    const takes: Extracted[] = [];
    for (const take of manifest.takes) takes.push(await extract(archive, take, folder));
    const photos: Extracted[] = [];
    for (const photo of manifest.photos) photos.push(await extract(archive, photo, folder));
    return { manifest, rig, events, takes, photos };
  } catch (error) {
    if (error instanceof RigError) throw new HttpProblem(422, say.notRig(), `${RIG_FILE}: ${error.message}`);
    if (error instanceof HttpProblem || (error as { code?: string }).code) throw error;
    throw refuse(say.archiveIsDamaged());
  } finally {
    await archive.close();
  }
}

async function openArchive(path: string): Promise<Opened> {
  try {
    return await openZip(path);
  } catch (error) {
    if (error instanceof HttpProblem) throw error;
    const missing = await whatIsMissing(path);
    if (missing === null) throw refuse(say.thisIsNoArchive());
    throw refuse(say.archiveIsCutSave({ missing: sayMissing(missing) }));
  }
}

async function read<T>(archive: Opened, file: string, mostBytes: number, parse: (json: unknown) => T): Promise<T> {
  const text = await textOf(archive, file, mostBytes);
  try {
    return parse(JSON.parse(text));
  } catch (error) {
    if (error instanceof RigError || error instanceof HttpProblem) throw error;
    const why =
      error instanceof ZodError ? `${error.issues[0]?.path.join('/')}: ${error.issues[0]?.message}` : say.itIsNotJson();
    throw refuse(say.cannotBeRead({ file, why }));
  }
}
