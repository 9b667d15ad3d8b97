import {
  type Brightness,
  type Clap,
  type Flash,
  findClaps,
  findFlashes,
  frameRateOf,
  meanBrightness,
  type UnevenFrames,
  unevenFrames,
} from '#core/audio/measure/index.ts';
import {
  type FftOf,
  glancePeaks,
  type Layout,
  type Peaks,
  type Recording,
  readPeaks,
} from '#core/audio/samples/index.ts';
import {
  type Chirp,
  findChirps,
  findPanels,
  readSlates,
  type SlateReading,
  slateWatch,
} from '#core/desk-tests/slates/index.ts';
import type { Rate } from '#core/model/units/index.ts';
import { workers as say } from '#words/index.ts';
import type { Grain } from './cells.ts';
import { GLANCE_BINS, GLANCE_FROM_S, type Media, type Picture } from './media.ts';

/** What was found in a take: enough to draw its lanes and to measure it. */
export interface TakeLook {
  readonly durationMs: number;
  readonly sound: {
    readonly sampleRateHz: number;
    readonly channels: number;
    /** Which speaker each channel is for; null where they are tracks. */
    readonly layout: Layout | null;
    readonly trackNames?: readonly string[];
    readonly peaks: Peaks;
    readonly claps: readonly Clap[];
    /** Beats of a slate that were heard. */
    readonly chirps: readonly Chirp[];
  } | null;
  readonly picture: {
    readonly width: number;
    readonly height: number;
    /** Null where it can't be determined, and for variable frame rates. */
    readonly frameRate: Rate | null;
    readonly uneven: UnevenFrames | null;
    /** Stretches that were scanned; gaps between them were not. */
    readonly pieces: readonly { readonly timesMs: Float64Array; readonly mean: Float32Array }[];
    readonly flashes: readonly Flash[];
    readonly slates: readonly SlateReading[];
  } | null;
  readonly notices: readonly string[];
  /** There is more to come: its sound is being decoded, or its picture looked at. */
  readonly isPartial?: boolean;
}

/** What is being done with a take, a rig or a file. */
type Stage =
  | 'opening'
  | 'decoding'
  | 'waveform'
  | 'claps'
  | 'slates'
  | 'picture'
  | 'comparing'
  | 'following'
  | 'joining'
  | 'clicks'
  | 'measuring'
  | 'faults'
  | 'ways'
  | 'writing'
  | 'sending';

/** How far a job has come. */
export interface Progress {
  readonly what: Stage;
  readonly done: number;
  /** What can be drawn already, until all of it has been read. */
  readonly glance?: TakeLook;
}

const PEAK_MS = 1;
const MAX_BINS = 2_000_000;
/** A picture this short is looked at whole where nothing is heard in it, or nothing seen where something is heard. */
const SHORT_PICTURE_S = 30;
const BEFORE_CLAP_S = 0.75;
const AFTER_CLAP_S = 0.75;

/**
 * Audio first, then only the video around its claps, with a partial result after each; all of it on request, and
 * where a short picture has nothing to see there.
 */
