import { resample, seededNormal } from '#core/samples/index.ts';
import { hertz, rate } from '#core/units/index.ts';
import {
  type Luma,
  renderSlateSound,
  type Slate,
  type SlateReading,
  type SlateSights,
  slateLayout,
  slateWatch,
  whiteBoxes,
} from './index.ts';

/** A screen that shows a slate, seen by a camera or taken directly. */
export interface Shot {
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
  /** Where the screen stands in the picture: middle and half axes, as shares of the width; all of the picture where absent. */
  readonly place?: {
    readonly x: number;
    readonly y: number;
    readonly scale: number;
    readonly turn: number;
    readonly lean: number;
  };
  readonly stampsMs?: number;
  readonly seed?: number;
  /** Picture that shows what an earlier one showed: its number, by how many. */
  readonly stuck?: readonly number[];
}

/** One picture of the shot: luma with the slate's frames mixed as the shutter has it. */
export function picture(shot: Shot, index: number): Luma {
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
  const places = placesOf(shot, screenWidth, screenHeight);
  let grain = ((shot.seed ?? 1) * 7919 + index * 104_729) % GRAIN.length;
  const { black = 16, gain = 1, noise = 0 } = shot;
  for (let i = 0; i < bytes.length; i++) {
    const at = places[i]!;
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

const known = new WeakMap<Shot, Int32Array>();

/** For each pixel the one of the screen that it looks at; -1 beside it. */
function placesOf(shot: Shot, w: number, h: number): Int32Array {
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
function onScreen({ place, width, height }: Shot, x: number, y: number, w: number, h: number): [number, number] | null {
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

/** Looks at a whole shot as the bench does; how many of its pictures were read. */
export function sightsOf(shot: Shot): SlateSights & { read: number } {
  const watch = slateWatch();
  for (let i = 0; i < Math.floor(shot.seconds * shot.rateHz); i++) {
    const stamp = (1000 * i) / shot.rateHz;
    const atMs = shot.stampsMs ? Math.round(stamp / shot.stampsMs) * shot.stampsMs : stamp;
    watch.see(picture(shot, shot.stuck?.includes(i) ? i - 1 : i), atMs);
  }
  const sights = watch.sights();
  return { ...sights, read: new Set(sights.panels.map((p) => p.atMs)).size };
}

/** The sound of the same take: the slate's, `lateMs` after its picture, over a little noise. */
export function soundOf(shot: Shot, lateMs: number, sampleRateHz: number): Float32Array {
  const k = 1 + (shot.ppm ?? 0) * 1e-6;
  const fromS = -(shot.zeroMs + lateMs) / 1000 / k;
  const whole = renderSlateSound(shot.slate, fromS + shot.seconds + 2, FINE_RATE_HZ);
  const step = FINE_RATE_HZ / sampleRateHz / k;
  const x = resample(whole, fromS * FINE_RATE_HZ, step, Math.round(shot.seconds * sampleRateHz));
  return x.map((v, i) => v + 0.002 * GRAIN[i % GRAIN.length]!);
}
const FINE_RATE_HZ = 48_000;

/** A reading as a take would have it: a slate of 60 frames that fills the picture's left half, beats heard alike. */
export function slateReading(more: {
  id: number;
  fromMs: number;
  toMs: number;
  zeroMs: number;
  offsetMs: number | null;
  boundMs?: number;
  left?: number;
}): SlateReading {
  const { id, fromMs, toMs, zeroMs, offsetMs, boundMs = 2, left = 40 } = more;
  const corner = (x: number, y: number) => ({ x: left + x, y });
  return {
    id,
    rate: rate(60),
    fromMs,
    toMs,
    quad: [corner(0, 60), corner(280, 60), corner(280, 250), corner(0, 250)],
    run: {
      read: 200,
      of: 216,
      repeated: 1,
      skipped: 0,
      missing: 0,
      mixed: 4,
      rateHz: 60.001,
      beatMs: 2000,
      phase: { zeroMs, boundMs, ratePpm: -17, exposureMs: 8, jitterMs: 0.7 },
      seenBy: 'camera',
    },
    beats: [],
    offset: offsetMs === null ? null : { offsetMs, sdMs: 1, boundMs, count: 2 },
  };
}
