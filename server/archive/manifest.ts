import { z } from 'zod';
import { TakeNotes } from '#api/index.ts';

const Sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const FileName = z.string().min(1).max(300);

/** What an archive holds, as its first file says: who takes it over can check it by this alone. */
export const Manifest = z.strictObject({
  kind: z.literal('mellow-tap-archive'),
  version: z.literal(1),
  rigId: z.uuid(),
  name: z.string(),
  madeAt: z.iso.datetime(),
  takes: z.array(
    z.strictObject({
      file: FileName,
      id: z.uuid(),
      name: z.string(),
      bytes: z.number().min(1),
      sha256: Sha256,
      notes: TakeNotes.nullable(),
    }),
  ),
  photos: z.array(z.strictObject({ file: FileName, bytes: z.number().min(1), sha256: Sha256 })),
});
export type Manifest = z.infer<typeof Manifest>;

export const MANIFEST_FILE = 'archive.json';
export const RIG_FILE = 'rig.json';
export const LOG_FILE = 'log/events.json';

/** Names in an archive are plain and unlike each other, whatever the takes are called. */
export function fileNames(names: readonly string[], folder: string): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain =
      name
        .normalize('NFC')
        .replace(/[^\p{L}\p{N}._ -]+/gu, '_')
        .replace(/^[. ]+/, '')
        .slice(0, 120) || 'take';
    const dot = plain.lastIndexOf('.');
    const [stem, end] = dot > 0 ? [plain.slice(0, dot), plain.slice(dot)] : [plain, ''];
    let file = `${folder}/${plain}`;
    for (let n = 2; taken.has(file.toLowerCase()); n++) file = `${folder}/${stem} ${n}${end}`;
    taken.add(file.toLowerCase());
    return file;
  });
}
