import { type FftOf, fftSize, seededNormal } from '#core/audio/samples/index.ts';

/**
 * The answer of a room: the direct sound, then noise that decays by 60 dB in `rt60S` (Gaussian tail, Polack 1988).
 * @param directDb direct-to-reverberant ratio, dB
 */
export function roomResponse(sampleRateHz: number, rt60S: number, directDb: number, seed: number): Float32Array {
  const normal = seededNormal(seed);
  const frames = Math.ceil(rt60S * sampleRateHz);
  const h = new Float32Array(frames);
  let power = 0;
  for (let i = Math.floor(0.002 * sampleRateHz); i < frames; i++) {
    const v = normal() * 10 ** ((-3 * i) / (rt60S * sampleRateHz));
    h[i] = v;
    power += v * v;
  }
  const k = 10 ** (-directDb / 20) / Math.sqrt(power);
  for (let i = 0; i < frames; i++) h[i]! *= k;
  h[0] = 1;
  return h;
}

/** `x` heard in a room, as long as `x`. */
export function convolve(fftOf: FftOf, x: Float32Array, h: Float32Array): Float32Array {
  const fft = fftOf(fftSize(x.length + h.length));
  const padded = new Float32Array(fft.size);
  const a = new Float32Array(fft.size);
  const b = new Float32Array(fft.size);
  padded.set(x);
  fft.forward(padded, a);
  padded.fill(0);
  padded.set(h);
  fft.forward(padded, b);
  b[0]! *= a[0]!;
  b[1]! *= a[1]!;
  for (let i = 2; i < fft.size; i += 2) {
    const re = a[i]! * b[i]! - a[i + 1]! * b[i + 1]!;
    b[i + 1] = a[i]! * b[i + 1]! + a[i + 1]! * b[i]!;
    b[i] = re;
  }
  fft.inverse(b, padded);
  return padded.slice(0, x.length);
}
