import {
  ALL_FORMATS,
  AudioSampleSink,
  BlobSource,
  EncodedPacketSink,
  Input,
  type InputAudioTrack,
  type InputVideoTrack,
  UrlSource,
  VideoSampleSink,
} from 'mediabunny';
import { type Brightness, GRID_CELLS, type RegionTrace } from '#core/measure/index.ts';
import { openWav, type Recording, recordingOf, WavError } from '#core/samples/index.ts';
import type { Luma } from '#core/slate/index.ts';
import { cellReader, type Grain, REGION_CELLS, type Region, regionReader } from './cells.ts';
import { openBytes, type TakeSource } from './take-source.ts';

/** An open take: its sound, its picture, or both; and what had to be said on the way. */
export interface Media {
  readonly sound: Recording | null;
  readonly picture: Picture | null;
  readonly notices: readonly string[];
  close(): void;
}

export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly durationS: number;
  /**
   * Brightness of the frames shown within a stretch, in seconds of the file. Fine reads all of the picture, coarse two
   * strips in each row of cells: a lamp smaller than a twentieth of the height may fall between, and little time is lost.
   */
  brightness(
    fromS: number,
    toS: number,
    grain: Grain,
    onProgress?: (done: number) => void,
    onLuma?: (luma: Luma, atMs: number) => void,
  ): Promise<Brightness>;
  /** Brightness of one region of every frame. */
  region(region: Region, onProgress?: (done: number) => void): Promise<RegionTrace>;
  /** Shows the frames that stand for themselves in the file, in order, all of each. */
  keyFrames(onLuma: (luma: Luma, atMs: number) => void, onProgress?: (done: number) => void): Promise<void>;
}

/** Longer sound in a video is measured in its first part; a WAV is streamed and has no such limit. */
const LONGEST_DECODED_S = 3600;

/**
 * Opens a WAV by our own reader, anything else by the browser's decoders.
 * @throws Error with a sentence on what to do
 */
export async function openMedia(source: TakeSource, onProgress: (done: number) => void): Promise<Media> {
  const bytes = await openBytes(source);
  const head = String.fromCharCode(...(await bytes.read(0, 4)));
  if (head === 'RIFF' || head === 'RF64' || head === 'BW64') {
    const close = () => undefined;
    try {
      return { sound: await openWav(bytes), picture: null, notices: [], close };
    } catch (error) {
      if (!(error instanceof WavError) || !error.canBeSalvaged) throw error;
      return {
        sound: await openWav(bytes, { asItIs: true }),
        picture: null,
        notices: [`${error.message} What is there was opened.`],
        close,
      };
    }
  }
  const input = await openInput(source);
  const notices: string[] = [];
  const audio = await input.getPrimaryAudioTrack();
  const video = await input.getPrimaryVideoTrack();
  const sound = audio && (await audio.canDecode()) ? await decodeSound(audio, onProgress, notices) : null;
  if (audio && !sound) notices.push(sayUndecodable('sound', audio.codec));
  const canSee = video && (await video.canDecode());
  if (video && !canSee) notices.push(sayUndecodable('picture', video.codec));
  if (!sound && !canSee)
    throw new Error(
      `Nothing in this file can be decoded by this browser. ${notices.join(' ')} Export it as MP4 with H.264 and AAC, or as WAV.`,
    );
  return { sound, picture: canSee ? await openPicture(video) : null, notices, close: () => input[Symbol.dispose]() };
}

const CODEC_NAMES: Record<string, string> = {
  avc: 'H.264',
  hevc: 'H.265 (HEVC)',
  vp8: 'VP8',
  vp9: 'VP9',
  av1: 'AV1',
  aac: 'AAC',
  ac3: 'AC-3',
  eac3: 'E-AC-3',
  opus: 'Opus',
  mp3: 'MP3',
  flac: 'FLAC',
};

/** What stands in the way, by name, and what would mend it. */
export function sayUndecodable(what: 'sound' | 'picture', codec: string | null): string {
  const named = codec ? `coded as ${CODEC_NAMES[codec] ?? codec}, which` : 'coded in a way that';
  const mend = what === 'sound' ? 'export its sound as AAC or WAV' : 'export its picture as H.264';
  return `Its ${what} is ${named} this browser cannot decode: ${mend} to measure it.`;
}

