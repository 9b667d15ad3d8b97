import type { DayPage } from '#api/index.ts';
import { DayEvent, MAX_EVENTS } from '#core/live/run/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { server as say } from '#words/index.ts';
import type { Database, Writing } from '../database/database.ts';
import { HttpProblem, notFound } from '../http/problem.ts';

export interface DayService {
  /** Events after a sequence number, oldest first; `more` while some are left. */
  after(rigId: string, seq: number): Promise<DayPage>;
  /** Keeps what happened. Sent twice it is kept once: a lost answer may be asked for again. */
  tell(rigId: string, events: readonly DayEvent[]): Promise<void>;
  /** Takes an entry out that cannot be read. @throws HttpProblem 409 for one that can */
  takeOut(rigId: string, seq: number): Promise<void>;
  /** Keeps events within a write of someone else's. */
  tellWithin(db: Writing, rigId: string, entries: readonly Entry[]): Promise<void>;
}

/** An event made ready to be written. */
export interface Entry {
  readonly id: string;
  readonly sessionId: string;
  readonly at: string;
  readonly body: string;
}

/** Maximum size of a page, or one event. */
const PAGE_BYTES = 2_000_000;
/** What a person does in a moment says no more than this; the rig at a session's end may be as large as a rig. */
const LARGEST_EVENT_BYTES = 16_000;

/** @throws HttpProblem 413, RigError: an event that would make the journal unreadable */
export function entryOf(event: DayEvent): Entry {
  const { rig, ...rest } = event.kind === 'end' ? event : { ...event, rig: undefined };
  if (Buffer.byteLength(JSON.stringify(rest)) > LARGEST_EVENT_BYTES)
    throw new HttpProblem(413, say.tooLarge(), say.entryJournalIsLarger());
  if (rig !== undefined && rig !== null) parseRig(rig);
  const { id, sessionId, at } = event;
  return { id, sessionId, at, body: JSON.stringify(event) };
}

interface Row {
  readonly seq: number;
  readonly at: string;
  readonly bytes: number;
}

export function dayService(database: Database, now: () => Date): DayService {
  /** @returns its revision */
  const mustBeThere = async (db: Pick<Writing, 'read'>, rigId: string): Promise<number> => {
    const [rig] = await db.read<{ revision: number }>('SELECT revision FROM rigs WHERE id = $1', [rigId]);
    if (!rig) throw notFound(say.theRig());
    return rig.revision;
  };
  const tellWithin: DayService['tellWithin'] = async (db, rigId, entries) => {
    for (const { id, sessionId, at, body } of entries) {
      const added = await db.run(
        `INSERT INTO dayEvents (id, rigId, sessionId, at, body, receivedAt) VALUES ($1, $2, $3, $4, $5, $6)
         ON CONFLICT (id) DO NOTHING`,
        [id, rigId, sessionId, at, body, now().toISOString()],
      );
      if (added > 0) continue;
      const [known] = await db.read<{ rigId: string }>('SELECT rigId FROM dayEvents WHERE id = $1', [id]);
      if (known?.rigId !== rigId) throw new HttpProblem(409, say.ofAnotherRig(), say.thisIsKeptAnother());
    }
  };
  return {
    async after(rigId, seq) {
      const revision = await mustBeThere(database, rigId);
      const rows = await database.read<Row>(
        'SELECT seq, at, length(CAST(body AS BLOB)) bytes FROM dayEvents WHERE rigId = $1 AND seq > $2 ORDER BY seq LIMIT $3',
        [rigId, seq, MAX_EVENTS],
      );
      const page = withinBytes(rows);
      const last = page.at(-1)?.seq ?? seq;
      const bodies = await database.read<{ seq: number; body: string }>(
        'SELECT seq, body FROM dayEvents WHERE rigId = $1 AND seq > $2 AND seq <= $3 ORDER BY seq',
        [rigId, seq, last],
      );
      const events: DayEvent[] = [];
      const unreadable: DayPage['unreadable'] = [];
      for (const { seq: place, body } of bodies) {
        const event = readEvent(body);
        const row = page.find((r) => r.seq === place);
        if (event) events.push(event);
        else if (row) unreadable.push({ seq: place, at: row.at, bytes: row.bytes });
      }
      return { events, seq: last, more: page.length < rows.length || rows.length === MAX_EVENTS, unreadable, revision };
    },
    async tell(rigId, events) {
      const entries = events.map(entryOf);
      await database.write(async (db) => {
        await mustBeThere(db, rigId);
        await tellWithin(db, rigId, entries);
      });
    },
    takeOut: (rigId, seq) =>
      database.write(async (db) => {
        const [row] = await db.read<{ body: string }>('SELECT body FROM dayEvents WHERE rigId = $1 AND seq = $2', [
          rigId,
          seq,
        ]);
        if (!row) throw notFound(say.thisEntry());
        if (readEvent(row.body)) throw new HttpProblem(409, say.itCanBeRead(), say.onlyWhatCannotBe());
        await db.run('DELETE FROM dayEvents WHERE rigId = $1 AND seq = $2', [rigId, seq]);
      }),
    tellWithin,
  };
}

function withinBytes(rows: readonly Row[]): readonly Row[] {
  let bytes = 0;
  const end = rows.findIndex((row, i) => {
    bytes += row.bytes;
    return bytes > PAGE_BYTES && i > 0;
  });
  return end < 0 ? rows : rows.slice(0, end);
}

/** Deeper than any event goes: what is, was written before events had bounds. */
const MAX_DEPTH = 64;

function readEvent(body: string): DayEvent | null {
  try {
    const json: unknown = JSON.parse(body);
    return depthOf(json) > MAX_DEPTH ? null : DayEvent.parse(json);
  } catch {
    return null;
  }
}

/** Counted without recursion, and no further than one more than is allowed. */
function depthOf(json: unknown): number {
  let level: unknown[] = [json];
  let depth = 0;
  for (; level.length > 0 && depth <= MAX_DEPTH; depth++)
    level = level.flatMap((value) => (typeof value === 'object' && value !== null ? Object.values(value) : []));
  return depth;
}
