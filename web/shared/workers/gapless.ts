import {
  type EncodedPacket,
  EncodedPacketSink,
  type InputAudioTrack,
  type InputFormat,
  MATROSKA,
  MP3,
  OGG,
  WEBM,
} from 'mediabunny';
import type { ByteSource } from '#core/audio/samples/index.ts';

/** What an encoder put around the sound, and a player takes off again. */
export interface Padding {
  /** Offset of the first decoded frame from its time stamp, s; negative where earlier. */
  readonly shiftS: number;
  /** End of the audio, s; null where the file doesn't give it to the frame. */
  readonly endS: number | null;
}

const NONE: Padding = { shiftS: 0, endS: null };

/**
 * Data beside the time stamps of a track that align its audio with what went into the encoder.
 * @param firstFrames  how many frames the first packet was decoded to
 */
export async function paddingOf(
  track: InputAudioTrack,
  bytes: ByteSource,
  firstFrames: number,
  rate: number,
): Promise<Padding> {
  const format = await track.input.getFormat();
  if (track.codec === 'mp3' && format === MP3) return paddingOfMp3(bytes, rate);
  if (track.codec === 'opus') return { shiftS: await shiftOfOpus(track, format, firstFrames), endS: null };
  return NONE;
}

const OPUS_RATE_HZ = 48_000;
const PRE_SKIP_AT = 10;

/**
 * A decoder removes the pre-skip of an Opus stream from the first packet (RFC 7845). The time stamp of that
 * packet has been moved by as much already in MP4, by its edit list; in Matroska and Ogg it says where the sound begins.
 */
async function shiftOfOpus(track: InputAudioTrack, format: InputFormat, firstFrames: number): Promise<number> {
  const first = await new EncodedPacketSink(track).getFirstPacket();
  const head = (await track.getDecoderConfig())?.description;
  if (!first || !head) return 0;
  const skippedS = Math.max(0, opusFramesOf(first) - firstFrames) / OPUS_RATE_HZ;
  const view = ArrayBuffer.isView(head) ? new DataView(head.buffer, head.byteOffset) : new DataView(head);
  const told = format === MATROSKA || format === WEBM || format === OGG;
  return skippedS - (told ? view.getUint16(PRE_SKIP_AT, true) / OPUS_RATE_HZ : 0);
}

/** Frames at 48 kHz in a packet, by its first bytes: RFC 6716, section 3. */
export function opusFramesOf({ data }: Pick<EncodedPacket, 'data'>): number {
  const toc = data[0] ?? 0;
  const config = toc >> 3;
  const frames =
    config < 12
      ? [480, 960, 1920, 2880][config & 3]!
      : config < 16
        ? [480, 960][config & 1]!
        : [120, 240, 480, 960][config & 3]!;
  const code = toc & 3;
  return frames * (code === 0 ? 1 : code < 3 ? 2 : (data[1] ?? 0) & 63);
}

/** Decoder delay of MPEG layer III, frames, and one more. */
const MP3_DECODER_DELAY = 529;
const ID3_HEAD = 10;
const FIRST_FRAME_BYTES = 512;
/** The note stands behind the frame's head and its side information. */
const NOTE_WITHIN_BYTES = 48;

/**
 * The first frame of an MP3 may be no sound but a note on it ('Xing' or 'Info'), with how many frames the encoder put
 * before and behind: 12 bits each.
 */
async function paddingOfMp3(bytes: ByteSource, rate: number): Promise<Padding> {
  const start = await bytes.read(0, Math.min(ID3_HEAD, bytes.size));
  const tagged = start.length === ID3_HEAD && String.fromCharCode(...start.subarray(0, 3)) === 'ID3';
  const tagBytes = tagged ? ID3_HEAD + start.subarray(6).reduce((sum, b) => (sum << 7) | (b & 127), 0) : 0;
  const frame = await bytes.read(tagBytes, Math.min(FIRST_FRAME_BYTES, Math.max(0, bytes.size - tagBytes)));
  return readMp3Note(frame, rate) ?? NONE;
}

const NOTE_FLAGS = { frames: 1, bytes: 2, table: 4, quality: 8 } as const;

/** @returns null where the frame holds no such note */
export function readMp3Note(frame: Uint8Array, rate: number): Padding | null {
  const at = ['Xing', 'Info']
    .map((tag) => [...tag].map((c) => c.charCodeAt(0)))
    .map((tag) => frame.subarray(0, NOTE_WITHIN_BYTES).findIndex((_, i) => tag.every((c, k) => frame[i + k] === c)))
    .find((i) => i >= 0);
  if (at === undefined || at + 8 > frame.length) return null;
  const view = new DataView(frame.buffer, frame.byteOffset, frame.byteLength);
  const flags = view.getUint32(at + 4);
  let next = at + 8;
  const frames = flags & NOTE_FLAGS.frames ? view.getUint32(next) : null;
  if (flags & NOTE_FLAGS.frames) next += 4;
  if (flags & NOTE_FLAGS.bytes) next += 4;
  if (flags & NOTE_FLAGS.table) next += 100;
  if (flags & NOTE_FLAGS.quality) next += 4;
  // The encoder's name, a few figures of it, then the two delays.
  const delaysAt = next + 21;
  if (delaysAt + 3 > frame.length || frame[next] === 0) return null;
  const [a, b, c] = [frame[delaysAt]!, frame[delaysAt + 1]!, frame[delaysAt + 2]!];
  const before = (a << 4) | (b >> 4);
  const behind = ((b & 15) << 8) | c;
  const perFrame = rate >= 32_000 ? 1152 : 576;
  return {
    shiftS: -(before + MP3_DECODER_DELAY) / rate,
    endS: frames === null ? null : Math.max(0, frames * perFrame - before - behind) / rate,
  };
}
