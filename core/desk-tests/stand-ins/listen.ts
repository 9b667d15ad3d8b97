import { band, filterInPlace } from '#core/audio/process/index.ts';
import { seededRandom } from '#core/audio/samples/index.ts';
import type { PortRef, Rig } from '#core/model/rig/index.ts';
import { powerFromDb, ratioFromDb, samplesFromMs } from '#core/model/units/index.ts';
import {
  type Arrival,
  bandOf,
  bandsMeasured,
  delayOf,
  type Evaluation,
  readPath,
  rolesOf,
  type Scale,
  type SourceRole,
} from '#core/signal/index.ts';
import { game, hum, jingle, noise, type SourceMaker, voice } from './sources.ts';

export interface ListenOptions {
  readonly rig: Rig;
  /** Of that rig: what is heard is what it says. */
  readonly evaluation: Evaluation;
  readonly at: PortRef;
  readonly seconds: number;
  readonly sampleRateHz: number;
  readonly seed?: number;
  /** Cables that a hum loop runs through. */
  readonly humCableIds?: readonly string[];
  /** Only these sources; all where absent. */
  readonly sourceIds?: readonly string[];
  /** Noise and hum are heard too. */
  readonly withFloor?: boolean;
}

export interface Listening {
  /** One for each channel of the place, two at most; a loop without a seam. Linear, 1 at `fullDb`. */
  readonly channels: readonly Float32Array[];
  readonly sampleRateHz: number;
  /** The level at the place that is rendered as RMS 1, in the place's own scale. */
  readonly fullDb: number;
  readonly scale: Scale;
  /** Sources that are heard, in the order of the rig. */
  readonly sourceIds: readonly string[];
  /** Whether hum enters through a cable there. */
  readonly hums: boolean;
}

/** The loudest path of the loudest source is this far below full scale, dB. */
const HEADROOM_DB = 24;
/** What a hum loop leaves on an unbalanced line (typical). */
const HUM_DBU = -50;
const MAINS_HZ = 50;
/** A ceiling is stated for a sine: its tops stand 3 dB over its RMS. */
const SINE_PEAK = Math.SQRT2;
const FADE_S = 0.05;

/**
 * What is at a place, before anything is plugged: stand-ins for the sources, carried there with the gain, delay,
 * polarity, band and ceiling of every arrival, over the noise floor and hum of the place.
 */
export function renderListening(options: ListenOptions): Listening {
  const {
    rig,
    evaluation,
    at,
    seconds,
    sampleRateHz,
    seed = 1,
    sourceIds,
    humCableIds = [],
    withFloor = true,
  } = options;
  const { graph, arrivals, noiseDb } = evaluation;
  const frames = Math.round(seconds * sampleRateHz);
  const sound = graph.nodesOf(at).filter((n) => graph.nodes[n]!.carries === 'sound');
  const used = sound.filter((n) => arrivals[n]!.length > 0);
  const nodes = (used.length > 0 ? used : sound).slice(0, 2);
  const loudestDb = Math.max(...nodes.flatMap((n) => arrivals[n]!.map((a) => a.levelDb)), Number.NEGATIVE_INFINITY);
  const fullDb = (Number.isFinite(loudestDb) ? loudestDb : 0) + HEADROOM_DB;
  const wanted = (a: Arrival) => !sourceIds || sourceIds.includes(rig.sources[a.sourceIndex]!.id);
  const dryOf = once((index: number) => standIn(rig, index, frames, sampleRateHz, seed));
  const wets = new Map<string, Float32Array>();
  /** Left and right of one way, and ways with the same band, sound alike but for level and time. */
  const bands = bandsMeasured(rig);
  const wetOf = (a: Arrival): Float32Array => {
    const measured = bands(at, rig.sources[a.sourceIndex]!.id);
    const { lowHz, highHz } = measured.length > 0 ? bandOf(a, readPath(graph, a).deviceIds, measured) : a;
    const key = `${a.sourceIndex} ${lowHz} ${highHz} ${a.headroomDb}`;
    const known = wets.get(key);
    if (known) return known;
    const made = shaped(dryOf(a.sourceIndex), band(lowHz, highHz, sampleRateHz), SINE_PEAK * ratioFromDb(a.headroomDb));
    wets.set(key, made);
    return made;
  };
  const humDb = withFloor ? humAt(evaluation, nodes, humCableIds) : null;
  const channels = nodes.map((node, channel) => {
    const out = new Float32Array(frames);
    for (const a of arrivals[node]!) {
      if (!wanted(a)) continue;
      const delay = Math.round(samplesFromMs(delayOf(evaluation, a).value.nominal, sampleRateHz)) % frames;
      addLooped(out, wetOf(a), a.polarity * ratioFromDb(a.levelDb - fullDb), delay);
    }
    const floorDb = noiseDb[node]!;
    if (withFloor && Number.isFinite(floorDb))
      addLooped(
        out,
        looped(floorNoise, frames, sampleRateHz, seed),
        ratioFromDb(floorDb - fullDb),
        channel * (frames >> 1),
      );
    if (humDb !== null) addLooped(out, looped(HUM, frames, sampleRateHz, 0), ratioFromDb(humDb - fullDb));
    return out;
  });
  const heard = new Set(nodes.flatMap((n) => arrivals[n]!.filter(wanted).map((a) => a.sourceIndex)));
  return {
    channels,
    sampleRateHz,
    fullDb,
    scale: nodes.length > 0 ? graph.nodes[nodes[0]!]!.scale : 'dbfs',
    sourceIds: rig.sources.filter((_, i) => heard.has(i)).map((s) => s.id),
    hums: humDb !== null,
  };
}

