import { randomBytes } from 'node:crypto';
import { open, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';

/** Room on the disk that is given up first when it is full, so that what frees room can always be written. */
export interface Reserve {
  /** True where there was something to give up. */
  giveUp(): Promise<boolean>;
  /** Takes the room again where there is plenty of it. */
  refill(): Promise<void>;
}

const RESERVE = 'reserve';
/** Reserved only if this many times its size is free. */
const PLENTY = 4;
const PIECE_BYTES = 1024 * 1024;

export function openReserve(root: string, bytes: number): Reserve {
  const path = join(root, RESERVE);
  const there = () =>
    stat(path).then(
      (s) => s.size,
      () => 0,
    );
  return {
    async giveUp() {
      if ((await there()) === 0) return false;
      await rm(path, { force: true });
      return true;
    },
    async refill() {
      if ((await there()) >= bytes || (await freeBytes(root)) < PLENTY * bytes) return;
      // Bytes that no file system can keep in less room.
      const piece = randomBytes(Math.min(bytes, PIECE_BYTES));
      const file = await open(path, 'w');
      try {
        for (let at = 0; at < bytes; at += piece.length) await file.write(piece, 0, Math.min(piece.length, bytes - at));
      } catch {
        await rm(path, { force: true });
      } finally {
        await file.close();
      }
    },
  };
}

/** What is free for us on the disk of a folder. */
export async function freeBytes(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
}
