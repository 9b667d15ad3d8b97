import { dbFromPower, dbFromRatio } from '#core/model/units/index.ts';
import { loudnessMeter } from './loudness.ts';
import { peakMeter } from './true-peak.ts';

/** What an input reads at this moment; levels in dBFS, loudness in LUFS, null while unknown. */
export interface LiveReading {
  /** The highest sample of the last moments: falls back by 20 dB in 1.7 s (IEC 60268-18). */
  readonly peakDbfs: number | null;
  /** The highest points since the start. */
  readonly highestDbfs: number | null;
  readonly truePeakDbtp: number | null;
  readonly momentaryLufs: number | null;
  readonly shortTermLufs: number | null;
  /** An average that shows 99 % of a steady tone after 300 ms (ANSI C16.5), against full scale. */
  readonly vuDbfs: number | null;
  /** Runs of three samples and more at full scale. */
  readonly clips: number;
  /** Of the two sides, over the last moments: 1 alike, -1 against each other; null for one side or silence. */
  readonly correlation: number | null;
  /** The quietest tenth of a second since the start: what is there while no one talks. */
  readonly restDbfs: number | null;
}

export interface LiveMeter {
  push(channels: readonly Float32Array[]): void;
  reading(): LiveReading;
}

const FALL_DB_PER_S = 20 / 1.7;
/** 1 - exp(-0.3 / t) = 0.99. */
const VU_S = 0.3 / Math.log(100);
/** The mean magnitude of a sine is 2 / pi of its peak: reported as the sine's own level. */
const VU_FORM = Math.PI / 2;
const CLIP_SAMPLES = 3;
const FULL_SCALE = 32767 / 32768;
const CORRELATION_S = 0.4;
const REST_S = 0.1;

/** An input as it runs, one or two channels; nothing of it is kept but the readings. */
export function liveMeter(channelCount: number, sampleRateHz: number): LiveMeter {
  const loudness = loudnessMeter(channelCount, sampleRateHz);
  const peaks = peakMeter(channelCount, sampleRateHz);
  const vuStep = 1 - Math.exp(-1 / (VU_S * sampleRateHz));
  const forget = Math.exp(-1 / (CORRELATION_S * sampleRateHz));
  const fall = 10 ** (-FALL_DB_PER_S / 20 / sampleRateHz);
  const vu = new Float64Array(channelCount);
  const full = new Int32Array(channelCount);
  let [peak, clips] = [0, 0];
  let [ll, rr, lr] = [0, 0, 0];
  let [restSum, restCount, rest] = [0, 0, Number.POSITIVE_INFINITY];
  const weigh = (x: Float32Array, c: number): void => {
    let needle = vu[c]!;
    let run = full[c]!;
    for (let i = 0; i < x.length; i++) {
      const v = Math.abs(x[i]!);
      needle += (v - needle) * vuStep;
      if (v >= FULL_SCALE) {
        run++;
        if (run === CLIP_SAMPLES) clips++;
      } else run = 0;
    }
    vu[c] = needle;
    full[c] = run;
  };
  return {
    push(channels) {
      const frames = channels[0]?.length ?? 0;
      loudness.push(channels);
      peaks.push(channels);
      for (let c = 0; c < channelCount; c++) weigh(channels[c]!, c);
      const [l, r] = [channels[0]!, channels[1] ?? channels[0]!];
      for (let i = 0; i < frames; i++) {
        const [a, b] = [l[i]!, r[i]!];
        peak = Math.max(peak * fall, Math.abs(a), Math.abs(b));
        ll = ll * forget + a * a;
        rr = rr * forget + b * b;
        lr = lr * forget + a * b;
        restSum += (a * a + b * b) / 2;
        if (++restCount < REST_S * sampleRateHz) continue;
        rest = Math.min(rest, restSum / restCount);
        restSum = 0;
        restCount = 0;
      }
    },
    reading() {
      const { samplePeak, truePeak } = peaks.result();
      const db = (ratio: number): number | null => (ratio > 0 ? dbFromRatio(ratio) : null);
      return {
        peakDbfs: db(peak),
        highestDbfs: db(samplePeak),
        truePeakDbtp: db(truePeak),
        ...loudness.latest(),
        vuDbfs: db(Math.max(...vu) * VU_FORM),
        clips,
        correlation: channelCount === 2 && ll > 1e-9 && rr > 1e-9 ? lr / Math.sqrt(ll * rr) : null,
        restDbfs: rest > 0 && Number.isFinite(rest) ? dbFromPower(2 * rest) : null,
      };
    },
  };
}
