import { Op, type Transaction } from 'sequelize';
import type { RigRecord, RigSummary } from '#api/index.ts';
import { tally } from '#core/check/index.ts';
import { type Measurement, parseRig, type Rig } from '#core/rig/index.ts';
import type { Database } from '../database.ts';
import type { Models, RigRow } from '../models.ts';
import { HttpProblem, notFound } from '../problem.ts';

export interface RigService {
  list(): Promise<RigSummary[]>;
  /** Whether there is, or ever was, a rig of this id. */
  known(id: string): Promise<boolean>;
  get(id: string): Promise<RigRecord>;
  /** Made twice with the same id it is one rig: a lost answer may be asked for again. */
  create(id: string, rig: Rig): Promise<RigRecord>;
  replace(id: string, rig: Rig, revision: number): Promise<RigRecord>;
  remove(id: string, revision: number): Promise<void>;
  restore(id: string): Promise<RigRecord>;
}

/** What a measurement speaks of, for finding it again. */
function pathsOf(m: Measurement): unknown {
  switch (m.kind) {
    case 'delay':
      return m.terms;
    case 'drift':
      return [m.deviceId, m.againstDeviceId];
    case 'level':
    case 'offset':
    case 'band':
      return [m.sourceId, m.listenerId];
    case 'noise':
      return [m.listenerId];
  }
}

/** So many revisions of a rig are kept. */
const REVISIONS_KEPT = 200;

export function rigService(database: Database, models: Models, now: () => Date): RigService {
  const find = async (id: string, transaction?: Transaction): Promise<RigRow> => {
    const row = await models.rigs.findOne({ where: { id, deletedAt: null }, ...(transaction ? { transaction } : {}) });
    if (!row) throw notFound('The rig');
    return row;
  };
  const keep = async (row: RigRow, rig: Rig, transaction: Transaction): Promise<void> => {
    await models.revisions.create(
      { rigId: row.id, revision: row.revision, document: row.document, savedAt: row.updatedAt },
      { transaction },
    );
    await models.revisions.destroy({
      where: { rigId: row.id, revision: { [Op.lte]: row.revision - REVISIONS_KEPT } },
      transaction,
    });
    await models.measurements.destroy({ where: { rigId: row.id }, transaction });
    await models.measurements.bulkCreate(
      rig.measurements.map((m) => ({
        rigId: row.id,
        id: m.id,
        takeId: m.takeId ?? null,
        kind: m.kind,
        paths: JSON.stringify(pathsOf(m)),
        takenAt: m.takenAt,
      })),
      { transaction },
    );
  };
  return {
    async list() {
      const rows = await models.rigs.findAll({ where: { deletedAt: null }, order: [['updatedAt', 'DESC']] });
      return rows.map(toSummary);
    },
    known: async (id) => (await models.rigs.count({ where: { id } })) > 0,
    get: async (id) => toRecord(await find(id)),
    create: (id, rig) =>
      database.write(async (transaction) => {
        const known = await models.rigs.findByPk(id, { transaction });
        if (known) return toRecord(known);
        const row = await models.rigs.create(
          {
            id,
            name: rig.name,
            document: JSON.stringify(rig),
            revision: 1,
            updatedAt: now().toISOString(),
            deletedAt: null,
          },
          { transaction },
        );
        await keep(row, rig, transaction);
        return toRecord(row);
      }),
    replace: (id, rig, revision) =>
      database.write(async (transaction) => {
        const row = await find(id, transaction);
        if (row.revision !== revision) throw stale(row);
        await row.update(
          { name: rig.name, document: JSON.stringify(rig), revision: revision + 1, updatedAt: now().toISOString() },
          { transaction },
        );
        await keep(row, rig, transaction);
        return toRecord(row);
      }),
    remove: (id, revision) =>
      database.write(async (transaction) => {
        const row = await find(id, transaction);
        if (row.revision !== revision) throw stale(row);
        await row.update({ deletedAt: now().toISOString() }, { transaction });
      }),
    restore: (id) =>
      database.write(async (transaction) => {
        const row = await models.rigs.findByPk(id, { transaction });
        if (!row) throw notFound('The rig');
        await row.update({ deletedAt: null }, { transaction });
        return toRecord(row);
      }),
  };
}

const stale = (row: RigRow): HttpProblem =>
  new HttpProblem(
    412,
    'Changed elsewhere',
    'Another window has changed this rig first. Nothing was overwritten: choose which one to keep.',
    {
      newer: toRecord(row),
    },
  );

const toRecord = (row: RigRow): RigRecord => ({
  id: row.id,
  revision: row.revision,
  updatedAt: row.updatedAt,
  document: JSON.parse(row.document),
});

function toSummary(row: RigRow): RigSummary {
  const rig = parseRig(JSON.parse(row.document));
  const { stops, fixes, watches } = tally(rig);
  return {
    id: row.id,
    name: row.name,
    revision: row.revision,
    updatedAt: row.updatedAt,
    toFix: stops + fixes,
    toWatch: watches,
    toDo: rig.tasks.length,
    measured: rig.measurements.filter((m) => m.kind !== 'offset').length,
  };
}
