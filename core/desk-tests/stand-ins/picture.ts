import { seededRandom } from '#core/audio/samples/index.ts';

/** A camera's picture of someone who claps: gray frames, a light that flashes with each clap. */
export interface ClapScene {
  readonly width: number;
  readonly height: number;
  readonly frameRateHz: number;
  /** Instants in the session at which the light goes on. */
  readonly flashesS: readonly number[];
  /** How much later the video is in the file than in the session. */
  readonly delayMs: number;
  readonly seed: number;
}

const FLASH_FRAMES = 4;

/** One frame of luma, `width * height` bytes, 0 to 255: a dim room, someone who moves a little, the light when it is on. */
export function renderFrame(scene: ClapScene, frame: number, out: Uint8Array): void {
  const { width, height, frameRateHz } = scene;
  const t = frame / frameRateHz - scene.delayMs / 1000;
  const sway = Math.sin(t * 1.3) * 0.02 * width;
  const random = seededRandom(scene.seed + frame);
  const [cx, cy, r] = [width * 0.42 + sway, height * 0.5, height * 0.17];
  // A frame is exposed around the time it is stamped with: the light is seen in the first frame whose exposure ends after it.
  const half = 0.5 / frameRateHz;
  const lit = scene.flashesS.some((f) => t + half >= f && t + half < f + FLASH_FRAMES / frameRateHz);
  const [lx, ly, lr] = [width * 0.68, height * 0.42, height * 0.11];
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      let v = 38 + (30 * y) / height + 8 * Math.sin(x / 37);
      if ((x - cx) ** 2 + ((y - cy) * 0.8) ** 2 < r * r) v = 120;
      else if (y > cy + r && Math.abs(x - cx) < r * 1.4) v = 86;
      if ((x - lx) ** 2 + (y - ly) ** 2 < lr * lr) v = lit ? 245 : 24;
      out[i] = v + 3 * random();
    }
  }
}