/** White, of two even chances: it sounds as Gaussian noise does, and costs a quarter. */
const floorNoise: SourceMaker = (frames, _rate, seed) => {
  const random = seededRandom(seed + 101);
  const out = new Float32Array(frames);
  for (let i = 0; i < frames; i++) out[i] = random() + random() - 1;
  return out;
};

const PITCHES_HZ = [118, 205, 148, 232, 98, 175];
const MAKERS: Partial<Record<SourceRole, SourceMaker>> = { game, music: jingle, other: noise };
const VOICES = PITCHES_HZ.map(voice);
const HUM = hum(MAINS_HZ);

/** A synthesized source: RMS 1 over a seamless loop; always the same for the same place in the rig. */
function standIn(rig: Rig, index: number, frames: number, sampleRateHz: number, seed: number): Float32Array {
  const own = seed + 17 * index;
  const maker = MAKERS[rolesOf(rig).source(rig.sources[index]!)];
  if (maker) return looped(maker, frames, sampleRateHz, own);
  const person = VOICES[index % VOICES.length]!;
  // A voice has little above 10 kHz: made at half the rate, it is there in half the time.
  return sampleRateHz >= HALVED_FROM_HZ && frames % 2 === 0
    ? upsampleBy2(looped(person, frames / 2, sampleRateHz / 2, own))
    : looped(person, frames, sampleRateHz, own);
}
const HALVED_FROM_HZ = 40_000;

/** A loop at twice its rate, the samples between by a straight line; RMS 1 again. */
function upsampleBy2(x: Float32Array): Float32Array {
  const out = new Float32Array(2 * x.length);
  let sum = 0;
  for (let i = 0; i < x.length; i++) {
    const a = x[i]!;
    const b = x[i + 1 < x.length ? i + 1 : 0]!;
    const middle = (a + b) / 2;
    out[2 * i] = a;
    out[2 * i + 1] = middle;
    sum += a * a + middle * middle;
  }
  const k = sum > 0 ? 1 / Math.sqrt(sum / out.length) : 0;
  for (let i = 0; i < out.length; i++) out[i]! *= k;
  return out;
}

const kept = new WeakMap<SourceMaker, Map<string, Float32Array>>();
const KEPT_LOOPS = 8;

/** A maker's sound whose end runs into its beginning, RMS 1. The last few are kept: rendering again costs the ways alone. */
function looped(make: SourceMaker, frames: number, sampleRateHz: number, seed: number): Float32Array {
  const loops = kept.get(make) ?? new Map<string, Float32Array>();
  kept.set(make, loops);
  const key = `${frames} ${sampleRateHz} ${seed}`;
  const known = loops.get(key);
  if (known) return known;
  const fade = Math.min(Math.round(FADE_S * sampleRateHz), frames >> 1);
  const long = make(frames + fade, sampleRateHz, seed);
  const x = long.slice(0, frames);
  for (let i = 0; i < fade; i++) {
    const t = (i + 0.5) / fade;
    x[i] = x[i]! * Math.sqrt(t) + long[frames + i]! * Math.sqrt(1 - t);
  }
  let sum = 0;
  for (let i = 0; i < frames; i++) sum += x[i]! * x[i]!;
  const k = sum > 0 ? 1 / Math.sqrt(sum / frames) : 0;
  for (let i = 0; i < frames; i++) x[i]! *= k;
  if (loops.size >= KEPT_LOOPS) loops.delete(loops.keys().next().value!);
  loops.set(key, x);
  return x;
}

/** Clipped, then filtered; run twice round, so that the loop has no start. The sound itself where neither changes it. */
function shaped(dry: Float32Array, sections: ReturnType<typeof band>, top: number): Float32Array {
  const clips = peakOf(dry) > top;
  if (sections.length === 0 && !clips) return dry;
  const twice = new Float32Array(2 * dry.length);
  twice.set(dry);
  if (clips) for (let i = 0; i < dry.length; i++) twice[i] = Math.max(-top, Math.min(top, dry[i]!));
  twice.copyWithin(dry.length, 0, dry.length);
  filterInPlace(twice, sections);
  return twice.subarray(dry.length);
}

function peakOf(x: Float32Array): number {
  let peak = 0;
  for (let i = 0; i < x.length; i++) peak = Math.max(peak, Math.abs(x[i]!));
  return peak;
}

function once<T>(make: (key: number) => T): (key: number) => T {
  const made = new Map<number, T>();
  return (key) => {
    if (!made.has(key)) made.set(key, make(key));
    return made.get(key)!;
  };
}

function addLooped(out: Float32Array, x: Float32Array, gain: number, delay = 0): void {
  const n = out.length;
  for (let i = 0; i < delay; i++) out[i]! += gain * x[n - delay + i]!;
  for (let i = delay; i < n; i++) out[i]! += gain * x[i - delay]!;
}

/** Hum of the ground loops' cables, as it arrives at the place through open paths; null for none. */
function humAt({ graph, arrivals }: Evaluation, nodes: readonly number[], cableIds: readonly string[]): number | null {
  if (cableIds.length === 0) return null;
  const perCable = new Map<string, number>();
  for (const end of nodes.flatMap((n) => arrivals[n]!))
    for (let at: Arrival | null = end; at?.edge; at = at.from) {
      const { via } = at.edge;
      if (!('cableId' in via) || !cableIds.includes(via.cableId) || graph.nodes[at.node]!.scale !== 'dbu') continue;
      const db = HUM_DBU + end.levelDb - at.levelDb;
      perCable.set(via.cableId, Math.max(perCable.get(via.cableId) ?? Number.NEGATIVE_INFINITY, db));
    }
  const power = [...perCable.values()].reduce((sum, db) => sum + powerFromDb(db), 0);
  return power > 0 ? 10 * Math.log10(power) : null;
}
