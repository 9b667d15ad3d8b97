import type { Recording } from '#core/audio/samples/index.ts';
import { highPass } from './envelopes.ts';

const HIGH_PASS_HZ = 2000;
/** The onset is where the burst's energy first reaches this share of its height. */
const ONSET_SHARE = 0.12;
const ONSET_BEFORE_MS = 6;
const ONSET_AFTER_MS = 8;
const WARM_UP_MS = 10;
const MAX_GAP_MS = 0.75;

/** The instant at which the burst near a frame begins, to a part of a millisecond. */
export async function onsetMs(recording: Recording, near: number): Promise<number> {
  const perMs = recording.sampleRateHz / 1000;
  const start = Math.round(near - (ONSET_BEFORE_MS + WARM_UP_MS) * perMs);
  const x = await recording.readMono(start, Math.round((ONSET_BEFORE_MS + WARM_UP_MS + ONSET_AFTER_MS) * perMs));
  highPass(recording.sampleRateHz, HIGH_PASS_HZ)(x);
  const span = Math.max(1, Math.round(perMs * 0.25));
  const skip = Math.round(WARM_UP_MS * perMs);
  const smooth = new Float32Array(x.length);
  let sum = 0;
  for (let i = 0; i < x.length; i++) {
    sum += x[i]! * x[i]! - (i >= span ? x[i - span]! * x[i - span]! : 0);
    smooth[i] = sum;
  }
  let peak = skip;
  for (let i = skip; i < smooth.length; i++) if (smooth[i]! > smooth[peak]!) peak = i;
  // Back from the peak, over short gaps within the burst, so that what sounded before it is not taken for its start.
  let onset = peak;
  for (let i = peak; i >= skip && onset - i <= MAX_GAP_MS * perMs; i--) {
    if (smooth[i]! >= smooth[peak]! * ONSET_SHARE) onset = i;
  }
  return (start + Math.max(skip, onset - span / 2)) / perMs;
}
