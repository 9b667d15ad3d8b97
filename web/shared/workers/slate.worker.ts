import './spoken.ts';
import { registerAacEncoder } from '@mediabunny/aac-encoder';
import { expose } from 'comlink';
import {
  AudioSample,
  AudioSampleSource,
  BufferTarget,
  CanvasSource,
  canEncodeAudio,
  canEncodeVideo,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
} from 'mediabunny';
import { encodeWav } from '#core/audio/samples/index.ts';
import { renderSlateSound, type Slate, slateLayout, whiteBoxes } from '#core/desk-tests/slates/index.ts';
import { renderTune } from '#core/desk-tests/tunes/index.ts';
import { hertz } from '#core/model/units/index.ts';
import { workers as say } from '#words/index.ts';
import type { Progress } from './look.ts';

/** MP4 holds H.264 and AAC, which consoles and media players take; WebM VP9 or VP8 and Opus. */
export type Container = 'mp4' | 'webm';

/** A slate as a film: how large, how long. */
export interface SlateFilm {
  readonly slate: Slate;
  readonly width: number;
  readonly height: number;
  readonly seconds: number;
  /** The container that the player takes; the first that this browser can write where none is asked for. */
  readonly container?: Container;
  /** The sound of the tune with the slate's number, once, in place of the slate's own. */
  readonly tune?: boolean;
}

/** A file that was made, with the ending that its kind has. */
export interface MadeFile {
  readonly blob: Blob;
  readonly ending: 'mp4' | 'webm' | 'wav';
}

const CONTAINERS: Record<Container, string> = { mp4: 'MP4', webm: 'WebM' };
const RATE_HZ = 48_000;
const PIECE_S = 1;
/** Enough for hard edges; a flat picture needs far less. */
const BITS_A_PIXEL = 0.05;
const SOUND_BITS = 192_000;

const KINDS = [
  { ending: 'mp4', video: 'avc', audio: 'aac' },
  { ending: 'webm', video: 'vp9', audio: 'opus' },
  { ending: 'webm', video: 'vp8', audio: 'opus' },
] as const;
type Kind = (typeof KINDS)[number];

const SOUND = { numberOfChannels: 1, sampleRate: RATE_HZ };
/** The encoder that comes along puts a frame of silence before all that it is given, and the file does not say so. */
const AAC_PRIMING_SAMPLES = 1024;
let comesAlong = false;

/** Many browsers read AAC and can't write it: then an encoder comes along. */
async function withAac(): Promise<void> {
  if (comesAlong || (await canEncodeAudio('aac', SOUND))) return;
  registerAacEncoder();
  comesAlong = true;
}

/** What this browser can write: what most players take, first. */
async function kindsOf({ width, height }: Pick<SlateFilm, 'width' | 'height'>): Promise<Kind[]> {
  await withAac();
  const can = await Promise.all(
    KINDS.map(
      async (kind) =>
        (await canEncodeVideo(kind.video, { width, height })) && (await canEncodeAudio(kind.audio, SOUND)),
    ),
  );
  return KINDS.filter((_, i) => can[i]);
}

const soundOf = ({ slate, seconds, tune }: SlateFilm): Float32Array<ArrayBuffer> => {
  const out = new Float32Array(Math.round(seconds * RATE_HZ));
  out.set((tune ? renderTune(slate.id, RATE_HZ) : renderSlateSound(slate, seconds, RATE_HZ)).subarray(0, out.length));
  return out;
};

const api = {
  /** The sound alone, 24 bits. */
  sound: async (film: SlateFilm): Promise<MadeFile> => ({
    blob: new Blob([encodeWav([soundOf(film)], RATE_HZ)], { type: 'audio/wav' }),
    ending: 'wav',
  }),
  async film(film: SlateFilm, onProgress: (progress: Progress) => void): Promise<MadeFile> {
    const { slate, width, height, seconds } = film;
    const kinds = await kindsOf(film);
    const kind = kinds.find((k) => film.container === undefined || k.ending === film.container);
    if (!kind)
      throw new Error(
        kinds.length > 0
          ? say.thisBrowserCantWriteThat({ container: CONTAINERS[kinds[0]!.ending] })
          : say.thisBrowserCantWrite(),
      );
    const canvas = new OffscreenCanvas(width, height);
    const paint = canvas.getContext('2d', { alpha: false })!;
    const layout = slateLayout(width, height);
    const target = new BufferTarget();
    const output = new Output({
      format: kind.ending === 'mp4' ? new Mp4OutputFormat() : new WebMOutputFormat(),
      target,
    });
    const rate = hertz(slate.rate);
    const frames = Math.round(seconds * rate);
    const picture = new CanvasSource(canvas, {
      codec: kind.video,
      bitrate: Math.round(width * height * rate * BITS_A_PIXEL),
    });
    const sound = new AudioSampleSource({ codec: kind.audio, bitrate: SOUND_BITS });
    output.addVideoTrack(picture, { frameRate: rate });
    output.addAudioTrack(sound);
    await output.start();
    const whole = soundOf({ ...film, seconds: frames / rate });
    // As much is left out at the start as the encoder puts before it: what follows is at its own time.
    const samples = kind.audio === 'aac' && comesAlong ? whole.slice(AAC_PRIMING_SAMPLES) : whole;
    let heard = 0;
    for (let frame = 0; frame < frames; frame++) {
      paint.fillStyle = '#000';
      paint.fillRect(0, 0, width, height);
      paint.fillStyle = '#fff';
      for (const b of whiteBoxes(slate, frame, layout)) paint.fillRect(b.x, b.y, b.width, b.height);
      await picture.add(frame / rate, 1 / rate);
      // Sound goes along with its picture, so that neither has to be held for long.
      while (heard < samples.length && heard / RATE_HZ <= frame / rate + PIECE_S) {
        const data = samples.slice(heard, heard + PIECE_S * RATE_HZ);
        const piece = new AudioSample({
          data,
          format: 'f32-planar',
          numberOfChannels: 1,
          sampleRate: RATE_HZ,
          timestamp: heard / RATE_HZ,
        });
        await sound.add(piece);
        piece.close();
        heard += data.length;
      }
      if (frame % 15 === 0) onProgress({ what: 'writing', done: frame / frames });
    }
    await output.finalize();
    return { blob: new Blob([target.buffer!], { type: `video/${kind.ending}` }), ending: kind.ending };
  },
};
export type SlateApi = typeof api;
expose(api);
