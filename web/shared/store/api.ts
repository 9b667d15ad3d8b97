import type { SerializedError } from '@reduxjs/toolkit';
import { createApi, type FetchBaseQueryError, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { z } from 'zod';
import {
  CHANGES_HEADER,
  FoundTakes,
  Problem,
  RigList,
  RigRecord,
  RigVersions,
  TakeList,
  TakeNotes,
  TakeRecord,
} from '#api/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { store as say } from '#words/index.ts';

/** A rig as the server keeps it, read. */
export interface KeptRig extends RigRecord {
  readonly document: Rig;
}
/** @public The declared type of the store names it. */
export interface Save {
  readonly id: string;
  readonly revision: number;
  readonly document: unknown;
  /** What was changed since the last one, as sentences. */
  readonly changes: readonly string[];
}
/** The model comes with the first rig that is read, and with it the words for what it refuses. */
async function readRig(json: unknown): Promise<KeptRig> {
  await import('#words/core.ts');
  const { parseRig } = await import('#core/model/rig/index.ts');
  const record = RigRecord.parse(json);
  return { ...record, document: parseRig(record.document) };
}

/** What the server keeps. Every answer is parsed before anything else sees it. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api/' }),
  tagTypes: ['Rigs', 'Takes', 'Versions', 'Found'],
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
      query: ({ id, revision, document, changes }: Save) => ({
        url: `rigs/${id}`,
        method: 'PUT',
        headers: {
          'If-Match': `"${revision}"`,
          [CHANGES_HEADER]: encodeURIComponent(JSON.stringify(changes)),
        },
        body: document,
      }),
      transformResponse: (json: unknown) => RigRecord.parse(json),
      invalidatesTags: (result) => (result ? ['Rigs', 'Takes', 'Versions'] : []),
    }),
    versions: build.query({
      query: (id: string) => `rigs/${id}/versions`,
      transformResponse: (json: unknown) => RigVersions.parse(json),
      providesTags: ['Versions'],
    }),
    version: build.query({
      query: ({ id, revision }: { id: string; revision: number }) => `rigs/${id}/versions/${revision}`,
      transformResponse: readRig,
    }),
    bringBack: build.mutation({
      query: ({ id, revision }: { id: string; revision: number }) => ({
        url: `rigs/${id}/versions/${revision}/bring-back`,
        method: 'POST',
      }),
      invalidatesTags: ['Rigs', 'Takes', 'Versions'],
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
    foundTakes: build.query({
      query: (_: undefined) => 'takes/found',
      transformResponse: (json: unknown) => FoundTakes.parse(json),
      providesTags: ['Found'],
    }),
    takeBack: build.mutation({
      query: ({ sha256, id, name }: { sha256: string; id: string; name: string }) => ({
        url: `takes/found/${sha256}`,
        method: 'POST',
        body: { id, name },
      }),
      invalidatesTags: ['Takes', 'Found'],
    }),
    deleteFound: build.mutation({
      query: (sha256: string) => ({ url: `takes/found/${sha256}`, method: 'DELETE' }),
      invalidatesTags: ['Found'],
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
  if (isOffline(error)) return say.serverIsntRespondingYour();
  if (status === 'CUSTOM_ERROR') return (error as { error: string }).error;
  const { name, message } = error as SerializedError;
  // A page from before an update does not know all that the program writes now.
  if (name === 'RigError') return say.ifMellowTapWas({ message: message ?? '' });
  const problem = Problem.safeParse(data);
  return problem.success ? problem.data.detail : say.serverSentUnreadableReply();
}

/** Whether the same may be taken another time: no answer, or a server that cannot just now. */
export const mayBeLater = (error: unknown): boolean => {
  const { status } = error as FetchBaseQueryError;
  return isOffline(error) || (typeof status === 'number' && status >= 500);
};

export const isOffline = (error: unknown): boolean => {
  const { status } = error as FetchBaseQueryError;
  return status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR';
};

/** The newer rig that a refused write brings along; null for any other error. */
export async function newerRig(error: unknown): Promise<KeptRig | null> {
  const { status, data } = error as FetchBaseQueryError;
  if (status !== 412) return null;
  const found = WithNewer.safeParse(data);
  try {
    return found.success ? await readRig(found.data.newer) : null;
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

export const contentUrl = (takeId: string): string => `/api/takes/${takeId}/content`;

export const photoUrl = (sha256: string): string => `/api/photos/${sha256}`;

/** A rig's document as the server keeps it, even if it can't be read. */
export const documentUrl = (rigId: string): string => `/api/rigs/${rigId}/document`;

export const archiveUrl = (rigId: string, allTakes: boolean): string =>
  `/api/archives/${rigId}${allTakes ? '?takes=all' : ''}`;
