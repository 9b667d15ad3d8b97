import type { FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import { z } from 'zod';
import { BroughtBack, PhotoRecord, Problem, Reached, TakeRecord } from '#api/index.ts';
import { store as say } from '#words/index.ts';
import { api } from './api.ts';
import { keep, readKept } from './browser.ts';
import { newId } from './ids.ts';

/** Small enough that a weak line gets one through, large enough that a strong one does not wait between them. */
const PIECE_BYTES = 4 * 1024 * 1024;
const SHORTEST_PIECE_BYTES = 256 * 1024;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 15_000;
/** Number of attempts without progress after which an upload is given up. */
const MAX_TRIES = 12;

interface Upload {
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

/** What sending came to, as the store keeps it: no answer is told from a refusal. */
async function answered<T>(
  work: Promise<T>,
): Promise<{ data: T; error?: undefined } | { error: FetchBaseQueryError; data?: undefined }> {
  try {
    return { data: await work };
  } catch (error) {
    return {
      error:
        error instanceof TypeError
          ? { status: 'FETCH_ERROR', error: error.message }
          : { status: 'CUSTOM_ERROR', error: (error as Error).message },
    };
  }
}

/** An archive goes at once: its bytes come from the disk, not through the page's memory. @throws Error with a sentence */
const sendWhole = (archive: Blob, { onProgress, signal }: Upload): Promise<BroughtBack> =>
  new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', '/api/archives');
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => onProgress?.(loaded / Math.max(1, total));
    request.onerror = () => reject(new TypeError('no answer'));
    request.onload = () => {
      const back = BroughtBack.safeParse(request.response);
      const problem = Problem.safeParse(request.response);
      if (request.status === 201 && back.success) resolve(back.data);
      else reject(new Error(problem.success ? problem.data.detail : say.archiveWasNotImported()));
    };
    signal?.addEventListener('abort', () => request.abort());
    request.send(archive);
  });

interface Sent extends Omit<Upload, 'signal'> {
  readonly file: Blob;
}

/** Files on their way to the server; each can be aborted, and tells how far it is. */
export const uploads = api.injectEndpoints({
  endpoints: (build) => ({
    sendTake: build.mutation<TakeRecord, Sent & { readonly id: string; readonly name: string }>({
      queryFn: ({ id, name, file, ...upload }, { signal }) =>
        answered<TakeRecord>(
          sendByPieces(`/api/takes/${id}/upload`, file, { name }, { ...upload, signal }).then((json) =>
            TakeRecord.parse(json),
          ),
        ),
      invalidatesTags: ['Takes'],
    }),
    /** The answer is its address, for a look at it and to restore it. */
    sendBackup: build.mutation<string, Sent>({
      queryFn: ({ file, ...upload }, { signal }) => {
        const url = `restores/${newId()}`;
        return answered<string>(sendByPieces(`/api/${url}/upload`, file, {}, { ...upload, signal }).then(() => url));
      },
    }),
    sendArchive: build.mutation<BroughtBack, Sent>({
      queryFn: ({ file, ...upload }, { signal }) => answered<BroughtBack>(sendWhole(file, { ...upload, signal })),
      invalidatesTags: ['Rigs', 'Takes'],
    }),
    /** Kept as it is; the same one twice is one. */
    sendPhoto: build.mutation({
      query: (picture: Blob) => ({
        url: 'photos',
        method: 'POST',
        headers: { 'Content-Type': 'application/octet-stream' },
        body: picture,
      }),
      transformResponse: (json: unknown) => PhotoRecord.parse(json),
    }),
  }),
});

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
