import './spoken.ts';
import PFFFT from '@echogarden/pffft-wasm/simd';
import { expose, transfer } from 'comlink';
import {
  type Apart,
  changesOf,
  clicksFor,
  type Diagnosis,
  diagnose,
  type Joined,
  joinTakes,
  type MenuClick,
  measureJumps,
  measureOffset,
  type Offset,
  piecesOf,
  type Stretch,
} from '#core/audio/measure/index.ts';
import {
  channelOf,
  corrected,
  fftOver,
  glancePeaks,
  type Peaks,
  type PffftModule,
  wavPieces,
} from '#core/audio/samples/index.ts';
import { workers as say } from '#words/index.ts';
import type { Region } from './cells.ts';
import { readFrames, type SmallFrame } from './frames.ts';
import { glanceOf, lookAt, type Progress, type TakeLook } from './look.ts';
import { type Media, openMedia } from './media.ts';
import type { TakeSource } from './take-source.ts';

/** Alignment of takes, and the figures of each. */
export interface JoinedTakes {
  readonly groups: readonly Joined[];
  readonly facts: readonly { readonly durationMs: number; readonly sampleRateHz: number; readonly peaks: Peaks }[];
}

const GLANCE_BINS = 1200;

/** The worker's side: opens takes and hands them to core. It is stopped by ending it. */
const api = {
  async look(source: TakeSource, whole: boolean, onProgress: (progress: Progress) => void): Promise<TakeLook> {
    const media = await openMedia(
      source,
      (done) => onProgress({ what: 'decoding', done }),
      ({ peaks, frames, format: { layout, ...format } }) => {
        const sound = { ...format, frames, ...(layout && { layout }) };
        onProgress({ what: 'decoding', done: 0, glance: { ...glanceOf(sound, peaks), isPartial: true } });
      },
    );
    try {
      return await lookAt(fftOver((await PFFFT()) as PffftModule), media, whole, onProgress);
    } finally {
      media.close();
    }
  },
  async offset(first: TakeSource, second: TakeSource, onProgress: (progress: Progress) => void): Promise<Offset> {
    const decoding = (share: number) => (done: number) => onProgress({ what: 'decoding', done: share + done / 2 });
    const a = await openMedia(first, decoding(0));
    const b = await openMedia(second, decoding(0.5));
    try {
      if (!a.sound || !b.sound) throw new Error(say.oneTwoTakesHas());
      const fftOf = fftOver((await PFFFT()) as PffftModule);
      return await measureOffset(fftOf, a.sound, b.sound, (done) => onProgress({ what: 'comparing', done }));
    } finally {
      a.close();
      b.close();
    }
  },
  /** Follows two takes of the same sound: clock drift and lost buffers separated. */
  async apart(
    first: TakeSource,
    second: TakeSource,
    offset: Offset,
    onProgress: (progress: Progress) => void,
  ): Promise<Apart> {
    const [a, b] = [await openMedia(first, () => undefined), await openMedia(second, () => undefined)];
    try {
      if (!a.sound || !b.sound) throw new Error(say.oneTwoTakesHas());
      const fftOf = fftOver((await PFFFT()) as PffftModule);
      return await measureJumps(fftOf, a.sound, b.sound, offset, (done) => onProgress({ what: 'following', done }));
    } finally {
      a.close();
      b.close();
    }
  },
  /** A menu's changes within a region of the picture, with the clicks that go with them. */
  async menu(source: TakeSource, region: Region, onProgress: (progress: Progress) => void): Promise<MenuClick[]> {
    const media = await openMedia(source, (done) => onProgress({ what: 'decoding', done: done / 4 }));
    try {
      if (!media.sound || !media.picture) throw new Error(say.menuClicksNeedTake());
      const trace = await media.picture.region(region, (done) =>
        onProgress({ what: 'picture', done: 0.25 + done / 2 }),
      );
      const changes = changesOf(trace);
      const frameMs = (trace.timesMs.at(-1)! - trace.timesMs[0]!) / Math.max(1, trace.timesMs.length - 1);
      onProgress({ what: 'clicks', done: 0.8 });
      return await clicksFor(fftOver((await PFFFT()) as PffftModule), media.sound, changes, frameMs);
    } finally {
      media.close();
    }
  },
  /** Lays takes of several recorders on timelines by what they hold; each with a glance at its wave. */
  async join(sources: readonly TakeSource[], onProgress: (progress: Progress) => void): Promise<JoinedTakes> {
    const opened: Media[] = [];
    try {
      for (const [i, source] of sources.entries()) {
        const media = await openMedia(source, (done) =>
          onProgress({ what: 'decoding', done: (i + done) / sources.length }),
        );
        opened.push(media);
        if (!media.sound) throw new Error(say.oneTheseTakesHas());
      }
      const sounds = opened.map((m) => m.sound!);
      const fftOf = fftOver((await PFFFT()) as PffftModule);
      const groups = await joinTakes(fftOf, sounds, (done) => onProgress({ what: 'joining', done }));
      const facts = [];
      for (const sound of sounds)
        facts.push({
          durationMs: (1000 * sound.frames) / sound.sampleRateHz,
          sampleRateHz: sound.sampleRateHz,
          peaks: await glancePeaks(sound, GLANCE_BINS),
        });
      return { groups, facts };
    } finally {
      for (const media of opened) media.close();
    }
  },
  /** @param channel  one of them alone; all, where null */
  async diagnose(
    source: TakeSource,
    channel: number | null,
    onProgress: (progress: Progress) => void,
  ): Promise<Diagnosis> {
    const media = await openMedia(source, (done) => onProgress({ what: 'decoding', done: done / 2 }));
    try {
      if (!media.sound) throw new Error(say.thisTakeHasNo());
      const fftOf = fftOver((await PFFFT()) as PffftModule);
      const track = channel === null ? media.sound : channelOf(media.sound, channel);
      return await diagnose(fftOf, track, (done) => onProgress({ what: 'measuring', done }));
    } finally {
      media.close();
    }
  },
  /** A take moved and stretched, stretch by stretch, as a WAV of 24 bits. */
  async correct(
    source: TakeSource,
    stretches: readonly Stretch[],
    onProgress: (progress: Progress) => void,
  ): Promise<Blob> {
    const media = await openMedia(source, (done) => onProgress({ what: 'decoding', done: done / 2 }));
    try {
      if (!media.sound) throw new Error(say.thisTakeHasNo());
      const moved = corrected(media.sound, piecesOf(stretches, media.sound.sampleRateHz));
      const parts: Uint8Array<ArrayBuffer>[] = [];
      for await (const piece of wavPieces(moved, { onProgress: (done) => onProgress({ what: 'writing', done }) }))
        parts.push(piece);
      return new Blob(parts, { type: 'audio/wav' });
    } finally {
      media.close();
    }
  },
  async frames(source: TakeSource, fromMs: number, toMs: number, widthPx: number): Promise<SmallFrame[]> {
    const frames = await readFrames(source, fromMs, toMs, widthPx);
    return transfer(
      frames,
      frames.map((f) => f.image),
    );
  },
};
export type MeasureApi = typeof api;
expose(api);
