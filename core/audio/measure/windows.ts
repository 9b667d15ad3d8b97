import { decimate, decimateReach, type Recording, resample, resampleReach } from '#core/audio/samples/index.ts';

/**
 * A stretch of a recording at any rate, mono. The start may lie between samples; outside the recording is silence.
 * @param stretch  reads so many times slower: 1 + ppm 1e-6 undoes a clock that ran fast
 */
export async function readWindow(
  recording: Recording,
  startS: number,
  count: number,
  sampleRateHz: number,
  stretch = 1,
): Promise<Float32Array> {
  const step = (recording.sampleRateHz / sampleRateHz) * stretch;
  const first = startS * recording.sampleRateHz;
  if (step === 1 && isWhole(first)) return recording.readMono(Math.round(first), count);
  // Whole steps by a fixed filter first, the rest by the exact one: several times faster for low rates.
  const factor = Math.max(1, Math.floor(step + 1e-9));
  const rest = step / factor;
  const reach = factor * resampleReach(rest) + decimateReach(factor);
  const from = Math.floor(first) - Math.ceil(reach / factor) * factor;
  const raw = await recording.readMono(from, Math.ceil(count * step) + 2 * (reach + factor) + 2);
  const low = factor === 1 ? raw : decimate(raw, factor);
  const at = (first - from) / factor;
  return rest === 1 && isWhole(at)
    ? low.subarray(Math.round(at), Math.round(at) + count)
    : resample(low, at, rest, count);
}

const isWhole = (x: number): boolean => Math.abs(x - Math.round(x)) < 1e-6;

export const durationS = (recording: Recording): number => recording.frames / recording.sampleRateHz;

/** Root mean square. */
export function rms(x: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * x[i]!;
  return x.length === 0 ? 0 : Math.sqrt(sum / x.length);
}
