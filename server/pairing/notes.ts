import type { Database } from '../database/database.ts';
import { makeQueues } from '../storage/queues.ts';
import type { DoorNote } from './pairing.ts';

/** The same from the same place within this time is one line with a count: ten thousand guesses fill no disk. */
const TOGETHER_MS = 60_000;
const SHOWN = 50;

export interface DoorNotes {
  add(note: DoorNote): void;
  latest(): Promise<(DoorNote & { readonly count: number })[]>;
}

/** What happened at the door, kept. */
export function doorNotes(database: Database): DoorNotes {
  /** Counted here and written now and then: the line that is open for each place and word. */
  const open = new Map<string, { id: number | null; sinceMs: number; count: number; written: number }>();
  const queues = makeQueues();
  const alone = (job: () => Promise<void>) => queues.alone('notes', job);
  const write = (note: DoorNote, line: { id: number | null; count: number; written: number }) =>
    alone(async () => {
      const { id, count } = line;
      if (id !== null && line.written >= count) return;
      // Notified only once committed: the write may be run twice.
      line.id = await database.write(async ({ models }) => {
        if (id === null) return (await models.doorNotes.create({ ...note, count })).id;
        await models.doorNotes.update({ count }, { where: { id } });
        return id;
      });
      line.written = count;
    });
  return {
    add(note) {
      const key = `${note.from} ${note.says}`;
      const nowMs = Date.parse(note.at);
      const known = open.get(key);
      const line =
        known && nowMs - known.sinceMs < TOGETHER_MS ? known : { id: null, sinceMs: nowMs, count: 0, written: 0 };
      open.set(key, line);
      line.count++;
      // The first at once, then at every doubling: the count that is kept is right to a factor of two at worst, and when asked exactly.
      if (Number.isInteger(Math.log2(line.count))) write(note, line).catch(() => undefined);
    },
    async latest() {
      for (const [key, line] of open) {
        const cut = key.indexOf(' ');
        const note = {
          at: new Date(line.sinceMs).toISOString(),
          from: key.slice(0, cut),
          says: key.slice(cut + 1) as DoorNote['says'],
        };
        if (line.written < line.count) await write(note, line);
      }
      const rows = await database.models.doorNotes.findAll({ order: [['id', 'DESC']], limit: SHOWN });
      return rows.map(({ at, from, says, count }) => ({ at, from, says: says as DoorNote['says'], count }));
    },
  };
}
