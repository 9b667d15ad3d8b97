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

/** 48 V on XLR; a few volts on 3.5 mm; 5 V on USB and HDMI. */
const PowerKind = z.enum(['phantom', 'plug-in', 'usb', 'hdmi']);
export type PowerKind = z.infer<typeof PowerKind>;
const SocketPower = z.strictObject({ kind: PowerKind, milliamps: z.number().min(0).max(10_000) });

/** Width x height @ rate, as 1920x1080@60. */
export const PictureMode = z
  .string()
  .regex(/^\d{3,5}x\d{3,5}@\d{1,3}(\.\d{1,3})?$/, 'a picture mode is like 1920x1080@60');
const LINKS = ['tmds-165', 'tmds-340', 'tmds-600', 'frl-9', 'frl-18', 'frl-24', 'frl-32', 'frl-40', 'frl-48'] as const;
const USB_LINKS = ['usb-2', 'usb-5', 'usb-10'] as const;
/** What an end that carries picture can do, and what it demands. */
const PictureEnd = z.strictObject({
  /** The fastest link that it knows. */
  link: z.enum([...LINKS, ...USB_LINKS]).optional(),
  /** Over USB: the picture is squeezed before it leaves, so the link's rate does not bound it. */
  compressed: z.boolean().optional(),
  /** The largest mode that it works with, whatever the link. */
  most: PictureMode.optional(),
  /** Settings of the device that choose what it sends: switches whose options are modes, bits and chroma. */
  sends: z.strictObject({ mode: Id, bits: Id.optional() }).optional(),
  /** A switch of the device, on or off: whether what it sends is copy-protected. */
  protects: Id.optional(),
  /** Newest copy protection that it can take in; `none` shows black. */
  protection: z.enum(['none', '1.4', '2.2']).optional(),
  /** Takes two-channel PCM only. */
  stereoPcmOnly: z.boolean().optional(),
  /** A switch of the device that chooses the sound format that it sends. */
  soundFormat: Id.optional(),
  /** A switch of the device, on or off: menus and marks drawn over the picture that it sends. */
  overlays: Id.optional(),
});

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
  /** Ends behind one socket share this name: one lead carries them all. */
  socket: Id.optional(),
  /** Two wires and a screen; where absent, it follows from the connector. */
  balanced: z.boolean().optional(),
  /** Transformer, optical or radio: no metal joins this socket's screen to the chassis. */
  isolated: z.boolean().optional(),
  /** Power that stands on this socket. */
  gives: SocketPower.extend({ setting: Id.optional() }).optional(),
  /** Power that has to come by this socket. */
  takes: SocketPower.optional(),
  /** What of this must not come by this socket. */
  harmedBy: z.array(PowerKind).max(4).optional(),
  picture: PictureEnd.optional(),
});
export type PortSpec = z.infer<typeof PortSpec>;

