/** Minimum time between progress reports, ms: each redraws the page, and more often is invisible and delays the job. */
const TELL_EVERY_MS = 100;

/** Reports at most ten times a second; the end always. */
export function paced(tell: (done: number) => void): (done: number) => void {
  let toldMs = Number.NEGATIVE_INFINITY;
  return (done) => {
    const nowMs = performance.now();
    if (done < 1 && nowMs - toldMs < TELL_EVERY_MS) return;
    toldMs = nowMs;
    tell(done);
  };
}
