import type { DeviceType } from '#core/model/rig/schema-type.ts';
import {
  battery,
  both,
  earthedMains,
  latency,
  mains,
  noise,
  onOff,
  output,
  pictureAndStereo,
  stereo,
  straight,
  switchSetting,
  toAnalogue,
  typicalMs,
} from './parts.ts';

const SOUND_FORMATS = { 'stereo-pcm': 'two-channel PCM', surround: 'surround or coded' };

function gameConsole(
  id: string,
  name: string,
  summary: string,
  modes: Record<string, string>,
  preset: string,
  link: NonNullable<DeviceType['ports'][number]['picture']>['link'],
  more: Pick<DeviceType, 'power' | 'priceEur'>,
  { family, does }: Pick<DeviceType, 'family'> & { does: 'game' | 'music' } = { family: 'consoles', does: 'game' },
): DeviceType {
  return {
    id,
    name,
    family,
    summary,
    ...more,
    ports: [
      output('hdmi', 'HDMI', 'hdmi', 'digital', pictureAndStereo, {
        does,
        picture: {
          ...(link && { link }),
          sends: { mode: 'picture-mode', bits: 'bits' },
          protects: 'copy-protection',
          soundFormat: 'sound-format',
        },
      }),
    ],
    settings: [
      switchSetting('picture-mode', 'Video mode', modes, preset),
      switchSetting('bits', 'Bits a color', { '8': '8 bits', '10': '10 bits, for high dynamic range' }, '8'),
      onOff('copy-protection', 'Copy protection of HDMI', 'on'),
      switchSetting('sound-format', 'Audio format', SOUND_FORMATS, 'stereo-pcm'),
    ],
    figures: {},
    inside: [],
  };
}

export const consoles: DeviceType[] = [
  gameConsole(
    'game-console',
    'Game console',
    'Plays a game; video and audio leave together over HDMI.',
    {
      '1280x720-60': '720p, 60 Hz',
      '1920x1080-60': '1080p, 60 Hz',
      '1920x1080-120': '1080p, 120 Hz',
      '2560x1440-120': '1440p, 120 Hz',
      '3840x2160-60': '2160p, 60 Hz',
      '3840x2160-120': '2160p, 120 Hz',
    },
    '1920x1080-60',
    'frl-40',
    { power: earthedMains, priceEur: [350, 550] },
  ),
  gameConsole(
    'game-console-portable',
    'Game console, portable, in its dock',
    'Plays in the hand, and through a dock on a display.',
    { '1280x720-60': '720p, 60 Hz', '1920x1080-60': '1080p, 60 Hz', '3840x2160-60': '2160p, 60 Hz' },
    '1920x1080-60',
    'tmds-600',
    { power: { ...battery(4), by: ['mains', 'battery'] }, priceEur: [250, 450] },
  ),
  gameConsole(
    'game-console-old',
    'Game console, ten years old',
    'Sends at most 1080p at 60 Hz.',
    { '1280x720-60': '720p, 60 Hz', '1920x1080-60': '1080p, 60 Hz' },
    '1920x1080-60',
    'tmds-340',
    { power: mains, priceEur: [60, 180] },
  ),
  withHeadset(),
  gameConsole(
    'video-player',
    'Video player',
    'Discs, tapes behind a converter, or apps from the network; video and audio leave together over HDMI.',
    { '1920x1080-60': '1080p, 60 Hz', '3840x2160-60': '2160p, 60 Hz' },
    '1920x1080-60',
    'tmds-600',
    { power: mains, priceEur: [40, 250] },
    { family: 'instruments', does: 'music' },
  ),
];

/** The game is heard at the console too: at its USB socket, and by radio at the jack of its controller. */
function withHeadset(): DeviceType {
  const plain = gameConsole(
    'game-console-headset',
    'Game console, with a headset',
    'Plays a game over HDMI, and to a headset in its USB socket or in the jack of its controller.',
    { '1280x720-60': '720p, 60 Hz', '1920x1080-60': '1080p, 60 Hz', '3840x2160-60': '2160p, 60 Hz' },
    '1920x1080-60',
    'frl-40',
    { power: earthedMains, priceEur: [350, 550] },
  );
  const [hdmi] = plain.ports;
  const { does: _begins, ...link } = hdmi!;
  return {
    ...plain,
    ports: [
      output('game', 'game', 'inside', 'digital', pictureAndStereo, { does: 'game' }),
      link,
      output('usb', 'USB, for a headset', 'usb-a', 'digital', stereo, { gives: { kind: 'usb', milliamps: 500 } }),
      output('controller', 'controller, headset jack', 'jack-35-trrs', 'headphone', stereo),
    ],
    figures: {
      usb: typicalMs('console, audio at its USB socket', 5, 15, 30),
      controller: typicalMs('console, audio at the jack of its controller', 10, 30, 60),
    },
    inside: [
      ...straight('game', 'hdmi', pictureAndStereo),
      ...both('game', 'usb', latency('usb')),
      ...both('game', 'controller', latency('controller'), toAnalogue([-6, -2, 2]), noise(-85)),
    ],
  };
}
