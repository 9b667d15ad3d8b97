import { expose, transfer } from 'comlink';
import { quantile } from 'd3-array';
import { type ClockReading, clockBetween, type Heard } from '#core/desk-tests/scan/index.ts';

/** A piece of an input, as the browser hands it over. */
interface Piece {
  readonly frame: number;
  readonly channels: readonly Float32Array[];
}
interface Ear {
  sampleRateHz: number;
  frames: number;
  pieces: Piece[];
  readings: Stamp[];
}
/** A piece's stamp, whatever it counts from: as the page's clock for now. */
interface Stamp extends ClockReading {
  /** How long after the end that its stamp gives it the piece was here, s. */
  readonly lagS: number;
}

const CHANNELS = 2;
const ears = new Map<string, Ear>();

/** Inputs of this computer, recorded whole, each by its own clock and with when each piece was taken by the page's. */
const api = {
  /**
   * Records until the stream ends.
   * @param originMs  where the page's clock begins, ms of the epoch
   */
  async listen(inputId: string, originMs: number, pieces: ReadableStream<AudioData>): Promise<void> {
    const ear: Ear = { sampleRateHz: 0, frames: 0, pieces: [], readings: [] };
    ears.set(inputId, ear);
    const reader = pieces.getReader();
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      const channels = Array.from({ length: Math.min(CHANNELS, value.numberOfChannels) }, (_, planeIndex) => {
        const samples = new Float32Array(value.numberOfFrames);
        value.copyTo(samples, { planeIndex, format: 'f32-planar' });
        return samples;
      });
      ear.sampleRateHz = value.sampleRate;
      ear.pieces.push({ frame: ear.frames, channels });
      const stampS = value.timestamp / 1e6;
      const pageS = (performance.timeOrigin - originMs + performance.now()) / 1000;
      const lagS = pageS - stampS - value.numberOfFrames / value.sampleRate;
      ear.readings.push({ ownS: ear.frames / value.sampleRate, pageS: stampS, lagS });
      ear.frames += value.numberOfFrames;
      value.close();
    }
  },
  /** @returns what each input heard between two times of the page, s; what came before is forgotten */
  take(fromS: number, untilS: number): Heard[] {
    // Stamps count from another moment in each browser: what was soonest here was stamped just before.
    const stampedS = Math.min(...[...ears.values()].map(({ readings }) => soonest(readings)));
    const taken = [...ears].flatMap(
      ([inputId, ear]) => takeOf(inputId, ear, fromS - stampedS, untilS - stampedS, stampedS) ?? [],
    );
    return transfer(
      taken,
      taken.flatMap((h) => h.channels.map((c) => c.buffer as ArrayBuffer)),
    );
  },
};

/** Stamps of this long before a round tell the clock too, s. */
const CLOCK_S = 60;

/** The lag of pieces that hardly waited; single ones are stamped wrong when an input is opened. */
function soonest(readings: readonly Stamp[]): number {
  return quantile(readings.slice(-RECENT), SOON, (r) => r.lagS) ?? Number.POSITIVE_INFINITY;
}
const RECENT = 500;
const SOON = 0.05;

/** @param stampedS  the page's clock when stamps were 0 */
function takeOf(inputId: string, ear: Ear, fromS: number, untilS: number, stampedS: number): Heard | null {
  ear.readings = ear.readings.filter((r) => r.pageS > fromS - CLOCK_S);
  const line = clockBetween(ear.readings, fromS, untilS);
  if (!line) return null;
  const rate = ear.sampleRateHz;
  const frameAt = (stampS: number) => Math.round(((stampS - line.offsetS) / line.rate) * rate);
  const firstFrame = Math.max(0, frameAt(fromS));
  const frames = Math.max(0, Math.min(ear.frames, frameAt(untilS)) - firstFrame);
  ear.pieces = ear.pieces.filter((p) => p.frame + p.channels[0]!.length > firstFrame);
  const count = ear.pieces[0]?.channels.length ?? 0;
  if (frames === 0 || count === 0) return null;
  const channels = Array.from({ length: count }, () => new Float32Array(frames));
  for (const { frame, channels: piece } of ear.pieces)
    for (const [n, out] of channels.entries()) {
      const samples = piece[n] ?? piece[0]!;
      const from = Math.max(0, firstFrame - frame);
      const until = Math.min(samples.length, firstFrame + frames - frame);
      if (until > from) out.set(samples.subarray(from, until), frame + from - firstFrame);
    }
  return {
    inputId,
    sampleRateHz: rate,
    fromS: (firstFrame / rate) * line.rate + line.offsetS + stampedS,
    clock: 1 / line.rate,
    firstFrame,
    channels,
    isSteady: line.isSteady,
  };
}

export type EarsApi = typeof api;
expose(api);
