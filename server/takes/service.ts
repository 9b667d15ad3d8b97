import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { type FoundTake, type TakeNotes, TakeNotes as TakeNotesShape, type TakeRecord } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import type { Database, Writing } from '../database/database.ts';
import { HttpProblem, notFound, storageProblem } from '../http/problem.ts';
import type { Content } from '../storage/content.ts';
import type { Lent } from '../storage/storage.ts';

export interface TakeService {
  list(): Promise<TakeRecord[]>;
  /** The same as JSON, in parts: other requests have their turn between them. */
  listText(): AsyncGenerator<string>;
  get(id: string): Promise<TakeRecord>;
  /** The bytes, for a file that is there: they stay until they are given back. */
  lend(id: string): Promise<Lent & { readonly name: string }>;
  add(id: string, name: string, body: Readable, promisedBytes: number | null): Promise<TakeRecord>;
  /** How much of an upload is there. */
  reached(id: string): Promise<number>;
  /** Adds a piece to an upload; the last one makes it a take. */
  addPiece(id: string, name: string, piece: Piece, body: Readable): Promise<TakeRecord | { at: number }>;
  note(id: string, notes: TakeNotes, revision: number): Promise<TakeRecord>;
  remove(id: string): Promise<void>;
  /** Files that no row speaks of: no one but a person deletes them. */
  found(): Promise<FoundTake[]>;
  takeBack(sha256: string, id: string, name: string): Promise<TakeRecord>;
  removeFound(sha256: string): Promise<void>;
  /** Writes the row of a take within a write of someone else's. */
  addWithin(db: Writing, take: NewTake): Promise<void>;
}

interface Piece {
  readonly at: number;
  readonly totalBytes: number;
}
interface NewTake {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
  readonly sha256: string;
  readonly notes: TakeNotes | null;
}

interface TakeRow {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
  readonly sha256: string;
  readonly addedAt: string;
  readonly notes: string | null;
  readonly revision: number;
  /** Rigs whose figures rest on it, as a JSON list. */
  readonly usedBy: string;
}

interface ListedRow extends TakeRow {
  /** 1 where the notes are JSON, whatever was done to the file. */
  readonly valid: 0 | 1 | null;
}

const SELECT = `SELECT t.id, t.name, t.bytes, t.sha256, t.addedAt, t.notes, t.revision,
  (SELECT json_group_array(DISTINCT m.rigId) FROM measurements m WHERE m.takeId = t.id) usedBy FROM takes t`;
const LISTED = SELECT.replace(' FROM takes t', ', json_valid(t.notes) valid FROM takes t');
/** Number of rows read before other requests get a turn. */
const AT_ONCE = 100;
/** Checks of notes that are remembered: of more takes than anyone keeps at hand. */
const MAX_CHECKED = 20_000;

