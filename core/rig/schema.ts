import { z } from 'zod';

/** The newest shape of the document that this program writes. */
export const RIG_VERSION = 1;

/** Ids are plain words with hyphens: safe as keys, in URLs and in file names. */
export const Id = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,63}$/, 'an id is small letters, digits and hyphens, at most 64');
const Name = z.string().regex(/\S/, 'a name needs at least one letter').max(120);
const Text = z.string().max(2000);
const Db = z.number().min(-400).max(400);

/** Low, nominal, high, in that order. */
const Range = z
  .tuple([z.number(), z.number(), z.number()])
  .refine(([low, nominal, high]) => low <= nominal && nominal <= high, 'a range runs low, nominal, high');
export type Range = z.infer<typeof Range>;

/** How a lead, a setting or a figure is known: a default or proposal, looked at or done, or taken from a take. */
export const Known = z.enum(['assumed', 'seen', 'measured']);
export type Known = z.infer<typeof Known>;

// ---- device types: data, never code -------------------------------------------------------------

export const Carries = z.enum(['sound', 'picture']);
export const LevelClass = z.enum(['air', 'microphone', 'line', 'headphone', 'speaker', 'digital', 'software', 'light']);
export type LevelClass = z.infer<typeof LevelClass>;

const ChannelSpec = z.strictObject({ id: Id, carries: Carries });
const PortSpec = z.strictObject({
  id: Id,
  name: Name,
  /** `inside` is a point within the device that ways meet at: before a fader, after it, a bus. */
  direction: z.enum(['in', 'out', 'inside']),
  connector: Id,
  level: LevelClass,
  channels: z.array(ChannelSpec).min(1).max(64),
  /** For an output into air: the distance at which its level is stated. */
  referenceM: z.number().positive().max(100).optional(),
});
export type PortSpec = z.infer<typeof PortSpec>;

const SettingBase = { id: Id, name: Name };
const SettingSpec = z.discriminatedUnion('kind', [
  z.strictObject({
    ...SettingBase,
    kind: z.literal('delay'),
    unit: z.enum(['ms', 'frames']),
    min: z.number().min(0),
    max: z.number().max(60_000),
    step: z.number().positive(),
    default: z.number().min(0),
  }),
  z.strictObject({
    ...SettingBase,
    kind: z.literal('gain'),
    min: Db,
    max: Db,
    step: z.number().positive(),
    default: Db,
    /** At its lowest position nothing passes, as with a send turned fully down. */
    offAtMin: z.boolean(),
  }),
  z.strictObject({ ...SettingBase, kind: z.literal('mute'), default: z.boolean() }),
  z.strictObject({
    ...SettingBase,
    kind: z.literal('switch'),
    options: z
      .array(z.strictObject({ value: Id, label: Name }))
      .min(2)
      .max(32),
    default: Id,
  }),
]);
export type SettingSpec = z.infer<typeof SettingSpec>;
export const SettingValue = z.union([z.number(), z.boolean(), Id]);
export type SettingValue = z.infer<typeof SettingValue>;

const FigureSpec = z.strictObject({
  label: Name,
  unit: z.enum(['ms', 'frames']),
  range: Range,
  kind: z.enum(['standard', 'typical']),
  source: Text,
});

const Stage = z.discriminatedUnion('do', [
  /** A delay that can be set. */
  z.strictObject({ do: z.literal('delay'), setting: Id }),
  /** A delay that cannot: one of the type's figures. */
  z.strictObject({ do: z.literal('latency'), figure: Id }),
  z.strictObject({ do: z.literal('gain'), setting: Id }),
  z.strictObject({ do: z.literal('fixed-gain'), db: Db }),
  /** Open only while the setting has this value: a mute, a switch position, an exclusive mode. */
  z.strictObject({ do: z.literal('door'), setting: Id, openWhen: SettingValue }),
  /** Into or out of the digital domain; full scale stands at this analogue level. */
  z.strictObject({ do: z.literal('convert'), to: z.enum(['digital', 'analogue']), fullScaleDbu: Range }),
  /** Sound in air to volts. */
  z.strictObject({ do: z.literal('hear'), sensitivityDbvPerPa: Range }),
  /** Volts to sound in air, at the output's reference distance. */
  z.strictObject({ do: z.literal('radiate'), splAt0Dbu: Range }),
  /** The stage's own noise, in the scale that holds here. */
  z.strictObject({ do: z.literal('noise'), db: Db }),
  z.strictObject({ do: z.literal('ceiling'), db: Db }),
  z.strictObject({ do: z.literal('band'), lowHz: z.number().positive(), highHz: z.number().positive() }),
  z.strictObject({ do: z.literal('invert') }),
  /** From here on this device's own clock counts the samples. */
  z.strictObject({ do: z.literal('clock') }),
]);
export type Stage = z.infer<typeof Stage>;