export async function lookAt(
  fftOf: FftOf,
  media: Media,
  whole: boolean,
  onProgress: (progress: Progress) => void,
): Promise<TakeLook> {
  const { sound, picture, notices } = media;
  if (sound && sound.frames > GLANCE_FROM_S * sound.sampleRateHz) onProgress(await glanceAt(sound, picture !== null));
  const heard = sound && (await listen(fftOf, sound, onProgress));
  if (!picture) return { durationMs: durationOf(sound), sound: heard, picture: null, notices };
  const isShort = picture.durationS <= SHORT_PICTURE_S;
  const places = await placesOf(picture, heard, whole, onProgress);
  // What a slate says about frames holds for each of its showings.
  const isFilm = isShort && (heard?.chirps.length ?? 0) > 0;
  const stretches = stretchesOf(picture.durationS, places, whole || !heard || isFilm);
  const pieces: Brightness[] = [];
  const watch = slateWatch();
  const flashes: Flash[] = [];
  const seenSoFar = (): TakeLook => {
    const inOrder = [...pieces].sort((a, b) => (a.timesMs[0] ?? 0) - (b.timesMs[0] ?? 0));
    const uneven = inOrder.map((p) => unevenFrames(p.timesMs)).find((u) => u !== null) ?? null;
    return {
      durationMs: Math.max(durationOf(sound), picture.durationS * 1000),
      sound: heard,
      picture: {
        width: picture.width,
        height: picture.height,
        frameRate: uneven ? null : (inOrder.map((p) => frameRateOf(p.timesMs)).find((r) => r !== null) ?? null),
        uneven,
        pieces: inOrder.map((p) => ({ timesMs: p.timesMs, mean: meanBrightness(p) })),
        flashes: [...flashes].sort((a, b) => a.atMs - b.atMs),
        slates: readSlates(watch.sights(), heard?.chirps ?? []),
      },
      notices: [...notices, ...sayHoles(picture.holesS), ...sayUneven(uneven)],
    };
  };
  const see = async (all: readonly Stretch[]) => {
    const totalS = all.reduce((sum, s) => sum + s.toS - s.fromS, 0);
    let lookedS = 0;
    for (const [i, { fromS, toS, grain }] of all.entries()) {
      const share = (part: number) => ({ what: 'picture' as const, done: (lookedS + part * (toS - fromS)) / totalS });
      const piece = await picture.brightness(fromS, toS, grain, (done) => onProgress(share(done)), watch.see);
      pieces.push(piece);
      const found = findFlashes(piece);
      flashes.push(...found);
      if (found.length > 0 && i < all.length - 1)
        onProgress({ ...share(1), glance: { ...seenSoFar(), isPartial: true } });
      lookedS += toS - fromS;
    }
  };
  await see(stretches);
  if (isShort && flashes.length === 0 && readSlates(watch.sights(), heard?.chirps ?? []).length === 0)
    await see(between(stretches, picture.durationS + 1, 'fine'));
  return seenSoFar();
}

async function glanceAt(sound: Recording, isPartial: boolean): Promise<Progress> {
  const peaks = await glancePeaks(sound, GLANCE_BINS);
  return { what: 'waveform', done: 0, glance: { ...glanceOf(sound, peaks), isPartial } };
}

const sayHoles = (holesS: readonly number[]): string[] =>
  holesS.length === 0
    ? []
    : [
        say.fileIsDamagedIts({
          places: holesS.length === 1 ? say.onePlace() : say.places({ holesS: holesS.length }),
          n1: holesS[0]!.toFixed(1),
        }),
      ];

const sayUneven = (uneven: UnevenFrames | null): string[] =>
  uneven === null ? [] : [say.framesAreUnevenlySpaced({ n0: uneven.fromMs.toFixed(0), n02: uneven.toMs.toFixed(0) })];

/** What can be drawn of a take when no more than its peaks are known, and those by and by. */
export function glanceOf(
  sound: Pick<Recording, 'channels' | 'sampleRateHz' | 'frames' | 'layout' | 'trackNames'>,
  peaks: Peaks,
): TakeLook {
  return {
    durationMs: durationOf(sound),
    sound: { ...factsOf(sound), peaks, claps: [], chirps: [] },
    picture: null,
    notices: [],
  };
}

async function listen(
  fftOf: FftOf,
  sound: Recording,
  onProgress: (progress: Progress) => void,
): Promise<NonNullable<TakeLook['sound']>> {
  const bin = Math.max(1, Math.round((sound.sampleRateHz * PEAK_MS) / 1000), Math.ceil(sound.frames / MAX_BINS));
  const peaks = await readPeaks(sound, bin, (done) => onProgress({ what: 'waveform', done }));
  const claps = await findClaps(fftOf, sound, (done) => onProgress({ what: 'claps', done }));
  const chirps = await findChirps(fftOf, sound, (done) => onProgress({ what: 'slates', done }));
  return { ...factsOf(sound), peaks, claps, chirps };
}

const factsOf = ({
  sampleRateHz,
  channels,
  layout,
  trackNames,
}: Pick<Recording, 'channels' | 'sampleRateHz' | 'layout' | 'trackNames'>) => ({
  sampleRateHz,
  channels,
  layout: layout ?? null,
  ...(trackNames && { trackNames }),
});

