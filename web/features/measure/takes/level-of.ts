import type { Diagnosis } from '#core/audio/measure/index.ts';
import type { LevelReading } from '#core/desk-tests/reconcile/index.ts';

/** Two moments of speech this far apart are treated as independent, s. */
const APART_S = 3;
const MIN_SD_DB = 0.3;
/** Short-term windows that are further under the loudness of the whole hold pauses. */
const COUNTED_LU = 10;

/** How loud a take is while it sounds, how sure that is, and what is left in its pauses; null for silence. */
export function levelOf({
  floors,
  levels,
  curves,
}: Diagnosis): Pick<LevelReading, 'levelDb' | 'sdDb' | 'count' | 'floor'> | null {
  const loudest = floors.reduce<(typeof floors)[number] | null>(
    (best, f) => (f.programmeDbfs !== null && f.programmeDbfs > (best?.programmeDbfs ?? -Infinity) ? f : best),
    null,
  );
  if (!loudest || loudest.programmeDbfs === null) return null;
  const gate = (levels.integratedLufs ?? 0) - COUNTED_LU;
  const counted = curves.shortTermLufs.filter((db) => db > gate);
  const mean = counted.reduce((a, b) => a + b, 0) / Math.max(1, counted.length);
  const variance = counted.reduce((a, b) => a + (b - mean) ** 2, 0) / Math.max(1, counted.length);
  const count = Math.max(1, Math.floor((0.1 * counted.length) / APART_S));
  return {
    levelDb: loudest.programmeDbfs,
    sdDb: Math.max(MIN_SD_DB, Math.sqrt(variance / count)),
    count,
    floor: loudest.floorDbfs === null ? null : { db: loudest.floorDbfs, bandHz: loudest.bandHz },
  };
}
