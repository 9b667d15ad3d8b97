import { renderSlateShot, type SlateShot } from '#core/desk-tests/stand-ins/index.ts';
import { rate } from '#core/model/units/index.ts';
import { type SlateReading, type SlateSights, slateWatch } from './index.ts';

/** A shot as a file may have it: stamps rounded to so much, pictures that show what the one before showed. */
export interface Shot extends SlateShot {
  readonly stampsMs?: number;
  readonly stuck?: readonly number[];
}

/** Looks at a whole shot as Measure does; how many of its pictures were read. */
export function sightsOf(shot: Shot): SlateSights & { read: number } {
  const watch = slateWatch();
  for (let i = 0; i < Math.floor(shot.seconds * shot.rateHz); i++) {
    const stamp = (1000 * i) / shot.rateHz;
    const atMs = shot.stampsMs ? Math.round(stamp / shot.stampsMs) * shot.stampsMs : stamp;
    watch.see(renderSlateShot(shot, shot.stuck?.includes(i) ? i - 1 : i), atMs);
  }
  const sights = watch.sights();
  return { ...sights, read: new Set(sights.panels.map((p) => p.atMs)).size };
}

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
