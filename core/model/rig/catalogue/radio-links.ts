import type { DeviceType } from '#core/model/rig/schema-type.ts';
import {
  battery,
  both,
  fromUsb,
  gain,
  gainSetting,
  input,
  latency,
  levelSetting,
  mains,
  noise,
  output,
  ownClock,
  stereo,
  toAnalogue,
  toDigital,
  typicalMs,
  unpowered,
} from './parts.ts';

/** What sends a line by radio, or to someone's ears. */
function sender(id: string, name: string, summary: string, priceEur: [number, number]): DeviceType {
  return {
    id,
    name,
    family: 'radio-links',
    summary,
    power: mains,
    priceEur,
    ports: [
      input('line', 'line in', 'jack-635-pair', 'line', stereo),
      output('radio', 'radio', 'radio', 'digital', stereo),
    ],
    settings: [gainSetting('gain', 'Input gain', [-20, 0, 20])],
    figures: { link: typicalMs('wireless link for a line', 2, 6, 20) },
    inside: both('line', 'radio', noise(-85), gain('gain'), toDigital([4, 8, 14]), latency('link'), ownClock),
  };
}

export const radioLinks: DeviceType[] = [
  sender(
    'line-radio-sender',
    'Wireless line link, transmitter',
    'Sends a stereo line across a room without a cable.',
    [40, 300],
  ),
  {
    id: 'line-radio-receiver',
    name: 'Wireless line link, receiver',
    family: 'radio-links',
    summary: 'Gives what its transmitter sends at line level.',
    power: { by: ['mains', 'usb'], milliamps: 300 },
    priceEur: [40, 300],
    ports: [
      input('radio', 'radio', 'radio', 'digital', stereo),
      output('line', 'line out', 'jack-635-pair', 'line', stereo),
    ],
    settings: [],
    figures: {},
    inside: both('radio', 'line', toAnalogue([2, 6, 10]), noise(-85)),
  },
  sender(
    'ears-radio-sender',
    'Wireless in-ear monitors, transmitter',
    'Takes a mix of its own from the mixer to somebody who walks about.',
    [150, 700],
  ),
  {
    id: 'ears-radio-pack',
    name: 'Wireless in-ear monitors, bodypack',
    family: 'radio-links',
    summary: 'Worn on the belt; earphones hang on it.',
    power: battery(6),
    priceEur: [100, 500],
    ports: [
      input('radio', 'radio', 'radio', 'digital', stereo),
      output('phones', 'earphones', 'jack-35-trs', 'headphone', stereo),
    ],
    settings: [levelSetting('volume', 'Volume', -20, 0)],
    figures: {},
    inside: both('radio', 'phones', toAnalogue([2, 6, 10]), noise(-90), gain('volume')),
  },
  {
    id: 'accessory',
    name: 'Stand, light or other thing without a signal',
    family: 'controllers',
    summary:
      'Stands on the desk, and no audio and no video goes through it: a stand, a light, a controller in the hand.',
    power: unpowered,
    priceEur: [10, 150],
    ports: [],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'button-panel',
    name: 'Panel of buttons',
    family: 'controllers',
    summary: 'Keys that a app or a light listens to: no audio and no video goes through it.',
    power: fromUsb(200),
    priceEur: [30, 250],
    ports: [],
    settings: [],
    figures: {},
    inside: [],
  },
];
