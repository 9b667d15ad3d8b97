import { HOP_S, integratedOf, lufsOf } from '#core/audio/measure/index.ts';
import { powerFromDb } from '#core/model/units/index.ts';
import { type MixPlan, type Ride, rideCurve } from './plan.ts';
import { anyTalk, piecesOf, runsOf, type Stretch, type Talk, talkOf } from './talk.ts';
import type { TrackMeasured } from './tracks.ts';

/** Role of a track in the mix: the main voice, another voice, a bed below voices, none. */
export type Part = 'main' | 'voice' | 'bed' | 'out';

export interface Aim {
  readonly parts: readonly Part[];
  /** How far each track is wanted under the main voice, LU; of the main voice 0. */
  readonly underLu: readonly number[];
  readonly targetLufs: number;
  /** Beds are taken down where they come too near to a voice. */
  readonly ride: boolean;
  /** Beds are this much louder while no one speaks, dB: voices duck them. */
  readonly duckDb: number;
  /** True peaks are kept under this; null: nothing is limited. */
  readonly ceilingDbtp: number | null;
}

/** A piece of someone's talk, and how far a track is below the voice there, dB. */
interface Place extends Stretch {
  readonly underLu: number;
}

/** Balance of a track in a mix. */
export interface TrackReading {
  /** Of a voice while it speaks, of a bed while anyone speaks; null where it is silent, or left out. */
  readonly levelLufs: number | null;
  /** Under the main voice, LU. */
  readonly underLu: number | null;
  /** It never sounds while someone speaks: its level is that between. */
  readonly apart: boolean;
  /** Of a bed every piece of anyone's talk, under those voices; of a voice its own, under the main voice's mean. */
  readonly places: readonly Place[];
}

/** What a bed may come nearer in one piece than it is wanted in the mean, before it is ridden down, LU. */
export const NEARER_LU = 4;
/** A ride takes nothing away that could not be heard, and nothing altogether. */
const RIDE_DB = { least: 1, most: 18 } as const;
/** What is quieter than this beside its own mean is a pause of it. */
const PAUSE = 10 ** (-20 / 10);
const MIN_POWER = 1e-7;
const LIMIT_RELEASE_MS = 80;
const ROUNDS = 12;

interface Scene {
  readonly hops: readonly Float64Array[];
  readonly parts: readonly Part[];
  readonly talks: readonly Talk[];
  readonly any: Talk;
  readonly pieces: readonly [number, number][];
}

/** What does not depend on gains: who speaks when. */
function sceneOf(measured: readonly TrackMeasured[], parts: readonly Part[]): Scene {
  const length = Math.max(0, ...measured.map((m) => m.hops.length));
  const speaks = (i: number) => parts[i] === 'main' || parts[i] === 'voice';
  const talks = measured.map((m, i) => (speaks(i) ? talkOf(m.hops) : new Uint8Array(m.hops.length)));
  const any = anyTalk(talks, length);
  return { hops: measured.map((m) => m.hops), parts, talks, any, pieces: piecesOf(any) };
}

/** Balance of every track in the mix that a plan makes. */
export function judged(
  measured: readonly TrackMeasured[],
  parts: readonly Part[],
  { gainsDb, rides }: Pick<MixPlan, 'gainsDb' | 'rides'>,
): TrackReading[] {
  return readScene(sceneOf(measured, parts), gainsDb, rides);
}

function readScene(scene: Scene, gainsDb: MixPlan['gainsDb'], rides: readonly Ride[]): TrackReading[] {
  const levels = scene.hops.map((_, i) => levelOf(scene, i, gainsDb[i] ?? null, rides));
  const main = levels[scene.parts.indexOf('main')]?.levelLufs ?? null;
  const voices = voicePower(scene, gainsDb);
  return levels.map(({ levelLufs, apart }, i) => ({
    levelLufs,
    apart,
    underLu: main === null || levelLufs === null ? null : main - levelLufs,
    places:
      levelLufs === null
        ? []
        : scene.parts[i] === 'bed'
          ? placesOf(scene, i, gainsDb[i]!, rides, voices)
          : ownPlaces(scene, i, gainsDb[i]!, main),
  }));
}

/** Where a voice speaks, and how far under the main voice it does. */
function ownPlaces({ hops, talks }: Scene, track: number, gainDb: number, mainLufs: number | null): Place[] {
  if (mainLufs === null) return [];
  return piecesOf(talks[track]!).map(([from, to]) => {
    const spoken = mean(hops[track]!.subarray(from, to));
    return { fromS: from * HOP_S, toS: to * HOP_S, underLu: mainLufs - lufsOf(spoken) - gainDb };
  });
}

const NOT_THERE = { levelLufs: null, apart: false } as const;

function levelOf(
  { hops, parts, talks, any }: Scene,
  track: number,
  gainDb: number | null,
  rides: readonly Ride[],
): Pick<TrackReading, 'levelLufs' | 'apart'> {
  if (gainDb === null || parts[track] === 'out') return NOT_THERE;
  const own = hops[track]!;
  if (parts[track] !== 'bed') {
    const spoken = meanWhere(own, talks[track]!);
    return spoken === null ? NOT_THERE : { levelLufs: lufsOf(spoken) + gainDb, apart: false };
  }
  const curve = rideCurve(rides, track, own.length);
  const ridden = own.map((p, h) => p * powerFromDb(curve[h]!));
  const under = meanWhere(ridden, any);
  const power = under ?? meanWhere(ridden, null);
  return power === null ? NOT_THERE : { levelLufs: lufsOf(power) + gainDb, apart: under === null };
}

