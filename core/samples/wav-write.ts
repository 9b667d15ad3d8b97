import { writeTrackNames } from './track-names.ts';
import { utf8 } from './utf8.ts';

const PCM = 1;

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
  const write = (at: number, text: string) => {
    for (let i = 0; i < text.length; i++) v.setUint8(at + i, text.charCodeAt(i));
  };
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
