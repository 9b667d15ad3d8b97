import type { SerializedError } from '@reduxjs/toolkit';
import { createApi, type FetchBaseQueryError, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { z } from 'zod';
import { BroughtBack, PhotoRecord, Problem, RigList, RigRecord, TakeList, TakeNotes, TakeRecord } from '#api/index.ts';
import { parseRig, type Rig } from '#core/rig/index.ts';

/** A rig as the server keeps it, read. */
export interface KeptRig extends RigRecord {
  readonly document: Rig;
}
function readRig(json: unknown): KeptRig {
  const record = RigRecord.parse(json);
  return { ...record, document: parseRig(record.document) };
}

/** What the server keeps. Every answer is parsed before anything else sees it. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api/' }),
  tagTypes: ['Rigs', 'Takes'],
  endpoints: (build) => ({
    rigs: build.query({
      query: (_: undefined) => 'rigs',
      transformResponse: (json: unknown) => RigList.parse(json),
      providesTags: ['Rigs'],
    }),
    rig: build.query({
      query: (id: string) => `rigs/${id}`,
      transformResponse: readRig,
      keepUnusedDataFor: 0,
    }),
    createRig: build.mutation({
      query: ({ id, document }: { id: string; document: unknown }) => ({
        url: 'rigs',
        method: 'POST',
        body: { id, document },
      }),
      transformResponse: (json: unknown) => RigRecord.parse(json),
      invalidatesTags: ['Rigs'],
    }),
    saveRig: build.mutation({
      query: ({ id, revision, document }: { id: string; revision: number; document: unknown }) => ({
        url: `rigs/${id}`,
        method: 'PUT',
        headers: { 'If-Match': `"${revision}"` },
        body: document,
      }),
      transformResponse: (json: unknown) => RigRecord.parse(json),
      invalidatesTags: (result) => (result ? ['Rigs', 'Takes'] : []),
    }),
    deleteRig: build.mutation({
      query: ({ id, revision }: { id: string; revision: number }) => ({
        url: `rigs/${id}`,
        method: 'DELETE',
        headers: { 'If-Match': `"${revision}"` },
      }),
      invalidatesTags: ['Rigs'],
    }),
    restoreRig: build.mutation({
      query: (id: string) => ({ url: `rigs/${id}/restore`, method: 'POST' }),
      invalidatesTags: ['Rigs'],
    }),
    takes: build.query({
      query: (_: undefined) => 'takes',
      transformResponse: (json: unknown) => TakeList.parse(json),
      providesTags: ['Takes'],
    }),
    noteTake: build.mutation({
      query: ({ id, revision, notes }: { id: string; revision: number; notes: TakeNotes }) => ({
        url: `takes/${id}/notes`,
        method: 'PUT',
        headers: { 'If-Match': `"${revision}"` },
        body: notes,
      }),
      transformResponse: (json: unknown) => TakeRecord.parse(json),
      invalidatesTags: ['Takes'],
    }),
    deleteTake: build.mutation({
      query: (id: string) => ({ url: `takes/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Takes'],
    }),
  }),
});

const WithNewer = z.looseObject({ newer: z.unknown() });

/** A failed request as one sentence. */
export function sayProblem(error: unknown): string {
  const { status, data } = error as FetchBaseQueryError;
  if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR')
    return 'The server does not answer. What you do here is kept and sent when it is back.';
  const { name, message } = error as SerializedError;
  // A page from before an update does not know all that the program writes now.
  if (name === 'RigError') return `${message} If Mellow Tap was updated since this page was opened, reload it.`;
  const problem = Problem.safeParse(data);
  return problem.success ? problem.data.detail : 'The server gave an answer that cannot be read. Reload the page.';
}

export const isOffline = (error: unknown): boolean => {
  const { status } = error as FetchBaseQueryError;
  return status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR';
};

/** The newer rig that a refused write brings along; null for any other error. */
export function newerRig(error: unknown): KeptRig | null {
  const { status, data } = error as FetchBaseQueryError;
  if (status !== 412) return null;
  const found = WithNewer.safeParse(data);
  try {
    return found.success ? readRig(found.data.newer) : null;
  } catch {
    return null;
  }
}

const NewerNotes = z.strictObject({ revision: z.int(), notes: TakeNotes.nullable() });

/** The newer marks that a refused write brings along; null for any other error. */
export function newerNotes(error: unknown): z.infer<typeof NewerNotes> | null {
  const { status, data } = error as FetchBaseQueryError;
  if (status !== 412) return null;
  const found = WithNewer.safeParse(data);
  return (found.success && NewerNotes.safeParse(found.data.newer).data) || null;
}

/** Sends a file as it is. Safe to repeat: the id is made here. */
export async function uploadTake(id: string, file: Blob, name: string): Promise<TakeRecord> {
  const response = await fetch(`/api/takes/${id}?name=${encodeURIComponent(name)}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: file,
  });
  const json: unknown = await response.json();
  if (!response.ok) throw new Error(Problem.parse(json).detail);
  return TakeRecord.parse(json);
}
export const contentUrl = (takeId: string): string => `/api/takes/${takeId}/content`;

/** Keeps a photograph on the server, as it is; the same one twice is one. */
export async function uploadPhoto(picture: Blob): Promise<PhotoRecord> {
  const response = await fetch('/api/photos', {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: picture,
  });
  const json: unknown = await response.json();
  if (!response.ok) throw new Error(Problem.parse(json).detail);
  return PhotoRecord.parse(json);
}
export const photoUrl = (sha256: string): string => `/api/photos/${sha256}`;

export const archiveUrl = (rigId: string, allTakes: boolean): string =>
  `/api/archives/${rigId}${allTakes ? '?takes=all' : ''}`;

/**
 * Sends an archive; its bytes go from the disk, not through the page's memory.
 * @param onProgress  the share that is sent, 0 to 1; then the server reads it
 * @throws Error with a sentence
 */
export function bringBack(archive: Blob, onProgress: (share: number) => void): Promise<BroughtBack> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', '/api/archives');
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => onProgress(loaded / Math.max(1, total));
    request.onerror = () =>
      reject(new Error('The server does not answer. Nothing was changed: choose the archive again.'));
    request.onload = () => {
      const back = BroughtBack.safeParse(request.response);
      const problem = Problem.safeParse(request.response);
      if (request.status === 201 && back.success) resolve(back.data);
      else reject(new Error(problem.success ? problem.data.detail : 'The archive was not taken. Choose it again.'));
    };
    request.send(archive);
  });
}
