import type { ByteSource } from '#core/audio/samples/index.ts';
import { workers as say } from '#words/index.ts';

/** Where a take's bytes are: in a file just chosen, or kept by the server. */
export type TakeSource = { readonly file: Blob } | { readonly url: string };

/** A take's bytes, and what they are called: its place, or its file's name and time. */
export interface TakeBytes extends ByteSource {
  readonly name: string;
}

/** @throws Error with a sentence when the server does not answer */
export async function openBytes(source: TakeSource): Promise<TakeBytes> {
  if ('file' in source) {
    const { file } = source;
    return {
      size: file.size,
      name: file instanceof File ? JSON.stringify([file.name, file.lastModified]) : '',
      read: async (at, length) => new Uint8Array(await file.slice(at, at + length).arrayBuffer()),
    };
  }
  const range = async (from: number, to: number): Promise<Response> => {
    const response = await fetch(source.url, { headers: { Range: `bytes=${from}-${to}` } });
    if (!response.ok) throw new Error(say.takeNoLongerExists());
    return response;
  };
  const size = Number(/\/(\d+)$/.exec((await range(0, 0)).headers.get('Content-Range') ?? '')?.[1] ?? 0);
  return {
    size,
    name: source.url,
    read: async (at, length) => {
      const last = Math.min(size, at + length) - 1;
      return last < at ? new Uint8Array() : new Uint8Array(await (await range(at, last)).arrayBuffer());
    },
  };
}
