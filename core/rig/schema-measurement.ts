import { z } from 'zod';
import { Id, Name, Range } from './schema-type.ts';

const Spread = z.strictObject({ mean: z.number(), sd: z.number().min(0), count: z.int().min(1) });
/** Where a band ends, Hz: low, nominal and high; beyond what was looked at; or null where that could not be told. */
const BandEnd = z.union([Range, z.literal('beyond'), z.null()]);
const MeasurementBase = {
  id: Id,
  label: Name,
  takeId: z.string().max(80).optional(),
  takenAt: z.iso.datetime(),
};
/**
 * A figure got from a take. `delay`: the signed sum of these figures is so many ms, whatever each may be alone.
 * `drift`: the clock of one device against that of another. `level`: how loud a source came to a listener. `noise`: what
 * a listener has when nothing else sounds. `band`: between which frequencies a source came to a listener. `offset`: one take of a path test, sound against picture as it was read.
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
    /** What it was taken for: the source is as loud as this, or the knob `device.setting` stands so. */
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
    /** The devices that it came through: a way through others has a band of its own. */
    deviceIds: z.array(Id).min(1).max(64),
    lowHz: BandEnd,
    highHz: BandEnd,
  }),
  z.strictObject({
    ...MeasurementBase,
    kind: z.literal('offset'),
    sourceId: Id,
    listenerId: Id,
    /** The delays that were set while it was made, `device.setting`; those that are not named stood at their least. */
    settings: z.array(z.strictObject({ setting: z.string().max(140), value: z.number() })).max(32),
    ms: Spread,
    /** Left out by someone: it is shown and counts for nothing. */
    leftOut: z.boolean(),
  }),
]);
export type Measurement = z.infer<typeof Measurement>;
