import { z } from 'zod';
import { keep, readKept } from '#web/shared/store/index.ts';

/** What was watched on which input, as this browser keeps it: ids of devices hold in this browser only. */
const Watched = z.object({ listenerId: z.string().max(64), inputId: z.string().max(200), name: z.string().max(200) });
export type Watched = z.infer<typeof Watched>;
const MAX_WATCHED = 32;

const nameOf = (rigId: string): string => `mellow.watch.${rigId}`;
export const readWatched = (rigId: string): readonly Watched[] =>
  readKept(nameOf(rigId), z.array(Watched).max(MAX_WATCHED)) ?? [];

/** In place of what was watched for the same destination before. */
export const keepWatched = (rigId: string, watched: Watched): void => {
  const others = readWatched(rigId).filter((w) => w.listenerId !== watched.listenerId);
  keep(nameOf(rigId), [...others, watched].slice(-MAX_WATCHED));
};
