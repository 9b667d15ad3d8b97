import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Space } from '#api/index.ts';
import type { Database } from '../database/database.ts';
import type { DataFolder } from './folder.ts';
import { freeBytes } from './reserve.ts';

const LARGEST = 5;

/** What is left on the disk, and what takes most of it: said wherever the disk is full. */
export async function spaceOf(folder: DataFolder, database: Database): Promise<Space> {
  const [sum] = await database.read<{ bytes: number | null }>('SELECT sum(bytes) bytes FROM takes');
  const largest = await database.read<Space['largest'][number]>(
    'SELECT id, name, bytes FROM takes ORDER BY bytes DESC, id LIMIT $1',
    [LARGEST],
  );
  return {
    freeBytes: await freeBytes(folder.root),
    takesBytes: sum?.bytes ?? 0,
    databaseBytes: (await sizeOf(folder.database)) + (await sizeOf(`${folder.database}-wal`)),
    copiesBytes: await sizeOfFolder(folder.copies),
    largest,
  };
}

const sizeOf = (path: string): Promise<number> =>
  stat(path).then(
    (s) => s.size,
    () => 0,
  );
async function sizeOfFolder(path: string): Promise<number> {
  let bytes = 0;
  for (const entry of await readdir(path, { withFileTypes: true }).catch(() => []))
    bytes += entry.isFile() ? await sizeOf(join(path, entry.name)) : 0;
  return bytes;
}
