import type { Scale } from '#core/signal/index.ts';

/** Levels that are drawn as nothing and as full, by scale: what is heard at all, and what a stage takes. */
const RANGE: Record<Scale, readonly [number, number]> = { spl: [30, 100], dbu: [-70, 10], dbfs: [-70, -6] };

/** How thick a line is drawn, 0 to 1. */
export function strengthOf(levelDb: number, scale: Scale): number {
  const [low, high] = RANGE[scale];
  return Math.min(1, Math.max(0, (levelDb - low) / (high - low)));
}
