import { z } from 'zod';
import { textOf } from '#core/base/said/index.ts';
import { plainLine } from '#core/base/text/index.ts';
import { say } from './sayings.ts';

/** Ids are plain words with hyphens: safe as keys, in URLs and in file names. */
export const Id = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/, { error: () => textOf(say.idRule()) });
/** On one line: what a name bears reaches lists, calendars and labels as it is. */
export const Name = z
  .string()
  .overwrite(plainLine)
  .regex(/\S/, { error: () => textOf(say.nameRule()) })
  .max(120);
export const Text = z.string().max(2000);
const Db = z.number().min(-400).max(400);

/** Low, nominal, high, in that order. */
export const Range = z
  .tuple([z.number(), z.number(), z.number()])
  .refine(([low, nominal, high]) => low <= nominal && nominal <= high, { error: () => textOf(say.rangeRule()) });
export type Range = z.infer<typeof Range>;

/**
 * How a cable, a setting or a figure is known: a default or proposal, checked at the desk, or measured in a take. Up to
 * version 2, and in tables that were written then, `confirmed` was called `seen`.
 */
export const Known = z.preprocess(
  (value) => (value === 'seen' ? 'confirmed' : value),
  z.enum(['assumed', 'confirmed', 'measured']),
);
export type Known = z.infer<typeof Known>;

const Carries = z.enum(['sound', 'picture']);
export const LevelClass = z.enum(['air', 'microphone', 'line', 'headphone', 'speaker', 'digital', 'software', 'light']);
export type LevelClass = z.infer<typeof LevelClass>;

/** 48 V on XLR; a few volts on 3.5 mm; 5 V on USB and HDMI. */
const PowerKind = z.enum(['phantom', 'plug-in', 'usb', 'hdmi']);
export type PowerKind = z.infer<typeof PowerKind>;
const SocketPower = z.strictObject({ kind: PowerKind, milliamps: z.number().min(0).max(10_000) });

/** Width x height @ rate, as 1920x1080@60. */
export const PictureMode = z
  .string()
  .regex(/^\d{3,5}x\d{3,5}@\d{1,3}(\.\d{1,3})?$/, { error: () => textOf(say.videoModeRule()) });
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
  /** Newest copy protection that its input supports; with `none` the video is black. */
  protection: z.enum(['none', '1.4', '2.2']).optional(),
  /** Takes two-channel PCM only. */
  stereoPcmOnly: z.boolean().optional(),
  /** A switch of the device that chooses the sound format that it sends. */
  soundFormat: Id.optional(),
  /** A switch of the device, on or off: menus and marks drawn over the picture that it sends. */
  overlays: Id.optional(),
});

/** What an end is for, beyond carrying something: what rules ask, whatever the device is called. */
const Does = z.enum([
  /** What leaves here is seen and heard by an audience at once. */
  'stream',
  /** Output of what is monitored in an app that mixes, for the person who runs it. */
  'monitor',
  /** What leaves here is sent by a licensed transmitter. */
  'on-air',
  /** It is where someone else is: nothing here can be plugged into it. */
  'far-side',
  /** What a call takes for a voice, and may clean of all else; and where it plays who is over there. */
  'call-microphone',
  'call-loudspeaker',
  /** A person speaks here. */
  'voice',
  /** Where one person listens; where a room full of people does. */
  'ears',
  'room-ears',
  /** What the listener at this device watches. */
  'view',
  /** What begins here, beside voices: the sound of a game, or music. */
  'game',
  'music',
  /** Its input is captured by a computer as video with audio. */
  'captured',
]);

/** Eight channels on one optical cable: another light signal than two, behind the same plug. */
const DigitalFormat = z.enum(['eight-channel']);

