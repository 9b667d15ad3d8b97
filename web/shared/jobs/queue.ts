import type { Job, Progress } from '#web/shared/workers/index.ts';

/** What jobs of a lane wait for: a core, one take of a batch after another, the way to the server. */
type Lane = 'core' | 'batch' | 'network';

/** A job as it stands. What failed or was stopped stays until it is started again or dropped. */
export interface Task {
  readonly id: string;
  /** What it is about: a take, a file. */
  readonly name: string;
  readonly state: 'waiting' | 'running' | 'failed' | 'stopped';
  /** What is being done just now. */
  readonly what: Progress['what'];
  /** The share that is done, 0 to 1. */
  readonly done: number;
  /** Seconds left of this stage, at its pace so far; null while that cannot be said. */
  readonly leftS: number | null;
  readonly error: unknown;
  /** It goes on when its page is left. */
  readonly background: boolean;
}

export interface Asked<T> {
  readonly id?: string;
  readonly name: string;
  readonly lane?: Lane;
  readonly background?: boolean;
  readonly start: (heard: (progress: Progress) => void) => Job<T>;
}

interface Entry extends Pick<Asked<unknown>, 'start'> {
  readonly lane: Lane;
  readonly settle: (result: unknown) => void;
  task: Task;
  job: Job<unknown> | null;
}

/** The pace is not known from the very beginning. */
const SHARE_KNOWN = 0.05;
const PACE_AFTER_S = 1;

const atRest = { what: 'opening', done: 0, leftS: null, error: null } as const;

/** All that is worked on beside the page: so many jobs of a lane at once, the others wait in their order. */
export function makeQueue(atOnce: Readonly<Record<Lane, number>>) {
  let entries: readonly Entry[] = [];
  let tasks: readonly Task[] = [];
  const listeners = new Set<() => void>();

  const announce = () => {
    tasks = entries.map((e) => e.task);
    for (const hear of listeners) hear();
  };
  const put = (entry: Entry, part: Partial<Task>) => {
    entry.task = { ...entry.task, ...part };
    announce();
  };
  const entryOf = (id: string) => entries.find((e) => e.task.id === id);

  function leave(entry: Entry, result: unknown): void {
    entry.job = null;
    entries = entries.filter((e) => e !== entry);
    entry.settle(result);
    announce();
    goOn();
  }

  function begin(entry: Entry): void {
    let begunMs = performance.now();
    let job: Job<unknown> | null = null;
    const isMine = () => job === null || entry.job === job;
    put(entry, { ...atRest, state: 'running' });
    try {
      job = entry.start(({ what, done }) => {
        if (!isMine()) return;
        // Each stage has a pace of its own.
        if (what !== entry.task.what) begunMs = performance.now();
        const spentS = (performance.now() - begunMs) / 1000;
        const known = done > SHARE_KNOWN && spentS > PACE_AFTER_S;
        put(entry, { what, done, leftS: known ? (spentS * (1 - done)) / done : null });
      });
    } catch (error) {
      job = { result: Promise.reject(error), stop: () => undefined };
    }
    entry.job = job;
    job.result.then(
      (result) => isMine() && leave(entry, result),
      (error: unknown) => {
        if (!isMine()) return;
        entry.job = null;
        put(entry, { state: 'failed', error });
        goOn();
      },
    );
  }

  function goOn(): void {
    for (const entry of entries) {
      const busy = entries.filter((e) => e.lane === entry.lane && e.task.state === 'running').length;
      if (entry.task.state === 'waiting' && busy < atOnce[entry.lane]) begin(entry);
    }
  }

  const end = (entry: Entry) => {
    const { job } = entry;
    entry.job = null;
    job?.stop();
  };

  return {
    /** Lines a job up. The result is null where it was dropped before it came to one. */
    add<T>({ id = crypto.randomUUID(), name, lane = 'core', background = false, start }: Asked<T>): {
      readonly id: string;
      readonly result: Promise<T | null>;
    } {
      const result = new Promise<T | null>((resolve) => {
        const task: Task = { ...atRest, id, name, background, state: 'waiting' };
        entries = [...entries, { task, lane, start, settle: (r) => resolve(r as T | null), job: null }];
      });
      announce();
      goOn();
      return { id, result };
    },
    /** Ends a job; it can be started again. */
    stop(id: string): void {
      const entry = entryOf(id);
      if (!entry) return;
      end(entry);
      put(entry, { state: 'stopped' });
      goOn();
    },
    again(id: string): void {
      const entry = entryOf(id);
      if (!entry) return;
      end(entry);
      put(entry, { ...atRest, state: 'waiting' });
      goOn();
    },
    /** Ends a job for good. */
    drop(id: string): void {
      const entry = entryOf(id);
      if (!entry) return;
      end(entry);
      leave(entry, null);
    },
    tasks: () => tasks,
    subscribe(hear: () => void): () => void {
      listeners.add(hear);
      return () => void listeners.delete(hear);
    },
  };
}

/** The one queue of this page. Two takes are read at once at most: each wants a core and its memory. */
export const queue = makeQueue({ core: 2, batch: 1, network: 1 });
