import { promisify } from 'node:util';
import { constants, deflateRaw, deflateRawSync, inflateRaw } from 'node:zlib';

const FAST = { level: constants.Z_BEST_SPEED };
/** A shorter text is packed sooner than it is handed to another thread. */
const SHORT = 100_000;

/** Documents of earlier versions are deflated (RFC 1951): a tenth of their size. Old ones are plain text. */
export async function pack(text: string): Promise<Buffer> {
  return text.length < SHORT
    ? deflateRawSync(text, FAST)
    : promisify<string, typeof FAST, Buffer>(deflateRaw)(text, FAST);
}

export async function unpack(document: string | Buffer): Promise<string> {
  if (typeof document === 'string') return document;
  return (await promisify<Buffer, Buffer>(inflateRaw)(document)).toString('utf8');
}