/** The mean power of what sounds, where a flag stands; pauses left out. Null where nothing does. */
function meanWhere(hops: Float64Array, where: Talk | null): number | null {
  const taken = hops.filter((p, h) => p > MIN_POWER && (where === null || where[h] === 1));
  const first = mean(taken);
  const sounding = taken.filter((p) => p > PAUSE * first);
  return sounding.length > 0 ? mean(sounding) : null;
}

const mean = (values: Float64Array): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);

/** All voices together, hop by hop. */
function voicePower({ hops, parts, any }: Scene, gainsDb: MixPlan['gainsDb']): Float64Array {
  const out = new Float64Array(any.length);
  hops.forEach((own, i) => {
    const gainDb = gainsDb[i] ?? null;
    if (gainDb === null || (parts[i] !== 'main' && parts[i] !== 'voice')) return;
    const k = powerFromDb(gainDb);
    for (let h = 0; h < own.length; h++) out[h]! += k * own[h]!;
  });
  return out;
}

function placesOf(
  { hops, pieces }: Scene,
  track: number,
  gainDb: number,
  rides: readonly Ride[],
  voices: Float64Array,
): Place[] {
  const curve = rideCurve(rides, track, hops[track]!.length);
  return pieces.map(([from, to]) => {
    let [bed, voice] = [0, 0];
    for (let h = from; h < to; h++) {
      bed += (hops[track]![h] ?? 0) * powerFromDb(gainDb + (curve[h] ?? 0));
      voice += voices[h]!;
    }
    const underLu = bed > 0 ? lufsOf(voice) - lufsOf(bed) : Number.POSITIVE_INFINITY;
    return { fromS: from * HOP_S, toS: to * HOP_S, underLu };
  });
}

/**
 * The gains that put every track at its distance under the main voice and the whole at its loudness; where a bed comes
 * too near to a voice in one place, which no fader mends, the rides that do. Powers of tracks are added as those of
 * independent sounds; the mix itself is measured afterwards (`balanceTake`).
 */
export function solveBalance(measured: readonly TrackMeasured[], aim: Aim): MixPlan {
  const scene = sceneOf(measured, aim.parts);
  const recorded = aim.parts.map(() => 0);
  const main = aim.parts.indexOf('main');
  /** Faders that put every track at its distance, with the rides as they are. */
  const fadersWith = (rides: readonly Ride[]): (number | null)[] => {
    const levels = readScene(scene, recorded, rides).map((r) => r.levelLufs);
    const mainLufs = levels[main] ?? null;
    return levels.map((level, i) =>
      level === null ? (aim.parts[i] === 'out' ? null : 0) : (mainLufs ?? level) - aim.underLu[i]! - level,
    );
  };
  const ducks = main < 0 ? [] : duckRides(scene, aim.duckDb);
  let rides: readonly Ride[] = ducks;
  let gainsDb = fadersWith(rides);
  // A place that was too near once is ridden from then on: the set only grows, so this ends.
  const near = new Set<string>();
  for (let round = 0; aim.ride && round < ROUNDS; round++) {
    const next = [...ducks, ...ridesFor(scene, gainsDb, aim, ducks, near)];
    const moved = next.length !== rides.length || next.some((r, i) => Math.abs(r.db - rides[i]!.db) > 0.05);
    rides = next;
    gainsDb = fadersWith(rides);
    if (!moved) break;
  }
  const total = integratedOf(summed(scene, gainsDb, rides));
  const shift = total === null ? 0 : aim.targetLufs - total;
  return {
    gainsDb: gainsDb.map((db) => (db === null ? null : db + shift)),
    rides: rides.filter((r) => r.db < -RIDE_DB.least),
    limit: aim.ceilingDbtp === null ? null : { ceilingDbtp: aim.ceilingDbtp, releaseMs: LIMIT_RELEASE_MS },
  };
}

/** Every bed down by as much for as long as anyone speaks. */
function duckRides({ parts, any }: Scene, duckDb: number): Ride[] {
  if (duckDb <= 0) return [];
  const beds = parts.flatMap((part, track) => (part === 'bed' ? [track] : []));
  return runsOf(any).flatMap(([from, to]) =>
    beds.map((track): Ride => ({ track, fromS: from * HOP_S, toS: to * HOP_S, db: -duckDb })),
  );
}

/** Where a bed comes too near, ducked as it is: deeper than that by what is missing. */
function ridesFor(
  scene: Scene,
  gainsDb: MixPlan['gainsDb'],
  { underLu, duckDb }: Pick<Aim, 'underLu' | 'duckDb'>,
  ducks: readonly Ride[],
  near: Set<string>,
): Ride[] {
  return readScene(scene, gainsDb, ducks).flatMap(({ places, apart }, track) =>
    apart || scene.parts[track] !== 'bed'
      ? []
      : places.flatMap((p, n): Ride[] => {
          const missing = underLu[track]! - p.underLu;
          const key = `${track} ${n}`;
          if (missing > NEARER_LU) near.add(key);
          if (!near.has(key) || missing <= 0) return [];
          return [{ track, fromS: p.fromS, toS: p.toS, db: -duckDb - Math.min(missing, RIDE_DB.most) }];
        }),
  );
}

function summed({ hops, any }: Scene, gainsDb: MixPlan['gainsDb'], rides: readonly Ride[]): Float64Array {
  const out = new Float64Array(any.length);
  hops.forEach((own, i) => {
    const gainDb = gainsDb[i] ?? null;
    if (gainDb === null) return;
    const curve = rideCurve(rides, i, own.length);
    for (let h = 0; h < own.length; h++) out[h]! += own[h]! * powerFromDb(gainDb + curve[h]!);
  });
  return out;
}