/** @throws Error with a sentence on what to do */
export async function openInput(source: TakeSource): Promise<Input> {
  const input = new Input({
    source: 'file' in source ? new BlobSource(source.file) : new UrlSource(source.url),
    formats: ALL_FORMATS,
  });
  if (await input.canRead()) return input;
  throw new Error('This is neither sound nor video that can be read here. Choose a WAV, MP4, MOV, WebM or MKV file.');
}

/** All of the sound, channels averaged; each piece is placed by its own time stamp, what lies before zero is left out. */
async function decodeSound(
  track: InputAudioTrack,
  onProgress: (done: number) => void,
  notices: string[],
): Promise<Recording> {
  const durationS = await track.computeDuration();
  const endS = Math.min(durationS, LONGEST_DECODED_S);
  if (endS < durationS) notices.push('The video is longer than an hour: its first hour is measured.');
  const rate = track.sampleRate;
  const mono = new Float32Array(Math.ceil(endS * rate) + rate);
  let plane = new Float32Array(0);
  let last = 0;
  for await (const sample of new AudioSampleSink(track).samples(0, endS)) {
    const at = Math.round(sample.timestamp * rate);
    const count = sample.numberOfFrames;
    if (plane.length < count) plane = new Float32Array(count);
    for (let c = 0; c < sample.numberOfChannels; c++) {
      sample.copyTo(plane, { planeIndex: c, format: 'f32-planar' });
      const k = 1 / sample.numberOfChannels;
      for (let i = Math.max(0, -at); i < count && at + i < mono.length; i++) mono[at + i]! += plane[i]! * k;
    }
    last = Math.min(mono.length, Math.max(last, at + count));
    sample.close();
    onProgress(Math.min(1, sample.timestamp / endS));
  }
  return recordingOf([mono.subarray(0, last)], rate);
}

async function openPicture(track: InputVideoTrack): Promise<Picture> {
  const sink = new VideoSampleSink(track);
  const durationS = await track.computeDuration();
  return {
    width: track.displayWidth,
    height: track.displayHeight,
    durationS,
    async brightness(fromS, toS, grain, onProgress, onLuma) {
      const times: number[] = [];
      const rows: Float32Array[] = [];
      let atMs = 0;
      const read = cellReader(grain, onLuma && ((luma) => onLuma(luma, atMs)));
      for await (const sample of sink.samples(Math.max(0, fromS), toS)) {
        atMs = sample.timestamp * 1000;
        rows.push(await read(sample));
        times.push(sample.timestamp * 1000);
        sample.close();
        onProgress?.(Math.min(1, (sample.timestamp - fromS) / (toS - fromS)));
      }
      const cells = new Float32Array(rows.length * GRID_CELLS);
      for (const [f, row] of rows.entries()) cells.set(row, f * GRID_CELLS);
      return { timesMs: Float64Array.from(times), cells };
    },
    async region(region, onProgress) {
      const times: number[] = [];
      const rows: Float32Array[] = [];
      const read = regionReader(region);
      for await (const sample of sink.samples(0, durationS + 1)) {
        rows.push(await read(sample));
        times.push(sample.timestamp * 1000);
        sample.close();
        onProgress?.(Math.min(1, sample.timestamp / durationS));
      }
      const values = new Float32Array(rows.length * REGION_CELLS);
      for (const [f, row] of rows.entries()) values.set(row, f * REGION_CELLS);
      return { timesMs: Float64Array.from(times), cells: REGION_CELLS, values };
    },
    async keyFrames(onLuma, onProgress) {
      const packets = new EncodedPacketSink(track);
      let atMs = 0;
      const read = cellReader('fine', (luma) => onLuma(luma, atMs));
      for (let packet = await packets.getFirstPacket(); packet; packet = await packets.getNextKeyPacket(packet)) {
        if (packet.type !== 'key' || packet.timestamp < 0) continue;
        const sample = await sink.getSample(packet.timestamp);
        if (!sample) continue;
        atMs = sample.timestamp * 1000;
        await read(sample);
        sample.close();
        onProgress?.(Math.min(1, packet.timestamp / durationS));
      }
    },
  };
}
