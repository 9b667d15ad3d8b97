import { mkdir, open, readdir, readFile, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { server as say } from '#words/index.ts';
import { StartError } from '../http/problem.ts';

/** Where everything is kept. Only folders that bear the mark are ever written to, and in them only names of our own. */
export interface DataFolder {
  readonly root: string;
  readonly database: string;
  readonly takes: string;
  readonly photos: string;
  /** What is on its way in: not whole, or whole and not yet in its place. */
  readonly uploads: string;
  /** The database as it was before an update, and once a day. */
  readonly copies: string;
}

const MARK = 'mellow-tap-data.json';
const Mark = z.looseObject({ kind: z.literal('mellow-tap-data'), version: z.int() });
const MARK_VERSION = 1;
const DATABASE = 'mellow.sqlite';
const SQLITE_MAGIC = Buffer.from('SQLite format 3\0', 'latin1');

/**
 * Opens the folder, or makes it: an empty one, or one that does not exist, becomes ours by a mark. One from before there
 * were marks is known by its database.
 * @throws StartError where it holds something that is not ours; nothing in it is changed then
 */
export async function openDataFolder(root: string, now: () => Date): Promise<DataFolder> {
  await mkdir(root, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
    throw error.code === 'EEXIST' || error.code === 'ENOTDIR' ? new StartError(say.dataFolderIsFile({ root })) : error;
  });
  const names = await readdir(root);
  if (names.includes(MARK)) await checkMark(join(root, MARK));
  else if (names.length === 0 || (await isFromBeforeMarks(root, names))) await writeMark(root, now);
  else throw new StartError(say.folderHoldsFilesThat({ root, files: sayNames(names) }));
  const folder: DataFolder = {
    root,
    database: join(root, DATABASE),
    takes: join(root, 'takes'),
    photos: join(root, 'photos'),
    uploads: join(root, 'uploads'),
    copies: join(root, 'copies'),
  };
  for (const path of [folder.takes, folder.photos, folder.uploads, folder.copies])
    await mkdir(path, { recursive: true });
  return folder;
}

async function checkMark(path: string): Promise<void> {
  const text = await readFile(path, 'utf8');
  // An empty mark is one that a stop cut short: the folder was empty then.
  if (text === '') return;
  const mark = Mark.safeParse(readJson(text));
  if (!mark.success) throw new StartError(say.cannotBeReadNothing({ path }));
  if (mark.data.version > MARK_VERSION) throw new StartError(say.dataFolderWasMade());
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Two first starts at once may both write it: it says the same. */
const writeMark = (root: string, now: () => Date): Promise<void> =>
  writeFile(
    join(root, MARK),
    `${JSON.stringify({ kind: 'mellow-tap-data', version: MARK_VERSION, madeAt: now().toISOString() })}\n`,
  );

async function isFromBeforeMarks(root: string, names: readonly string[]): Promise<boolean> {
  if (!names.includes(DATABASE)) return false;
  const path = join(root, DATABASE);
  const { size } = await stat(path);
  // A first start that was killed at once leaves an empty one.
  if (size === 0) return true;
  const file = await open(path, 'r');
  try {
    const head = Buffer.alloc(SQLITE_MAGIC.length);
    await file.read(head, 0, head.length, 0);
    return head.equals(SQLITE_MAGIC);
  } finally {
    await file.close();
  }
}

const sayNames = (names: readonly string[]): string =>
  `${names.slice(0, 3).join(', ')}${names.length > 3 ? say.andMore({ more: names.length - 3 }) : ''}`;