export function takeService(database: Database, content: Content, now: () => Date): TakeService {
  const { storage } = content;
  const toRecord = (row: TakeRow): TakeRecord => {
    const { notes, fault } = readNotes(row.notes);
    return {
      id: row.id,
      name: row.name,
      bytes: row.bytes,
      sha256: row.sha256,
      addedAt: row.addedAt,
      revision: row.revision,
      notes,
      usedBy: JSON.parse(row.usedBy),
      ...(storage.has(row.sha256) ? {} : { missing: true as const }),
      ...(fault ? { fault } : {}),
    };
  };
  const find = async (id: string): Promise<TakeRow> => {
    const [row] = await database.read<TakeRow>(`${SELECT} WHERE t.id = $1`, [id]);
    if (!row) throw notFound(say.theTake());
    return row;
  };
  const get = async (id: string) => toRecord(await find(id));

  const addWithin: TakeService['addWithin'] = async (db, { id, name, bytes, sha256, notes }) => {
    await db.run(
      'INSERT INTO takes (id, name, bytes, sha256, addedAt, notes, revision) VALUES ($1, $2, $3, $4, $5, $6, 1)',
      [id, name, bytes, sha256, now().toISOString(), notes === null ? null : JSON.stringify(notes)],
    );
  };
  const known = (db: Pick<Writing, 'read'>, id: string) =>
    db.read<{ sha256: string }>('SELECT sha256 FROM takes WHERE id = $1', [id]).then((rows) => rows[0]);
  const another = () => new HttpProblem(409, say.anotherFile(), say.anotherFileWasStored());
  /** A row for what is staged: sent twice, it is one. */
  const rowFor = (id: string, name: string, sha256: string, bytes: number) => async (db: Writing) => {
    const there = await known(db, id);
    if (there && there.sha256 !== sha256) throw another();
    if (!there) await addWithin(db, { id, name, bytes, sha256, notes: null });
  };

  /** Rows in their order, some at a time. */
  async function* rowsInOrder(): AsyncGenerator<ListedRow[]> {
    const ids = await database.read<{ id: string }>('SELECT id FROM takes ORDER BY addedAt DESC, name');
    for (let at = 0; at < ids.length; at += AT_ONCE) {
      const some = JSON.stringify(ids.slice(at, at + AT_ONCE).map((r) => r.id));
      yield await database.read<ListedRow>(
        `${LISTED} JOIN json_each($1) wanted ON wanted.value = t.id ORDER BY wanted.key`,
        [some],
      );
    }
  }
  /** Notes that were found to be in order, by take: of which revision and length. */
  const checked = new Map<string, string>();
  const areInOrder = ({ id, revision, notes, valid }: ListedRow): boolean => {
    const which = `${revision} ${notes?.length}`;
    if (notes === null || (valid === 1 && checked.get(id) === which)) return true;
    if (readNotes(notes).fault) return false;
    if (checked.size >= MAX_CHECKED) checked.clear();
    checked.set(id, which);
    return true;
  };
  /** The record as JSON: notes that are in order are text already, and are not made of their parts again. */
  const toText = (row: ListedRow): string => {
    if (!areInOrder(row)) return JSON.stringify(toRecord(row));
    const { notes: _, ...head } = toRecord({ ...row, notes: null });
    return `${JSON.stringify(head).slice(0, -1)},"notes":${row.notes ?? 'null'}}`;
  };

  return {
    async list() {
      const takes: TakeRecord[] = [];
      for await (const rows of rowsInOrder()) takes.push(...rows.map(toRecord));
      return takes;
    },
    async *listText() {
      let before = '[';
      for await (const rows of rowsInOrder()) {
        if (rows.length === 0) continue;
        yield before + rows.map(toText).join();
        before = ',';
      }
      yield before === '[' ? '[]' : ']';
    },
    get,
    async lend(id) {
      const { sha256, name } = await find(id);
      const lent = await storage.lend(sha256);
      if (!lent) throw notFound(say.fileThisTake());
      return { ...lent, name };
    },
    async add(id, name, body, promisedBytes) {
      const staged = await storage.stage(body, promisedBytes);
      await content.keep([staged], rowFor(id, name, staged.sha256, staged.bytes));
      return get(id);
    },
    reached: (id) => storage.reached(id),
    async addPiece(id, name, { at, totalBytes }, body) {
      // The last answer was lost: it is a take already.
      if (at === totalBytes && (await storage.reached(id)) === 0 && (await known(database, id))) return get(id);
      const reached = await storage.append(id, at, body, totalBytes);
      if (reached < totalBytes) return { at: reached };
      const staged = await storage.finish(id);
      await content.keep([staged], rowFor(id, name, staged.sha256, staged.bytes), {
        // What was received need not be sent again, e.g. when the disk was full.
        refused: (one, error) => (storageProblem(error) ? storage.unfinish(one, id) : storage.discard(one)),
      });
      return get(id);
    },
    async note(id, notes, revision) {
      await database.write(async (db) => {
        const changed = await db.run('UPDATE takes SET notes = $1, revision = $2 WHERE id = $3 AND revision = $4', [
          JSON.stringify(notes),
          revision + 1,
          id,
          revision,
        ]);
        if (changed > 0) return;
        const [found] = await db.read<TakeRow>(`${SELECT} WHERE t.id = $1`, [id]);
        if (!found) throw notFound(say.theTake());
        throw new HttpProblem(412, say.changedElsewhere(), say.anotherWindowHasChanged(), {
          newer: { revision: found.revision, notes: readNotes(found.notes).notes },
        });
      });
      return get(id);
    },
    async remove(id) {
      const { sha256 } = await find(id);
      await content.drop(sha256, (db) => db.run('DELETE FROM takes WHERE id = $1', [id]));
    },
    async found() {
      const rows = await database.read<{ sha256: string }>('SELECT DISTINCT sha256 FROM takes');
      const spoken = new Set(rows.map((r) => r.sha256));
      const left = (await storage.list()).filter((sha256) => storage.has(sha256) && !spoken.has(sha256));
      const found: FoundTake[] = [];
      for (const sha256 of left) {
        const lent = await storage.lend(sha256);
        if (!lent) continue;
        try {
          found.push({ sha256, bytes: lent.bytes, ending: await endingOf(lent.path) });
        } finally {
          lent.giveBack();
        }
      }
      return found.sort((a, b) => (a.sha256 < b.sha256 ? -1 : 1));
    },
    async takeBack(sha256, id, name) {
      // Lent, so that it is there until its row is.
      const lent = await storage.lend(sha256);
      if (!lent) throw notFound(say.theFile());
      try {
        await storage.alone(sha256, async () => {
          if (!storage.has(sha256)) throw notFound(say.theFile());
          await database.write(async (db) => {
            const [spoken] = await db.read('SELECT 1 FROM takes WHERE sha256 = $1', [sha256]);
            if (spoken) throw new HttpProblem(409, say.thereAlready(), say.thisFileIsOne());
            await rowFor(id, name, sha256, lent.bytes)(db);
          });
        });
      } finally {
        lent.giveBack();
      }
      return get(id);
    },
    removeFound: (sha256) =>
      content.drop(sha256, async (db) => {
        const [spoken] = await db.read('SELECT 1 FROM takes WHERE sha256 = $1', [sha256]);
        if (spoken) throw new HttpProblem(409, say.aTake(), say.thisFileBelongsTo());
      }),
    addWithin,
  };
}

