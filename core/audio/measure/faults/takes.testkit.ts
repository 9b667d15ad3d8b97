import { type FftOf, type Recording, recordingOf, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { convolve, game, hum, jingle, noise, roomResponse, voice } from '#core/desk-tests/stand-ins/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';
import type { FaultId } from './fault.ts';

/** A take as samples, one array a channel, as a file of 16 bits would hold it. */
export interface Take {
  readonly rate: number;
  readonly channels: Float32Array[];
  /** What it is, for the one who reads a table. */
  readonly what: string;
}

export const recordingOfTake = ({ channels, rate }: Take): Recording => recordingOf(channels, rate);

const between = (random: () => number, low: number, high: number): number => low + (high - low) * random();
const pick = <T>(random: () => number, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

const addTo = (x: Float32Array, y: Float32Array, gain: number): void => {
  for (let i = 0; i < x.length; i++) x[i]! += gain * y[i]!;
};

function scaleTo(channels: readonly Float32Array[], peak: number): void {
  let most = 0;
  for (const x of channels) for (let i = 0; i < x.length; i++) most = Math.max(most, Math.abs(x[i]!));
  for (const x of channels) for (let i = 0; i < x.length; i++) x[i]! *= peak / most;
}

/** What a converter of 16 bits makes of it: held to full scale, in steps, with a step's dither. */
function stored(take: Take, seed: number): Take {
  const random = seededRandom(seed);
  const channels = take.channels.map((x) =>
    x.map((v) => Math.max(-32768, Math.min(32767, Math.round(v * 32768 + random() - random()))) / 32768),
  );
  return { ...take, channels };
}

const KINDS = ['voice', 'two voices', 'game', 'music', 'voice over game', 'voice over music'] as const;

/** A take with nothing wrong: voices in rooms with a low floor, games, music and mixes of them, mono and stereo. */
export function cleanTake(fftOf: FftOf, seed: number): Take {
  const random = seededRandom(seed);
  const rate = pick(random, [48_000, 44_100, 48_000, 32_000]);
  const frames = Math.round(rate * between(random, 8, 13));
  const kind = KINDS[seed % KINDS.length]!;
  const stereo = random() < 0.5;
  const floorDb = between(random, -80, -68);
  const room = roomResponse(rate, between(random, 0.15, 0.5), between(random, 4, 12), seed + 5);
  const speak = (n: number) => convolve(fftOf, voice(between(random, 85, 215))(frames, rate, seed + n), room);
  const layers: { x: Float32Array; gain: number; pan: number }[] = [];
  const add = (x: Float32Array, gain: number, pan: number) => layers.push({ x, gain, pan });
  if (kind.startsWith('voice') || kind === 'two voices') add(speak(11), 1, between(random, 0.06, 0.15));
  if (kind === 'two voices') add(speak(12), 0.9, between(random, 0.2, 0.4));
  const under = kind.startsWith('voice') ? ratioFromDb(-between(random, 9, 16)) : 1;
  for (const [word, make] of [['game', game] as const, ['music', jingle] as const]) {
    if (!kind.includes(word)) continue;
    // A little of it is different on the two sides, as games and music are.
    add(make(frames, rate, seed + 21), under, -0.35);
    add(make(frames, rate, seed + 22), under * 0.8, 0.4);
  }
  const channels = (stereo ? [-1, 1] : [0]).map((side, c) => {
    const x = new Float32Array(frames);
    for (const layer of layers) addTo(x, layer.x, layer.gain * (1 + side * layer.pan));
    return { x, c };
  });
  scaleTo(
    channels.map(({ x }) => x),
    ratioFromDb(between(random, -14, -3)),
  );
  for (const { x, c } of channels) addTo(x, noise(frames, rate, seed + 31 + c), 10 * ratioFromDb(floorDb));
  const what = `${kind}, ${stereo ? 'stereo' : 'mono'}, ${rate / 1000} kHz`;
  return stored({ rate, channels: channels.map(({ x }) => x), what }, seed + 41);
}

const stereoOf = (take: Take): Take =>
  take.channels.length === 2 ? take : { ...take, channels: [take.channels[0]!, take.channels[0]!.slice()] };

/** A clean take with one fault put in, from faint to plain: strength 0 to 1. */
export function faultyTake(fftOf: FftOf, id: FaultId, strength: number, seed: number): Take {
  const random = seededRandom(seed + 1000);
  const clean = cleanTake(fftOf, seed);
  const { rate } = clean;
  const frames = clean.channels[0]!.length;
  const copy: Take = { ...clean, channels: clean.channels.map((x) => x.slice()) };
  const each = (make: (x: Float32Array, c: number) => Float32Array): Take => ({
    ...copy,
    channels: copy.channels.map(make),
  });
  const scaled = (gain: number) => (x: Float32Array) => x.map((v) => v * gain);
  const done = (take: Take) => stored(take, seed + 51);
  const at = (low: number, high: number) => low + (high - low) * strength;
  switch (id) {
    case 'hum-50':
    case 'hum-60': {
      const mains = hum(id === 'hum-50' ? 50 : 60)(frames, rate, 0);
      for (const x of copy.channels) addTo(x, mains, 10 * ratioFromDb(at(-58, -30)));
      return done(copy);
    }
    case 'hiss':
      copy.channels.forEach((x, c) => {
        addTo(x, noise(frames, rate, seed + 61 + c), 10 * ratioFromDb(at(-48, -30)));
      });
      return done(copy);
    case 'clipping': {
      scaleTo(copy.channels, 1);
      const gain = ratioFromDb(at(1.5, 14));
      const after = random() < 0.5 ? 1 : ratioFromDb(-between(random, 2, 12));
      return done(each((x) => x.map((v) => after * Math.max(-1, Math.min(1, v * gain)))));
    }
    case 'one-sided': {
      const both = stereoOf(copy);
      return done({
        ...both,
        channels: [both.channels[0]!, scaled(strength > 0.8 ? 0 : ratioFromDb(-at(20, 50)))(both.channels[1]!)],
      });
    }
    case 'polarity-inverted': {
      const x = copy.channels[0]!;
      const other = x.map((v) => -v * ratioFromDb(-between(random, 0, 4)));
      addTo(other, noise(frames, rate, seed + 71), 10 * ratioFromDb(-70));
      return done({ ...copy, channels: [x, other] });
    }
    case 'echo': {
      const by = Math.round(rate * between(random, 0.04, 0.5));
      const gain = ratioFromDb(at(-17, -5));
      return done(each((x) => x.map((v, i) => v + gain * (x[i - by] ?? 0))));
    }
    case 'dropouts': {
      const length = Math.round((rate * at(2, 60)) / 1000);
      const repeats = random() < 0.4;
      for (let n = 0; n < 4; n++) {
        const from = loudPlace(
          copy.channels[0]!,
          Math.round(rate * (0.5 + (n * (frames / rate - 1.5)) / 4)),
          length,
          rate,
        );
        for (const x of copy.channels) {
          if (repeats) x.copyWithin(from, from - length, from);
          else x.fill(0, from, from + length);
        }
      }
      // Nothing is stored again: what was lost was lost in the file's own samples.
      return copy;
    }
    case 'dc-offset':
      return done(each((x) => x.map((v) => v + at(0.004, 0.06))));
    case 'silent': {
      const normal = seededNormal(seed + 81);
      return done(each((x) => x.map(() => (strength > 0.5 ? 0 : 1e-4 * normal()))));
    }
    case 'too-quiet':
      return done(each(scaled(ratioFromDb(-at(26, 40)))));
    case 'too-hot': {
      scaleTo(copy.channels, ratioFromDb(at(-0.3, -0.02)));
      return done(copy);
    }
    case 'dual-mono':
      return { ...copy, channels: [copy.channels[0]!, copy.channels[0]!.slice()] };
  }
}

/** A place from `from` on in the midst of sound. */
function loudPlace(x: Float32Array, from: number, length: number, rate: number): number {
  const beside = Math.round(0.03 * rate);
  const power = (a: number, b: number) => {
    let sum = 0;
    for (let i = a; i < b; i++) sum += x[i]! * x[i]!;
    return sum / (b - a);
  };
  let best = from;
  let most = 0;
  for (let at = from; at < from + rate && at + length + beside < x.length; at += beside) {
    const least = Math.min(power(at - beside, at), power(at + length, at + length + beside));
    if (least > most) [best, most] = [at, least];
  }
  return best;
}
