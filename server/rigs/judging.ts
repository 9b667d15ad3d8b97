import type { Database } from '../database/database.ts';
import type { Judge } from '../judgments/judge.ts';
import { Judged } from '../judgments/judged.ts';

/** Judges rigs in the background, each as it is at the time; what is asked for twice is done once. */
export interface Judging {
  ask(rigId: string): void;
  /** The same once it has been left alone for a moment: while someone saves and saves, no one asks for the steps between. */
  askSoon(rigId: string): void;
  /** Once nothing is pending, or after this time, ms. */
  settled(withinMs: number): Promise<void>;
  close(): Promise<void>;
}

interface Row {
  readonly document: string;
  readonly revision: number;
  readonly summary: string | null;
  readonly judgedBy: string | null;
}

/** Time a rig has to be unchanged before it is judged, and the longest wait, ms. */
const QUIET_MS = 250;
const PATIENCE_MS = 10_000;

interface Wanted {
  readonly sinceMs: number;
  readonly dueMs: number;
}

export function startJudging(database: Database, judge: Judge): Judging {
  const wanted = new Map<string, Wanted>();
  let running: Promise<void> | null = null;
  let closed = false;
  let wake: () => void = () => undefined;
  const want = (id: string, quietMs: number): void => {
    if (closed) return;
    const nowMs = performance.now();
    const sinceMs = wanted.get(id)?.sinceMs ?? nowMs;
    wanted.set(id, { sinceMs, dueMs: Math.min(nowMs + quietMs, sinceMs + PATIENCE_MS) });
    running ??= work();
    wake();
  };
  /** Until the time has come, or something else is wanted. */
  const rest = (ms: number): Promise<void> =>
    new Promise((resolve) => {
      const timer = setTimeout(resolve, ms);
      wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  const judgeOne = async (id: string): Promise<void> => {
    const [row] = await database.read<Row>('SELECT document, revision, summary, judgedBy FROM rigs WHERE id = $1', [
      id,
    ]);
    // It may have been asked for once more while it was being judged.
    if (!row || (row.judgedBy === judge.name && readJudged(row.summary) !== null)) return;
    const summary = JSON.stringify(await judge.judge(row.document));
    if (closed) return;
    await database.write(async (db) => {
      // A save in between requests a judgment of its own.
      await db.run('UPDATE rigs SET summary = $1, judgedBy = $2 WHERE id = $3 AND revision = $4 AND document = $5', [
        summary,
        judge.name,
        id,
        row.revision,
        row.document,
      ]);
      await db.run('UPDATE revisions SET summary = $1 WHERE rigId = $2 AND revision = $3', [summary, id, row.revision]);
    });
  };
  const work = async (): Promise<void> => {
    while (wanted.size > 0 && !closed) {
      const { id, waitMs } = nextOf(wanted, performance.now());
      if (waitMs > 0) {
        await rest(waitMs);
        continue;
      }
      wanted.delete(id);
      // What fails now, as on a full disk, is asked for again by the next list.
      await judgeOne(id).catch(() => undefined);
    }
    running = null;
  };
  return {
    ask: (rigId) => want(rigId, 0),
    askSoon: (rigId) => want(rigId, QUIET_MS),
    async settled(withinMs) {
      if (running) await Promise.race([running, new Promise((resolve) => setTimeout(resolve, withinMs).unref())]);
    },
    async close() {
      closed = true;
      wake();
      await judge.close();
      await running;
    },
  };
}

/** One that is due, else the one that will be first, and in how long. */
function nextOf(wanted: ReadonlyMap<string, Wanted>, nowMs: number): { id: string; waitMs: number } {
  let next = { id: '', waitMs: Number.POSITIVE_INFINITY };
  for (const [id, { dueMs }] of wanted) {
    if (dueMs - nowMs < next.waitMs) next = { id, waitMs: dueMs - nowMs };
    if (next.waitMs <= 0) break;
  }
  return next;
}

/** Of thousands of rigs most are judged alike: each judgment is read once. */
const read = new Map<string, Judged | null>();
const MAX_READ = 5000;

/** What was kept of a judgment; null for none, or one that no longer says anything. */
export function readJudged(summary: string | null): Judged | null {
  if (summary === null) return null;
  const known = read.get(summary);
  if (known !== undefined) return known;
  if (read.size >= MAX_READ) read.clear();
  const judged = parse(summary);
  read.set(summary, judged);
  return judged;
}

function parse(summary: string): Judged | null {
  try {
    return Judged.parse(JSON.parse(summary));
  } catch {
    return null;
  }
}
