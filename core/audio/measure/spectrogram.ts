import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { dbFromPower } from '#core/model/units/index.ts';
import type { Spectrum } from './faults/index.ts';

/** What of a recording is looked at, and how finely: columns along time, rows up the logarithm of frequency. */
export interface SpectrogramView {
  readonly fromS: number;
  readonly toS: number;
  readonly columns: number;
  readonly rows: number;
  readonly lowHz: number;
  readonly highHz: number;
}

/** dB of a sine of full scale, column by column, the lowest row first; -Infinity for silence and outside the recording. */
export interface Spectrogram extends SpectrogramView {
  readonly db: Float32Array;
}

/** Window length, s: resolves pitches and syllables. */
const WINDOW_S = 0.04;
/** Where a column holds more than a window, this many are analyzed and the loudest is shown. */
const MAX_PER_COLUMN = 3;
/** Columns are read together as long as that costs no more than this many frames at once. */
const MAX_FRAMES = 1 << 20;

/**
 * Short-time spectra of a stretch, channels averaged: Hann windows, a row holds the loudest of its bins. Costs a read or
 * a few for each column, however long the recording is.
 */
export async function spectrogramOf(fftOf: FftOf, recording: Recording, view: SpectrogramView): Promise<Spectrogram> {
  const { fromS, toS, columns, rows, lowHz, highHz } = view;
  const { sampleRateHz } = recording;
  const size = 2 ** Math.round(Math.log2(Math.max(64, WINDOW_S * sampleRateHz)));
  const fft = fftOf(size);
  const window = Float32Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / size));
  // A sine of full scale in the middle of a bin: its amplitude is the sum of the window over 2.
  const full = (window.reduce((a, b) => a + b, 0) / 2) ** 2;
  const edges = Int32Array.from({ length: rows + 1 }, (_, r) =>
    Math.round((lowHz * (highHz / lowHz) ** (r / rows) * size) / sampleRateHz),
  );
  const stepFrames = ((toS - fromS) * sampleRateHz) / columns;
  const per = Math.max(1, Math.min(MAX_PER_COLUMN, Math.round(stepFrames / size)));
  const together = Math.max(1, stepFrames > 4 * size ? 1 : Math.floor(MAX_FRAMES / stepFrames));
  const db = new Float32Array(columns * rows).fill(Number.NEGATIVE_INFINITY);
  const x = new Float32Array(size);
  const bins = new Float32Array(size);
  for (let first = 0; first < columns; first += together) {
    const count = Math.min(together, columns - first);
    const start = Math.floor(fromS * sampleRateHz + first * stepFrames - size / 2);
    const piece = await recording.readMono(start, Math.ceil(count * stepFrames) + size + 1);
    for (let c = 0; c < count; c++)
      for (let n = 0; n < per; n++) {
        const at = Math.floor((c + (n + 0.5) / per) * stepFrames);
        for (let i = 0; i < size; i++) x[i] = (piece[at + i] ?? 0) * window[i]!;
        fft.forward(x, bins);
        tell(bins, edges, full, db, (first + c) * rows);
      }
  }
  return { ...view, db };
}

/** The loudest bin of each row, where it is louder than what was there. */
function tell(bins: Float32Array, edges: Int32Array, full: number, db: Float32Array, at: number): void {
  const top = bins.length / 2 - 1;
  for (let r = 0; r + 1 < edges.length; r++) {
    let most = 0;
    for (let b = Math.max(1, edges[r]!); b <= Math.min(top, Math.max(edges[r]!, edges[r + 1]! - 1)); b++) {
      const power = bins[2 * b]! ** 2 + bins[2 * b + 1]! ** 2;
      if (power > most) most = power;
    }
    if (most > 0) db[at + r] = Math.max(db[at + r]!, dbFromPower(most / full));
  }
}

/** The level of a band, a sine of full scale as 0 dB. */
export interface ThirdOctave {
  readonly hz: number;
  readonly lowHz: number;
  readonly highHz: number;
  readonly db: number;
}

/** Bands by powers of ten (IEC 61260-1): from 25 Hz up, as far as the rate allows. */
const BANDS = { first: -16, last: 13 } as const;

/** A third-octave spectrum; bins across an edge are split in proportion. */
export function thirdOctaves({ binHz, power }: Spectrum): ThirdOctave[] {
  const bands: ThirdOctave[] = [];
  for (let k = BANDS.first; k <= BANDS.last; k++) {
    const hz = 1000 * 10 ** (k / 10);
    const [lowHz, highHz] = [hz * 10 ** -0.05, hz * 10 ** 0.05];
    if (highHz > (power.length - 1) * binHz) break;
    let sum = 0;
    for (let b = Math.max(1, Math.floor(lowHz / binHz)); b <= Math.min(power.length - 1, highHz / binHz + 1); b++) {
      const share = Math.min(highHz, (b + 0.5) * binHz) - Math.max(lowHz, (b - 0.5) * binHz);
      if (share > 0) sum += power[b]! * Math.min(1, share / binHz);
    }
    bands.push({ hz, lowHz, highHz, db: dbFromPower(Math.max(sum, 1e-20)) });
  }
  return bands;
}
