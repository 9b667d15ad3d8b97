import type { Readable } from 'node:stream';
import { type TakeNotes, TakeNotes as TakeNotesShape, type TakeRecord } from '#api/index.ts';
import type { Database } from '../database.ts';
import type { Models, TakeRow } from '../models.ts';
import { HttpProblem, notFound } from '../problem.ts';
import type { Storage } from '../storage.ts';

export interface TakeService {
  list(): Promise<TakeRecord[]>;
  get(id: string): Promise<TakeRecord>;
  /** Where the bytes are, for a file that is there. */
  fileOf(id: string): Promise<{ path: string; name: string }>;
  /** The row is written after the file is safe: a stop in between leaves a file without a row, which the next start removes. */
  add(id: string, name: string, body: Readable, promisedBytes: number | null): Promise<TakeRecord>;
  note(id: string, notes: TakeNotes, revision: number): Promise<TakeRecord>;
  remove(id: string): Promise<void>;
  /** Removes files without a row and rows without a file. Once, at the start. */
  tidy(): Promise<void>;
}

export function takeService(database: Database, models: Models, storage: Storage, now: () => Date): TakeService {
  const find = async (id: string): Promise<TakeRow> => {
    const row = await models.takes.findByPk(id);
    if (!row) throw notFound('The take');
    return row;
  };
  const toRecord = async (row: TakeRow): Promise<TakeRecord> => {
    const uses = await models.measurements.findAll({ where: { takeId: row.id } });
    return {
      id: row.id,
      name: row.name,
      bytes: row.bytes,
      sha256: row.sha256,
      addedAt: row.addedAt,
      revision: row.revision,
      notes: row.notes === null ? null : TakeNotesShape.parse(JSON.parse(row.notes)),
      usedBy: [...new Set(uses.map((u) => u.rigId))],
    };
  };
  return {
    async list() {
      const rows = await models.takes.findAll({
        order: [
          ['addedAt', 'DESC'],
          ['name', 'ASC'],
        ],
      });
      return Promise.all(rows.map(toRecord));
    },
    get: async (id) => toRecord(await find(id)),
    async fileOf(id) {
      const { sha256, name } = await find(id);
      if (!(await storage.has(sha256))) throw notFound('The file of this take');
      return { path: storage.pathOf(sha256), name };
    },
    async add(id, name, body, promisedBytes) {
      const { sha256, bytes } = await storage.keep(body, promisedBytes);
      const row = await database.write(async (transaction) => {
        const known = await models.takes.findByPk(id, { transaction });
        if (known && known.sha256 !== sha256)
          throw new HttpProblem(409, 'Another file', 'Another file was stored under this id. Choose the file again.');
        return (
          known ??
          models.takes.create(
            { id, name, bytes, sha256, addedAt: now().toISOString(), notes: null, revision: 1 },
            { transaction },
          )
        );
      });
      return toRecord(row);
    },
    async note(id, notes, revision) {
      const row = await database.write(async (transaction) => {
        const [changed] = await models.takes.update(
          { notes: JSON.stringify(notes), revision: revision + 1 },
          { where: { id, revision }, transaction },
        );
        const found = await models.takes.findByPk(id, { transaction });
        if (!found) throw notFound('The take');
        if (changed === 0) {
          throw new HttpProblem(
            412,
            'Changed elsewhere',
            'Another window has changed the marks of this take first. Nothing was overwritten: reload to see them.',
            {
              newer: { revision: found.revision, notes: found.notes === null ? null : JSON.parse(found.notes) },
            },
          );
        }
        return found;
      });
      return toRecord(row);
    },
    async remove(id) {
      const { sha256 } = await find(id);
      const others = await database.write(async (transaction) => {
        await models.takes.destroy({ where: { id }, transaction });
        return models.takes.count({ where: { sha256 }, transaction });
      });
      if (others === 0) await storage.remove(sha256);
    },
    async tidy() {
      const stored = new Set(await storage.sweep());
      const rows = await models.takes.findAll();
      const named = new Set(rows.map((r) => r.sha256));
      await Promise.all([...stored].filter((sha256) => !named.has(sha256)).map((sha256) => storage.remove(sha256)));
      const lost = rows.filter((r) => !stored.has(r.sha256)).map((r) => r.id);
      if (lost.length > 0)
        await database.write((transaction) => models.takes.destroy({ where: { id: lost }, transaction }));
    },
  };
}
