import { ZodError } from 'zod';
import { LARGEST_PHOTO_BYTES, LARGEST_TAKE_BYTES } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { type Extracted, extract, openZip, textOf } from '../archive/open.ts';
import { HttpProblem } from '../http/problem.ts';
import { BACKUP_DATABASE, BACKUP_MANIFEST, BackupManifest, fileIn } from './manifest.ts';

export interface UnpackJob {
  readonly path: string;
  readonly folder: string;
  /** Without: only what it says of itself is read. */
  readonly files: boolean;
}
export interface Unpacked {
  readonly manifest: BackupManifest;
  /** Null where files were not asked for. */
  readonly database: Extracted | null;
  readonly takes: readonly Extracted[];
  readonly photos: readonly Extracted[];
}

const refuse = (detail: string): HttpProblem => new HttpProblem(422, say.notWhole(), say.nothingWasChanged({ detail }));
const LARGEST_MANIFEST_BYTES = 200_000_000;
const LARGEST_DATABASE_BYTES = 64 * 1024 ** 3;

/**
 * Reads a backup and takes its files out, each held against its hash; nothing of ours is touched. In a thread of its own.
 * @throws HttpProblem 422 where it is none, cut, or not what it was
 */
export async function unpack({ path, folder, files }: UnpackJob): Promise<Unpacked> {
  const archive = await openZip(path).catch((error: unknown) => {
    if (error instanceof HttpProblem || (error as { code?: string }).code) throw error;
    throw refuse(say.thisIsNoBackup());
  });
  try {
    const manifest = readManifest(await textOf(archive, BACKUP_MANIFEST, LARGEST_MANIFEST_BYTES));
    const missing = [
      { file: BACKUP_DATABASE, bytes: manifest.database.bytes },
      ...manifest.files.map((f) => ({ file: fileIn(f), bytes: f.bytes })),
    ].find((f) => archive.entries.get(f.file)?.uncompressedSize !== f.bytes);
    if (missing) throw refuse(say.backupIsntWholeIs({ file: missing.file }));
    if (!files) return { manifest, database: null, takes: [], photos: [] };
    if (manifest.database.bytes > LARGEST_DATABASE_BYTES) throw refuse(say.databaseBackupIsToo());
    const database = await extract(archive, { file: BACKUP_DATABASE, ...manifest.database }, folder);
    const takes: Extracted[] = [];
    const photos: Extracted[] = [];
    for (const file of manifest.files) {
      const isTake = file.folder === 'takes';
      if (file.bytes > (isTake ? LARGEST_TAKE_BYTES : LARGEST_PHOTO_BYTES))
        throw refuse(say.isLargerThanAny({ file: fileIn(file) }));
      (isTake ? takes : photos).push(await extract(archive, { ...file, file: fileIn(file) }, folder));
    }
    return { manifest, database, takes, photos };
  } finally {
    await archive.close();
  }
}

function readManifest(text: string): BackupManifest {
  try {
    return BackupManifest.parse(JSON.parse(text));
  } catch (error) {
    const why = error instanceof ZodError ? (error.issues[0]?.path.join('/') ?? '') : say.itIsNotJson();
    throw refuse(say.cantBeReadIt({ file: BACKUP_MANIFEST, why }));
  }
}
