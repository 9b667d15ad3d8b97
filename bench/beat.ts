const BEAT_MS = 10;

/** Does some work beside the page, and counts how long the page was ever kept from its own, ms. */
export async function besidePage<T>(work: () => Promise<T>): Promise<{ done: T; blockedMs: number }> {
  let blockedMs = 0;
  let last = performance.now();
  const timer = setInterval(() => {
    const now = performance.now();
    blockedMs = Math.max(blockedMs, now - last - BEAT_MS);
    last = now;
  }, BEAT_MS);
  try {
    const done = await work();
    return { done, blockedMs };
  } finally {
    clearInterval(timer);
  }
}