const durationOf = (sound: Pick<Recording, 'frames' | 'sampleRateHz'> | null): number =>
  sound ? (1000 * sound.frames) / sound.sampleRateHz : 0;

interface Stretch {
  readonly fromS: number;
  readonly toS: number;
  readonly grain: Grain;
}

/**
 * Instants at which something to be measured may be seen: claps and beats that were heard; where no beat was, slates in
 * the key frames of a long video.
 */
async function placesOf(
  picture: Picture,
  sound: TakeLook['sound'],
  whole: boolean,
  onProgress: (progress: Progress) => void,
): Promise<number[]> {
  const { claps, chirps } = sound ?? { claps: [], chirps: [] };
  // A slate's own clicks are heard as claps too.
  const own = (atMs: number) => chirps.some((c) => Math.abs(c.atMs - atMs) < CLICK_NEAR_MS);
  const heard = [...claps.map((c) => c.atMs).filter((atMs) => !own(atMs)), ...someBeats(chirps)];
  if (chirps.length > 0 || picture.durationS <= SHORT_PICTURE_S || (claps.length > 0 && !whole)) return heard;
  const seen: number[] = [];
  await picture.keyFrames(
    (luma, atMs) => {
      if (findPanels(luma).length > 0) seen.push(atMs);
    },
    (done) => onProgress({ what: 'slates', done }),
  );
  return [...heard, ...seen];
}

const CLICK_NEAR_MS = 120;
/** Beats further apart than this belong to two showings of a slate. */
const SHOWING_GAP_MS = 9000;
/** Of a continuous slate, one in this many beats is scanned. */
const ONE_BEAT_IN = 8;

/**
 * Beats around which the video is scanned: a few suffice, and decoding video takes time. The
 * second and the second to last of each showing, when it is in full view, and some in between.
 */
export function someBeats(chirps: readonly Chirp[]): number[] {
  const showings: number[][] = [];
  for (const { atMs } of chirps) {
    const last = showings.at(-1);
    if (last && atMs - last.at(-1)! < SHOWING_GAP_MS) last.push(atMs);
    else showings.push([atMs]);
  }
  return showings.flatMap((beats) =>
    beats.length <= 3 ? beats : beats.filter((_, i) => i === 1 || i === beats.length - 2 || i % ONE_BEAT_IN === 1),
  );
}

/** What to look at, in order: around those instants finely; the rest, when it is wanted, coarsely, or finely where it is short. */
function stretchesOf(durationS: number, placesMs: readonly number[], whole: boolean): Stretch[] {
  const endS = durationS + 1;
  const isShort = durationS <= SHORT_PICTURE_S;
  if (isShort && (whole || placesMs.length === 0)) return [{ fromS: 0, toS: endS, grain: 'fine' }];
  const fine = merged(
    placesMs.map((ms) => ({
      fromS: Math.max(0, ms / 1000 - BEFORE_CLAP_S),
      toS: Math.min(endS, ms / 1000 + AFTER_CLAP_S),
    })),
  ).map((s): Stretch => ({ ...s, grain: 'fine' }));
  if (!whole) return fine;
  return [...fine, ...between(fine, endS, 'coarse')].sort((a, b) => a.fromS - b.fromS);
}

/** The gaps between stretches, which are sorted, up to the end. */
function between(stretches: readonly Stretch[], endS: number, grain: Grain): Stretch[] {
  const gaps: Stretch[] = [];
  let at = 0;
  for (const { fromS, toS } of [...stretches, { fromS: endS, toS: endS }]) {
    if (fromS > at) gaps.push({ fromS: at, toS: fromS, grain });
    at = toS;
  }
  return gaps;
}

function merged(stretches: { fromS: number; toS: number }[]): { fromS: number; toS: number }[] {
  const out: { fromS: number; toS: number }[] = [];
  for (const next of [...stretches].sort((a, b) => a.fromS - b.fromS)) {
    const last = out.at(-1);
    if (last && next.fromS <= last.toS) last.toS = Math.max(last.toS, next.toS);
    else out.push({ ...next });
  }
  return out;
}
