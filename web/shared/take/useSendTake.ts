import { useCallback } from 'react';
import type { TakeRecord } from '#api/index.ts';
import { queue } from '#web/shared/jobs/index.ts';
import { forgetUpload, isOffline, sayProblem, uploads, useAppDispatch } from '#web/shared/store/index.ts';
import { take as say } from '#words/index.ts';

/**
 * Sends a take to the server, whichever page one looks at meanwhile.
 * @returns its record; null where it was given up
 */
export function useSendTake(): (id: string, file: File) => Promise<TakeRecord | null> {
  const dispatch = useAppDispatch();
  return useCallback(
    async (id, file) => {
      const sent = await queue.add({
        name: file.name,
        lane: 'network',
        background: true,
        start: (heard) => {
          const onProgress = (done: number) => heard({ what: 'sending', done });
          onProgress(0);
          const request = dispatch(uploads.endpoints.sendTake.initiate({ id, file, name: file.name, onProgress }));
          const result = request.unwrap().catch((error: unknown) => {
            throw new Error(isOffline(error) ? say.uploadInterrupted() : sayProblem(error));
          });
          return { result, stop: request.abort };
        },
      }).result;
      if (sent) forgetUpload(file);
      return sent;
    },
    [dispatch],
  );
}
