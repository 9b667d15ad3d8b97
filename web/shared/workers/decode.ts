import { AudioSampleSink, type InputAudioTrack } from 'mediabunny';
import { type ByteSource, type Layout, layoutOfCount, type Peaks } from '#core/audio/samples/index.ts';
import { paddingOf } from './gapless.ts';
import { overHoles } from './resume.ts';

/** What decoded sound turned out to be: known when its first piece is there. */
export interface DecodedFormat {
  readonly sampleRateHz: number;
  readonly channels: number;
  readonly layout: Layout | null;
}

/** Takes decoded sound in order, without gaps. */
export interface SoundSink {
  begin(format: DecodedFormat): void | Promise<void>;
  /** Frames per channel; the rest of the buffer is not theirs. Read at once: the buffer is reused. */
  write(channels: readonly Float32Array[], frames: number): void | Promise<void>;
}

/** What can be said of sound before all of it was decoded. */
export interface Glance {
  readonly peaks: Peaks;
  readonly format: DecodedFormat;
  readonly frames: number;
}

/**
 * A first picture of a long track: of every bin a moment is decoded. Its extremes are those of what was decoded.
 * @returns also how many frames the whole is likely to have
 */
export async function glanceTrack(track: InputAudioTrack, durationS: number, bins: number): Promise<Glance | null> {
  const times = Array.from({ length: bins }, (_, b) => ((b + 0.5) * durationS) / bins);
  const [low, high] = [new Float32Array(bins), new Float32Array(bins)];
  let format: DecodedFormat | null = null;
  let bin = -1;
  let plane = new Float32Array(0);
  for await (const sample of new AudioSampleSink(track).samplesAtTimestamps(times)) {
    bin++;
    if (!sample) continue;
    const { sampleRate: sampleRateHz, numberOfChannels: channels, numberOfFrames: count } = sample;
    format ??= { sampleRateHz, channels, layout: await layoutOf(track, channels) };
    if (plane.length < count) plane = new Float32Array(count);
    const mono = new Float32Array(count);
    for (let c = 0; c < channels; c++) {
      sample.copyTo(plane, { planeIndex: c, format: 'f32-planar' });
      for (let i = 0; i < count; i++) mono[i]! += plane[i]! / channels;
    }
    sample.close();
    low[bin] = mono.reduce((least, v) => Math.min(least, v), mono[0] ?? 0);
    high[bin] = mono.reduce((most, v) => Math.max(most, v), mono[0] ?? 0);
  }
  if (!format) return null;
  const frames = Math.round(durationS * format.sampleRateHz);
  const framesPerBin = frames / bins;
  return { peaks: { framesPerBin, sampleRateHz: format.sampleRateHz, low, high }, format, frames };
}

export interface DecodedExtent {
  readonly frames: number;
  readonly seconds: number;
  /** Where places begin that could not be decoded. */
  readonly holesS: readonly number[];
}

/** A piece whose time stamp is off by more than this from where the last one ended stands elsewhere: sound is missing. */
const GAP_S = 0.02;
const SILENCE_FRAMES = 1 << 14;

/**
 * All of a track, at its decoder's sample rate and channel count, from the file's time 0 on. Pieces go
 * on where the last one ended, since time stamps are rounded in some files; where one is far off, there is silence.
 * @param toS  where to stop, seconds; Infinity for all of it
 */
export async function decodeSound(
  track: InputAudioTrack,
  bytes: ByteSource,
  toS: number,
  sink: SoundSink,
  onProgress: (done: number) => void,
): Promise<DecodedExtent> {
  let format: DecodedFormat | null = null;
  let planes: Float32Array[] = [];
  let written = 0;
  let next: number | null = null;
  let shift = 0;
  let end = Number.POSITIVE_INFINITY;
  const silence = async (frames: number, channels: number) => {
    const nothing = Array.from({ length: channels }, () => new Float32Array(Math.min(frames, SILENCE_FRAMES)));
    for (let left = frames; left > 0; left -= SILENCE_FRAMES) await sink.write(nothing, Math.min(left, SILENCE_FRAMES));
    written += Math.max(0, frames);
  };
  const samples = new AudioSampleSink(track);
  const holesS: number[] = [];
  const onHole = (atS: number) => {
    holesS.push(atS);
    next = null;
  };
  for await (const sample of overHoles((fromS) => samples.samples(fromS, toS), undefined, toS, onHole)) {
    const count = sample.numberOfFrames;
    if (!format) {
      const { sampleRate: sampleRateHz, numberOfChannels: channels } = sample;
      format = { sampleRateHz, channels, layout: await layoutOf(track, channels) };
      const { shiftS, endS } = await paddingOf(track, bytes, count, sampleRateHz);
      shift = shiftS;
      if (endS !== null) end = Math.round(endS * sampleRateHz);
      await sink.begin(format);
    }
    const { sampleRateHz, channels } = format;
    const stamped = Math.round((sample.timestamp + shift) * sampleRateHz);
    const at: number = next !== null && Math.abs(stamped - next) < GAP_S * sampleRateHz ? next : stamped;
    next = at + count;
    if (planes.length < channels || planes[0]!.length < count)
      planes = Array.from({ length: channels }, () => new Float32Array(count));
    for (let c = 0; c < channels; c++)
      sample.copyTo(planes[c]!, { planeIndex: Math.min(c, sample.numberOfChannels - 1), format: 'f32-planar' });
    if (Number.isFinite(toS)) onProgress(Math.min(1, sample.timestamp / toS));
    sample.close();
    if (at > written) await silence(Math.min(at, end) - written, channels);
    // Samples before the beginning, and repeated ones, are left out.
    const from = Math.max(0, written - at);
    const frames = Math.min(count, end - at) - from;
    if (frames <= 0) continue;
    await sink.write(from === 0 ? planes : planes.map((p) => p.subarray(from)), frames);
    written += frames;
  }
  return { frames: written, seconds: format ? written / format.sampleRateHz : 0, holesS };
}

const FOUR_WITH_BACK: Layout = ['front-left', 'front-right', 'front-center', 'back-center'];
const MAPPING_FAMILY_AT = 18;

/** Decoders hand channels out in the order of WAVE; Opus alone may say that they belong to no speakers. */
async function layoutOf(track: InputAudioTrack, channels: number): Promise<Layout | null> {
  if (track.codec === 'opus' && channels > 2) {
    const head = (await track.getDecoderConfig())?.description;
    const view =
      head && (ArrayBuffer.isView(head) ? new Uint8Array(head.buffer, head.byteOffset) : new Uint8Array(head));
    if (view && view[MAPPING_FAMILY_AT] !== 1) return null;
  }
  // MPEG-4's four channels have one behind the listener, not two.
  return channels === 4 && track.codec === 'aac' ? FOUR_WITH_BACK : layoutOfCount(channels);
}
