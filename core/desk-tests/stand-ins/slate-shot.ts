import { resample, seededNormal } from '#core/audio/samples/index.ts';
import { type Luma, renderSlateSound, type Slate, slateLayout, whiteBoxes } from '#core/desk-tests/slates/index.ts';
import { hertz } from '#core/model/units/index.ts';

/** A screen that shows a slate, seen by a camera or taken directly. */
export interface SlateShot {
  readonly slate: Slate;
  readonly width: number;
  readonly height: number;
  readonly rateHz: number;
  readonly seconds: number;
  /** The slate's zero in the take, ms; its clock against the take's. */
  readonly zeroMs: number;
  readonly ppm?: number;
  /** How long each picture gathers light, ms; 0 for a picture handed on. */
  readonly exposureMs?: number;
  /** Stored by a camera's curve, or mixed as it is stored. */
  readonly light?: boolean;
  readonly gain?: number;
  readonly noise?: number;
  /** Brightness of black; of what stands round the screen. */
  readonly black?: number;
  /** Position of the display in the frame: center and half axes, as fractions of the width; the whole frame where absent. */
  readonly place?: {
    readonly x: number;
    readonly y: number;
    readonly scale: number;
    readonly turn: number;
    readonly lean: number;
  };
  /** When the screen is held up, ms of the take; always, where absent. It runs on meanwhile. */
  readonly heldUpMs?: readonly (readonly [fromMs: number, toMs: number])[];
  readonly seed?: number;
}

/** One picture of the shot: luma with the slate's frames mixed as the shutter has it. */
export function renderSlateShot(shot: SlateShot, index: number): Luma {
  const { width, height, slate } = shot;
  const bytes = new Uint8Array(width * height);
  const atMs = (1000 * index) / shot.rateHz;
  const rate = hertz(slate.rate) / (1 + (shot.ppm ?? 0) * 1e-6);
  const exposure = shot.exposureMs ?? 0;
  const from = ((atMs - exposure / 2 - shot.zeroMs) / 1000) * rate;
  const to = ((atMs + exposure / 2 - shot.zeroMs) / 1000) * rate;
  const first = Math.floor(from + 1e-9);
  const shares = Array.from({ length: Math.max(1, Math.ceil(to - 1e-9) - first) }, (_, i) =>
    exposure === 0 ? 1 : (Math.min(to, first + i + 1) - Math.max(from, first + i)) / (to - from),
  );
  const screenWidth = 480;
  const screenHeight = 270;
  const layout = slateLayout(screenWidth, screenHeight);
  const raster = (frame: number) => {
    const out = new Uint8Array(screenWidth * screenHeight);
    for (const b of whiteBoxes(slate, frame, layout))
      for (let y = b.y; y < b.y + b.height; y++) out.fill(1, y * screenWidth + b.x, y * screenWidth + b.x + b.width);
    return out;
  };
  const seen = new Float32Array(screenWidth * screenHeight);
  shares.forEach((share, k) => {
    const lit = raster(first + k);
    for (let i = 0; i < seen.length; i++) seen[i]! += share * lit[i]!;
  });
  if (shot.light) for (let i = 0; i < seen.length; i++) seen[i]! **= 1 / 2.2;
  const isUp = shot.heldUpMs?.some(([a, b]) => atMs >= a && atMs < b) ?? true;
  const places = placesOf(shot, screenWidth, screenHeight);
  let grain = ((shot.seed ?? 1) * 7919 + index * 104_729) % GRAIN.length;
  const { black = 16, gain = 1, noise = 0 } = shot;
  for (let i = 0; i < bytes.length; i++) {
    const at = isUp ? places[i]! : -1;
    const v = at < 0 ? black + 60 + 20 * Math.sin((i % width) / 31) : black + 200 * seen[at]!;
    grain = (grain + 1) % GRAIN.length;
    bytes[i] = Math.max(0, Math.min(255, v * gain + noise * GRAIN[grain]!));
  }
  return { width, height, stride: width, bytes };
}

/** Noise is drawn once, and read from another place for each picture. */
const GRAIN = (() => {
  const normal = seededNormal(17);
  return Float32Array.from({ length: 262_139 }, () => normal());
})();

const known = new WeakMap<SlateShot, Int32Array>();

/** For each pixel the one of the screen that it looks at; -1 beside it. */
function placesOf(shot: SlateShot, w: number, h: number): Int32Array {
  const places = known.get(shot) ?? new Int32Array(shot.width * shot.height);
  if (!known.has(shot)) {
    for (let i = 0; i < places.length; i++) {
      const at = onScreen(shot, (i % shot.width) + 0.5, Math.floor(i / shot.width) + 0.5, w, h);
      places[i] = at ? Math.min(h - 1, Math.floor(at[1])) * w + Math.min(w - 1, Math.floor(at[0])) : -1;
    }
    known.set(shot, places);
  }
  return places;
}

/** Where on the screen a pixel looks; null beside it. */
function onScreen(
  { place, width, height }: SlateShot,
  x: number,
  y: number,
  w: number,
  h: number,
): [number, number] | null {
  if (!place) return [(x * w) / width, (y * h) / height];
  const dx = (x - place.x * width) / (place.scale * width);
  const dy = (y - place.y * height) / (place.scale * width);
  const c = Math.cos(place.turn);
  const s = Math.sin(place.turn);
  const [u, v] = [c * dx + s * dy, -s * dx + c * dy];
  const k = 1 + place.lean * u;
  const px = (u / k + 0.5) * w;
  const py = (v / k) * w + h / 2;
  return px >= 0 && py >= 0 && px < w && py < h ? [px, py] : null;
}

/** The sound of the same take: the slate's, `lateMs` after its picture, while it is held up, over a little noise. */
export function renderShotSound(shot: SlateShot, lateMs: number, sampleRateHz: number): Float32Array {
  const k = 1 + (shot.ppm ?? 0) * 1e-6;
  const fromS = -(shot.zeroMs + lateMs) / 1000 / k;
  const whole = renderSlateSound(shot.slate, fromS + shot.seconds + 2, FINE_RATE_HZ);
  const step = FINE_RATE_HZ / sampleRateHz / k;
  const x = resample(whole, fromS * FINE_RATE_HZ, step, Math.round(shot.seconds * sampleRateHz));
  const isUp = (ms: number) => shot.heldUpMs?.some(([a, b]) => ms >= a && ms < b) ?? true;
  return x.map((v, i) => (isUp((1000 * i) / sampleRateHz - lateMs) ? v : 0) + 0.002 * GRAIN[i % GRAIN.length]!);
}
const FINE_RATE_HZ = 48_000;
