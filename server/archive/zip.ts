import { createReadStream, type ReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import type { Lent } from '../storage/storage.ts';

/** A file of a zip: text, or bytes that were lent. */
export type ZipPart = { readonly file: string } & ({ readonly text: string } | { readonly lent: Lent });

export interface Zip {
  readonly bytes: number;
  /** Destroyed before its end, it lets go of all that was lent. */
  readonly stream: Readable;
}

/** A zip as a stream, nothing squeezed; the same parts and time give the same bytes. What was lent is given back at its end. */
export async function zipOf(parts: readonly ZipPart[], mtime: Date): Promise<Zip> {
  const zip = new ZipFile();
  let reading: ReadStream | null = null;
  const output = zip.outputStream as Readable;
  for (const part of parts) {
    const options = { compress: false, mtime };
    if ('text' in part) zip.addBuffer(Buffer.from(part.text), part.file, options);
    else
      zip.addReadStreamLazy(part.file, { ...options, size: part.lent.bytes }, (give) => {
        if (output.destroyed) return;
        reading = createReadStream(part.lent.path);
        reading.once('error', (error) => output.destroy(error));
        give(null, reading);
      });
  }
  zip.on('error', (error: Error) => output.destroy(error));
  output.once('close', () => {
    reading?.destroy();
    for (const part of parts) if ('lent' in part) part.lent.giveBack();
  });
  const bytes = await new Promise<number>((resolve) =>
    zip.end({ forceZip64Format: false, comment: '' }, resolve as unknown as () => void),
  );
  return { bytes, stream: output };
}
