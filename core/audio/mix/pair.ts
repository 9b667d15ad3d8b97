import { loudnessMeter, MeasureError, measureOffset } from '#core/audio/measure/index.ts';
import { type FftOf, type Recording, resample, resampleReach } from '#core/audio/samples/index.ts';
import { SaidError } from '#core/base/said/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';
import { say } from './sayings.ts';
import { pieceOfTalk, talkOf } from './talk.ts';

/** Two sounds to compare blind: loudness-matched, and time-aligned where they are the same sound. */
export interface SoundPair {
  readonly sampleRateHz: number;
  readonly a: readonly Float32Array[];
  readonly b: readonly Float32Array[];
  /** Where they were taken from, seconds of each. */
  readonly fromS: readonly [number, number];
  /** Takes of one sound, aligned; otherwise each plays from where it has most speech. */
  readonly sameSound: boolean;
  /** What is left between their loudnesses, LU. */
  readonly apartLu: number;
}

/** Both are brought to this, or lower, so that neither clips. */
const EVEN_LUFS = -23;
const TOP = 0.9;
const SAME_SOUND = 0.5;
/** Equal is what is no one hears: within a tenth of a LU. */
const EVEN_LU = 0.1;

/**
 * Two takes as a pair for a blind trial: the piece of the first in which most is said, and the same piece of the second.
 * @throws MeasureError where one of them is silent there
 */
export async function pairTakes(fftOf: FftOf, a: Recording, b: Recording, seconds: number): Promise<SoundPair> {
  const rate = a.sampleRateHz;
  const stretch = await loudestTalk(a, seconds);
  const found = await measureOffset(fftOf, a, b).catch((error: unknown) => {
    if (error instanceof MeasureError) return null;
    throw error;
  });
  const sameSound = found !== null && found.confidence >= SAME_SOUND;
  const middleS = stretch.fromS + seconds / 2;
  const laterS = found ? found.offsetMs / 1000 + (found.driftPpm ?? 0) * 1e-6 * middleS : 0;
  const fromB = sameSound ? stretch.fromS + laterS : (await loudestTalk(b, seconds)).fromS;
  const frames = Math.round((stretch.toS - stretch.fromS) * rate);
  const first = await a.read(Math.round(stretch.fromS * rate), frames);
  const second = await readAt(b, fromB, rate, frames);
  const pair = even([first.slice(0, 2), second.slice(0, 2)], rate);
  return { ...pair, sampleRateHz: rate, fromS: [stretch.fromS, fromB], sameSound };
}

/** Two renderings of one stretch as a pair. @throws MeasureError */
export function pairSounds(
  a: readonly Float32Array[],
  b: readonly Float32Array[],
  sampleRateHz: number,
  fromS: number,
): SoundPair {
  return { ...even([a, b], sampleRateHz), sampleRateHz, fromS: [fromS, fromS], sameSound: true };
}

async function loudestTalk(recording: Recording, seconds: number) {
  const meter = loudnessMeter(1, recording.sampleRateHz);
  const piece = 4 * recording.sampleRateHz;
  for (let at = 0; at < recording.frames; at += piece)
    meter.push([await recording.readMono(at, Math.min(piece, recording.frames - at))]);
  return pieceOfTalk(talkOf(meter.hops()), seconds);
}

/** A stretch at another rate, from an instant between samples. */
async function readAt(recording: Recording, fromS: number, rate: number, frames: number): Promise<Float32Array[]> {
  const step = recording.sampleRateHz / rate;
  const reach = resampleReach(step);
  const first = fromS * recording.sampleRateHz;
  const start = Math.floor(first) - reach;
  const parts = await recording.read(start, Math.ceil(frames * step) + 2 * reach + 1);
  return parts.map((x) => resample(x, first - start, step, frames));
}

/** Turns both to the same loudness. */
function even([a, b]: readonly [readonly Float32Array[], readonly Float32Array[]], rate: number) {
  const sides = [a, b].map((channels) => (channels.length === 1 ? [channels[0]!, channels[0]!] : channels));
  const levels = sides.map((s, i) => {
    const level = lufsOfSides(s, rate);
    if (level === null) throw new MeasureError('silent', i === 0 ? 'A' : 'B');
    return level;
  });
  const fits = sides.map((s, i) => levels[i]! + 20 * Math.log10(TOP / Math.max(1e-9, topOf(s))));
  const target = Math.min(EVEN_LUFS, ...fits);
  const [evenA, evenB] = sides.map((s, i) => s.map((x) => x.map((v) => v * ratioFromDb(target - levels[i]!)))) as [
    Float32Array[],
    Float32Array[],
  ];
  const apartLu = Math.abs(lufsOfSides(evenA, rate)! - lufsOfSides(evenB, rate)!);
  if (apartLu > EVEN_LU) throw new SaidError(say.notSameLoudness());
  return { a: evenA, b: evenB, apartLu };
}

function lufsOfSides(sides: readonly Float32Array[], rate: number): number | null {
  const meter = loudnessMeter(2, rate);
  meter.push(sides);
  return meter.result().integratedLufs;
}

const topOf = (sides: readonly Float32Array[]): number =>
  sides.reduce((most, x) => x.reduce((m, v) => Math.max(m, Math.abs(v)), most), 0);

/** The stretch of a take with most speech, one or two channels: what settings are tried on. */
export async function stretchOf(recording: Recording, seconds: number) {
  const stretch = await loudestTalk(recording, seconds);
  const rate = recording.sampleRateHz;
  const channels = await recording.read(
    Math.round(stretch.fromS * rate),
    Math.round((stretch.toS - stretch.fromS) * rate),
  );
  return { ...stretch, channels: channels.slice(0, 2) };
}
