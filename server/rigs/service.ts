import type { RigRecord, RigSummary, RigVersion } from '#api/index.ts';
import { type Measurement, parseRigText, type Rig } from '#core/model/rig/index.ts';
import { server as say } from '#words/index.ts';
import type { Database, Writing } from '../database/database.ts';
import { HttpProblem, notFound } from '../http/problem.ts';
import type { Judge } from '../judgments/judge.ts';
import { readJudged, startJudging } from './judging.ts';
import { type MadeRig, makeRig } from './made.ts';
import { COLUMNS, inNumbers, type RigRow, stale, toRecord } from './record.ts';
import { MAX_CHANGES, readChanges, readVersion, thinOut } from './versions.ts';

export interface RigService {
  list(): Promise<RigSummary[]>;
  /** Whether there is, or ever was, a rig of this id. */
  known(id: string): Promise<boolean>;
  /** @throws HttpProblem 422 for one that is no JSON any more */
  get(id: string): Promise<RigRecord>;
  /** The document as it is kept, whatever is wrong with it. */
  text(id: string): Promise<{ name: string; text: string }>;
  /** Made twice with the same id and content it is one rig: a lost answer may be asked for again. @throws HttpProblem 409 for another content */
  create(id: string, rig: Rig): Promise<RigRecord>;
  /** The next revision, over the one that was seen. @throws HttpProblem 412 where another one is there by now */
  replace(id: string, made: MadeRig, revision: number, changes?: readonly string[]): Promise<Saved>;
  remove(id: string, revision: number): Promise<void>;
  restore(id: string): Promise<RigRecord>;
  /** Newest first. */
  versions(id: string): Promise<RigVersion[]>;
  version(id: string, revision: number): Promise<RigRecord>;
  /** Makes an earlier version the present one, as a revision of its own. */
  bringBack(id: string, revision: number): Promise<RigRecord>;
  /** Makes one within a write of someone else's. @returns what has to be done once that is committed */
  createWithin(db: Writing, id: string, made: MadeRig): Promise<() => void>;
  prepare(rig: Rig): Promise<MadeRig>;
  /** Asks for a rig to be judged, in the background. */
  judge(id: string): void;
  close(): Promise<void>;
}

/** What became of a save. */
type Saved = Pick<RigRecord, 'id' | 'revision' | 'updatedAt'>;

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

type ListedRow = Omit<RigRow, 'document'> & { readonly summary: string | null; readonly judgedBy: string | null };

/** Time that a list waits for the judgment of a recent save, ms. */
const SHORT_WAIT_MS = 60;
const FEW = 5;
/** Versions are thinned out at most so often. */
const THIN_EVERY_MS = 10 * 60_000;

