import './spoken.ts';
import PFFFT from '@echogarden/pffft-wasm/simd';
import { expose } from 'comlink';
import { channelOf, fftOver, type PffftModule, recordingOf } from '#core/audio/samples/index.ts';
import { type Bindings, explainScan } from '#core/desk-tests/drawn/index.ts';
import type { ScanRead } from '#core/desk-tests/scan/index.ts';
import { readSlates, type SlateReading, slateWatch } from '#core/desk-tests/slates/index.ts';
import {
  drillTable,
  type Explanation,
  explain,
  fewestTakes,
  hideFault,
  type Players,
  picturesOf,
  type StandInDesk,
  standInTake,
  type TakeRead,
  type TunePicture,
  tappable,
} from '#core/desk-tests/tap-test/index.ts';
import { readTap, type TapReading } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { workers as say } from '#words/index.ts';
import type { Progress } from './look.ts';
import { openMedia, type Picture } from './media.ts';
import type { TakeSource } from './take-source.ts';

/** One track of a take, read for tunes; null where it is too short, or silent. */
export interface TrackTapped {
  /** Which channel; null for all of a take together. */
  readonly channel: number | null;
  readonly name: string;
  readonly durationS: number;
  readonly reading: TapReading | null;
  /** Panels of tunes in the take's picture, against this track. */
  readonly pictures: readonly TunePicture[];
}

/** What a drill hides, and the best that one could do. */
export interface Drill {
  readonly desk: StandInDesk;
  readonly fewest: readonly string[];
}

/** Of more channels each is a track of its own. */
const TOGETHER = 2;
type OnProgress = (progress: Progress) => void;
const fft = async () => fftOver((await PFFFT()) as PffftModule);

/** A tap's take is half a minute long: of a longer one the beginning is looked at. */
const LOOKED_AT_S = 120;

async function slatesIn(picture: Picture, onDone: (done: number) => void): Promise<SlateReading[]> {
  const watch = slateWatch();
  await picture.brightness(0, Math.min(picture.durationS, LOOKED_AT_S), 'fine', onDone, watch.see);
  return readSlates(watch.sights(), []);
}

/** The worker's side of the tap test. */
const api = {
  async read(source: TakeSource, ids: readonly number[], onProgress: OnProgress): Promise<TrackTapped[]> {
    const media = await openMedia(source, (done) => onProgress({ what: 'decoding', done: done / 4 }));
    try {
      const { sound } = media;
      if (!sound) throw new Error(say.thisTakeHasNo());
      const slates = media.picture
        ? await slatesIn(media.picture, (done) => onProgress({ what: 'picture', done: 0.25 + done / 4 }))
        : [];
      const from = media.picture ? 0.5 : 0.25;
      const fftOf = await fft();
      const channels = sound.channels <= TOGETHER ? [null] : Array.from({ length: sound.channels }, (_, c) => c);
      const out: TrackTapped[] = [];
      for (const [n, channel] of channels.entries()) {
        const onDone = (share: number) =>
          onProgress({ what: 'measuring', done: from + ((1 - from) * (n + share)) / channels.length });
        const track = channel === null ? sound : channelOf(sound, channel);
        const name = channel === null ? '' : (sound.trackNames?.[channel] ?? '');
        const reading = await readTap(fftOf, track, { ids, onDone });
        const durationS = track.frames / track.sampleRateHz;
        out.push({ channel, name, durationS, reading, pictures: reading ? picturesOf(slates, reading.tunes) : [] });
      }
      return out;
    } finally {
      media.close();
    }
  },
  /** A take as a listener would have it while stand-ins play, read. */
  async standIn(
    rig: Rig,
    desk: StandInDesk,
    listenerId: string,
    players: Players,
    onProgress: OnProgress,
  ): Promise<TapReading | null> {
    const fftOf = await fft();
    onProgress({ what: 'measuring', done: 0.05 });
    const { samples, sampleRateHz } = standInTake(fftOf, rig, desk, listenerId, players);
    const ids = players.map((p) => p.tune);
    return readTap(fftOf, recordingOf([samples], sampleRateHz), {
      ids,
      onDone: (share) => onProgress({ what: 'measuring', done: 0.4 + 0.6 * share }),
    });
  },
  explain: (rig: Rig, takes: readonly TakeRead[], players: Players, onProgress: OnProgress): Explanation[] =>
    explain(rig, takes, players, (done) => onProgress({ what: 'faults', done })),
  explainScan: (rig: Rig, scan: ScanRead, bindings: Bindings, onProgress: OnProgress): Explanation[] =>
    explainScan(rig, scan, bindings, (done) => onProgress({ what: 'faults', done })),
  /** Hides a fault that taps could find; null where this rig can have none. */
  hide(rig: Rig, seed: number): Drill | null {
    const listenerIds = rig.listeners.map((l) => l.id);
    const faults = tappable(rig, listenerIds);
    const fault = hideFault(faults, seed);
    if (!fault) return null;
    return {
      desk: { seed, faultId: fault.id },
      fewest: fewestTakes(drillTable(rig, listenerIds, faults), fault.id),
    };
  },
};
export type TapApi = typeof api;
expose(api);
