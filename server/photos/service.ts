import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import type { PhotoRecord } from '#api/index.ts';
import type { Models } from '../models.ts';
import { HttpProblem, notFound } from '../problem.ts';
import type { Storage } from '../storage.ts';

export interface PhotoService {
  /** @throws HttpProblem 415 where the bytes are no picture that browsers show */
  add(body: Readable, promisedBytes: number | null): Promise<PhotoRecord>;
  fileOf(sha256: string): Promise<{ path: string; type: string }>;
  /** Removes what no rig speaks of any more, and none of its kept revisions. Once, at the start. */
  tidy(): Promise<void>;
}

/** How a picture begins; nothing else is taken, and nothing is shown as what it is not. */
const KINDS: readonly { readonly type: string; readonly begins: (head: Buffer) => boolean }[] = [
  { type: 'image/jpeg', begins: (h) => h[0] === 0xff && h[1] === 0xd8 && h[2] === 0xff },
  { type: 'image/png', begins: (h) => h.subarray(0, 8).equals(Buffer.from('\x89PNG\r\n\x1a\n', 'latin1')) },
  {
    type: 'image/webp',
    begins: (h) => h.toString('latin1', 0, 4) === 'RIFF' && h.toString('latin1', 8, 12) === 'WEBP',
  },
];
const HEAD_BYTES = 12;

async function typeOf(path: string): Promise<string | null> {
  const handle = await open(path, 'r');
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    await handle.read(head, 0, HEAD_BYTES, 0);
    return KINDS.find((k) => k.begins(head))?.type ?? null;
  } finally {
    await handle.close();
  }
}

export function photoService(models: Models, storage: Storage): PhotoService {
  return {
    async add(body, promisedBytes) {
      const kept = await storage.keep(body, promisedBytes);
      if (await typeOf(storage.pathOf(kept.sha256))) return kept;
      await storage.remove(kept.sha256);
      throw new HttpProblem(415, 'No picture', 'The file is no JPEG, PNG or WebP picture. Choose another one.');
    },
    async fileOf(sha256) {
      const path = storage.pathOf(sha256);
      const type = (await storage.has(sha256)) ? await typeOf(path) : null;
      if (!type) throw notFound('The photograph');
      return { path, type };
    },
    async tidy() {
      const [rigs, revisions] = await Promise.all([
        models.rigs.findAll({ attributes: ['document'] }),
        models.revisions.findAll({ attributes: ['document'] }),
      ]);
      const spoken = new Set([...rigs, ...revisions].flatMap((r) => r.document.match(/[0-9a-f]{64}/g) ?? []));
      const stored = await storage.sweep();
      await Promise.all(stored.filter((s) => !spoken.has(s)).map((s) => storage.remove(s)));
    },
  };
}
