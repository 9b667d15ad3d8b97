import { measureOffset } from '#core/audio/measure/index.ts';
import { decimate, type FftOf, recordingOf, resample, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { convolve, game, roomResponse, voice } from '#core/desk-tests/stand-ins/index.ts';
import { loadFft } from '../cli/edges.ts';
import { MATERIAL_RATE_HZ, needMaterial, sentences, talker, tuneful, VOICES } from './material.ts';
import type { Row } from './report.ts';

const RATE = 16_000;
const PAIRS = 600;
const EDGES = [0, 0.05, 0.2, 0.5, 0.8, 0.95, 0.99, 1.01];
const WITHIN_MS = 2;
/** Of fewer pairs no share is told. */
const FEW = 10;
/** So much of a source is kept clear on both sides of a take. */
const CLEAR_S = 9;

type Random = () => number;
interface Judged {
  readonly confidence: number;
  readonly isRight: boolean;
}

/** Pairs of takes, of one sound and of two, in rooms, over telephones, in noise and behind silence: how often an offset is right that was said to be so likely. */
export async function confidence(): Promise<readonly Row[]> {
  needMaterial();
  const fftOf = await loadFft();
  const sounds = library();
  const judged: Judged[] = [];
  for (let seed = 0; seed < PAIRS; seed++) judged.push(await judge(fftOf, sounds, seededRandom(seed), seed));
  const rows = EDGES.slice(1).flatMap((to, n): Row[] => {
    const from = EDGES[n]!;
    const own = judged.filter((j) => j.confidence >= from && j.confidence < to);
    if (own.length === 0) return [];
    const said = own.reduce((sum, j) => sum + j.confidence, 0) / own.length;
    const right = own.filter((j) => j.isRight).length / own.length;
    // As far as chance may have it, over so few: two standard deviations, and a tenth for material of another kind.
    const allowed = 0.1 + 2 * Math.sqrt((said * (1 - said)) / own.length);
    return [
      {
        what: `  confidence ${from} to ${Math.min(1, to)}: ${own.length} pairs`,
        ours: `said ${said.toFixed(2)}, right ${right.toFixed(2)}`,
        other: '',
        ratio: null,
        goal: own.length < FEW ? 'too few to say' : `within ${allowed.toFixed(2)}`,
        reached: own.length < FEW || Math.abs(said - right) <= allowed,
      },
    ];
  });
  const wrong = judged.filter((j) => j.confidence >= 0.5 !== j.isRight).length;
  return [
    {
      what: `${PAIRS} pairs of takes: the same sound or not, and where`,
      ours: `${wrong} on the wrong side of a half`,
      other: '',
      ratio: null,
      goal: 'one in ten at most',
      reached: wrong <= PAIRS / 10,
    },
    ...rows,
  ];
}

/** Talkers and music of other programs, and our stand-ins, at 16 kHz. */
function library(): Float32Array[] {
  const low = (x: Float32Array) => decimate(x, MATERIAL_RATE_HZ / RATE);
  const talkers = VOICES.slice(0, 6).map((v, n) => low(talker(v, sentences(30, seededRandom(90 + n)))));
  const tunes = [5, 6, 7].map((seed) => low(tuneful(100, seededRandom(seed))));
  const own = [voice(120)(100 * RATE, RATE, 1), voice(205)(100 * RATE, RATE, 2), game(100 * RATE, RATE, 3)];
  return [...talkers, ...tunes, ...own];
}

async function judge(fftOf: FftOf, sounds: readonly Float32Array[], random: Random, seed: number): Promise<Judged> {
  const between = (low: number, high: number) => low + (high - low) * random();
  const pick = () => sounds[Math.floor(random() * sounds.length)]!;
  const isSame = random() < 0.65;
  const [first, other] = [pick(), pick()];
  const frames = Math.round((3 + 27 * random() ** 2) * RATE);
  const clear = CLEAR_S * RATE;
  const at = clear + Math.floor(random() * Math.max(1, first.length - frames - 2 * clear));
  const offsetMs = between(-8000, 8000);
  // Of another sound any part will do; of the same one there is no other.
  const from = other === first ? sounds[(sounds.indexOf(first) + 1) % sounds.length]! : other;
  let ref: Float32Array = first.slice(at, at + frames);
  let heard: Float32Array = isSame
    ? resample(first, at - (offsetMs * RATE) / 1000, 1 + between(-60e-6, 60e-6), frames)
    : from.slice(0, frames);
  if (random() < 0.35)
    heard = convolve(fftOf, heard, roomResponse(RATE, between(0.2, 0.8), between(-4, 6), seed)).slice(0, frames);
  const leadS = random() < 0.25 ? between(0.5, 2.5) * (frames / RATE) : 0;
  ref = dirty(ref, between(-12, 30), leadS, seed + 1);
  heard = dirty(heard, between(-12, 30), leadS, seed + 2);
  const found = await measureOffset(fftOf, recordingOf([ref], RATE), recordingOf([heard], RATE));
  const there = found.offsetMs + leadS * 1000 * (found.driftPpm ?? 0) * 1e-6;
  return { confidence: found.confidence, isRight: isSame && Math.abs(there - offsetMs) < WITHIN_MS };
}

/** With noise so far under it, behind so much silence. */
function dirty(x: Float32Array, overNoiseDb: number, leadS: number, seed: number): Float32Array {
  const normal = seededNormal(seed);
  const level = Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length) * 10 ** (-overNoiseDb / 20);
  const lead = Math.round(leadS * RATE);
  return Float32Array.from({ length: lead + x.length }, (_, i) =>
    i < lead ? 1e-4 * normal() : x[i - lead]! + level * normal(),
  );
}
