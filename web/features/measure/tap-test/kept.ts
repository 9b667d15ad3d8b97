import { z } from 'zod';
import type { TuneReading } from '#core/desk-tests/tunes/index.ts';
import { keep, readKept } from '#web/shared/store/index.ts';

const Tune = z.object({
  id: z.int().min(0).max(31),
  word: z.enum(['found', 'perhaps', 'not-found']),
  overChance: z.number(),
  confidence: z.number().nullable(),
  heard: z
    .object({
      atMs: z.number(),
      ppm: z.number().nullable(),
      gainDb: z.number(),
      polarity: z.union([z.literal(1), z.literal(-1), z.null()]),
      seconds: z.object({
        ways: z.array(z.object({ afterMs: z.number(), underDb: z.number(), perhapsReflection: z.boolean() })),
        noneAboveDb: z.number(),
      }),
      jump: z.object({ atMs: z.number(), ms: z.number() }).nullable(),
      wander: z.object({ earliestMs: z.number(), latestMs: z.number() }).nullable(),
      bands: z.array(
        z.object({
          lowHz: z.number(),
          highHz: z.number(),
          db: z.number().nullable(),
          atMostDb: z.number().nullable().default(null),
        }),
      ),
      blocks: z.array(z.object({ standsOut: z.number(), lateMs: z.number(), db: z.number() })),
      response: z.array(z.number()),
    })
    .nullable(),
}) satisfies z.ZodType<TuneReading>;

const Desk = z.object({ seed: z.int(), faultId: z.string().nullable() });

/** A tap test as kept in this browser: answers, players, and every take as read. */
export const KeptTap = z.object({
  version: z.literal(1),
  answers: z.record(z.string(), z.boolean()),
  players: z.array(
    z.object({
      sourceId: z.string(),
      tune: z.int().min(0).max(15),
      playerId: z.string(),
      knownAt: z.array(z.string()),
    }),
  ),
  takes: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      listenerId: z.string().nullable(),
      fileId: z.string(),
      by: z.enum(['take', 'stand-in']),
      at: z.string(),
      tunes: z.array(Tune),
      pictures: z.array(
        z.object({ tune: z.int(), offsetMs: z.number(), boundMs: z.number(), read: z.int(), of: z.int() }),
      ),
    }),
  ),
  /** The simulated desk. */
  desk: Desk,
  drill: z
    .object({
      fewest: z.array(z.string()),
      /** Its result, with the fault's sentences, since the rig may have changed by then; null while in progress. */
      over: z
        .object({
          how: z.enum(['found', 'given-up']),
          wrong: z.int(),
          takes: z.int(),
          was: z.string(),
          mend: z.string(),
        })
        .nullable(),
      wrong: z.int(),
    })
    .nullable(),
});
export type KeptTap = z.infer<typeof KeptTap>;
export type KeptTake = KeptTap['takes'][number];

/** The stand-ins' desk as it is without a drill: as drawn, with true figures of its own. */
const PLAIN_DESK = { seed: 11, faultId: null };
export const NO_TAP: KeptTap = { version: 1, answers: {}, players: [], takes: [], desk: PLAIN_DESK, drill: null };

const keyOf = (rigId: string): string => `mellow.tap.${rigId}`;

export const readTap = (rigId: string): KeptTap => readKept(keyOf(rigId), KeptTap) ?? NO_TAP;

/** @returns whether there was room for it */
export const keepTap = (rigId: string, tap: KeptTap): boolean => keep(keyOf(rigId), tap);
