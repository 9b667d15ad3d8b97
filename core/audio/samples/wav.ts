import type { Text } from '#core/base/said/index.ts';
import type { ByteSource } from './bytes.ts';
import { type Layout, layoutOfMask } from './layout.ts';
import { type Recording, usualLayout } from './recording.ts';
import { say } from './sayings.ts';
import { readTrackNames } from './track-names.ts';
import { textOf } from './utf8.ts';
import { WavError } from './wav-error.ts';

type Encoding = 'u8' | 's16' | 's24' | 's32' | 'f32' | 'f64';
const BYTES: Record<Encoding, number> = { u8: 1, s16: 2, s24: 3, s32: 4, f32: 4, f64: 8 };

export interface WavOptions {
  /** Accepts a file that is shorter than its header says, or was never finished. */
  asItIs?: boolean;
}

interface Header {
  encoding: Encoding;
  channels: number;
  sampleRateHz: number;
  layout: Layout | null;
  dataAt: number;
  dataBytes: number;
  trackNames: string[] | null;
  notes: Text[];
}

type Format = Pick<Header, 'encoding' | 'channels' | 'sampleRateHz' | 'layout'>;

const UNFINISHED = say.recordingWasNeverFinalized();

/** A size that says 'not known when I was written', as streamed files have it. */
const UNKNOWN_SIZE = 0xffffffff;
/** What is slower or faster is not sound from a desk, and what is measured of it in seconds would take days or gigabytes. */
const RATES_HZ = { least: 4000, most: 768_000 } as const;

/**
 * Opens RIFF and RF64 WAV: PCM 8, 16, 24, 32 bit and float 32, 64, EXTENSIBLE, any chunk order, any length. Reads the header only.
 * @throws WavError
 */
export async function openWav(source: ByteSource, options: WavOptions = {}): Promise<Recording> {
  const header = await readHeader(source, options.asItIs ?? false);
  const { encoding, channels, sampleRateHz, layout, dataAt, trackNames, notes } = header;
  const frameBytes = BYTES[encoding] * channels;
  const frames = Math.floor(header.dataBytes / frameBytes);
  if (frames === 0) throw new WavError('no-data');
  const bytesOf = async (first: number, count: number): Promise<Uint8Array> => {
    const bytes = await source.read(dataAt + first * frameBytes, count * frameBytes);
    // Typed views need aligned data; most sources hand out a buffer of its own.
    return bytes.byteOffset % 8 === 0 ? bytes : new Uint8Array(bytes);
  };
  /** The part of the requested range that is within the recording. */
  const inside = (start: number, count: number) => {
    const first = Math.min(frames, Math.max(0, start));
    const last = Math.min(frames, Math.max(0, start + count));
    return { first, length: Math.max(0, last - first), at: first - start };
  };
  return {
    sampleRateHz,
    channels,
    frames,
    ...(trackNames && { trackNames }),
    ...(layout && { layout }),
    ...(notes.length > 0 && { notes }),
    async read(start, count) {
      const out = Array.from({ length: channels }, () => new Float32Array(count));
      const { first, length, at } = inside(start, count);
      if (length > 0) {
        const bytes = await bytesOf(first, length);
        if (encoding === 's24' && channels <= 2) decode24(bytes, out, at);
        else for (let c = 0; c < channels; c++) decode(encoding, bytes, channels, c, 1, out[c]!, at);
      }
      return out;
    },
    async readMono(start, count) {
      const out = new Float32Array(count);
      const { first, length, at } = inside(start, count);
      if (length > 0) {
        const bytes = await bytesOf(first, length);
        for (let c = 0; c < channels; c++) decode(encoding, bytes, channels, c, 1 / channels, out, at);
      }
      return out;
    },
  };
}