/** Where inside a type: 'port.channel'. */
const Place = z.string().regex(/^[a-z0-9-]+\.[a-z0-9-]+$/, 'a place is port.channel');
const Way = z.strictObject({ from: Place, to: Place, stages: z.array(Stage).max(32) });
export type Way = z.infer<typeof Way>;

export const DeviceType = z.strictObject({
  id: Id,
  name: Name,
  family: Id,
  summary: Text,
  ports: z.array(PortSpec).min(1).max(128),
  settings: z.array(SettingSpec).max(512),
  figures: z.record(Id, FigureSpec),
  inside: z.array(Way).max(4096),
});
export type DeviceType = z.infer<typeof DeviceType>;

// ---- the rig ------------------------------------------------------------------------------------

const Setting = z.strictObject({ value: SettingValue, known: Known });
const Device = z.strictObject({ id: Id, typeId: Id, name: Name, settings: z.record(Id, Setting) });
export type Device = z.infer<typeof Device>;

const PortRef = z.strictObject({ deviceId: Id, portId: Id });
export type PortRef = z.infer<typeof PortRef>;

const Cable = z.strictObject({
  id: Id,
  from: PortRef,
  to: PortRef,
  medium: z.enum(['lead', 'radio', 'software', 'air', 'light']),
  lengthM: z.number().min(0).max(1000),
  known: Known,
  /** Which channel goes to which, where it is not simply like to like. */
  map: z
    .array(z.strictObject({ from: Id, to: Id }))
    .max(128)
    .optional(),
});
export type Cable = z.infer<typeof Cable>;

const Source = z.strictObject({
  id: Id,
  name: Name,
  letter: z.string().regex(/^[A-Z0-9]$/, 'one capital letter or digit'),
  hue: z.int().min(1).max(8),
  sound: PortRef,
  picture: PortRef.optional(),
  /** In the scale of the port it leaves by: dB SPL at the port's reference distance, dBu, or dBFS. */
  level: Range,
});
export type Source = z.infer<typeof Source>;

export const ToleranceId = z.enum(['ebu-r37', 'itu-bt1359', 'atsc-is191', 'player']);
export type ToleranceId = z.infer<typeof ToleranceId>;

const Listener = z.strictObject({
  id: Id,
  name: Name,
  sound: PortRef,
  picture: PortRef.optional(),
  /** Where absent, the session's. */
  toleranceId: ToleranceId.optional(),
});
export type Listener = z.infer<typeof Listener>;

const PlanCell = z.strictObject({
  sourceId: Id,
  listenerId: Id,
  want: z.enum(['must', 'must-not', 'may']),
  /** Whose picture it has to keep time with; its own where absent. */
  inTimeWith: Id.optional(),
});
export type PlanCell = z.infer<typeof PlanCell>;

const Spread = z.strictObject({ mean: z.number(), sd: z.number().min(0), count: z.int().min(1) });
const MeasurementBase = {
  id: Id,
  label: Name,
  takeId: z.string().max(80).optional(),
  takenAt: z.iso.datetime(),
};
/**
 * A figure got from a take. `delay`: the signed sum of these figures is so many ms, whatever each may be alone.
 * `drift`: the clock of one device against that of another.
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
]);
export type Measurement = z.infer<typeof Measurement>;

/** A change that has been drawn and is still to be done at the desk. Ticked, the setting counts as seen. */
const Task = z.strictObject({
  /** device.setting: a setting has one task at most. */
  id: z
    .string()
    .regex(/^[a-z0-9-]+\.[a-z0-9-]+$/)
    .max(130),
  deviceId: Id,
  settingId: Id,
  before: Setting,
  openedAt: z.iso.datetime(),
});
export type Task = z.infer<typeof Task>;

/** A finding that somebody has looked at and will live with: kept with the reason, until it is taken up again. */
export const Aside = z.strictObject({
  /** The finding's. */
  id: z.string().min(1).max(400),
  reason: Name,
  at: z.iso.datetime(),
});
export type Aside = z.infer<typeof Aside>;

const Session = z.strictObject({
  frameRate: z.strictObject({ num: z.int().min(1).max(1_000_000), den: z.int().min(1).max(10_000) }),
  sampleRateHz: z.int().min(8000).max(384_000),
  toleranceId: ToleranceId,
  fullScaleDbu: z.number().min(-10).max(30),
});

export const RigDocument = z.strictObject({
  schemaVersion: z.literal(RIG_VERSION),
  name: Name,
  notes: Text,
  session: Session,
  types: z.array(DeviceType).max(200),
  devices: z.array(Device).max(400),
  cables: z.array(Cable).max(1200),
  sources: z.array(Source).max(64),
  listeners: z.array(Listener).max(64),
  plan: z.array(PlanCell).max(4096),
  measurements: z.array(Measurement).max(1000),
  tasks: z.array(Task).max(1000),
  aside: z.array(Aside).max(500).default([]),
});
export type Rig = z.infer<typeof RigDocument>;
