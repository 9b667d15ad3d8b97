import { SaidError } from '#core/base/said/index.ts';
import type { Recording } from './recording.ts';
import { say } from './sayings.ts';

/** Frames that are read, coded and handed on together. */
const PIECE_FRAMES = 1 << 17;
const BYTES = 3;
const FULL = 0x7fffff;
const PCM = 1;
/** Sizes are written in 32 bits: a plain WAV holds less than 4 GiB. */
const MAX_BYTES = 0xffffffff - 2000;
/** A broadcast wave's own chunk (EBU Tech 3285): texts, then the time reference, version, loudness, reserve. */
const BEXT_BYTES = 602;
const BEXT_TIME_AT = 338;
const BEXT_VERSION_AT = 346;

export interface WavStreamOptions {
  /** Samples since midnight at which the first frame stands: written as a broadcast wave has it. */
  readonly timeReference?: number;
  readonly onProgress?: (part: number) => void;
}

/**
 * A recording as a WAV of 24 bits, piece by piece: memory does not grow with it.
 * @throws SaidError where it would not fit into a plain WAV
 */
export async function* wavPieces(
  recording: Recording,
  { timeReference, onProgress }: WavStreamOptions = {},
): AsyncGenerator<Uint8Array<ArrayBuffer>> {
  const { channels, frames, sampleRateHz } = recording;
  const dataBytes = frames * channels * BYTES;
  if (dataBytes > MAX_BYTES) throw new SaidError(say.recordingIsTooLong());
  yield header(channels, sampleRateHz, dataBytes, timeReference);
  for (let at = 0; at < frames; at += PIECE_FRAMES) {
    const count = Math.min(PIECE_FRAMES, frames - at);
    yield coded(await recording.read(at, count), count);
    onProgress?.((at + count) / frames);
  }
  if (dataBytes % 2 === 1) yield new Uint8Array(1);
}

function header(channels: number, rate: number, dataBytes: number, timeReference?: number): Uint8Array<ArrayBuffer> {
  const bextBytes = timeReference === undefined ? 0 : 8 + BEXT_BYTES;
  const bytes = new Uint8Array(44 + bextBytes);
  const v = new DataView(bytes.buffer);
  const write = (at: number, text: string) => {
    for (let i = 0; i < text.length; i++) v.setUint8(at + i, text.charCodeAt(i));
  };
  write(0, 'RIFF');
  v.setUint32(4, 36 + bextBytes + dataBytes + (dataBytes % 2), true);
  write(8, 'WAVE');
  let at = 12;
  if (timeReference !== undefined) {
    write(at, 'bext');
    v.setUint32(at + 4, BEXT_BYTES, true);
    v.setBigUint64(at + 8 + BEXT_TIME_AT, BigInt(Math.max(0, Math.round(timeReference))), true);
    v.setUint16(at + 8 + BEXT_VERSION_AT, 1, true);
    at += bextBytes;
  }
  const blockAlign = channels * BYTES;
  write(at, 'fmt ');
  v.setUint32(at + 4, 16, true);
  v.setUint16(at + 8, PCM, true);
  v.setUint16(at + 10, channels, true);
  v.setUint32(at + 12, rate, true);
  v.setUint32(at + 16, rate * blockAlign, true);
  v.setUint16(at + 20, blockAlign, true);
  v.setUint16(at + 22, 8 * BYTES, true);
  write(at + 24, 'data');
  v.setUint32(at + 28, dataBytes, true);
  return bytes;
}

/** Interleaved, 24 bits each; what is beyond full scale is held at it. */
function coded(sides: readonly Float32Array[], count: number): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(count * sides.length * BYTES);
  let o = 0;
  for (let i = 0; i < count; i++)
    for (const x of sides) {
      const value = Math.round(Math.max(-1, Math.min(1, x[i]!)) * FULL);
      out[o++] = value & 255;
      out[o++] = (value >> 8) & 255;
      out[o++] = (value >> 16) & 255;
    }
  return out;
}