/** Figures of what is done to a voice, as `core/process` calls them. */
const TREATS = [
  'lowCut.hz',
  'gate.thresholdDbfs',
  'gate.rangeDb',
  'presence.gainDb',
  'presence.hz',
  'deEss.thresholdDbfs',
  'compressor.thresholdDbfs',
  'compressor.ratio',
  'compressor.attackMs',
  'compressor.releaseMs',
  'makeupDb',
  'limiter.ceilingDbtp',
] as const;

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
  /** What is set in the device's own unit and moves no level by itself: a corner, a threshold, a ratio. */
  z.strictObject({
    ...SettingBase,
    kind: z.literal('value'),
    unit: z.string().max(12),
    min: z.number(),
    max: z.number(),
    step: z.number().positive(),
    default: z.number(),
    /** Where it does nothing; it always does something, where absent. */
    off: z.number().optional(),
    /** Which figure of a voice's treatment it is. */
    treats: z.enum(TREATS),
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

/** How a device is fed, and what it feeds. */
const TypePower = z.strictObject({
  /** Ways it can be fed; the usual one first. Empty: it needs no power. */
  by: z.array(z.enum(['mains', 'battery', 'usb', 'hdmi', 'phantom', 'plug-in', 'network'])).max(5),
  /** Class I: its mains plug joins the chassis to the mains earth. */
  earthed: z.boolean().optional(),
  /** A switch whose position `battery` takes it off the mains. */
  supply: Id.optional(),
  /** What it draws at 5 V when it is fed by USB or HDMI. */
  milliamps: z.number().min(0).max(10_000).optional(),
  /** How long its battery lasts when new and warm. */
  hours: z.number().positive().max(1000).optional(),
  /** Outlets for others: how many, and how much together. */
  feeds: z
    .strictObject({
      kind: z.enum(['mains', 'usb']),
      outlets: z.int().min(1).max(64),
      milliamps: z.number().min(0).optional(),
    })
    .optional(),
});

/** Two ends that cannot be used at once, or only at a price. */
const Exclusive = z.strictObject({ ports: z.tuple([Id, Id]), severity: z.enum(['stop', 'fix', 'watch']), says: Text });

export const DeviceType = z.strictObject({
  id: Id,
  name: Name,
  family: Id,
  summary: Text,
  /** Euros, low and high, as such things usually cost. */
  priceEur: z.tuple([z.number().min(0), z.number().min(0)]).optional(),
  power: TypePower.optional(),
  /** What else it asks for: a driver, a mode, a licence. */
  needs: z.array(Name).max(8).optional(),
  exclusive: z.array(Exclusive).max(16).optional(),
  ports: z.array(PortSpec).max(128),
  settings: z.array(SettingSpec).max(512),
  figures: z.record(Id, FigureSpec),
  inside: z.array(Way).max(4096),
});
export type DeviceType = z.infer<typeof DeviceType>;

// ---- the rig ------------------------------------------------------------------------------------

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
  /** A computer's sound devices as somebody has named, hidden or preferred them, by the end that programs see. */
  ends: z
    .record(
      Id,
      z.strictObject({
        name: Name.optional(),
        hidden: z.literal(true).optional(),
        preferred: z.literal(true).optional(),
      }),
    )
    .optional(),
  /** What its screen or capture input said of itself: an EDID, in hexadecimal. */
  edid: z
    .string()
    .regex(/^([0-9a-f]{256}){1,8}$/, 'an EDID is one to eight blocks of 128 bytes, in hexadecimal')
    .optional(),
  /** How it stood when somebody photographed it: knobs, sockets, leads. Known by the hash of the picture. */
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
  /** What is plugged in there, by the list of leads and adapters; where absent, what one would take. */
  parts: z.array(Id).max(8).optional(),
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
  /** How far under the main voice it is wanted there, dB; below 0 over it. */
  underVoiceDb: z.number().min(-40).max(60).optional(),
  /** Whether its sound has to keep time with a picture; it has, where absent. */
  keepTime: z.boolean().optional(),
  /** It is to be alone there: a track that can be balanced afterwards. */
  ownTrack: z.boolean().optional(),
});
export type PlanCell = z.infer<typeof PlanCell>;

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
    /** The boxes that it came through: a way through others has a band of its own. */
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
    /** Left out by somebody: it is shown and counts for nothing. */
    leftOut: z.boolean(),
  }),
]);
export type Measurement = z.infer<typeof Measurement>;

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
/** A lead to be put in, taken out, or changed. */
export const LeadTask = z.strictObject({
  /** lead:cable */
  id: z
    .string()
    .regex(/^lead:[a-z0-9-]+$/)
    .max(130),
  cableId: Id,
  /** What is plugged at the desk until then; null: nothing. */
  before: Cable.nullable(),
  /** The box that is put in with this lead: it goes again where the lead is not to be. */
  brings: Id.optional(),
  openedAt: z.iso.datetime(),
});
const Task = z.union([SettingTask, LeadTask]);
export type SettingTask = z.infer<typeof SettingTask>;
export type LeadTask = z.infer<typeof LeadTask>;
export type Task = z.infer<typeof Task>;

/** A finding that somebody has looked at and will live with: kept with the reason, until it is taken up again. */
export const Aside = z.strictObject({
  /** The finding's. */
  id: z.string().min(1).max(400),
  reason: Name,
  at: z.iso.datetime(),
});
export type Aside = z.infer<typeof Aside>;

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

const Session = z.strictObject({
  frameRate: z.strictObject({ num: z.int().min(1).max(1_000_000), den: z.int().min(1).max(10_000) }),
  sampleRateHz: z.int().min(8000).max(384_000),
  toleranceId: ToleranceId,
  fullScaleDbu: z.number().min(-10).max(30),
  /** How long it lasts; batteries and disks are held against it. */
  hours: z.number().positive().max(72).optional(),
  /** The picture that is wanted of every source. */
  pictureMode: PictureMode.optional(),
  /** Somebody outside is to be heard here too. */
  twoWay: z.boolean().optional(),
  /** Whoever speaks walks about. */
  movesAbout: z.boolean().optional(),
  /** How far from the desk those who play or speak sit. */
  distanceM: z.number().positive().max(200).optional(),
  /** What may be spent on boxes that are not there yet, and on leads. */
  budgetEur: z.number().min(0).max(1_000_000).optional(),
  /** What the plain rig is called among the moments. */
  plainMoment: Name.optional(),
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
  aside: z.array(Aside).max(500).default([]),
  moments: z.array(Moment).max(24).default([]),
});
export type Rig = z.infer<typeof RigDocument>;
