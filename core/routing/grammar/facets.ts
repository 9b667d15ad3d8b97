import { connectorOf } from '#core/model/plug/index.ts';
import { type DeviceType, isHardware, isProgram } from '#core/model/rig/index.ts';

/** What may be said of a device, and is read off its type: how it is plugged, and how it works. */
const FACETS: Readonly<Record<string, (type: DeviceType) => boolean>> = {
  usb: (t) => has(t, 'usb'),
  xlr: (t) => has(t, 'xlr') || t.ports.some((p) => p.connector.startsWith('combo')),
  hdmi: (t) => has(t, 'hdmi'),
  optical: (t) => has(t, 'optical'),
  jack: (t) => has(t, 'jack'),
  bluetooth: (t) => t.ports.some((p) => p.connector === 'bluetooth'),
  wireless: (t) => t.ports.some((p) => p.connector === 'bluetooth' || p.connector === 'radio'),
  wired: (t) => isHardware(t) && !t.ports.some((p) => p.connector === 'bluetooth' || p.connector === 'radio'),
  stereo: (t) => t.ports.some((p) => p.channels.filter((c) => c.carries === 'sound').length === 2),
  software: (t) => isProgram(t),
  program: (t) => isProgram(t),
  app: (t) => isProgram(t),
  music: (t) => t.ports.some((p) => p.does === 'music'),
  // Of nearly everything one may say it, and nothing follows.
  audio: () => true,
  video: (t) => t.ports.some((p) => p.channels.some((c) => c.carries === 'picture')),
};

const has = ({ ports }: DeviceType, kind: string): boolean =>
  ports.some((p) => connectorOf(p.connector)?.kind === kind);

/** Whether a word says how something is plugged or works; and whether a type is so. Null for any other word. */
export function facetOf(word: string, type: DeviceType): boolean | null {
  const is = Object.hasOwn(FACETS, word) ? FACETS[word] : undefined;
  return is ? is(type) : null;
}

/** Words that say how many inputs there are: '4 channel', '3 in', '2 input'. */
export const COUNTED = new Set(['in', 'input', 'channel', 'ch', 'track', 'way', 'port', 'preamp']);

/** How many inputs a type has, as people count: sockets, and channels where one socket takes several. */
export function inputsOf(type: DeviceType): { readonly sockets: number; readonly channels: number } {
  const ins = type.ports.filter(
    (p) =>
      p.direction === 'in' &&
      (connectorOf(p.connector) !== undefined || p.connector === 'radio') &&
      connectorOf(p.connector)?.kind !== 'usb' &&
      p.level !== 'air',
  );
  const outs = type.ports.filter((p) => p.direction === 'out' && connectorOf(p.connector) !== undefined);
  const sockets = ins.length > 0 ? ins.length : outs.length;
  const channels = (ins.length > 0 ? ins : outs).reduce(
    (sum, p) => sum + (p.channels.some((c) => c.carries === 'picture') ? 1 : p.channels.length),
    0,
  );
  return { sockets, channels };
}
