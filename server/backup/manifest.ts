import { z } from 'zod';

const Sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const Bytes = z.int().min(0);

/** Contents of a backup, listed in its first file: every file with its size and hash, so that it can be verified. */
export const BackupManifest = z.strictObject({
  kind: z.literal('mellow-tap-backup'),
  version: z.literal(1),
  madeAt: z.iso.datetime(),
  rigs: z.int(),
  revisions: z.int(),
  takes: z.int(),
  photographs: z.int(),
  /** What it was made of: two backups of the same stamp hold the same. */
  stamp: z.string(),
  database: z.strictObject({ bytes: Bytes, sha256: Sha256 }),
  files: z.array(z.strictObject({ folder: z.enum(['takes', 'photos']), sha256: Sha256, bytes: Bytes })).max(1_000_000),
  /** Takes that the database speaks of and whose files are not in here: a small copy leaves them where they are. */
  without: z.array(Sha256),
});
export type BackupManifest = z.infer<typeof BackupManifest>;

export const BACKUP_MANIFEST = 'backup.json';
export const BACKUP_DATABASE = 'database.sqlite';
export const fileIn = ({ folder, sha256 }: BackupManifest['files'][number]): string => `${folder}/${sha256}`;
