import { Op } from 'sequelize';
import type { Database } from '../database.ts';
import type { Models } from '../models.ts';

/** Passes outlive the server: a phone that was let in stays in when it is started again. */
export async function doorPasses(database: Database, models: Models, now: () => Date) {
  await database.write((transaction) =>
    models.doorPasses.destroy({ where: { until: { [Op.lte]: now().toISOString() } }, transaction }),
  );
  const rows = await models.doorPasses.findAll();
  return {
    given: rows.map((row) => [row.hash, Date.parse(row.until)] as const),
    keep(hash: string, untilMs: number): void {
      void database.write((transaction) =>
        models.doorPasses.create({ hash, until: new Date(untilMs).toISOString() }, { transaction }),
      );
    },
  };
}
