import './spoken.ts';
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

/** A slate as a film: how large, how long. */
export interface SlateFilm {
  readonly slate: Slate;
  readonly width: number;
  readonly height: number;
  readonly seconds: number;
  /** The sound of the tune with the slate's number, once, in place of the slate's own. */
  readonly tune?: boolean;
}

/** A file that was made, with the ending that its kind has. */
export interface MadeFile {
  readonly blob: Blob;
  readonly ending: 'mp4' | 'webm' | 'wav';
}

const RATE_HZ = 48_000;
const PIECE_S = 1;
/** Enough for hard edges; a flat picture needs far less. */
const BITS_A_PIXEL = 0.05;
const SOUND_BITS = 192_000;

/** What this browser can write: the kind that most players take, first. */
async function kindOf({ width, height }: SlateFilm) {
  const sound = { numberOfChannels: 1, sampleRate: RATE_HZ };
  const kinds = [
    { ending: 'mp4', video: 'avc', audio: 'aac' },
    { ending: 'webm', video: 'vp9', audio: 'opus' },
    { ending: 'webm', video: 'vp8', audio: 'opus' },
  ] as const;
  for (const kind of kinds)
    if ((await canEncodeVideo(kind.video, { width, height })) && (await canEncodeAudio(kind.audio, sound))) return kind;
  throw new Error(say.thisBrowserCantWrite());
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
    const kind = await kindOf(film);
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
    const samples = soundOf({ ...film, seconds: frames / rate });
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
