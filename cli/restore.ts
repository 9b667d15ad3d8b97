import { randomUUID } from 'node:crypto';
import { open, stat } from 'node:fs/promises';
import { resolve } from 'node:path';
import { Restored } from '#api/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { askServer, withData } from './data.ts';
import { UsageError } from './edges.ts';

const PIECE_BYTES = 8 * 1024 * 1024;

/** Brings a backup in: what is missing comes back, nothing that is here is changed. With --preview it only says what it would do. */
export const restore: Command = async ([file], { flags }) => {
  const path = resolve(file!);
  const { size } = await stat(path).catch(() => {
    throw new UsageError(say.thereIsNoFile({ path: file! }));
  });
  const preview = flags.has('preview');
  const done = await withData(
    async (url) => {
      const id = await send(url, path, size);
      const answer = await askServer(url, `/api/restores/${id}`, { method: preview ? 'GET' : 'POST' });
      const restored = Restored.parse(await answer.json());
      if (preview) await askServer(url, `/api/restores/${id}`, { method: 'DELETE' });
      return restored;
    },
    ({ backups }) => (preview ? backups.previewFile(path) : backups.restoreFile(path)),
  );
  return {
    json: {
      rigs: done.rigsNew + done.rigsUndeleted + done.rigsBeside.length,
      takes: done.takesNew,
      faults: [],
      ...done,
    },
    text: [
      say.backupNothingChangedIt({ at: done.madeAt, preview: preview ? 'yes' : 'no' }),
      say.addRigAndTake({ rigs: done.rigsNew, takes: done.takesNew, missing: done.takesWithoutFile }),
      say.bringBackDeletedRig({ back: done.rigsUndeleted, same: done.rigsSame }),
      ...done.rigsBeside.map((name) => say.addNextToRig({ name })),
    ].join('\n  '),
  };
};

async function send(url: string, path: string, size: number): Promise<string> {
  const id = randomUUID();
  const input = await open(path, 'r');
  try {
    const piece = Buffer.alloc(PIECE_BYTES);
    for (let at = 0; at < size; ) {
      const { bytesRead } = await input.read(piece, 0, PIECE_BYTES, at);
      await askServer(url, `/api/restores/${id}/upload?at=${at}&bytes=${size}`, {
        method: 'PATCH',
        headers: { 'Content-Type': 'application/octet-stream' },
        body: piece.subarray(0, bytesRead),
      });
      at += bytesRead;
    }
    return id;
  } finally {
    await input.close();
  }
}
