import { z } from 'zod';
import { textOf } from '#core/base/said/index.ts';
import { say } from './sayings.ts';
import { Measurement } from './schema-measurement.ts';
import { DeviceType, Id, Known, Name, PictureMode, Range, SettingValue, Text } from './schema-type.ts';

/** The newest shape of the document that this program writes. */
export const RIG_VERSION = 3;

const Setting = z.strictObject({ value: SettingValue, known: Known });
const Device = z.strictObject({
  id: Id,
  typeId: Id,
  name: Name,
  settings: z.record(Id, Setting),
  /** A program: the computer that it runs on. */
  on: Id.optional(),
  /** The strip, battery, hub or computer that feeds it. */
  fedBy: Id.optional(),
  /** It is carried about: worn, on a stabiliser, in a hand. */
  moves: z.boolean().optional(),
  /** Still to be bought or borrowed. */
  toGet: z.boolean().optional(),
  /** A computer's sound devices as someone has named, hidden, preferred or disabled them, by the end that programs see. */
  ends: z
    .record(
      Id,
      z.strictObject({
        name: Name.optional(),
        hidden: z.literal(true).optional(),
        /** The default of its computer's system, for playing or for recording; offered before its like. */
        preferred: z.literal(true).optional(),
        /** Disabled in the computer's system: no program gets anything there. */
        disabled: z.literal(true).optional(),
      }),
    )
    .optional(),
  /** What its screen or capture input said of itself: an EDID, in hexadecimal. */
  edid: z
    .string()
    .regex(/^([0-9a-f]{256}){1,8}$/, { error: () => textOf(say.edidRule()) })
    .optional(),
  /** A photograph of knobs, sockets or cables as they were. Identified by the hash of the image. */
  photos: z
    .array(z.strictObject({ sha256: z.string().regex(/^[0-9a-f]{64}$/), name: Name, at: z.iso.datetime() }))
    .max(12)
    .optional(),
});
export type Device = z.infer<typeof Device>;
export type Photo = NonNullable<Device['photos']>[number];

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
  /** A program that has chosen no device itself: it goes with the default of its computer. */
  follows: z.literal('default').optional(),
  /** What is plugged in there, by the list of cables and adapters; where absent, what one would take. */
  parts: z.array(Id).max(8).optional(),
});
export type Cable = z.infer<typeof Cable>;

const Source = z.strictObject({
  id: Id,
  name: Name,
  letter: z.string().regex(/^[A-Z0-9]$/, { error: () => textOf(say.letterRule()) }),
  hue: z.int().min(1).max(8),
  sound: PortRef,
  picture: PortRef.optional(),
  /** In the scale of the port it leaves by: dB SPL at the port's reference distance, dBu, or dBFS. */
  level: Range,
});

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

const PlanCell = z.strictObject({
  sourceId: Id,
  listenerId: Id,
  want: z.enum(['must', 'must-not', 'may']),
  /** Whose picture it has to keep time with; its own where absent. */
  inTimeWith: Id.optional(),
  /** How far under the main voice it is wanted there, dB; below 0 over it. */
  underVoiceDb: z.number().min(-40).max(60).optional(),
  /** Whether its sound has to keep time with a picture; it has, where absent. */
  keepTime: z.boolean().optional(),
  /** Has to be alone there: a track that can be mixed afterwards. */
  ownTrack: z.boolean().optional(),
});
export type PlanCell = z.infer<typeof PlanCell>;

/** A change that has been drawn and is still to be done at the desk. Ticked, what it draws counts as seen. */
export const SettingTask = z.strictObject({
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
/** A cable to be put in, taken out, or changed. */
export const LeadTask = z.strictObject({
  /** lead:cable */
  id: z
    .string()
    .regex(/^lead:[a-z0-9-]+$/)
    .max(130),
  cableId: Id,
  /** What is plugged at the desk until then; null: nothing. */
  before: Cable.nullable(),
  /** The device that is put in with this cable: it goes again where the cable is not to be. */
  brings: Id.optional(),
  openedAt: z.iso.datetime(),
});
const Task = z.union([SettingTask, LeadTask]);
export type SettingTask = z.infer<typeof SettingTask>;
export type LeadTask = z.infer<typeof LeadTask>;
export type Task = z.infer<typeof Task>;

/** A finding that someone ignores, with the reason, until it counts again. */
export const Dismissal = z.strictObject({
  /** The finding's. */
  id: z.string().min(1).max(400),
  reason: Name,
  at: z.iso.datetime(),
});
export type Dismissal = z.infer<typeof Dismissal>;

/**
 * A named state of the session: a few settings that stand otherwise than in the plain rig, and the wants that differ.
 * The plain rig is the first moment.
 */
export const Moment = z.strictObject({
  id: Id,
  name: Name,
  settings: z.array(z.strictObject({ deviceId: Id, settingId: Id, value: SettingValue })).max(200),
  plan: z.array(PlanCell).max(1000),
});
export type Moment = z.infer<typeof Moment>;

/** How far a rig has to be before it is called ready, each with all before it. */
export const READY_LEVELS = ['drawn', 'confirmed', 'measured', 'rehearsed'] as const;
export type ReadyLevel = (typeof READY_LEVELS)[number];

const Session = z.strictObject({
  frameRate: z.strictObject({ num: z.int().min(1).max(1_000_000), den: z.int().min(1).max(10_000) }),
  sampleRateHz: z.int().min(8000).max(384_000),
  toleranceId: ToleranceId,
  fullScaleDbu: z.number().min(-10).max(30),
  /** How long it lasts; batteries and disks are held against it. */
  hours: z.number().positive().max(72).optional(),
  /** The picture that is wanted of every source. */
  pictureMode: PictureMode.optional(),
  /** Remote guests are to be heard here too. */
  twoWay: z.boolean().optional(),
  /** The presenter walks about. */
  movesAbout: z.boolean().optional(),
  /** How far from the desk those who play or speak sit. */
  distanceM: z.number().positive().max(200).optional(),
  /** What may be spent on devices that are not there yet, and on leads. */
  budgetEur: z.number().min(0).max(1_000_000).optional(),
  /** What the plain rig is called among the moments. */
  plainMoment: Name.optional(),
  /** What ready means for it. */
  ready: z.enum(READY_LEVELS).optional(),
});
export type Session = z.infer<typeof Session>;

export const RigDocument = z.strictObject({
  schemaVersion: z.literal(RIG_VERSION),
  name: Name,
  notes: Text,
  session: Session,
  types: z.array(DeviceType).max(200),
  devices: z.array(Device).max(1000),
  cables: z.array(Cable).max(2500),
  sources: z.array(Source).max(64),
  listeners: z.array(Listener).max(64),
  plan: z.array(PlanCell).max(4096),
  measurements: z.array(Measurement).max(1000),
  tasks: z.array(Task).max(1000),
  dismissed: z.array(Dismissal).max(500).default([]),
  moments: z.array(Moment).max(24).default([]),
  /** The user's own names for types: words as typed, and the type each means. */
  words: z.record(z.string().min(1).max(80), Id).optional(),
});
export type Rig = z.infer<typeof RigDocument>;