export function rigService(database: Database, now: () => Date, judge: Judge): RigService {
  const judging = startJudging(database, judge);
  const thinnedAt = new Map<string, number>();

  /** What hangs on a revision of a rig: the version, the measurements, the photographs that it speaks of. */
  const keep = async (
    db: Writing,
    { id, revision, savedAt }: { id: string; revision: number; savedAt: string },
    { measurements, photos, packed }: MadeRig,
    changes: readonly string[],
  ): Promise<void> => {
    await db.run('INSERT INTO revisions (rigId, revision, document, savedAt, changes) VALUES ($1, $2, $3, $4, $5)', [
      id,
      revision,
      packed,
      savedAt,
      JSON.stringify(changes.slice(0, MAX_CHANGES)),
    ]);
    await db.run('DELETE FROM measurements WHERE rigId = $1', [id]);
    if (measurements.length > 0)
      await db.models.measurements.bulkCreate(
        measurements.map((m) => ({
          rigId: id,
          id: m.id,
          takeId: m.takeId ?? null,
          kind: m.kind,
          paths: JSON.stringify(pathsOf(m)),
          takenAt: m.takenAt,
        })),
      );
    for (const sha256 of photos)
      await db.run('INSERT OR IGNORE INTO photoRefs (rigId, revision, sha256) VALUES ($1, $2, $3)', [
        id,
        revision,
        sha256,
      ]);
    const nowMs = Date.parse(savedAt);
    if (nowMs - (thinnedAt.get(id) ?? 0) < THIN_EVERY_MS) return;
    thinnedAt.set(id, nowMs);
    await thinOut(db, id, nowMs);
  };

  const find = async (db: Pick<Writing, 'read'>, id: string, gone = false): Promise<RigRow> => {
    const [row] = await db.read<RigRow>(
      `SELECT ${COLUMNS} FROM rigs WHERE id = $1 ${gone ? '' : 'AND deletedAt IS NULL'}`,
      [id],
    );
    if (!row) throw notFound(say.theRig());
    return row;
  };

  const createWithin: RigService['createWithin'] = async (db, id, made) => {
    const updatedAt = now().toISOString();
    await db.run('INSERT INTO rigs (id, name, document, revision, updatedAt) VALUES ($1, $2, $3, 1, $4)', [
      id,
      made.name,
      made.text,
      updatedAt,
    ]);
    await keep(db, { id, revision: 1, savedAt: updatedAt }, made, []);
    return () => judging.ask(id);
  };

  const replace: RigService['replace'] = async (id, made, revision, changes = []) => {
    const record = await database.write(async (db) => {
      const updatedAt = now().toISOString();
      const changed = await db.run(
        'UPDATE rigs SET name = $1, document = $2, revision = $3, updatedAt = $4 WHERE id = $5 AND revision = $6 AND deletedAt IS NULL',
        [made.name, made.text, revision + 1, updatedAt, id, revision],
      );
      if (changed === 0) throw stale(await find(db, id));
      await keep(db, { id, revision: revision + 1, savedAt: updatedAt }, made, changes);
      return { id, revision: revision + 1, updatedAt };
    });
    judging.askSoon(id);
    return record;
  };

  /** As one text: thousands of rows are handed over faster so than value by value. */
  const readList = async (): Promise<ListedRow[]> => {
    const [list] = await database.read<{ rows: string }>(
      `SELECT json_group_array(json_object('id', id, 'name', name, 'revision', revision, 'updatedAt', updatedAt, 'summary', summary,
        'judgedBy', judgedBy)) rows
        FROM (SELECT id, name, revision, updatedAt, summary, judgedBy FROM rigs WHERE deletedAt IS NULL ORDER BY updatedAt DESC, id)`,
    );
    return JSON.parse(list!.rows);
  };

  return {
    async list() {
      let rows = await readList();
      const open = rows.filter((r) => r.summary === null || r.judgedBy !== judge.name);
      for (const { id } of open) judging.ask(id);
      if (open.length > 0 && open.length <= FEW) {
        await judging.settled(SHORT_WAIT_MS);
        rows = await readList();
      }
      return rows.map(({ id, name, revision, updatedAt, summary }) => ({
        id,
        name,
        revision,
        updatedAt,
        ...inNumbers(summary),
      }));
    },
    known: async (id) => (await database.read('SELECT 1 FROM rigs WHERE id = $1', [id])).length > 0,
    async get(id) {
      const row = await find(database, id);
      const [judged] = await database.read<{ summary: string | null }>('SELECT summary FROM rigs WHERE id = $1', [id]);
      return { ...toRecord(row), state: inNumbers(judged?.summary ?? null).state };
    },
    async text(id) {
      const { name, document } = await find(database, id);
      return { name, text: document };
    },
    prepare: makeRig,
    replace,
    createWithin,
    async create(id, rig) {
      const made = await makeRig(rig);
      const record = await database.write(async (db) => {
        const [known] = await db.read<RigRow>(`SELECT ${COLUMNS} FROM rigs WHERE id = $1`, [id]);
        if (known && known.document !== made.text) throw new HttpProblem(409, say.anotherRig(), say.anotherRigIsKept());
        if (!known) await createWithin(db, id, made);
        return find(db, id, true);
      });
      judging.ask(id);
      return toRecord(record);
    },
    remove: (id, revision) =>
      database.free(async (db) => {
        const changed = await db.run(
          'UPDATE rigs SET deletedAt = $1 WHERE id = $2 AND revision = $3 AND deletedAt IS NULL',
          [now().toISOString(), id, revision],
        );
        if (changed === 0) throw stale(await find(db, id));
      }),
    async restore(id) {
      await database.write((db) => db.run('UPDATE rigs SET deletedAt = NULL WHERE id = $1', [id]));
      judging.ask(id);
      return toRecord(await find(database, id));
    },
    async versions(id) {
      await find(database, id);
      const rows = await database.read<{ revision: number; savedAt: string; changes: string; summary: string | null }>(
        'SELECT revision, savedAt, changes, summary FROM revisions WHERE rigId = $1 ORDER BY revision DESC',
        [id],
      );
      return rows.map(({ revision, savedAt, changes, summary }) => {
        const judged = readJudged(summary);
        const { state: _, says: __, ...numbers } = inNumbers(summary);
        return { revision, savedAt, changes: readChanges(changes), judged: judged?.kind === 'tally' ? numbers : null };
      });
    },
    version: async (id, revision) => {
      await find(database, id);
      return readVersion(database, id, revision);
    },
    async bringBack(id, revision) {
      const present = await find(database, id);
      const earlier = await readVersion(database, id, revision);
      const rig = parseRigText(JSON.stringify(earlier.document));
      const says = say.versionWasBroughtBack({ updatedAt: earlier.updatedAt });
      return { ...(await replace(id, await makeRig(rig), present.revision, [says])), document: rig };
    },
    judge: judging.ask,
    close: () => judging.close(),
  };
}
