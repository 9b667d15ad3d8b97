import { workers as say } from '#words/index.ts';

/** Retry after skipping this much that could not be decoded; doubled with each failure. */
const FIRST_STEP_S = 0.1;

interface Decoded {
  readonly timestamp: number;
  readonly duration: number;
}

/**
 * Decoded pieces in order, over places where the file is damaged: each time the decoder gives up, it is started again a
 * little further on.
 * @param open    starts a decoder at a time, seconds; from the beginning where undefined
 * @param onHole  called with the beginning of a stretch that could not be decoded, seconds
 * @throws what the decoder says, where nothing could be decoded at all
 */
export async function* overHoles<T extends Decoded>(
  open: (fromS: number | undefined) => AsyncIterable<T>,
  fromS: number | undefined,
  toS: number,
  onHole: (atS: number) => void,
): AsyncGenerator<T> {
  let start = fromS;
  let step = FIRST_STEP_S;
  let reached: number | null = null;
  for (;;) {
    const pieces = open(start)[Symbol.asyncIterator]();
    let failure: unknown = null;
    for (;;) {
      const next = await pieces.next().catch((error: unknown) => {
        failure = error ?? new Error(say.decoderFailed());
        return null;
      });
      if (!next || next.done) break;
      const endS: number = next.value.timestamp + next.value.duration;
      // What was decoded again on the way to where it was started is known already.
      if (reached === null || endS > reached) {
        reached = endS;
        step = FIRST_STEP_S;
      }
      yield next.value;
    }
    if (failure === null) return;
    if (step === FIRST_STEP_S) onHole(reached ?? start ?? 0);
    start = Math.max(reached ?? 0, start ?? 0) + step;
    step *= 2;
    if (start < toS) continue;
    if (reached === null) throw failure;
    return;
  }
}
