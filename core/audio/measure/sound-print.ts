import { dbFromPower } from '#core/model/units/index.ts';
import { liveMeter } from './live.ts';
import { loudnessMeter } from './loudness.ts';
import { humIn } from './watch.ts';

/** What a sentence sounded like at an input: enough to tell whether it has changed. */
export interface SoundPrint {
  /** Integrated loudness, LUFS; null for silence. */
  readonly lufs: number | null;
  /** The quietest tenth of a second: what is there while no one speaks, dBFS; null for none. */
  readonly noiseDbfs: number | null;
  /** Power-line hum where one is prominent, dBFS; null for none. */
  readonly humDbfs: number | null;
  /** Spectral center: the root mean square frequency, Hz; null for silence. */
  readonly toneHz: number | null;
  /** Left over right, dB; null for one side or silence. */
  readonly sidesDb: number | null;
  readonly clips: number;
}

const SILENT_POWER = 1e-9;
const BLOCK_S = 1;

/**
 * The print of some seconds of sound.
 * @param channels  one or two, full scale 1, at `sampleRateHz`, not modified
 */
export function soundPrint(channels: readonly Float32Array[], sampleRateHz: number): SoundPrint {
  const loudness = loudnessMeter(channels.length, sampleRateHz);
  const meter = liveMeter(channels.length, sampleRateHz);
  loudness.push(channels);
  meter.push(channels);
  const { restDbfs, clips } = meter.reading();
  const powers = channels.map(powerOf);
  const mono = monoOf(channels);
  const sounds = powers.some((p) => p > SILENT_POWER);
  return {
    lufs: loudness.result().integratedLufs,
    noiseDbfs: restDbfs,
    humDbfs: sounds ? humOf(mono, sampleRateHz) : null,
    toneHz: sounds ? toneOf(mono, sampleRateHz) : null,
    sidesDb: sounds && powers.length === 2 ? dbFromPower((powers[0]! + 1e-12) / (powers[1]! + 1e-12)) : null,
    clips,
  };
}

function powerOf(x: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * x[i]!;
  return sum / Math.max(1, x.length);
}

function monoOf(channels: readonly Float32Array[]): Float32Array {
  const [first] = channels;
  if (channels.length === 1) return first!;
  const mono = new Float32Array(first!.length);
  for (const channel of channels) for (let i = 0; i < mono.length; i++) mono[i]! += channel[i]! / channels.length;
  return mono;
}

/** The middle of what each second has of it, where most of them have any. */
function humOf(mono: Float32Array, sampleRateHz: number): number | null {
  const size = Math.round(BLOCK_S * sampleRateHz);
  const found: (number | null)[] = [];
  for (let at = 0; at + size <= mono.length; at += size)
    found.push(humIn(mono.subarray(at, at + size), sampleRateHz)?.dbfs ?? null);
  const sure = found.filter((f) => f !== null).sort((a, b) => a - b);
  return sure.length * 2 > found.length ? sure[sure.length >> 1]! : null;
}

/** The power of the slope over that of the sound is the mean square of its angular frequency. */
function toneOf(mono: Float32Array, sampleRateHz: number): number {
  let [slope, own] = [0, 0];
  for (let i = 1; i < mono.length; i++) {
    const step = mono[i]! - mono[i - 1]!;
    slope += step * step;
    own += mono[i]! * mono[i]!;
  }
  // A step of one sample is 2 sin(w / 2) of a tone, not w.
  const half = Math.min(1, Math.sqrt(slope / Math.max(own, 1e-20)) / 2);
  return (2 * Math.asin(half) * sampleRateHz) / (2 * Math.PI);
}