/** Adds one channel of interleaved data, times `gain`, to `out` from `at` on. Not-a-number counts as silence. */
function decode(
  encoding: Encoding,
  bytes: Uint8Array,
  channels: number,
  channel: number,
  gain: number,
  out: Float32Array,
  at: number,
): void {
  const samples = Math.floor(bytes.length / BYTES[encoding] / channels) * channels;
  const { buffer, byteOffset } = bytes;
  let o = at;
  switch (encoding) {
    case 's16': {
      const x = new Int16Array(buffer, byteOffset, samples);
      const k = gain / 0x8000;
      for (let i = channel; i < samples; i += channels) out[o++]! += x[i]! * k;
      return;
    }
    case 's32': {
      const x = new Int32Array(buffer, byteOffset, samples);
      const k = gain / 0x80000000;
      for (let i = channel; i < samples; i += channels) out[o++]! += x[i]! * k;
      return;
    }
    case 'f32':
    case 'f64': {
      const x =
        encoding === 'f32'
          ? new Float32Array(buffer, byteOffset, samples)
          : new Float64Array(buffer, byteOffset, samples);
      for (let i = channel; i < samples; i += channels, o++) {
        const v = x[i]! * gain;
        if (v - v === 0) out[o]! += v;
      }
      return;
    }
    case 'u8': {
      const k = gain / 0x80;
      for (let i = channel; i < samples; i += channels) out[o++]! += (bytes[i]! - 0x80) * k;
      return;
    }
    case 's24': {
      const k = gain / 0x80000000;
      for (let i = channel * 3, end = samples * 3; i < end; i += channels * 3) {
        out[o++]! += ((bytes[i]! << 8) | (bytes[i + 1]! << 16) | (bytes[i + 2]! << 24)) * k;
      }
      return;
    }
  }
}

/** One or two channels of 24 bits: four samples are three words, which is twice as fast as byte by byte. */
function decode24(bytes: Uint8Array, out: readonly Float32Array[], at: number): void {
  const k = 1 / 0x80000000;
  const channels = out.length;
  const samples = Math.floor(bytes.length / 3 / channels) * channels;
  const fours = Math.floor(samples / 4);
  const words = new Int32Array(bytes.buffer, bytes.byteOffset, 3 * fours);
  const [a, b] = [out[0]!, out[1]];
  let o = at;
  for (let w = 0; w < words.length; w += 3) {
    const w0 = words[w]!;
    const w1 = words[w + 1]!;
    const w2 = words[w + 2]!;
    const s0 = (w0 << 8) * k;
    const s1 = (((w0 >>> 24) << 8) | (w1 << 16)) * k;
    const s2 = (((w1 >>> 16) << 8) | (w2 << 24)) * k;
    const s3 = (w2 & 0xffffff00) * k;
    if (b) {
      a[o] = s0;
      b[o++] = s1;
      a[o] = s2;
      b[o++] = s3;
    } else {
      a[o++] = s0;
      a[o++] = s1;
      a[o++] = s2;
      a[o++] = s3;
    }
  }
  for (let n = 4 * fours; n < samples; n++) {
    const i = 3 * n;
    const value = ((bytes[i]! << 8) | (bytes[i + 1]! << 16) | (bytes[i + 2]! << 24)) * k;
    out[n % channels]![at + Math.floor(n / channels)] = value;
  }
}

async function readHeader(source: ByteSource, asItIs: boolean): Promise<Header> {
  const head = await view(source, 0, 12);
  if (head.byteLength < 12) throw new WavError('not-wav');
  const form = tag(head, 0);
  if ((form !== 'RIFF' && form !== 'RF64' && form !== 'BW64') || tag(head, 8) !== 'WAVE') throw new WavError('not-wav');
  const riffSize = head.getUint32(4, true);
  let format: Format | undefined;
  let data: { at: number; bytes: number; promised: number } | undefined;
  let names: string[] = [];
  let unfinished = false;
  let longSizes: { riff: number; data: number } | undefined;
  for (let at = 12; at + 8 <= source.size; ) {
    const chunk = await view(source, at, 8);
    const id = tag(chunk, 0);
    let size = chunk.getUint32(4, true);
    const body = at + 8;
    if (id === 'ds64') longSizes = readLongSizes(await view(source, body, Math.min(size, 28)));
    else if (id === 'iXML') names = readTrackNames(await text(source, body, Math.min(size, MAX_TEXT_BYTES)));
    else if (id === 'fmt ') format = readFormat(await view(source, body, Math.min(size, 40)));
    else if (id === 'data' && !data) {
      if (size === UNKNOWN_SIZE && longSizes) size = longSizes.data;
      const there = source.size - body;
      // Streamed: neither this size nor that of the whole was known. The sound goes to the end of the file.
      const streamed = size === UNKNOWN_SIZE;
      data = { at: body, bytes: streamed ? there : Math.min(size, there), promised: streamed ? there : size };
      if (streamed) break;
      if (size === 0 && there >= 8 && !(await looksLikeChunk(source, body))) {
        unfinished = true;
        data = { at: body, bytes: there, promised: there };
        break;
      }
    }
    at = body + size + (size % 2);
  }
  if (!format) throw new WavError('no-format');
  if (!data) throw new WavError('no-data');
  const promisedWhole = longSizes?.riff ?? riffSize;
  const wholeIsShort = promisedWhole !== UNKNOWN_SIZE && promisedWhole + 8 > source.size + 1;
  if ((data.promised > data.bytes || wholeIsShort) && !asItIs) {
    const seconds = (bytes: number) =>
      (bytes / (BYTES[format!.encoding] * format!.channels * format!.sampleRateHz)).toFixed(2);
    throw new WavError(
      'cut-short',
      say.sExpectedSThere({
        expected: seconds(Math.max(data.promised, promisedWhole + 8 - data.at)),
        there: seconds(data.bytes),
      }),
    );
  }
  const { channels } = format;
  const trackNames = names.some(Boolean) ? Array.from({ length: channels }, (_, c) => names[c] ?? '') : null;
  const notes = unfinished ? [UNFINISHED] : [];
  return { ...format, dataAt: data.at, dataBytes: data.bytes, trackNames, notes };
}

