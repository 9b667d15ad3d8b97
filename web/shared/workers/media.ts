import {
  ALL_FORMATS,
  BlobSource,
  EncodedPacketSink,
  Input,
  type InputAudioTrack,
  type InputVideoTrack,
  StreamSource,
  UrlSource,
  VideoSampleSink,
} from 'mediabunny';
import { type Brightness, GRID_CELLS, type RegionTrace } from '#core/audio/measure/index.ts';
import { openWav, type Recording, WavError } from '#core/audio/samples/index.ts';
import type { Luma } from '#core/desk-tests/slates/index.ts';
import { workers as say, textOf } from '#words/index.ts';
import { cellReader, type Grain, REGION_CELLS, type Region, regionReader } from './cells.ts';
import { type DecodedExtent, decodeSound, type Glance, glanceTrack } from './decode.ts';
import { findDecoded, inMemory, placeFor, writeDecoded } from './decoded.ts';
import { wholePagesOf } from './ogg.ts';
import { paced } from './paced.ts';
import { overHoles } from './resume.ts';
import { openBytes, type TakeBytes, type TakeSource } from './take-source.ts';

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
  /** Where stretches begin that could not be decoded, of those scanned so far. */
  readonly holesS: readonly number[];
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
  /** Passes on the key frames of the file, in order, in full. */
  keyFrames(onLuma: (luma: Luma, atMs: number) => void, onProgress?: (done: number) => void): Promise<void>;
}

/** Longer audio is first drawn from a coarse scan, in this many bins. */
export const GLANCE_FROM_S = 300;
export const GLANCE_BINS = 400;

/** Where decoded sound cannot be kept, it is held in memory: its first part. */
const LONGEST_IN_MEMORY_S = 3600;
const BYTES_A_SAMPLE = 4;

/**
 * Opens a WAV by our own reader, anything else by the browser's decoders.
 * @param onGlance  shown a first picture of long sound that has to be decoded
 * @throws Error with a sentence on what to do
 */
export async function openMedia(
  source: TakeSource,
  onProgress: (done: number) => void,
  onGlance?: (glance: Glance) => void,
): Promise<Media> {
  const bytes = await openBytes(source);
  const head = String.fromCharCode(...(await bytes.read(0, 4)));
  if (head === 'RIFF' || head === 'RF64' || head === 'BW64') {
    const close = () => undefined;
    try {
      const sound = await openWav(bytes);
      return { sound, picture: null, notices: (sound.notes ?? []).map(textOf), close };
    } catch (error) {
      if (!(error instanceof WavError) || !error.canBeSalvaged) throw error;
      return {
        sound: await openWav(bytes, { asItIs: true }),
        picture: null,
        notices: [say.whatIsThereWas({ message: error.message })],
        close,
      };
    }
  }
  const input = await openInput(source, bytes);
  const notices: string[] = [];
  const audio = await input.getPrimaryAudioTrack();
  const video = await input.getPrimaryVideoTrack();
  if (!audio && !video) throw new UnreadableTake(NEVER_FINISHED);
  const canHear = audio && (await audio.canDecode());
  const sound = canHear ? await soundOf(audio, bytes, paced(onProgress), onGlance) : null;
  notices.push(...(sound?.notes ?? []).map(textOf));
  if (audio && !canHear) notices.push(sayUndecodable('sound', audio.codec));
  else if (audio && !sound) notices.push(say.itsAudioTrackIs());
  const canSee = video && (await video.canDecode());
  if (video && !canSee) notices.push(sayUndecodable('picture', video.codec));
  if (!sound && !canSee) throw new Error(say.thisBrowserCantDecode({ join: notices.join(' ') }));
  return { sound, picture: canSee ? await openPicture(video) : null, notices, close: () => input[Symbol.dispose]() };
}

/** A file in which there is nothing to be measured, in any browser. */
class UnreadableTake extends Error {
  override readonly name = 'UnreadableTake';
}

const NEVER_FINISHED = say.recordingWasNeverFinalized();

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

/** Why it can't be decoded, by name, and what to do. */
export function sayUndecodable(what: 'sound' | 'picture', codec: string | null): string {
  const named = codec ? say.codedAs({ codec: CODEC_NAMES[codec] ?? codec }) : say.codedUnknown();
  const mend = what === 'sound' ? say.exportItsAudioAs() : say.exportItsVideoAs();
  return say.cannotDecode({ what, named, mend });
}

/** @throws Error with a sentence on what to do */
export async function openInput(source: TakeSource, bytes?: TakeBytes): Promise<Input> {
  const wholeBytes = bytes && (await wholePagesOf(bytes));
  const input = new Input({
    source:
      bytes && wholeBytes !== null
        ? new StreamSource({ getSize: () => wholeBytes!, read: (from, to) => bytes.read(from, to - from) })
        : 'file' in source
          ? new BlobSource(source.file)
          : new UrlSource(source.url),
    formats: ALL_FORMATS,
  });
  if (await input.canRead()) return input;
  throw new UnreadableTake(say.cantReadThisFile());
}

