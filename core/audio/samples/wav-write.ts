import { type Layout, maskOf } from './layout.ts';
import { writeTrackNames } from './track-names.ts';
import { utf8 } from './utf8.ts';

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;
const FLOAT_BYTES = 4;
/** How a size is written that is not known yet: the sound goes to the end of the file. */
const UNKNOWN_SIZE = 0xffffffff;
/** What follows the format's code in EXTENSIBLE's 16 bytes. */
const SUBFORMAT_REST = [0, 0, 0, 0, 0x10, 0, 0x80, 0, 0, 0xaa, 0, 0x38, 0x9b, 0x71];

/** The head of a WAV of 32-bit floats whose length is not known yet: interleaved samples follow. */
export function wavHeader({
  channels,
  sampleRateHz,
  layout,
}: {
  channels: number;
  sampleRateHz: number;
  layout: Layout | null;
}): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(68);
  const v = new DataView(bytes.buffer);
  writeText(v, 0, 'RIFF');
  v.setUint32(4, UNKNOWN_SIZE, true);
  writeText(v, 8, 'WAVEfmt ');
  v.setUint32(16, 40, true);
  v.setUint16(20, EXTENSIBLE, true);
  v.setUint16(22, channels, true);
  v.setUint32(24, sampleRateHz, true);
  v.setUint32(28, sampleRateHz * channels * FLOAT_BYTES, true);
  v.setUint16(32, channels * FLOAT_BYTES, true);
  v.setUint16(34, 8 * FLOAT_BYTES, true);
  v.setUint16(36, 22, true);
  v.setUint16(38, 8 * FLOAT_BYTES, true);
  v.setUint32(40, layout ? maskOf(layout) : 0, true);
  v.setUint16(44, FLOAT, true);
  bytes.set(SUBFORMAT_REST, 46);
  writeText(v, 60, 'data');
  v.setUint32(64, UNKNOWN_SIZE, true);
  return bytes;
}

const writeText = (v: DataView, at: number, text: string): void => {
  for (let i = 0; i < text.length; i++) v.setUint8(at + i, text.charCodeAt(i));
};

/**
 * A 16-bit PCM WAV of the channels given, all of one length; values beyond full scale are held at it.
 * @param trackNames  written as an iXML chunk after the sound, where given
 */
export function encodeWav(
  channels: readonly Float32Array[],
  sampleRateHz: number,
  trackNames?: readonly string[],
): Uint8Array<ArrayBuffer> {
  const frames = channels[0]?.length ?? 0;
  const blockAlign = 2 * channels.length;
  const dataBytes = frames * blockAlign;
  const names = trackNames ? utf8(writeTrackNames(trackNames)) : new Uint8Array();
  const namesBytes = trackNames ? 8 + names.length + (names.length % 2) : 0;
  const bytes = new Uint8Array(44 + dataBytes + namesBytes);
  const v = new DataView(bytes.buffer);
  const write = (at: number, text: string) => writeText(v, at, text);
  write(0, 'RIFF');
  v.setUint32(4, 36 + dataBytes + namesBytes, true);
  write(8, 'WAVEfmt ');
  v.setUint32(16, 16, true);
  v.setUint16(20, PCM, true);
  v.setUint16(22, channels.length, true);
  v.setUint32(24, sampleRateHz, true);
  v.setUint32(28, sampleRateHz * blockAlign, true);
  v.setUint16(32, blockAlign, true);
  v.setUint16(34, 16, true);
  write(36, 'data');
  v.setUint32(40, dataBytes, true);
  const out = new Int16Array(bytes.buffer, 44, dataBytes / 2);
  channels.forEach((channel, c) => {
    for (let i = 0; i < frames; i++)
      out[i * channels.length + c] = Math.round(Math.max(-1, Math.min(32767 / 32768, channel[i]!)) * 0x8000);
  });
  if (trackNames) {
    write(44 + dataBytes, 'iXML');
    v.setUint32(48 + dataBytes, names.length, true);
    bytes.set(names, 52 + dataBytes);
  }
  return bytes;
}