const ChannelSpec = z.strictObject({ id: Id, carries: Carries });
const PortSpec = z.strictObject({
  id: Id,
  name: Name,
  /** `inside` is a point within the device that ways meet at: before a fader, after it, a bus. */
  direction: z.enum(['in', 'out', 'inside']),
  connector: Id,
  level: LevelClass,
  does: Does.optional(),
  channels: z.array(ChannelSpec).min(1).max(64),
  /** For an output into air: the distance at which its level is stated. */
  referenceM: z.number().positive().max(100).optional(),
  /** Ends behind one socket share this name: one cable carries them all. */
  socket: Id.optional(),
  /** Which end of a USB lead it is: of computers and hubs, or of what is plugged to them, or for power alone; where absent, by its socket. */
  usb: z.enum(['host', 'device', 'either', 'power']).optional(),
  /** Ends that a computer's system shows as one sound device share this; where absent, those behind one socket. */
  soundDevice: Id.optional(),
  /** An end of a program that the computer's system lists among its sound devices: others may choose it. */
  listed: z.literal(true).optional(),
  /** Two wires and a screen; where absent, it follows from the connector. */
  balanced: z.boolean().optional(),
  /** Bit layout on a plug that several formats share; by default two channels by IEC 60958. */
  format: DigitalFormat.optional(),
  /** Transformer, optical or radio: no metal joins this socket's screen to the chassis. */
  isolated: z.boolean().optional(),
  /** Power that this socket supplies. */
  gives: SocketPower.extend({ setting: Id.optional() }).optional(),
  /** Power that has to be supplied through this socket. */
  takes: SocketPower.optional(),
  /** Power that must not arrive at this socket. */
  harmedBy: z.array(PowerKind).max(4).optional(),
  picture: PictureEnd.optional(),
});
export type PortSpec = z.infer<typeof PortSpec>;

/** Figures of what is done to a voice, as `core/audio/process` calls them. */
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

/** What a setting is there for, where a rule has to know. */
const Purpose = z.enum([
  /** Held or pressed while one speaks: shut is how it waits. */
  'keying',
  /** On: sound alone does not key it. */
  'no-voice-keying',
  /** On or off: whether what is no voice is taken for noise. */
  'voice-processing',
  /** Shuts the microphone of a device that is there for something else: a camera's own. */
  'own-microphone',
  /** On or off: whether a member on a clock of its own is made to follow the master's. */
  'drift-correction',
  /** How often a second the device counts samples: its options are rates in Hz. */
  'sample-rate',
  /** A level that slides; every other one is turned. */
  'fader',
  /** How much of a strip goes to a mix beside the main one. */
  'send',
]);

export type Purpose = z.infer<typeof Purpose>;

const SettingBase = {
  id: Id,
  name: Name,
  purpose: Purpose.optional(),
  /** The strip or input that it belongs to, where a device has several alike. */
  group: Name.optional(),
};
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
  /** A setting in the device's own unit that changes no level by itself: a corner frequency, a threshold, a ratio. */
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
  /** A converter between analog and digital; full scale is at this analog level. */
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
const Place = z.string().regex(/^[a-z0-9-]+\.[a-z0-9-]+$/, { error: () => textOf(say.placeRule()) });
const Way = z.strictObject({ from: Place, to: Place, stages: z.array(Stage).max(32) });
export type Way = z.infer<typeof Way>;

/** How a device is fed, and what it feeds. */
const TypePower = z.strictObject({
  /** Ways it can be fed; the usual one first. Empty: it needs no power. */
  by: z.array(z.enum(['mains', 'battery', 'usb', 'hdmi', 'phantom', 'plug-in', 'network'])).max(5),
  /** Class I: its AC power plug joins the chassis to the AC power ground. */
  earthed: z.boolean().optional(),
  /** A switch whose position `battery` takes it off the AC power. */
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
  /** The shelf it is listed on in Gear; nothing else may depend on it. */
  family: Id,
  summary: Text,
  /** Other names for it; in parentheses, words that may go with those. */
  words: z.array(Name).max(200).optional(),
  /** Hardware, where nothing is said. */
  nature: z.enum(['hardware', 'program', 'person']).optional(),
  /** Programs run on it. */
  hosts: z.boolean().optional(),
  /** What one can read off it: levels on its own meters or in the programs that take it; the picture that it gets. */
  shows: z
    .strictObject({ levels: z.enum(['on-it', 'in-programs']).optional(), picture: z.boolean().optional() })
    .optional(),
  /** Euros, low and high, as such things usually cost. */
  priceEur: z.tuple([z.number().min(0), z.number().min(0)]).optional(),
  power: TypePower.optional(),
  /** What else it asks for: a driver, a mode, a license. */
  needs: z.array(Name).max(8).optional(),
  exclusive: z.array(Exclusive).max(16).optional(),
  ports: z.array(PortSpec).max(128),
  settings: z.array(SettingSpec).max(512),
  figures: z.record(Id, FigureSpec),
  /**
   * Figures that are uncertain together: what leaves by one link, or waits in one buffer. Their difference, the first less
   * the second and in their unit, is known better than either.
   */
  together: z
    .array(z.strictObject({ figures: z.tuple([Id, Id]), differs: Range, source: Text }))
    .max(16)
    .optional(),
  inside: z.array(Way).max(4096),
});
export type DeviceType = z.infer<typeof DeviceType>;
