import { z } from 'zod';
import { Id, Name, Range } from './schema-type.ts';

const Spread = z.strictObject({ mean: z.number(), sd: z.number().min(0), count: z.int().min(1) });
/** Edge of a band, Hz: low, nominal and high; beyond the measured range; or null where it could not be read. */
const BandEnd = z.union([Range, z.literal('beyond'), z.null()]);
const MeasurementBase = {
  id: Id,
  label: Name,
  takeId: z.string().max(80).optional(),
  takenAt: z.iso.datetime(),
};
/**
 * A figure measured in a take. `delay`: the signed sum of these figures is this many ms, whatever each is alone.
 * `drift`: the clock of one device relative to another. `level`: level of a source at a destination. `noise`: what
 * a destination has when nothing else plays. `band`: bandwidth of a source at a destination. `offset`: one take of a sync test, audio against video as read.
 */
export const Measurement = z.discriminatedUnion('kind', [
  z.strictObject({
    ...MeasurementBase,
    kind: z.literal('delay'),
    sourceId: Id,
    listenerId: Id,
    terms: z
      .array(z.strictObject({ figure: z.string().max(140), sign: z.union([z.literal(1), z.literal(-1)]) }))
      .min(1)
      .max(64),
    ms: Spread,
    /** What was read from the take: `ms` and what was known exactly when it was made. */
    offsetMs: z.number(),
  }),
  z.strictObject({ ...MeasurementBase, kind: z.literal('drift'), deviceId: Id, againstDeviceId: Id, ppm: Spread }),
  z.strictObject({
    ...MeasurementBase,
    kind: z.literal('level'),
    sourceId: Id,
    listenerId: Id,
    /** Read from the take, in the scale of the place. */
    db: Spread,
    /** What it was applied to: the level of a source, or the value of `device.setting`. */
    means: z.string().max(140),
  }),
  z.strictObject({
    ...MeasurementBase,
    kind: z.literal('noise'),
    listenerId: Id,
    db: Spread,
    /** What the rig led one to expect then: what changes it later changes what was measured by as much. Null: no noise at all. */
    expectedDb: z.number().nullable(),
  }),
  z.strictObject({
    ...MeasurementBase,
    kind: z.literal('band'),
    sourceId: Id,
    listenerId: Id,
    /** The devices on its path: a path through others has a band of its own. */
    deviceIds: z.array(Id).min(1).max(64),
    lowHz: BandEnd,
    highHz: BandEnd,
  }),
  z.strictObject({
    ...MeasurementBase,
    kind: z.literal('offset'),
    sourceId: Id,
    listenerId: Id,
    /** Delays that were set during the take, `device.setting`; those not listed were at their minimum. */
    settings: z.array(z.strictObject({ setting: z.string().max(140), value: z.number() })).max(32),
    ms: Spread,
    /** Left out by someone: it is shown and counts for nothing. */
    leftOut: z.boolean(),
  }),
]);
export type Measurement = z.infer<typeof Measurement>;
