/** Runs jobs of one name one after another, and those of different names side by side. */
export interface Queues {
  alone<T>(name: string, job: () => Promise<T>): Promise<T>;
}

export function makeQueues(): Queues {
  const tails = new Map<string, Promise<unknown>>();
  return {
    alone(name, job) {
      const done = (tails.get(name) ?? Promise.resolve()).then(job);
      const tail = done.catch(() => undefined);
      tails.set(name, tail);
      void tail.then(() => {
        if (tails.get(name) === tail) tails.delete(name);
      });
      return done;
    },
  };
}
