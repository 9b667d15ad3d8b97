import { type FileHandle, open, stat } from 'node:fs/promises';
import PFFFT from '@echogarden/pffft-wasm/simd';
import { type ByteSource, type FftOf, fftOver, type PffftModule } from '#core/audio/samples/index.ts';
import { cli as say } from '#words/index.ts';

/** Misuse or bad input: the command line prints it as one line and exits with 2. */
export class UsageError extends Error {}

/** @throws UsageError when the file cannot be opened */
export async function openFile(path: string): Promise<ByteSource & { close(): Promise<void> }> {
  let handle: FileHandle;
  try {
    if ((await stat(path)).isDirectory()) throw new UsageError(say.isFolderNameFile({ path }));
    handle = await open(path, 'r');
  } catch (error) {
    if (error instanceof UsageError) throw error;
    const code = (error as NodeJS.ErrnoException).code;
    throw new UsageError(
      code === 'ENOENT'
        ? say.thereIsNoFile({ path })
        : say.cannotBeOpened({ path, reason: code ?? say.unknownReason() }),
    );
  }
  const { size } = await handle.stat();
  return {
    size,
    async read(at, length) {
      const bytes = new Uint8Array(Math.max(0, Math.min(length, size - at)));
      let done = 0;
      while (done < bytes.length) {
        const { bytesRead } = await handle.read(bytes, done, bytes.length - done, at + done);
        if (bytesRead === 0) return bytes.subarray(0, done);
        done += bytesRead;
      }
      return bytes;
    },
    close: () => handle.close(),
  };
}

export const loadFft = async (): Promise<FftOf> => fftOver((await PFFFT()) as PffftModule);