/** All of a track's sound: as it was decoded before, or decoded now and kept; null where there is none in it. */
async function soundOf(
  track: InputAudioTrack,
  bytes: TakeBytes,
  onProgress: (done: number) => void,
  onGlance?: (glance: Glance) => void,
): Promise<Recording | null> {
  const place = await placeFor(bytes, track.id);
  const known = await findDecoded(place);
  if (known) return known;
  const durationS = await lengthOf(track);
  if (onGlance && durationS !== null && durationS > GLANCE_FROM_S) {
    const seen = await glanceTrack(track, durationS, GLANCE_BINS).catch(() => null);
    if (seen) onGlance(seen);
  }
  const frameBytes = track.numberOfChannels * BYTES_A_SAMPLE;
  const expected = durationS === null ? MAX_GROWTH * bytes.size : Math.ceil(durationS * track.sampleRate) * frameBytes;
  const kept = await writeDecoded(place, expected);
  if (kept) {
    try {
      const extent = await decodeSound(track, bytes, durationS ?? Number.POSITIVE_INFINITY, kept, onProgress);
      if (extent.frames > 0) return await kept.finish(await notesOn(track, extent));
      await kept.abandon();
      return null;
    } catch (error) {
      await kept.abandon();
      if (!(error instanceof DOMException && error.name === 'QuotaExceededError')) throw error;
    }
  }
  const held = inMemory();
  const extent = await decodeSound(
    track,
    bytes,
    Math.min(durationS ?? LONGEST_IN_MEMORY_S, LONGEST_IN_MEMORY_S),
    held,
    onProgress,
  );
  if (extent.frames === 0) return null;
  const isCut = durationS === null || durationS > LONGEST_IN_MEMORY_S;
  const notes = isCut ? [say.thisBrowserHasNo()] : await notesOn(track, extent);
  return held.finish(notes);
}

/** Packets of at most this size are silence, coded losslessly, bytes. */
const MAX_GROWTH = 24;

/** Seconds; null where a truncated file doesn't say. */
async function lengthOf(track: InputAudioTrack): Promise<number | null> {
  return track.computeDuration().catch(() => track.getDurationFromMetadata().catch(() => null));
}

/** A track that ends this much before its file's duration is truncated, s. */
const BREAKS_OFF_S = 0.5;

/** What a person should know of sound that is not all there. */
async function notesOn(track: InputAudioTrack, { seconds, holesS }: DecodedExtent): Promise<string[]> {
  // MP4 lists packets whether or not they are there; Matroska gives the total duration.
  const listedS = await lengthOf(track);
  const { input } = track;
  const wholeS = await input.getDurationFromMetadata().catch(() => null);
  const thereS = await input.computeDuration().catch(() => null);
  const notes: string[] = [];
  if (holesS.length > 0)
    notes.push(
      say.fileIsDamagedItsAudio({
        places: holesS.length === 1 ? say.onePlace() : say.places({ holesS: holesS.length }),
        n1: holesS[0]!.toFixed(1),
      }),
    );
  const lacks = listedS !== null && listedS - seconds > BREAKS_OFF_S;
  if (lacks || (wholeS !== null && thereS !== null && wholeS - thereS > BREAKS_OFF_S))
    notes.push(say.fileBreaksOffIt({ n1: seconds.toFixed(1), n12: (lacks ? listedS : wholeS!).toFixed(1) }));
  return notes;
}

async function openPicture(track: InputVideoTrack): Promise<Picture> {
  const sink = new VideoSampleSink(track);
  const durationS = await track.computeDuration();
  const holesS: number[] = [];
  const framesBetween = (fromS: number, toS: number) =>
    overHoles(
      (at) => sink.samples(at, toS),
      fromS,
      toS,
      (atS) => void holesS.push(atS),
    );
  return {
    holesS,
    width: track.displayWidth,
    height: track.displayHeight,
    durationS,
    async brightness(fromS, toS, grain, onProgress, onLuma) {
      const tell = onProgress && paced(onProgress);
      const times: number[] = [];
      const rows: Float32Array[] = [];
      let atMs = 0;
      const read = cellReader(grain, onLuma && ((luma) => onLuma(luma, atMs)));
      for await (const sample of framesBetween(Math.max(0, fromS), toS)) {
        atMs = sample.timestamp * 1000;
        rows.push(await read(sample));
        times.push(sample.timestamp * 1000);
        sample.close();
        tell?.(Math.min(1, (sample.timestamp - fromS) / (toS - fromS)));
      }
      const cells = new Float32Array(rows.length * GRID_CELLS);
      for (const [f, row] of rows.entries()) cells.set(row, f * GRID_CELLS);
      return { timesMs: Float64Array.from(times), cells };
    },
    async region(region, onProgress) {
      const tell = onProgress && paced(onProgress);
      const times: number[] = [];
      const rows: Float32Array[] = [];
      const read = regionReader(region);
      for await (const sample of framesBetween(0, durationS + 1)) {
        rows.push(await read(sample));
        times.push(sample.timestamp * 1000);
        sample.close();
        tell?.(Math.min(1, sample.timestamp / durationS));
      }
      const values = new Float32Array(rows.length * REGION_CELLS);
      for (const [f, row] of rows.entries()) values.set(row, f * REGION_CELLS);
      return { timesMs: Float64Array.from(times), cells: REGION_CELLS, values };
    },
    async keyFrames(onLuma, onProgress) {
      const tell = onProgress && paced(onProgress);
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
        tell?.(Math.min(1, packet.timestamp / durationS));
      }
    },
  };
}
