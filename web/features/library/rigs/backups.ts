import { BackupReady, Copies, Restored } from '#api/index.ts';
import { api } from '#web/shared/store/index.ts';

/** The whole desk in one file, and back. A backup that is looked at has an address of its own, by which it is restored. */
export const backups = api.injectEndpoints({
  endpoints: (build) => ({
    copies: build.query({
      query: (_: undefined) => 'backups/copies',
      transformResponse: (json: unknown) => Copies.parse(json),
    }),
    prepareBackup: build.mutation({
      query: (_: undefined) => ({ url: 'backups', method: 'POST' }),
      transformResponse: (json: unknown) => BackupReady.parse(json),
    }),
    lookAtBackup: build.mutation({
      query: (url: string) => ({ url, method: 'GET' }),
      transformResponse: (json: unknown) => Restored.parse(json),
    }),
    restoreBackup: build.mutation({
      query: (url: string) => ({ url, method: 'POST' }),
      transformResponse: (json: unknown) => Restored.parse(json),
      invalidatesTags: ['Rigs', 'Takes', 'Versions', 'Found'],
    }),
    dropBackup: build.mutation({ query: (url: string) => ({ url, method: 'DELETE' }) }),
  }),
});
