import type { DeviceType, PortSpec } from '#core/model/rig/schema-type.ts';
import {
  battery,
  fromUsb,
  hears,
  input,
  latency,
  muteSetting,
  needsUsb,
  noise,
  onOff,
  output,
  ownClock,
  picture,
  pictureAndStereo,
  stereo,
  switchSetting,
  together,
  typicalMs,
  unmuted,
  way,
  when,
} from './parts.ts';

interface Camera {
  readonly id: string;
  readonly name: string;
  readonly summary: string;
  readonly connector: 'hdmi' | 'hdmi-mini' | 'hdmi-micro';
  readonly microphoneJack: boolean;
  readonly more: Pick<DeviceType, 'power' | 'priceEur' | 'needs'>;
}

const lens = input('lens', 'lens', 'light', 'light', picture);
const FRAMES: DeviceType['figures'][string] = {
  label: 'camera, lens to HDMI',
  unit: 'frames',
  range: [2, 3, 4],
  kind: 'typical',
  source: '2 to 4 frames of its rate, typical of cameras over HDMI',
};
const hdmiPicture: NonNullable<PortSpec['picture']> = {
  link: 'tmds-340',
  sends: { mode: 'picture-mode' },
  overlays: 'overlays',
};

/** A camera's own microphone, and its jack where it has one; both go on over HDMI. */
function camera({ id, name, summary, connector, microphoneJack, more }: Camera): DeviceType {
  const sides = ['left', 'right'] as const;
  const choose = (source: string) => (microphoneJack ? [when('sound-from', source)] : []);
  return {
    id,
    name,
    family: 'cameras',
    shows: { levels: 'in-programs', picture: true },
    summary,
    ...more,
    ports: [
      lens,
      hears('microphone', 'own microphone'),
      ...(microphoneJack
        ? [
            input('jack', 'microphone jack', 'jack-35-trs', 'microphone' as const, stereo, {
              gives: { kind: 'plug-in', milliamps: 1 },
            }),
          ]
        : []),
      output('hdmi', 'HDMI', connector, 'digital', pictureAndStereo, { picture: hdmiPicture }),
    ],
    settings: [
      muteSetting('microphone-mute', 'Own microphone, mute', false, 'own-microphone'),
      switchSetting(
        'picture-mode',
        'Video mode over HDMI',
        {
          '1280x720-60': '720p, 60 Hz',
          '1920x1080-30': '1080p, 30 Hz',
          '1920x1080-60': '1080p, 60 Hz',
          '3840x2160-30': '2160p, 30 Hz',
        },
        '1920x1080-60',
      ),
      onOff('overlays', 'Marks and menus on the HDMI video', 'off'),
      ...(microphoneJack
        ? [switchSetting('sound-from', 'Audio from', { own: 'its own microphone', jack: 'the jack' }, 'own')]
        : []),
    ],
    figures: { picture: FRAMES, sound: { ...FRAMES, label: 'camera, microphone to HDMI' } },
    together: [
      together(
        'picture',
        'sound',
        [-1, 0, 1],
        'both leave by one HDMI link, a frame apart at most: typical of cameras',
      ),
    ],
    inside: [
      way('lens.picture', 'hdmi.picture', latency('picture')),
      ...sides.map((side) =>
        way(
          'microphone.mono',
          `hdmi.${side}`,
          ...choose('own'),
          unmuted('microphone-mute'),
          { do: 'hear', sensitivityDbvPerPa: [-44, -40, -36] },
          noise(-110),
          { do: 'fixed-gain', db: 50 },
          { do: 'convert', to: 'digital', fullScaleDbu: [0, 2, 4] },
          latency('sound'),
          ownClock,
        ),
      ),
      ...(microphoneJack
        ? sides.map((side) =>
            way(
              `jack.${side}`,
              `hdmi.${side}`,
              when('sound-from', 'jack'),
              noise(-115),
              { do: 'fixed-gain', db: 40 },
              { do: 'convert', to: 'digital', fullScaleDbu: [0, 2, 4] },
              latency('sound'),
              ownClock,
            ),
          )
        : []),
    ],
  };
}

