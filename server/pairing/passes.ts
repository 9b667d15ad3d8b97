import { Op } from 'sequelize';
import type { Database } from '../database/database.ts';
import type { Pass } from './pairing.ts';

/** Passes outlive the server: a phone that was let in stays in when it is started again. */
export async function doorPasses(database: Database, now: () => Date) {
  await database.free(({ models }) =>
    models.doorPasses.destroy({ where: { until: { [Op.lte]: now().toISOString() } } }),
  );
  const rows = await database.models.doorPasses.findAll();
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
      later(({ models }) =>
        models.doorPasses.create({
          hash,
          until: iso(untilMs),
          id,
          device,
          address,
          pairedAt: iso(pairedAtMs),
          seenAt: iso(seenAtMs),
        }),
      );
    },
    forget(id: string): void {
      later(({ models }) => models.doorPasses.destroy({ where: { id } }));
    },
  };
}
