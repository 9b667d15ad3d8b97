/** Each time a page is told how far its work is it draws itself again: more often no one sees it, and the work waits. */
const TELL_EVERY_MS = 100;

/** Tells no more than ten times a second what is told; the end always. */
export function paced(tell: (done: number) => void): (done: number) => void {
  let toldMs = Number.NEGATIVE_INFINITY;
  return (done) => {
    const nowMs = performance.now();
    if (done < 1 && nowMs - toldMs < TELL_EVERY_MS) return;
    toldMs = nowMs;
    tell(done);
  };
}