export const cameras: DeviceType[] = [
  camera({
    id: 'camera-hdmi',
    name: 'Camera with HDMI output',
    summary: 'Sends what it sees, and what its own microphone hears, over HDMI.',
    connector: 'hdmi-mini',
    microphoneJack: false,
    more: { power: { ...battery(2), by: ['battery', 'mains'] }, priceEur: [300, 700] },
  }),
  camera({
    id: 'camera-hdmi-full',
    name: 'Camera with full-size HDMI and a microphone jack',
    summary: 'Sends a clean video over HDMI; its audio is its own microphone’s or that of its jack.',
    connector: 'hdmi',
    microphoneJack: true,
    more: { power: { ...battery(3), by: ['battery', 'mains'] }, priceEur: [600, 1600] },
  }),
  camera({
    id: 'camera-hdmi-micro',
    name: 'Camera with micro HDMI and a microphone jack',
    summary: 'Small; its micro HDMI socket bends easily.',
    connector: 'hdmi-micro',
    microphoneJack: true,
    more: { power: { ...battery(1.5), by: ['battery', 'mains'] }, priceEur: [400, 1200] },
  }),
  camera({
    id: 'camera-action',
    name: 'Action camera',
    summary: 'Worn or mounted. Warm after an hour of sending.',
    connector: 'hdmi-micro',
    microphoneJack: false,
    more: { power: { ...battery(1.2), by: ['battery', 'mains'] }, priceEur: [180, 450] },
  }),
  {
    id: 'webcam',
    name: 'Webcam, USB',
    family: 'cameras',
    shows: { levels: 'in-programs', picture: true },
    summary: 'A small camera for calls, with a microphone of its own.',
    power: fromUsb(300),
    priceEur: [25, 120],
    ports: [
      lens,
      hears('microphone', 'own microphone'),
      output('usb', 'USB', 'plug-usb-a', 'digital', [...picture, { id: 'mono', carries: 'sound' }], {
        ...needsUsb(300),
        picture: { link: 'usb-2', compressed: true },
      }),
    ],
    settings: [muteSetting('microphone-mute', 'Own microphone, mute', true, 'own-microphone')],
    figures: {
      picture: typicalMs('webcam, lens to app', 60, 100, 160),
      sound: typicalMs('webcam, microphone to app', 5, 20, 50),
    },
    inside: [
      way('lens.picture', 'usb.picture', latency('picture')),
      way(
        'microphone.mono',
        'usb.mono',
        unmuted('microphone-mute'),
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        noise(-112),
        { do: 'convert', to: 'digital', fullScaleDbu: [-30, -24, -18] },
        latency('sound'),
        ownClock,
      ),
    ],
  },
  {
    id: 'picture-link-sender',
    name: 'Wireless video link, transmitter on a gimbal',
    family: 'cameras',
    shows: { levels: 'in-programs', picture: true },
    summary: 'Takes the camera’s HDMI and sends it wirelessly: the camera moves, no cable follows.',
    power: battery(2.5),
    priceEur: [250, 700],
    ports: [
      input('hdmi', 'HDMI in', 'hdmi', 'digital', pictureAndStereo, {
        picture: { link: 'tmds-340', most: '1920x1080@60' },
      }),
      output('radio', 'radio', 'radio', 'digital', pictureAndStereo),
    ],
    settings: [],
    figures: { link: typicalMs('wireless video link', 40, 80, 150) },
    inside: [
      way('hdmi.picture', 'radio.picture', latency('link')),
      ...(['left', 'right'] as const).map((s) => way(`hdmi.${s}`, `radio.${s}`, latency('link'))),
    ],
  },
  {
    id: 'picture-link-receiver',
    name: 'Wireless video link, receiver',
    family: 'cameras',
    shows: { levels: 'in-programs', picture: true },
    summary: 'Gives the video that came wirelessly to HDMI.',
    power: fromUsb(900),
    priceEur: [250, 700],
    ports: [
      input('radio', 'radio', 'radio', 'digital', pictureAndStereo),
      output('hdmi', 'HDMI', 'hdmi', 'digital', pictureAndStereo, { picture: { link: 'tmds-340' } }),
    ],
    settings: [],
    figures: {},
    inside: [
      way('radio.picture', 'hdmi.picture'),
      ...(['left', 'right'] as const).map((s) => way(`radio.${s}`, `hdmi.${s}`)),
    ],
  },
];
