import { encodeWav, type FftOf, resample, seededNormal } from '#core/audio/samples/index.ts';
import { renderSlateSound, SLATE_RATES, type Slate } from '#core/desk-tests/slates/index.ts';
import { convolve, renderShotSound, roomResponse, type SlateShot, voice } from '#core/desk-tests/stand-ins/index.ts';
import { ratioFromDb } from '#core/model/units/index.ts';

/** What is really so on the quay; tests hold measurements against it. */
export const quayTruth = {
  /** How late each way brings the microphones into the recorder, ms. */
  waysMs: { jack: 1.4, radio: 27.9, usb: 12.6 },
  /** The camera's picture stands so much later in its file than the sound of its own jack. */
  cameraPictureMs: 71.3,
  cameraSoundMs: 4.2,
  /** When each recorder was started, s of the session; how much faster its clock counts. */
  first: { startS: 0.8, ppm: 42 },
  second: { startS: 2.35, ppm: -23 },
  /** The second lost a buffer: at that time of its own, so much. */
  lost: { atS: 27.4, ms: 1024 / 48 },
  /** The slate is held up at the start and at the end, s of the session. */
  slateUpS: [
    [2.5, 9.5],
    [34.5, 41],
  ] as const,
} as const;

export const QUAY_SECONDS = 44;
const RATE_HZ = 16_000;
const SEED = 20260520;
const SLATE: Slate = { rate: SLATE_RATES[4]!, id: 1 };
/** The slate was started before anyone recorded, and runs on in the pocket. */
const SLATE_ZERO_S = -3.2046;
const TALK_DB = -6;
const SLATE_DB = -4;
const FLOOR_DBFS = -68;

/** The camera's own view of the slate in somebody's hands, at the start and at the end. */
export const quayShot: SlateShot = {
  slate: SLATE,
  width: 480,
  height: 270,
  rateHz: 30_000 / 1001,
  seconds: QUAY_SECONDS,
  zeroMs: 1000 * SLATE_ZERO_S + quayTruth.cameraPictureMs,
  exposureMs: 8,
  light: true,
  gain: 0.9,
  noise: 2,
  black: 22,
  place: { x: 0.46, y: 0.52, scale: 0.42, turn: -0.06, lean: 0.08 },
  heldUpMs: quayTruth.slateUpS.map(([a, b]) => [1000 * a, 1000 * b] as const),
  seed: SEED,
};

/** What the camera's own jack hears of the slate and of both who talk, 48 kHz: it goes with the picture into the video. */
export function renderQuayCameraSound(): Float32Array {
  const rate = 48_000;
  const slate = renderShotSound(quayShot, quayTruth.cameraSoundMs - quayTruth.cameraPictureMs, rate);
  const talk = talkOfBoth(rate);
  const late = Math.round((quayTruth.cameraSoundMs / 1000) * rate);
  return slate.map((v, i) => 0.5 * v + ratioFromDb(TALK_DB - 6) * (talk[i - late] ?? 0));
}

const talks = new Map<number, Float32Array>();
function talkOfBoth(rate: number): Float32Array {
  const known = talks.get(rate);
  if (known) return known;
  const frames = (QUAY_SECONDS + 4) * rate;
  const [host, guest] = [voice(128)(frames, rate, SEED), voice(212)(frames, rate, SEED + 5)];
  // They take turns, a few seconds each, and now and then speak at once.
  const both = host.map((v, i) => {
    const turn = Math.sin((2 * Math.PI * i) / rate / 11);
    return v * (turn > -0.15 ? 1 : 0) + guest[i]! * (turn < 0.15 ? 1 : 0);
  });
  talks.set(rate, both);
  return both;
}

/** All that sounds on the quay, from the session's zero on. */
function session(): Float32Array {
  const talk = talkOfBoth(RATE_HZ);
  const offset = -SLATE_ZERO_S * RATE_HZ;
  const film = renderSlateSound(SLATE, QUAY_SECONDS + 8, RATE_HZ);
  const beats = resample(film, offset, 1, talk.length);
  const isUp = (s: number) => quayTruth.slateUpS.some(([a, b]) => s >= a && s < b);
  return talk.map((v, i) => ratioFromDb(TALK_DB) * v + (isUp(i / RATE_HZ) ? ratioFromDb(SLATE_DB) * beats[i]! : 0));
}

function noisy(x: Float32Array, seed: number): Float32Array {
  const normal = seededNormal(seed);
  const floor = ratioFromDb(FLOOR_DBFS);
  return x.map((v) => v + floor * normal());
}

/** One recorder, its microphone brought in by three ways at once: each with another delay. */
export function renderThreeWays(fftOf: FftOf): Uint8Array<ArrayBuffer> {
  const heard = convolve(fftOf, session(), roomResponse(RATE_HZ, 0.25, 9, SEED + 2));
  const { jack, radio, usb } = quayTruth.waysMs;
  const tracks = [jack, radio, usb].map((ms, n) =>
    noisy(resample(heard, (-ms * RATE_HZ) / 1000, 1, QUAY_SECONDS * RATE_HZ), SEED + 20 + n),
  );
  return encodeWav(tracks, RATE_HZ, ['Lapel, own jack', 'Radio, by the camera', 'Interface, by USB']);
}

/** A recorder in the hand, on a clock of its own; the second lost a buffer on the way. */
export const renderQuayRecorder = (which: 'first' | 'second') => (fftOf: FftOf) => {
  const { startS, ppm } = quayTruth[which];
  const heard = convolve(fftOf, session(), roomResponse(RATE_HZ, 0.35, 6, SEED + (which === 'first' ? 3 : 4)));
  const frames = Math.round((QUAY_SECONDS - 3) * RATE_HZ);
  let x = resample(heard, startS * RATE_HZ, 1 / (1 + ppm * 1e-6), frames);
  if (which === 'second') {
    const { atS, ms } = quayTruth.lost;
    const at = Math.round(atS * RATE_HZ);
    const lost = Math.round((ms * RATE_HZ) / 1000);
    const joined = new Float32Array(x.length - lost);
    joined.set(x.subarray(0, at));
    joined.set(x.subarray(at + lost), at);
    x = joined;
  }
  return encodeWav([noisy(x, SEED + (which === 'first' ? 30 : 31))], RATE_HZ);
};
