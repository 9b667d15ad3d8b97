import './spoken.ts';
import PFFFT from '@echogarden/pffft-wasm/simd';
import { expose, transfer } from 'comlink';
import { loudnessMeter, type Spectrogram, type SpectrogramView, spectrogramOf } from '#core/audio/measure/index.ts';
import {
  type Aim,
  type Balanced,
  balanceTake,
  type MixPlan,
  type MixTrack,
  measureTracks,
  measureVoice,
  mixStretch,
  pairSounds,
  pairTakes,
  type SoundPair,
  type Stretch,
  startingTreatment,
  stretchOf,
  type TrackMeasured,
  type TreatmentFigures,
  treatmentFigures,
  type VoiceMeasured,
} from '#core/audio/mix/index.ts';
import { type Treatment, treat } from '#core/audio/process/index.ts';
import { type FftOf, fftOver, type PffftModule, type Recording } from '#core/audio/samples/index.ts';
import { workers as say } from '#words/index.ts';
import { openMedia } from './media.ts';
import type { TakeSource } from './take-source.ts';

/** What a file holds, as tracks. */
export interface TakeFacts {
  readonly sampleRateHz: number;
  readonly channels: number;
  readonly seconds: number;
  readonly trackNames: readonly string[];
}

/** A track: which take of those that were opened, and its channel or two. */
export interface TrackSpec {
  readonly take: number;
  readonly channels: readonly [number] | readonly [number, number];
}

/** A stretch that can be listened to. */
export interface HeardSound {
  readonly channels: readonly Float32Array[];
  readonly sampleRateHz: number;
  readonly integratedLufs: number | null;
}

/** The stretch of a take that settings are tried on. */
export interface TriedStretch extends Stretch {
  readonly sound: HeardSound;
  readonly voice: VoiceMeasured;
  readonly start: Treatment;
  readonly figures: TreatmentFigures;
}

/** What became of it: the gains of its steps are the least of each `curveStepS`. */
export interface TriedTreatment {
  readonly sound: HeardSound;
  readonly figures: TreatmentFigures;
  readonly curves: Partial<Record<'gate' | 'deEss' | 'compressor', Float32Array>>;
  readonly curveStepS: number;
  readonly limited: { readonly mostDb: number; readonly seconds: number } | null;
}

let takes: Recording[] = [];
let tried: { channels: readonly Float32Array[]; sampleRateHz: number; fromS: number; voice: VoiceMeasured } | null =
  null;
let fftOf: FftOf | null = null;
const transforms = async (): Promise<FftOf> => {
  fftOf ??= fftOver((await PFFFT()) as PffftModule);
  return fftOf;
};

const trackOf = ({ take, channels }: TrackSpec): MixTrack => ({ recording: takes[take]!, channels });

function heard(channels: readonly Float32Array[], sampleRateHz: number): HeardSound {
  const sides = channels.length === 1 ? [channels[0]!, channels[0]!] : channels;
  const meter = loudnessMeter(sides.length, sampleRateHz);
  meter.push(sides);
  return { channels, sampleRateHz, integratedLufs: meter.result().integratedLufs };
}

const CURVE_STEP_S = 0.01;

/** The deepest of each step: what is taken for a moment only is seen too. */
function thinned(gain: Float32Array, sampleRateHz: number): Float32Array {
  const step = Math.round(CURVE_STEP_S * sampleRateHz);
  return Float32Array.from({ length: Math.ceil(gain.length / step) }, (_, n) => {
    let least = 0;
    for (let i = n * step; i < Math.min(gain.length, (n + 1) * step); i++) if (gain[i]! < least) least = gain[i]!;
    return least;
  });
}

/** Mixing and treating of takes, which stay open while their page does. No logic of its own. */
const api = {
  async open(sources: readonly TakeSource[], onProgress: (done: number) => void): Promise<TakeFacts[]> {
    takes = [];
    for (const [i, source] of sources.entries()) {
      const media = await openMedia(source, (done) => onProgress((i + done) / sources.length));
      if (!media.sound) throw new Error(say.oneTheseTakesHasNo());
      takes.push(media.sound);
    }
    return takes.map(({ sampleRateHz, channels, frames, trackNames = [] }) => ({
      sampleRateHz,
      channels,
      seconds: frames / sampleRateHz,
      trackNames,
    }));
  },
  measure: (specs: readonly TrackSpec[], onProgress: (done: number) => void): Promise<TrackMeasured[]> =>
    measureTracks(specs.map(trackOf), onProgress),
  balance: (
    specs: readonly TrackSpec[],
    measured: readonly TrackMeasured[],
    aim: Aim,
    ownDb: readonly (number | null)[],
    onProgress: (done: number) => void,
  ): Promise<Balanced> => balanceTake(specs.map(trackOf), measured, aim, ownDb, onProgress),
  async hear(specs: readonly TrackSpec[], plan: MixPlan, stretch: Stretch): Promise<HeardSound> {
    const tracks = specs.map(trackOf);
    const sides = await mixStretch(tracks, plan, stretch);
    return transfer(
      heard(sides, tracks[0]!.recording.sampleRateHz),
      sides.map((s) => s.buffer as ArrayBuffer),
    );
  },
  async spectrogram(take: number, view: SpectrogramView): Promise<Spectrogram> {
    const seen = await spectrogramOf(await transforms(), takes[take]!, view);
    return transfer(seen, [seen.db.buffer as ArrayBuffer]);
  },
  async stretch(seconds: number, ceilingDbtp: number): Promise<TriedStretch> {
    const [recording] = takes;
    const { sampleRateHz } = recording!;
    const { fromS, toS, channels } = await stretchOf(recording!, seconds);
    const voice = await measureVoice(await transforms(), channels, sampleRateHz);
    tried = { channels, sampleRateHz, fromS, voice };
    return {
      fromS,
      toS,
      voice,
      sound: heard(channels, sampleRateHz),
      start: startingTreatment(voice, ceilingDbtp),
      figures: treatmentFigures(channels, sampleRateHz, voice.talk),
    };
  },
  treat(treatment: Treatment): TriedTreatment {
    const { channels: dry, sampleRateHz, voice } = tried!;
    const { channels, gains, limited } = treat(dry, sampleRateHz, treatment);
    const curves = Object.fromEntries(
      Object.entries(gains).map(([step, gain]) => [step, thinned(gain, sampleRateHz)]),
    ) as TriedTreatment['curves'];
    return {
      sound: heard(channels, sampleRateHz),
      figures: treatmentFigures(channels, sampleRateHz, voice.talk),
      curves,
      curveStepS: CURVE_STEP_S,
      limited: limited && { mostDb: limited.mostDb, seconds: limited.frames / sampleRateHz },
    };
  },
  /** The two takes that are open, or the one as it is against what a treatment makes of it. */
  async pair(seconds: number, treatment: Treatment | null): Promise<SoundPair> {
    const [first, second] = takes;
    if (!treatment) return pairTakes(await transforms(), first!, second!, seconds);
    const { fromS, channels } = await stretchOf(first!, seconds);
    return pairSounds(channels, treat(channels, first!.sampleRateHz, treatment).channels, first!.sampleRateHz, fromS);
  },
};
export type SoundApi = typeof api;
expose(api);