async function view(source: ByteSource, at: number, length: number): Promise<DataView> {
  const bytes = await source.read(at, Math.max(0, Math.min(length, source.size - at)));
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

/** A chunk longer than a name for each track is not read to its end. */
const MAX_TEXT_BYTES = 1 << 20;
const text = async (source: ByteSource, at: number, length: number): Promise<string> =>
  textOf(await source.read(at, Math.max(0, Math.min(length, source.size - at))));

const tag = (v: DataView, at: number): string =>
  String.fromCharCode(v.getUint8(at), v.getUint8(at + 1), v.getUint8(at + 2), v.getUint8(at + 3));

async function looksLikeChunk(source: ByteSource, at: number): Promise<boolean> {
  const v = await view(source, at, 8);
  return v.byteLength === 8 && /^[A-Za-z0-9 ]{4}$/.test(tag(v, 0)) && at + 8 + v.getUint32(4, true) <= source.size + 1;
}

function readLongSizes(v: DataView): { riff: number; data: number } | undefined {
  if (v.byteLength < 16) return undefined;
  return { riff: Number(v.getBigUint64(0, true)), data: Number(v.getBigUint64(8, true)) };
}

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

function readFormat(v: DataView): Format {
  if (v.byteLength < 16) throw new WavError('no-format');
  let code = v.getUint16(0, true);
  const channels = v.getUint16(2, true);
  const sampleRateHz = v.getUint32(4, true);
  const blockAlign = v.getUint16(12, true);
  const bits = v.getUint16(14, true);
  const extensible = code === EXTENSIBLE;
  if (extensible && v.byteLength >= 26) code = v.getUint16(24, true);
  if (channels === 0) throw new WavError('no-channels');
  if (code !== PCM && code !== FLOAT) throw new WavError('unsupported', say.formatCode({ code }));
  const encoding = encodingOf(code, bits);
  if (!encoding) throw new WavError('unsupported', say.bit({ bits }));
  if (sampleRateHz < RATES_HZ.least || sampleRateHz > RATES_HZ.most)
    throw new WavError('bad-rate', say.hz({ rate: sampleRateHz }));
  if (blockAlign !== BYTES[encoding] * channels)
    throw new WavError('bad-format', say.bytesFrame({ bytes: blockAlign }));
  // A mask of zero says that the channels belong to no speakers: an interface's inputs, for one.
  const mask = extensible && v.byteLength >= 24 ? v.getUint32(20, true) : 0;
  const layout = layoutOfMask(mask, channels) ?? usualLayout(channels);
  return { encoding, channels, sampleRateHz, layout };
}

function encodingOf(code: number, bits: number): Encoding | undefined {
  if (code === FLOAT) return bits === 32 ? 'f32' : bits === 64 ? 'f64' : undefined;
  return ({ 8: 'u8', 16: 's16', 24: 's24', 32: 's32' } as const)[bits];
}
