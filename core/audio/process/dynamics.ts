import { dbFromRatio, ratioFromDb } from '#core/model/units/index.ts';
import { filterInPlace, highPass } from './biquad.ts';

/**
 * Gain that follows the signal. All of these work on whole stretches in memory, channels linked: the louder one decides
 * for all channels, so that the stereo image stays. Levels are of peaks in dBFS: a full-scale sine is at 0.
 */

export interface CompressorSettings {
  readonly thresholdDbfs: number;
  /** dB in for one dB out over the threshold. */
  readonly ratio: number;
  /** Width of the bend about the threshold. */
  readonly kneeDb: number;
  readonly attackMs: number;
  readonly releaseMs: number;
}

export interface GateSettings {
  readonly thresholdDbfs: number;
  /** How far it takes down, dB, positive. */
  readonly rangeDb: number;
  readonly attackMs: number;
  readonly holdMs: number;
  readonly releaseMs: number;
}

export interface DeEssSettings {
  /** Above this the shelf takes down what hisses. */
  readonly hz: number;
  readonly thresholdDbfs: number;
  readonly rangeDb: number;
}

/** What a gain does along time, dB, never above 0: one value a sample. */
export type GainCurve = Float32Array;

/**
 * What a compressor takes off at a level that stays, dB, 0 or below: the static curve with a quadratic knee of
 * Giannoulis, Massberg and Reiss, 'Digital Dynamic Range Compressor Design', JAES 60 (2012).
 */
export function staticGainDb(levelDbfs: number, { thresholdDbfs, ratio, kneeDb }: CompressorSettings): number {
  const over = levelDbfs - thresholdDbfs;
  const slope = 1 / ratio - 1;
  if (2 * over <= -kneeDb) return 0;
  if (2 * over < kneeDb) return (slope * (over + kneeDb / 2) ** 2) / (2 * kneeDb);
  return slope * over;
}

/** The part of a difference that is still there after one sample: in the time given it falls to 1/e. */
const fading = (ms: number, sampleRateHz: number): number => (ms > 0 ? Math.exp(-1000 / (ms * sampleRateHz)) : 0);

/** Gain of a compressor with side chain `key`: gain reduction is smoothed in dB, attack after release, as the paper's decoupled detector. */
export function compressorGain(
  key: readonly Float32Array[],
  settings: CompressorSettings,
  sampleRateHz: number,
): GainCurve {
  const out = new Float32Array(key[0]?.length ?? 0);
  const attack = fading(settings.attackMs, sampleRateHz);
  const release = fading(settings.releaseMs, sampleRateHz);
  const quiet = ratioFromDb(settings.thresholdDbfs - settings.kneeDb / 2);
  let held = 0;
  let gain = 0;
  for (let i = 0; i < out.length; i++) {
    const top = topAt(key, i);
    const wanted = top > quiet ? -staticGainDb(dbFromRatio(top), settings) : 0;
    held = Math.max(wanted, release * held + (1 - release) * wanted);
    gain = attack * gain + (1 - attack) * held;
    out[i] = -gain;
  }
  return out;
}

const HYSTERESIS_DB = 4;
/** Peak hold between two crests of a voice, s. */
const ENVELOPE_MS = 20;

/** A gate: what is below the threshold is taken down; it opens at once when someone begins. Shutting waits until it is 4 dB lower, and held. */
export function gateGain(key: readonly Float32Array[], settings: GateSettings, sampleRateHz: number): GainCurve {
  const out = new Float32Array(key[0]?.length ?? 0);
  const on = ratioFromDb(settings.thresholdDbfs);
  const off = ratioFromDb(settings.thresholdDbfs - HYSTERESIS_DB);
  const hold = Math.round((settings.holdMs * sampleRateHz) / 1000);
  const fade = fading(ENVELOPE_MS, sampleRateHz);
  const attack = fading(settings.attackMs, sampleRateHz);
  const release = fading(settings.releaseMs, sampleRateHz);
  let envelope = 0;
  let heldFor = 0;
  let open = false;
  let gain = settings.rangeDb;
  for (let i = 0; i < out.length; i++) {
    envelope = Math.max(topAt(key, i), fade * envelope);
    if (envelope > on) {
      open = true;
      heldFor = 0;
    } else if (open && envelope < off && ++heldFor > hold) open = false;
    const k = open ? attack : release;
    gain = k * gain + (1 - k) * (open ? 0 : settings.rangeDb);
    out[i] = -gain;
  }
  return out;
}

/** How fast the shelf of a de-esser shuts and opens: an s lasts some 80 ms. */
const DE_ESS = { ratio: 4, kneeDb: 4, attackMs: 1, releaseMs: 40 } as const;

/**
 * A shelf that turns down while the band above `hz` is loud: that band is split off and added back with less gain. The split is
 * a high pass run forwards and backwards, so that both parts keep time and add up to the whole. Changes `channels`;
 * answers its gain along time.
 */
export function deEssInPlace(
  channels: readonly Float32Array[],
  { hz, thresholdDbfs, rangeDb }: DeEssSettings,
  sampleRateHz: number,
): GainCurve {
  if (hz >= sampleRateHz / 2) return new Float32Array(channels[0]?.length ?? 0);
  const hiss = channels.map((x) => {
    const high = x.slice();
    for (let turn = 0; turn < 2; turn++) {
      filterInPlace(high, [highPass(hz, sampleRateHz)]);
      high.reverse();
    }
    return high;
  });
  const gain = compressorGain(hiss, { thresholdDbfs, ...DE_ESS }, sampleRateHz);
  for (let i = 0; i < gain.length; i++) if (gain[i]! < -rangeDb) gain[i] = -rangeDb;
  channels.forEach((x, c) => {
    const high = hiss[c]!;
    for (let i = 0; i < x.length; i++) if (gain[i]! < NOTHING_DB) x[i]! += (ratioFromDb(gain[i]!) - 1) * high[i]!;
  });
  return gain;
}

/** Less than this is no change: -0.001 dB. */
const NOTHING_DB = -1e-3;

/** Turns `channels` by a gain along time, and by a fixed one on top. */
export function applyGain(channels: readonly Float32Array[], gain: GainCurve, makeupDb = 0): void {
  const makeup = ratioFromDb(makeupDb);
  for (const x of channels)
    for (let i = 0; i < x.length; i++) x[i]! *= gain[i]! < NOTHING_DB ? makeup * ratioFromDb(gain[i]!) : makeup;
}

/** The highest magnitude of all channels at one sample. */
function topAt(channels: readonly Float32Array[], i: number): number {
  let top = 0;
  for (let c = 0; c < channels.length; c++) {
    const v = Math.abs(channels[c]![i]!);
    if (v > top) top = v;
  }
  return top;
}
