import type { ByteSource } from '#core/audio/samples/index.ts';

const CAPTURE = [...'OggS'].map((c) => c.charCodeAt(0));
const HEAD_BYTES = 27;
/** The longest page: its head, 255 segments, 255 bytes each. */
const LONGEST_PAGE = HEAD_BYTES + 255 + 255 * 255;

/**
 * An Ogg file that breaks off within a page cannot be read to there (RFC 3533, section 6): the bytes up to the last
 * page that is whole.
 * @returns null for other files, and for those that end with a whole page
 */
export async function wholePagesOf(bytes: ByteSource): Promise<number | null> {
  const head = await bytes.read(0, Math.min(CAPTURE.length, bytes.size));
  if (!CAPTURE.every((c, i) => head[i] === c)) return null;
  const from = Math.max(0, bytes.size - 2 * LONGEST_PAGE);
  const tail = await bytes.read(from, bytes.size - from);
  for (let at = tail.length - HEAD_BYTES; at >= 0; at--) {
    if (!CAPTURE.every((c, i) => tail[at + i] === c)) continue;
    const segments = tail[at + HEAD_BYTES - 1]!;
    const lengths = tail.subarray(at + HEAD_BYTES, at + HEAD_BYTES + segments);
    const end = at + HEAD_BYTES + segments + lengths.reduce((sum, n) => sum + n, 0);
    if (lengths.length === segments && end <= tail.length) return end === tail.length ? null : from + end;
  }
  return null;
}
