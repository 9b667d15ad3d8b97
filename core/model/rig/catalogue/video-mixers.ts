import type { DeviceType } from '#core/model/rig/schema-type.ts';
import {
  both,
  ceiling,
  delay,
  delaySetting,
  gain,
  grouped,
  input,
  latency,
  levelSetting,
  mains,
  muteSetting,
  noise,
  output,
  ownClock,
  pictureAndStereo,
  stereo,
  switchSetting,
  toAnalogue,
  toDigital,
  together,
  typicalMs,
  unmuted,
  way,
  when,
} from './parts.ts';

/** Several HDMI pictures cut to one, their sound and two jacks mixed, as a camera over USB and over HDMI. */
function videoMixer(inputs: number, priceEur: [number, number]): DeviceType {
  const all = Array.from({ length: inputs }, (_, i) => i + 1);
  const words = { 2: 'two', 4: 'four', 8: 'eight' }[inputs]!;
  return {
    id: `video-mixer-${inputs}`,
    name: `Video mixer, ${words} HDMI inputs`,
    family: 'mixers',
    shows: { levels: 'on-it', picture: true },
    summary: `Cuts ${words} HDMI video signals, mixes their audio with two jacks, and is a camera for the computer over USB.`,
    power: mains,
    priceEur,
    ports: [
      ...all.map((n) =>
        input(`hdmi-${n}`, `HDMI in ${n}`, 'hdmi', 'digital', pictureAndStereo, {
          does: 'captured',
          picture: { link: 'tmds-340', most: '1920x1080@60', protection: 'none' },
        }),
      ),
      ...[1, 2].map((n) =>
        input(`jack-${n}`, `mic ${n}`, 'jack-35-trs', 'microphone' as const, stereo, {
          gives: { kind: 'plug-in', milliamps: 1 },
        }),
      ),
      output('usb', 'USB, as a camera', 'usb-c', 'digital', pictureAndStereo, {
        picture: { link: 'usb-5', compressed: true },
      }),
      output('program', 'HDMI out', 'hdmi', 'digital', pictureAndStereo, { picture: { link: 'tmds-340' } }),
      output('phones', 'headphones', 'jack-35-trs', 'headphone', stereo),
    ],
    settings: [
      switchSetting('picture', 'Video', Object.fromEntries(all.map((n) => [`${n}`, `input ${n}`])), '1'),
      ...all.flatMap((n) =>
        grouped(`Input ${n}`, [
          muteSetting(`hdmi-${n}-mute`, `HDMI ${n}, mute`, false),
          levelSetting(`hdmi-${n}-level`, `HDMI ${n}, level`, 0),
        ]),
      ),
      ...[1, 2].flatMap((n) =>
        grouped(`Mic ${n}`, [
          muteSetting(`jack-${n}-mute`, `Mic ${n}, mute`, false),
          levelSetting(`jack-${n}-gain`, `Mic ${n}, gain`, 20, 50),
          delaySetting(`jack-${n}-delay`, `Mic ${n}, delay`, 250),
        ]),
      ),
      levelSetting('volume', 'Headphones level', -20, 0),
    ],
    figures: {
      picture: typicalMs('video mixer, video', 30, 60, 100),
      sound: typicalMs('video mixer, audio', 5, 20, 60),
    },
    together: [together('picture', 'sound', [0, 40, 80], 'they leave by one link, typical of video mixers')],
    inside: [
      ...all.flatMap((n) => [
        ...['usb', 'program'].map((out) =>
          way(`hdmi-${n}.picture`, `${out}.picture`, when('picture', `${n}`), latency('picture')),
        ),
        ...['usb', 'program'].flatMap((out) =>
          both(`hdmi-${n}`, out, unmuted(`hdmi-${n}-mute`), gain(`hdmi-${n}-level`), ceiling(0), latency('sound')),
        ),
        ...both(
          `hdmi-${n}`,
          'phones',
          unmuted(`hdmi-${n}-mute`),
          gain(`hdmi-${n}-level`),
          latency('sound'),
          toAnalogue([2, 4, 8]),
          gain('volume'),
        ),
      ]),
      ...[1, 2].flatMap((n) => {
        const mic = [
          unmuted(`jack-${n}-mute`),
          noise(-118),
          gain(`jack-${n}-gain`),
          toDigital([0, 2, 4]),
          ownClock,
          delay(`jack-${n}-delay`),
        ];
        return [
          ...['usb', 'program'].flatMap((out) => both(`jack-${n}`, out, ...mic, ceiling(0), latency('sound'))),
          ...both(`jack-${n}`, 'phones', ...mic, toAnalogue([2, 4, 8]), gain('volume')),
        ];
      }),
    ],
  };
}

export const videoMixers: DeviceType[] = [
  videoMixer(2, [120, 300]),
  videoMixer(4, [250, 600]),
  videoMixer(8, [700, 1800]),
];
