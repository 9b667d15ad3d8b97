import type { Text } from '#core/base/said/index.ts';
import { dbFromPower } from '#core/model/units/index.ts';
import { type LiveReading, liveMeter } from './live.ts';
import { say } from './sayings.ts';
import { voiceActivity } from './voice-activity.ts';

export type WatchAlarmId = 'silent' | 'one-side' | 'clipping' | 'hum' | 'off-usual' | 'no-voice';
export interface WatchAlarm {
  readonly id: WatchAlarmId;
  /** How long it has been so, s. */
  readonly forS: number;
  /** What it is, in figures. */
  readonly says: Text;
  /** Of a level that is off: louder than usual, or quieter. */
  readonly louder?: boolean;
}

/** What a watched input does just now. */
export interface WatchState {
  readonly reading: LiveReading;
  /** Loudness of the last half minute, LUFS; null while there is too little. */
  readonly usualLufs: number | null;
  readonly alarms: readonly WatchAlarm[];
  /** How long ago it was last well, s; 0 while it is; null where it never was. */
  readonly secondsSinceGood: number | null;
  readonly watchedS: number;
}

export interface InputWatch {
  /** @param channels  one or two, full scale 1, as many frames in each */
  push(channels: readonly Float32Array[]): void;
  state(): WatchState;
  /** What counts as usual from now on, LUFS; null: nothing does. */
  setUsual(lufs: number | null): void;
}

/** Below this nothing is heard, whatever one turns up; the same as a take that is silent. */
const SILENT_DBFS = -66;
const SILENT_S = 10;
/** One side this far below the other is missing, dB. */
const ONE_SIDE_DB = 30;
const ONE_SIDE_S = 10;
/** How long a clip warning stays on, s. */
const CLIP_S = 10;
/** Power-line hum alarm: prominence over the neighboring bins (dB), and minimum level. */
const HUM_DB = 15;
const HUM_LEAST_DBFS = -72;
const HUM_S = 5;
/** Level alarm: deviation (dB) and duration (s). */
const OFF_DB = 6;
const OFF_S = 30;
/** A voice counts as having been there after so long, and as lost after so long without, s. */
const VOICE_WAS_S = 20;
const NO_VOICE_S = 60;
const BLOCK_S = 1;
const USUAL_BLOCKS = 30;
const MAINS_HZ = [50, 60];
const HARMONICS = [1, 2, 3];
/** Beside a line, where neither AC power has one. */
const BESIDE_HZ = 7;

interface Expects {
  /** A voice has to come there: that none comes any more is an alarm. */
  readonly voice?: boolean;
}

