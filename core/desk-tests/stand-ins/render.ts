import { band, filterInPlace } from '#core/audio/process/index.ts';
import { type FftOf, resample, seededNormal } from '#core/audio/samples/index.ts';
import { findPort, findTypes, type Rig } from '#core/model/rig/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';
import { type Arrival, type DelayTerm, evaluate } from '#core/signal/index.ts';
import { convolve, roomResponse } from './room.ts';
import type { SourceMaker } from './sources.ts';

/** What is really so, hidden from the rig: true delays by figure (`device.figure`), and clocks by device, in ppm. */
export interface Truth {
  readonly delaysMs: Readonly<Record<string, number>>;
  readonly clocksPpm: Readonly<Record<string, number>>;
}

export interface RenderOptions {
  readonly rig: Rig;
  readonly truth: Truth;
  readonly listenerId: string;
  /** What each source sounds like, by source; sources without one are silent. */
  readonly sounds: Readonly<Record<string, SourceMaker>>;
  readonly seconds: number;
  readonly sampleRateHz: number;
  readonly seed: number;
  /** The session's time at which this recorder was started. */
  readonly startS?: number;
  /** Level of the loudest source's way, dBFS; the others keep their distance to it. */
  readonly loudestDbfs?: number;
  /** Only ways of which this is so; all where absent. */
  readonly alive?: (arrival: Arrival) => boolean;
  /** Each way through the band that it has in the rig. */
  readonly banded?: boolean;
}

const NOISE_DBFS = -78;
const ROOM = { rt60S: 0.4, directDb: 8 };

/** The true delay of a path: the hidden figure where there is one, the nominal one elsewhere; settings and air as they are. */
export const trueDelayMs = (terms: readonly DelayTerm[], truth: Truth): number =>
  terms.reduce((ms, t) => ms + (t.kind === 'typical' ? (truth.delaysMs[t.key] ?? t.ms.nominal) : t.ms.nominal), 0);

/** What a listener's track would have recorded: every source by every way, each with its true delay, on the track's own clock. */
export function renderTrack(fftOf: FftOf, options: RenderOptions): Float32Array {
  const { rig, truth, listenerId, sounds, seconds, sampleRateHz, seed, startS = 0, loudestDbfs = -12 } = options;
  const { alive = () => true, banded = false } = options;
  const frames = Math.round(seconds * sampleRateHz);
  const types = findTypes(rig);
  const out = new Float32Array(frames);
  const pairs = evaluate(rig)
    .pairs.filter((p) => p.listenerId === listenerId && sounds[p.sourceId])
    .map((p) => ({ ...p, ways: p.ways.filter((w) => alive(w.arrival)) }))
    .filter((p) => p.ways.length > 0);
  const loudest = Math.max(...pairs.map((p) => p.ways[0]!.levelDb.nominal));
  const session = Math.ceil((startS + seconds + 1) * sampleRateHz);
  const room = roomResponse(sampleRateHz, ROOM.rt60S, ROOM.directDb, seed + 991);
  for (const pair of pairs) {
    const index = rig.sources.findIndex((s) => s.id === pair.sourceId);
    const dry = sounds[pair.sourceId]!(session, sampleRateHz, seed + 17 * index);
    const inRoom = findPort(rig, types, rig.sources[index]!.sound)?.level === 'air' ? convolve(fftOf, dry, room) : dry;
    for (const way of pair.ways) {
      const gain = way.polarity * ratioFromDb(way.levelDb.nominal - loudest + loudestDbfs - PEAK_DBFS);
      const ppm = (way.clock && truth.clocksPpm[way.clock]) || 0;
      const delayFrames = (trueDelayMs(way.soundTerms, truth) * sampleRateHz) / 1000;
      // A clock that runs fast counts more samples in the same time: the sound is read in smaller steps.
      const part = resample(inRoom, startS * sampleRateHz - delayFrames, 1 / (1 + ppm * 1e-6), frames);
      if (banded) filterInPlace(part, band(way.arrival.lowHz, way.arrival.highHz, sampleRateHz));
      for (let i = 0; i < frames; i++) out[i]! += gain * part[i]!;
    }
  }
  const normal = seededNormal(seed + 5);
  const floor = ratioFromDb(NOISE_DBFS);
  for (let i = 0; i < frames; i++) out[i]! += floor * normal();
  return out;
}

/** Stand-in sounds peak at about this level before they are placed. */
const PEAK_DBFS = -12;
