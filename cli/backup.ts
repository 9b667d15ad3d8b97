import { createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { BackupReady } from '#api/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { askServer, withData } from './data.ts';

/** The whole desk in one file: every rig with its versions, the log, takes, photos; while the server runs, too. */
export const backup: Command = async ([out]) => {
  const part = `${out}.part`;
  try {
    const made = await withData(
      async (url) => {
        const ready = BackupReady.parse(await (await askServer(url, '/api/backups', { method: 'POST' })).json());
        const { body } = await askServer(url, `/api/backups/${ready.id}`);
        await pipeline(Readable.fromWeb(body as never), createWriteStream(part, { flush: true }));
        await askServer(url, `/api/backups/${ready.id}`, { method: 'DELETE' });
        return ready;
      },
      async ({ backups }) => {
        const ready = await backups.make();
        await pipeline(await backups.read(ready.id, 0), createWriteStream(part, { flush: true }));
        return ready;
      },
    );
    await rename(part, out!);
    const { rigs, revisions, takes, photographs, bytes } = made;
    return {
      json: { rigs, revisions, takes, photographs, bytes, faults: [] },
      text: say.rigWithVersionTake({ out: out!, rigs, revisions, takes, photographs, mb: (bytes / 1e6).toFixed(1) }),
    };
  } finally {
    await rm(part, { force: true });
  }
};