/** Watches an input all session by the second; nothing of it is kept but what it does. */
export function inputWatch(channelCount: number, sampleRateHz: number, expects: Expects = {}): InputWatch {
  const meter = liveMeter(channelCount, sampleRateHz);
  const blockFrames = Math.round(BLOCK_S * sampleRateHz);
  const block = new Float32Array(blockFrames);
  const power = new Float64Array(channelCount);
  const usual: number[] = [];
  const lasting = new Map<WatchAlarmId, number>();
  const said = new Map<WatchAlarmId, Text>();
  let [filled, watchedS, lastWellS, clips, clippedS] = [0, 0, Number.NaN, 0, Number.NEGATIVE_INFINITY];
  const voice = expects.voice ? voiceActivity(sampleRateHz) : null;
  let voiceS = 0;
  let wasVoice = false;
  let usualLufs: number | null = null;
  let isLouder = false;

  const last = (id: WatchAlarmId, is: boolean, says: Text): void => {
    lasting.set(id, is ? (lasting.get(id) ?? 0) + BLOCK_S : 0);
    if (is) said.set(id, says);
  };
  const endBlock = (): void => {
    watchedS += BLOCK_S;
    const sides = [...power].map((p) => dbFromPower(Math.max(p / blockFrames, 1e-20)));
    const loudest = Math.max(...sides);
    last('silent', loudest < SILENT_DBFS, say.noSignal());
    const apart = channelCount === 2 ? Math.abs(sides[0]! - sides[1]!) : 0;
    last(
      'one-side',
      loudest >= SILENT_DBFS && apart > ONE_SIDE_DB,
      say.onlyLeftSide({ side: sides[0]! > (sides[1] ?? 0) ? 'left' : 'right' }),
    );
    const isVoice = voice?.hears(block) ?? true;
    // One second may pass for a voice by chance, as where something drops.
    const hasVoice = isVoice && wasVoice;
    wasVoice = isVoice;
    if (voice && isVoice) voiceS += BLOCK_S;
    last('no-voice', loudest >= SILENT_DBFS && !hasVoice && voiceS >= VOICE_WAS_S, say.noVoiceAnyMore());
    const hum = humIn(block, sampleRateHz);
    last('hum', hum !== null, hum === null ? '' : `${hum.hz} Hz, ${hum.dbfs.toFixed(0)} dBFS`);
    const reading = meter.reading();
    if (reading.clips > clips) clippedS = watchedS;
    clips = reading.clips;
    if (reading.shortTermLufs !== null && loudest >= SILENT_DBFS) {
      usual.push(reading.shortTermLufs);
      if (usual.length > USUAL_BLOCKS) usual.shift();
    }
    const mean = meanOf(usual);
    const off = usualLufs === null || mean === null || usual.length < USUAL_BLOCKS ? 0 : mean - usualLufs;
    isLouder = off > 0;
    last(
      'off-usual',
      Math.abs(off) > OFF_DB,
      say.dbLouderThanNormal({ off: Math.abs(off).toFixed(0), change: off > 0 ? 'louder' : 'quieter' }),
    );
    if (alarmsNow().length === 0 && loudest >= SILENT_DBFS) lastWellS = watchedS;
    power.fill(0);
    filled = 0;
  };
  const NEEDED: Record<Exclude<WatchAlarmId, 'clipping'>, number> = {
    silent: SILENT_S,
    'one-side': ONE_SIDE_S,
    hum: HUM_S,
    // It was averaged over half a minute already.
    'off-usual': BLOCK_S,
    'no-voice': NO_VOICE_S,
  };
  const alarmsNow = (): WatchAlarm[] => {
    const alarms = (Object.keys(NEEDED) as (keyof typeof NEEDED)[]).flatMap((id): WatchAlarm[] => {
      const forS = lasting.get(id) ?? 0;
      return forS >= NEEDED[id]
        ? [
            {
              id,
              forS: forS + (id === 'off-usual' ? OFF_S : 0),
              says: said.get(id) ?? '',
              ...(id === 'off-usual' ? { louder: isLouder } : {}),
            },
          ]
        : [];
    });
    if (watchedS - clippedS < CLIP_S)
      alarms.push({ id: 'clipping', forS: watchedS - clippedS, says: say.clippedTimesSinceStart({ clips }) });
    return alarms;
  };
  return {
    push(channels) {
      meter.push(channels);
      const frames = channels[0]?.length ?? 0;
      for (let i = 0; i < frames; i++) {
        let sum = 0;
        for (let c = 0; c < channelCount; c++) {
          const v = channels[c]![i]!;
          power[c]! += v * v;
          sum += v;
        }
        block[filled++] = sum / channelCount;
        if (filled === blockFrames) endBlock();
      }
    },
    state: () => ({
      reading: meter.reading(),
      usualLufs: usual.length >= USUAL_BLOCKS / 3 ? meanOf(usual) : null,
      alarms: alarmsNow(),
      secondsSinceGood: Number.isNaN(lastWellS) ? null : watchedS - lastWellS,
      watchedS,
    }),
    setUsual(lufs) {
      usualLufs = lufs;
    },
  };
}

/** Mean of loudness values as powers. */
function meanOf(lufs: readonly number[]): number | null {
  if (lufs.length === 0) return null;
  return dbFromPower(lufs.reduce((sum, l) => sum + 10 ** (l / 10), 0) / lufs.length);
}

/** Power-line hum in a second of sound: its lines relative to their neighbors (Goertzel 1958); null for none. */
export function humIn(
  block: Float32Array,
  sampleRateHz: number,
): { readonly hz: number; readonly dbfs: number } | null {
  let found: { hz: number; dbfs: number } | null = null;
  const windowed = underHann(block);
  for (const hz of MAINS_HZ) {
    let [lines, beside] = [0, 0];
    for (const h of HARMONICS) {
      lines += powerAt(windowed, sampleRateHz, h * hz);
      beside +=
        (powerAt(windowed, sampleRateHz, h * hz - BESIDE_HZ) + powerAt(windowed, sampleRateHz, h * hz + BESIDE_HZ)) / 2;
    }
    const dbfs = dbFromPower(Math.max(2 * lines, 1e-20));
    if (dbfs < HUM_LEAST_DBFS || 10 * Math.log10(lines / Math.max(beside, 1e-20)) < HUM_DB) continue;
    if (!found || dbfs > found.dbfs) found = { hz, dbfs };
  }
  return found;
}

let hann = new Float64Array(0);
function underHann(block: Float32Array): Float64Array {
  const n = block.length;
  if (hann.length !== n) hann = Float64Array.from({ length: n }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / n));
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) out[i] = block[i]! * hann[i]!;
  return out;
}

/** Power of one frequency in a block under a Hann window, full-scale sine 0.5. */
function powerAt(windowed: Float64Array, sampleRateHz: number, hz: number): number {
  const n = windowed.length;
  const k = 2 * Math.cos((2 * Math.PI * hz) / sampleRateHz);
  let [s1, s2] = [0, 0];
  for (let i = 0; i < n; i++) {
    const s = windowed[i]! + k * s1 - s2;
    s2 = s1;
    s1 = s;
  }
  const magnitude2 = s1 * s1 + s2 * s2 - k * s1 * s2;
  // Half the amplitude by the window's mean of one half: 4 / n, squared, over two for the power of a sine.
  return (magnitude2 * 16) / (n * n) / 2;
}
