import { z } from 'zod';
import { Problem, Reached, TakeRecord } from '#api/index.ts';
import { store as say } from '#words/index.ts';
import { keep, readKept } from './browser.ts';
import { newId } from './ids.ts';

/** Small enough that a weak line gets one through, large enough that a strong one does not wait between them. */
const PIECE_BYTES = 4 * 1024 * 1024;
const SHORTEST_PIECE_BYTES = 256 * 1024;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 15_000;
/** Number of attempts without progress after which an upload is given up. */
const MAX_TRIES = 12;

export interface Upload {
  /** The share that has arrived, 0 to 1. */
  readonly onProgress?: (share: number) => void;
  readonly signal?: AbortSignal;
  /** For tests: how long to wait between tries. */
  readonly wait?: (ms: number) => Promise<void>;
}

const later = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

/**
 * Uploads a file as it is, in pieces: after an interruption the server is asked for its offset, and the upload resumes.
 * Safe to repeat: the address holds an id that the page made.
 * @param query  what each piece is sent with, beside its place
 * @returns what the server answers to the last piece
 * @throws Error with a sentence where the server refuses it; TypeError where it does not answer for long
 */
async function sendByPieces(
  url: string,
  file: Blob,
  query: Record<string, string>,
  { onProgress, signal, wait = later }: Upload,
): Promise<unknown> {
  let at = 0;
  let pieceBytes = PIECE_BYTES;
  for (let tries = 0; ; ) {
    try {
      const place = new URLSearchParams({ ...query, at: String(at), bytes: String(file.size) });
      const response = await fetch(`${url}?${place}`, {
        method: 'PATCH',
        headers: { 'Content-Type': 'application/octet-stream' },
        body: file.slice(at, at + pieceBytes),
        ...(signal ? { signal } : {}),
      });
      const json: unknown = await response.json();
      const reached = Reached.safeParse(json);
      // It goes on from where the server is, also where another try of ours was there first.
      const goesOn = (response.status === 202 || response.status === 409) && reached.success;
      if (response.status === 201 || (goesOn && response.status === 202 && reached.data.at >= file.size)) {
        onProgress?.(1);
        return json;
      }
      if (!goesOn) throw new (response.status < 500 ? Refused : Error)(Problem.parse(json).detail);
      tries = response.status === 202 ? 0 : tries + 1;
      if (tries >= MAX_TRIES) throw new Refused(say.serverRefusedThisFile());
      at = reached.data.at;
      onProgress?.(at / file.size);
    } catch (error) {
      if (error instanceof Refused || signal?.aborted || ++tries >= MAX_TRIES) throw error;
      await wait(Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** tries));
      // A line that breaks takes shorter pieces.
      pieceBytes = Math.max(SHORTEST_PIECE_BYTES, pieceBytes / 2);
      at = await reachedOf(url, at);
    }
  }
}

/** Sends a take. @throws as sendByPieces */
export const uploadTake = async (id: string, file: Blob, name: string, upload: Upload = {}): Promise<TakeRecord> =>
  TakeRecord.parse(await sendByPieces(`/api/takes/${id}/upload`, file, { name }, upload));

/** Uploads a backup that is to be restored; returns its address, for preview and restore. @throws as sendByPieces */
export async function uploadBackup(file: Blob, upload: Upload = {}): Promise<string> {
  const url = `/api/restores/${newId()}`;
  await sendByPieces(`${url}/upload`, file, {}, upload);
  return url;
}

const keyOf = (file: File): string => `mellow.upload.${file.name}|${file.size}|${file.lastModified}`;

/**
 * The id under which a file is sent: the same again while it has not arrived whole, so that choosing it again, after a
 * reload or a day later, goes on from where the server is.
 */
export function uploadIdOf(file: File): string {
  const known = readKept(keyOf(file), z.uuid());
  const id = known ?? newId();
  if (!known) keep(keyOf(file), id);
  return id;
}
export const forgetUpload = (file: File): boolean => keep(keyOf(file), null);

/** The server has said no: it will say so again. */
class Refused extends Error {}

const reachedOf = async (url: string, before: number): Promise<number> => {
  try {
    const response = await fetch(url);
    return response.ok ? Reached.parse(await response.json()).at : before;
  } catch {
    return before;
  }
};
