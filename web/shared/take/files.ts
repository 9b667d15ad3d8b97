import { contentUrl } from '#web/shared/store/index.ts';
import type { TakeSource } from '#web/shared/workers/index.ts';

/** Files chosen in this page, by take: measured from where they are while the server is still being sent them. */
const chosen = new Map<string, File>();

export const rememberFile = (takeId: string, file: File): void => void chosen.set(takeId, file);
export const forgetFile = (takeId: string): void => void chosen.delete(takeId);
export const fileOf = (takeId: string): File | undefined => chosen.get(takeId);
export function sourceOf(takeId: string): TakeSource {
  const file = chosen.get(takeId);
  return file ? { file } : { url: contentUrl(takeId) };
}
