import { type FileHandle, open } from 'node:fs/promises';
import { server as say } from '#words/index.ts';
import { MANIFEST_FILE, Manifest } from './manifest.ts';

const LOCAL = 0x04034b50;
const DESCRIPTOR = 0x08074b50;
const HEAD_BYTES = 30;
const LONGEST_HEAD_BYTES = 4096;
const LARGEST_MANIFEST_BYTES = 16_000_000;

/**
 * Which files of a torn archive are missing or not whole: by its first file, which lists the others with their sizes,
 * and by walking from one local header to the next as far as they go. Null where it does not begin as one of ours does.
 */
export async function whatIsMissing(path: string): Promise<string[] | null> {
  const file = await open(path, 'r');
  try {
    const { size } = await file.stat();
    const first = await headAt(file, 0);
    if (first?.name !== MANIFEST_FILE || first.bytes > LARGEST_MANIFEST_BYTES) return null;
    const text = Buffer.alloc(first.bytes);
    const { bytesRead } = await file.read(text, 0, first.bytes, first.dataAt);
    if (bytesRead < first.bytes) return [MANIFEST_FILE];
    const manifest = Manifest.safeParse(JSON.parse(text.toString('utf8')));
    if (!manifest.success) return null;
    const sizes = new Map([...manifest.data.takes, ...manifest.data.photos].map((f) => [f.file, f.bytes]));
    const whole = new Set<string>();
    for (let at = 0; ; ) {
      const head = await headAt(file, at);
      if (!head) break;
      const end = head.dataAt + (sizes.get(head.name) ?? head.bytes);
      if (end > size) break;
      whole.add(head.name);
      at = await afterDescriptor(file, end);
    }
    return [...sizes.keys()].filter((name) => !whole.has(name));
  } catch {
    return null;
  } finally {
    await file.close();
  }
}

export const sayMissing = (files: readonly string[]): string =>
  files.length === 0
    ? say.onlyIndexMissing()
    : say.listedMissing({
        names: files.slice(0, MAX_NAMED).join(', '),
        more: Math.max(0, files.length - MAX_NAMED),
        count: files.length,
      });
const MAX_NAMED = 4;

interface Head {
  readonly name: string;
  readonly dataAt: number;
  readonly bytes: number;
}

async function headAt(file: FileHandle, at: number): Promise<Head | null> {
  const bytes = Buffer.alloc(LONGEST_HEAD_BYTES);
  const { bytesRead } = await file.read(bytes, 0, LONGEST_HEAD_BYTES, at);
  if (bytesRead < HEAD_BYTES || bytes.readUInt32LE(0) !== LOCAL) return null;
  const nameBytes = bytes.readUInt16LE(26);
  const extraBytes = bytes.readUInt16LE(28);
  if (HEAD_BYTES + nameBytes > bytesRead) return null;
  return {
    name: bytes.toString('utf8', HEAD_BYTES, HEAD_BYTES + nameBytes),
    dataAt: at + HEAD_BYTES + nameBytes + extraBytes,
    bytes: bytes.readUInt32LE(22),
  };
}

/** Behind a file stands, for streamed ones, a descriptor of 16 bytes, or of 24 for large ones. */
async function afterDescriptor(file: FileHandle, at: number): Promise<number> {
  const bytes = Buffer.alloc(28);
  await file.read(bytes, 0, 28, at);
  if (bytes.readUInt32LE(0) !== DESCRIPTOR) return at;
  return bytes.readUInt32LE(16) === LOCAL || bytes.readUInt32LE(16) === 0x02014b50 ? at + 16 : at + 24;
}