/** Marks that cannot be read spoil nothing else: the take is there, without them. */
function readNotes(text: string | null): { notes: TakeNotes | null; fault?: string } {
  if (text === null) return { notes: null };
  try {
    return { notes: TakeNotesShape.parse(JSON.parse(text)) };
  } catch {
    return { notes: null, fault: say.itsMarksCannotBe() };
  }
}

const HEAD_BYTES = 12;
/** What a file is, by how it begins, as the ending of a name. */
const BEGINS: readonly (readonly [ending: string, begins: (head: string) => boolean])[] = [
  ['.wav', (h) => (h.startsWith('RIFF') || h.startsWith('RF64')) && h.slice(8) === 'WAVE'],
  ['.mp4', (h) => h.slice(4, 8) === 'ftyp'],
  ['.mkv', (h) => h.startsWith('\x1aE\xdf\xa3')],
  ['.flac', (h) => h.startsWith('fLaC')],
  ['.ogg', (h) => h.startsWith('OggS')],
  ['.mp3', (h) => h.startsWith('ID3') || /^\xff[\xe0-\xff]/.test(h)],
];

async function endingOf(path: string): Promise<string> {
  const file = await open(path, 'r');
  try {
    const head = Buffer.alloc(HEAD_BYTES);
    await file.read(head, 0, HEAD_BYTES, 0);
    return BEGINS.find(([, begins]) => begins(head.toString('latin1')))?.[0] ?? '';
  } finally {
    await file.close();
  }
}
