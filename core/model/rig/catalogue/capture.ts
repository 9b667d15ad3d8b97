import type { DeviceType, PortSpec, Range } from '#core/model/rig/schema-type.ts';
import {
  both,
  fromUsb,
  hands,
  input,
  latency,
  needsUsb,
  noise,
  output,
  pictureAndStereo,
  straight,
  together,
  typicalMs,
  way,
} from './parts.ts';

interface Capture {
  readonly id: string;
  readonly name: string;
  readonly pictureMs: Range;
  readonly soundMs: Range;
  /** How much later the picture is than the sound. */
  readonly apartMs: Range;
  readonly hdmi: NonNullable<PortSpec['picture']>;
  readonly out: PortSpec;
  /** Whether it gives the picture on to a screen as well. */
  readonly through?: true;
  readonly more: Pick<DeviceType, 'power' | 'priceEur' | 'needs'>;
}

/** Brings an HDMI picture with its sound into the computer. Picture and sound take different times. */
function capture({ id, name, pictureMs, soundMs, apartMs, hdmi, out, through, more }: Capture): DeviceType {
  return {
    id,
    name,
    family: 'capture',
    shows: { levels: 'in-programs' },
    summary: 'Brings an HDMI video with its audio into the computer. Video and audio take different times.',
    ...more,
    ports: [
      input('hdmi', 'HDMI in', 'hdmi', 'digital', pictureAndStereo, { picture: hdmi, does: 'captured' }),
      out,
      ...(through
        ? [
            output('through', 'HDMI out, passed on', 'hdmi', 'digital', pictureAndStereo, {
              picture: { link: 'tmds-600' },
            }),
          ]
        : []),
    ],
    settings: [],
    figures: {
      picture: typicalMs('capture card, video', ...pictureMs),
      sound: typicalMs('capture card, audio', ...soundMs),
      ...(through && { through: typicalMs('capture card, passed on', 0, 0, 1) }),
    },
    together: [
      together('picture', 'sound', apartMs, 'they wait in one buffer and leave by one link, typical of capture cards'),
    ],
    inside: [
      way('hdmi.picture', `${out.id}.picture`, latency('picture')),
      ...both('hdmi', out.id, latency('sound'), noise(-96)),
      ...(through ? straight('hdmi', 'through', pictureAndStereo, latency('through')) : []),
    ],
  };
}

const usb = (connector: string, milliamps: number, picture: NonNullable<PortSpec['picture']>): PortSpec =>
  output('usb', 'USB', connector, 'digital', pictureAndStereo, { ...needsUsb(milliamps), picture });

export const captures: DeviceType[] = [
  capture({
    id: 'capture-usb-compressed',
    name: 'USB capture card, compressed',
    pictureMs: [80, 150, 250],
    soundMs: [20, 60, 150],
    apartMs: [10, 90, 180],
    hdmi: { link: 'tmds-600', protection: 'none' },
    out: usb('usb-b', 450, { link: 'usb-2', compressed: true }),
    more: { power: fromUsb(450), priceEur: [15, 120] },
  }),
  capture({
    id: 'capture-usb-uncompressed',
    name: 'USB 3 capture card, uncompressed',
    pictureMs: [30, 60, 100],
    soundMs: [10, 30, 60],
    apartMs: [0, 30, 70],
    hdmi: { link: 'tmds-600', protection: 'none' },
    out: usb('usb-c', 800, { link: 'usb-5' }),
    more: { power: fromUsb(800), priceEur: [90, 220] },
  }),
  capture({
    id: 'capture-stick',
    name: 'Capture stick, for cameras',
    pictureMs: [60, 100, 160],
    soundMs: [20, 50, 100],
    apartMs: [0, 50, 110],
    hdmi: { link: 'tmds-340', most: '1920x1080@60', protection: 'none' },
    out: usb('plug-usb-a', 400, { link: 'usb-5' }),
    more: { power: fromUsb(400), priceEur: [50, 130] },
  }),
  capture({
    id: 'capture-card',
    name: 'Capture card within the computer',
    pictureMs: [17, 34, 60],
    soundMs: [10, 20, 40],
    apartMs: [0, 14, 40],
    hdmi: { link: 'tmds-600', protection: 'none' },
    out: hands('to-programs', 'to apps', pictureAndStereo),
    more: { power: { by: [] }, priceEur: [120, 280], needs: ['a free slot in the computer', 'a driver'] },
  }),
  capture({
    id: 'capture-pass-through',
    name: 'USB 3 capture card with pass-through',
    pictureMs: [40, 70, 120],
    soundMs: [10, 40, 80],
    apartMs: [0, 30, 80],
    hdmi: { link: 'tmds-600', protection: 'none' },
    out: usb('usb-c', 800, { link: 'usb-5' }),
    through: true,
    more: { power: fromUsb(800), priceEur: [100, 250] },
  }),
];
