import type { DeviceType, PortSpec } from '#core/model/rig/schema-type.ts';
import { input, mains, needsUsb, output, pictureAndStereo, stereo, straight } from './parts.ts';

const DOWN = [1, 2, 3, 4];

/** Four devices on one socket: each has a way of its own through the hub, all share one cable. */
function usbHub(id: string, name: string, summary: string, own: boolean): DeviceType {
  const milliamps = own ? 900 : 150;
  const up = own ? {} : needsUsb(100);
  const ports: PortSpec[] = DOWN.flatMap((n) => [
    input(`down-${n}`, `socket ${n}`, 'usb-a', 'digital', pictureAndStereo, {
      socket: `down-${n}`,
      gives: { kind: 'usb', milliamps },
      picture: { link: 'usb-5' },
    }),
    output(`down-${n}-out`, `socket ${n}, outwards`, 'usb-a', 'digital', stereo, { socket: `down-${n}` }),
    output(`up-${n}`, `to the computer, device ${n}`, 'plug-usb-a', 'digital', pictureAndStereo, {
      socket: 'up',
      soundDevice: `device-${n}`,
      picture: { link: 'usb-5' },
      ...(n === 1 ? up : {}),
    }),
    input(`up-${n}-in`, `from the computer, device ${n}`, 'plug-usb-a', 'digital', stereo, {
      socket: 'up',
      soundDevice: `device-${n}`,
    }),
  ]);
  return {
    id,
    name,
    family: 'power',
    summary,
    power: own
      ? { by: ['mains'], feeds: { kind: 'usb', outlets: 4, milliamps: 3600 } }
      : { by: ['usb'], milliamps: 100, feeds: { kind: 'usb', outlets: 4, milliamps: 400 } },
    priceEur: own ? [20, 60] : [8, 25],
    ports,
    settings: [],
    figures: {},
    inside: DOWN.flatMap((n) => [
      ...straight(`down-${n}`, `up-${n}`, pictureAndStereo),
      ...straight(`up-${n}-in`, `down-${n}-out`, stereo),
    ]),
  };
}

const feeder = (
  id: string,
  name: string,
  summary: string,
  power: DeviceType['power'],
  priceEur: [number, number],
): DeviceType => ({
  id,
  name,
  family: 'power',
  summary,
  power,
  priceEur,
  ports: [],
  settings: [],
  figures: {},
  inside: [],
});

/** What feeds the rest. Mains work is for the electrician; these only say what is fed from where. */
export const power: DeviceType[] = [
  usbHub(
    'usb-hub',
    'USB hub, fed by the computer',
    'Four sockets that share what one socket of the computer gives: nothing hungry on it.',
    false,
  ),
  usbHub('usb-hub-powered', 'USB hub with its own supply', 'Four sockets, each with its own current.', true),
  feeder(
    'power-strip',
    'Power strip, grounded',
    'Six outlets on one earth: everything on it has the same earth, which is what hum needs to be spared.',
    { ...mains, feeds: { kind: 'mains', outlets: 6 } },
    [8, 40],
  ),
  feeder(
    'power-strip-long',
    'Power strip, grounded, twelve outlets',
    'Twelve outlets on one earth.',
    { ...mains, feeds: { kind: 'mains', outlets: 12 } },
    [20, 80],
  ),
  feeder(
    'usb-charger',
    'USB supply, four sockets',
    'Feeds small things at 5 V without a computer.',
    { ...mains, feeds: { kind: 'usb', outlets: 4, milliamps: 4800 } },
    [15, 50],
  ),
  feeder(
    'power-bank',
    'Battery with USB sockets',
    'Feeds small things at 5 V where no AC power is; joins no earth.',
    { by: ['battery'], hours: 10, feeds: { kind: 'usb', outlets: 2, milliamps: 3000 } },
    [20, 80],
  ),
];
