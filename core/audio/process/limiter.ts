import { interpolators } from '#core/audio/samples/index.ts';
import { dbFromRatio, ratioFromDb } from '#core/model/units/index.ts';

/** A running limiter: input comes out `latencyFrames` later, never above the ceiling. */
export interface Limiter {
  readonly latencyFrames: number;
  /** Turns the channels in place: they are what went in `latencyFrames` ago. */
  run(channels: readonly Float32Array[]): void;
  /** Maximum gain reduction so far, dB, 0 or above; and the number of frames with any. */
  taken(): { readonly mostDb: number; readonly frames: number };
}

export interface LimiterSettings {
  readonly ceilingDbtp: number;
  readonly releaseMs: number;
}

/** Lookahead: gain falls over this time, linearly. */
const AHEAD_MS = 3;
/** Eight times oversampled (ITU-R BS.1770-5 annex 2 asks for four); 12 taps to each side. */
const TIMES = 8;
const REACH = 12;
const BETA = 6;
/** What such a filter may still miss, and a gain that moves may add: the ceiling is held lower by it, dB. */
const MARGIN_DB = 0.25;
const TAKEN_DB = 0.1;

/**
 * Keeps true peaks under a ceiling. For every sample the gain that it and the points after it need; of these the least
 * over the time that is seen ahead, its rise slowed by the release, and the mean of that over the same time: a mean of
 * gains none of which is over what the sample needs.
 */
export function limiter(
  channelCount: number,
  sampleRateHz: number,
  { ceilingDbtp, releaseMs }: LimiterSettings,
): Limiter {
  const ceiling = ratioFromDb(ceilingDbtp - MARGIN_DB);
  const phases = interpolators(TIMES, REACH, BETA);
  const ahead = Math.max(1, Math.round((AHEAD_MS * sampleRateHz) / 1000));
  const latencyFrames = ahead + REACH;
  const rise = 1 - Math.exp(-1000 / (Math.max(1, releaseMs) * sampleRateHz));
  const late = Array.from({ length: channelCount }, () => new Float32Array(latencyFrames));
  const taps = Array.from({ length: channelCount }, () => new Float32Array(2 * REACH));
  const least = slidingLeast(ahead + 1);
  const window = new Float64Array(ahead + 1).fill(1);
  let [sum, slot, slow, lateAt] = [ahead + 1, 0, 1, 0];
  let [most, frames] = [1, 0];
  const needed = (): number => {
    let top = 0;
    for (const t of taps) {
      const here = Math.abs(t[REACH - 1]!);
      if (here > top) top = here;
      for (let p = 0; p < phases.length; p++) {
        const c = phases[p]!;
        let between = 0;
        for (let k = 0; k < 2 * REACH; k++) between += c[k]! * t[k]!;
        if (between > top) top = between;
        else if (-between > top) top = -between;
      }
    }
    return top > ceiling ? ceiling / top : 1;
  };
  // With samples below this, no intersample peak can exceed the ceiling.
  const bound = ceiling / Math.max(...phases.map((p) => p.reduce((a, v) => a + Math.abs(v), 0)));
  let loudFor = 0;
  return {
    latencyFrames,
    run(channels) {
      const count = channels[0]?.length ?? 0;
      for (let i = 0; i < count; i++) {
        let top = 0;
        for (let c = 0; c < channelCount; c++) {
          const v = channels[c]![i]!;
          const t = taps[c]!;
          t.copyWithin(0, 1);
          t[2 * REACH - 1] = v;
          if (Math.abs(v) > top) top = Math.abs(v);
          const line = late[c]!;
          channels[c]![i] = line[lateAt]!;
          line[lateAt] = v;
        }
        lateAt = lateAt + 1 === latencyFrames ? 0 : lateAt + 1;
        loudFor = top > bound ? 2 * REACH : loudFor - 1;
        const low = least(loudFor > 0 ? needed() : 1);
        slow = low < slow ? low : slow + (low - slow) * rise;
        sum += slow - window[slot]!;
        window[slot] = slow;
        slot = slot + 1 === window.length ? 0 : slot + 1;
        const gain = Math.min(1, sum / window.length);
        if (gain < most) most = gain;
        if (gain < 1 - 1e-9) {
          if (dbFromRatio(gain) < -TAKEN_DB) frames++;
          for (let c = 0; c < channelCount; c++) channels[c]![i]! *= gain;
        }
      }
    },
    taken: () => ({ mostDb: -dbFromRatio(most), frames }),
  };
}

/** The least of the last `length` values as they come: a queue that only holds what may still become the least. */
function slidingLeast(length: number): (value: number) => number {
  const values = new Float64Array(length + 1);
  const until = new Float64Array(length + 1);
  let [head, size, now] = [0, 0, 0];
  return (value) => {
    while (size > 0 && values[(head + size - 1) % values.length]! >= value) size--;
    const at = (head + size) % values.length;
    values[at] = value;
    until[at] = now + length;
    size++;
    if (until[head]! <= now) {
      head = (head + 1) % values.length;
      size--;
    }
    now++;
    return values[head]!;
  };
}
