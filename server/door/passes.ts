import type { Database } from '../database/database.ts';
import type { Pass } from './door.ts';

interface Row {
  readonly hash: string;
  readonly until: string;
  readonly id: string;
  readonly device: string;
  readonly address: string;
  readonly pairedAt: string;
  readonly seenAt: string;
}

/** Passes outlive the server: a phone that was let in stays in when it is started again. */
export async function doorPasses(database: Database, now: () => Date) {
  await database.write((db) => db.run('DELETE FROM doorPasses WHERE until <= ?1', [now().toISOString()]));
  const rows = await database.read<Row>('SELECT * FROM doorPasses');
  const iso = (ms: number) => new Date(ms).toISOString();
  // A pass that cannot be kept, as on a full disk, counts until the server is stopped.
  const later = (job: Parameters<Database['write']>[0]): void => void database.write(job).catch(() => undefined);
  return {
    given: rows.map(
      (row): Pass => ({
        id: row.id,
        hash: row.hash,
        device: row.device,
        address: row.address,
        pairedAtMs: Date.parse(row.pairedAt),
        seenAtMs: Date.parse(row.seenAt),
        untilMs: Date.parse(row.until),
      }),
    ),
    keep({ id, hash, device, address, pairedAtMs, seenAtMs, untilMs }: Pass): void {
      later((db) =>
        db.run(
          'INSERT INTO doorPasses (hash, until, id, device, address, pairedAt, seenAt) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)',
          [hash, iso(untilMs), id, device, address, iso(pairedAtMs), iso(seenAtMs)],
        ),
      );
    },
    forget(id: string): void {
      later((db) => db.run('DELETE FROM doorPasses WHERE id = ?1', [id]));
    },
  };
}
