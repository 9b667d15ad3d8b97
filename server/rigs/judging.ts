import type { Database } from '../database/database.ts';
import type { Judge } from '../judge/judge.ts';
import { Judged } from '../judge/judged.ts';

/** Judges rigs in the background, each as it is at the time; what is asked for twice is done once. */
export interface Judging {
  ask(rigId: string): void;
  /** Once nothing is waited for, or after so long. */
  settled(withinMs: number): Promise<void>;
  close(): Promise<void>;
}

interface Row {
  readonly document: string;
  readonly revision: number;
}

export function startJudging(database: Database, judge: Judge): Judging {
  const wanted = new Set<string>();
  let running: Promise<void> | null = null;
  let closed = false;
  const judgeOne = async (id: string): Promise<void> => {
    const [row] = await database.read<Row>('SELECT document, revision FROM rigs WHERE id = $1', [id]);
    if (!row) return;
    const summary = JSON.stringify(await judge.judge(row.document));
    if (closed) return;
    await database.write(async (db) => {
      // A save that came meanwhile asks for a judgement of its own.
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
    for (let id = first(wanted); id !== undefined && !closed; id = first(wanted)) {
      wanted.delete(id);
      // What fails now, as on a full disk, is asked for again by the next list.
      await judgeOne(id).catch(() => undefined);
    }
    running = null;
  };
  return {
    ask(rigId) {
      if (closed) return;
      wanted.add(rigId);
      running ??= work();
    },
    async settled(withinMs) {
      if (running) await Promise.race([running, new Promise((resolve) => setTimeout(resolve, withinMs).unref())]);
    },
    async close() {
      closed = true;
      await judge.close();
      await running;
    },
  };
}

const first = <T>(set: ReadonlySet<T>): T | undefined => set.values().next().value;

/** What was kept of a judgement; null for none, or one that no longer says anything. */
export function readJudged(summary: string | null): Judged | null {
  try {
    return summary === null ? null : Judged.parse(JSON.parse(summary));
  } catch {
    return null;
  }
}
