import { z } from 'zod';
import type { Treatment } from '#core/audio/process/index.ts';
import { keepForTakes, readForTakes } from './kept.ts';

const db = z.number().min(-90).max(24);
const ms = z.number().min(0).max(5000);
const hz = z.number().min(10).max(20_000);
const Switch = z.strictObject({
  thresholdDbfs: db,
  rangeDb: z.number().min(0).max(90),
  attackMs: ms,
  holdMs: ms,
  releaseMs: ms,
});

/** What is done to a voice, as it is kept between two visits. */
const KeptTreatment: z.ZodType<Treatment> = z.strictObject({
  lowCut: z.strictObject({ hz }).nullable(),
  gate: Switch.nullable(),
  presence: z.strictObject({ hz, gainDb: z.number().min(-18).max(18), q: z.number().min(0.1).max(12) }).nullable(),
  deEss: z.strictObject({ hz, thresholdDbfs: db, rangeDb: z.number().min(0).max(30) }).nullable(),
  compressor: z
    .strictObject({
      thresholdDbfs: db,
      ratio: z.number().min(1).max(50),
      kneeDb: z.number().min(0).max(30),
      attackMs: ms,
      releaseMs: ms,
    })
    .nullable(),
  makeupDb: z.number().min(-24).max(24),
  limiter: z.strictObject({ ceilingDbtp: z.number().min(-24).max(0), releaseMs: ms }).nullable(),
});

const KEPT_AS = 'treatment';

/** What someone set for the voice of a take; null where nothing was. */
export const readTreatment = (takeIds: readonly string[]): Treatment | null =>
  readForTakes(KEPT_AS, takeIds, KeptTreatment);
export const keepTreatment = (takeIds: readonly string[], treatment: Treatment): boolean =>
  keepForTakes(KEPT_AS, takeIds, treatment);
