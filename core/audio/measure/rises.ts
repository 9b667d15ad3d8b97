import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { durationS, readWindow } from './windows.ts';

/** Loudness is followed in these bands, so often a second. */
const FEATURE_RATE_HZ = 8000;
const HOP = 40;
export const HOP_S = HOP / FEATURE_RATE_HZ;
const WINDOW = 256;
const BAND_EDGES_HZ = [150, 350, 700, 1200, 2000, 3900];
export const RISE_BANDS = BAND_EDGES_HZ.length - 1;
const BLOCK_S = 32;
/** Number of hops around over which each band's onsets are normalized. */
const AROUND_HOPS = 400;
/** Rises of loudness, band by band, evened out: what two microphones in one room have in common, whatever their sound. */
export interface Rises {
  readonly hops: number;
  readonly bands: readonly Float32Array[];
}

/** Rises of loudness every 5 ms; memory grows with the recording's length, by 4 kB a second. */
export async function risesOf(fftOf: FftOf, recording: Recording): Promise<Rises> {
  const fft = fftOf(WINDOW);
  const hops = Math.max(1, Math.floor(durationS(recording) / HOP_S));
  const bands = Array.from({ length: RISE_BANDS }, () => new Float32Array(hops));
  const shape = Float32Array.from({ length: WINDOW }, (_, i) => Math.sin((Math.PI * (i + 0.5)) / WINDOW));
  const bins = BAND_EDGES_HZ.map((hz) => Math.round((hz * WINDOW) / FEATURE_RATE_HZ));
  const x = new Float32Array(WINDOW);
  const spectrum = new Float32Array(WINDOW);
  const before = new Float32Array(RISE_BANDS).fill(Number.POSITIVE_INFINITY);
  const perBlock = Math.floor(BLOCK_S / HOP_S);
  for (let first = 0; first < hops; first += perBlock) {
    const count = Math.min(perBlock, hops - first);
    const part = await readWindow(recording, first * HOP_S, count * HOP + WINDOW, FEATURE_RATE_HZ);
    for (let h = 0; h < count; h++) {
      for (let i = 0; i < WINDOW; i++) x[i] = part[h * HOP + i]! * shape[i]!;
      fft.forward(x, spectrum);
      for (let band = 0; band < RISE_BANDS; band++) {
        let power = 1e-9;
        for (let k = bins[band]!; k < bins[band + 1]!; k++) power += spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2;
        const level = Math.log(power);
        const rise = level - before[band]!;
        bands[band]![first + h] = Math.max(0, rise);
        before[band] = level;
      }
    }
  }
  for (const band of bands) evenOut(band);
  return { hops, bands };
}

/** Subtracts the local mean, and clips outliers: no single bang decides. */
function evenOut(x: Float32Array): void {
  const sums = new Float64Array(x.length + 1);
  for (let i = 0; i < x.length; i++) sums[i + 1] = sums[i]! + x[i]!;
  let square = 0;
  for (let i = 0; i < x.length; i++) {
    const from = Math.max(0, i - AROUND_HOPS);
    const to = Math.min(x.length, i + AROUND_HOPS);
    x[i]! -= (sums[to]! - sums[from]!) / (to - from);
    square += x[i]! ** 2;
  }
  const most = 4 * Math.sqrt(square / Math.max(1, x.length));
  for (let i = 0; i < x.length; i++) x[i] = Math.min(most, x[i]!);
}
