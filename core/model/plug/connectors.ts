import type { Text } from '#core/base/said/index.ts';
import { say } from './sayings.ts';

/** Connectors of devices and cables. Data; the solver knows none of them by name. */

export type ConnectorKind = 'jack' | 'xlr' | 'phono' | 'hdmi' | 'usb' | 'optical' | 'network' | 'loudspeaker' | 'pins';

/** A socket on a device, or the plug at the end of a cable that a device cannot part with. */
export interface Connector {
  readonly id: string;
  readonly name: Text;
  readonly kind: ConnectorKind;
  /** Plugs that go in, the ones it is made for first; for a captive lead, the plug at its end. */
  readonly plugs: readonly PlugId[];
  readonly captive: boolean;
  /** Where one socket has two inputs behind it: the plugs that reach the one for line level. */
  readonly line?: readonly PlugId[];
}

/** Ends of cables, as one names them in a list. `-pair` is one plug for each side. */
export const PLUGS = {
  'ts-35': say.ts35(),
  'trs-35': say.trs35(),
  'trrs-35': say.trrs35(),
  'trs-35-pair': say.trs35Pair(),
  'trs-25': say.trs25(),
  'ts-635': say.ts635(),
  'trs-635': say.trs635(),
  'ts-635-pair': say.ts635Pair(),
  'trs-635-pair': say.trs635Pair(),
  'insert-635': say.insert635(),
  'xlr-f': say.xlrF(),
  'xlr-m': say.xlrM(),
  'xlr-f-pair': say.xlrFPair(),
  'xlr-m-pair': say.xlrMPair(),
  phono: say.phono(),
  'phono-pair': say.phonoPair(),
  hdmi: 'HDMI',
  'hdmi-mini': say.hdmiMini(),
  'hdmi-micro': say.hdmiMicro(),
  'usb-a': say.usbA(),
  'usb-b': say.usbB(),
  'usb-b3': say.usbB3(),
  'usb-c': say.usbC(),
  'usb-mini': say.usbMini(),
  'usb-micro': say.usbMicro(),
  toslink: say.toslink(),
  'toslink-mini': say.toslinkMini(),
  rj45: say.rj45(),
  wires: say.wires(),
  locking: say.locking(),
  'pins-8': say.pins8(),
} as const;
export type PlugId = keyof typeof PLUGS;

const socket = (id: string, name: Text, kind: ConnectorKind, ...plugs: PlugId[]): Connector => ({
  id,
  name,
  kind,
  plugs,
  captive: false,
});
const captive = (id: string, kind: ConnectorKind, plug: PlugId): Connector => ({
  id,
  name: say.attachedCable({ plug: PLUGS[plug] }),
  kind,
  plugs: [plug],
  captive: true,
});

export const CONNECTORS: readonly Connector[] = [
  socket('jack-35-ts', say.jack35Ts(), 'jack', 'ts-35'),
  socket('jack-35-trs', say.jack35Trs(), 'jack', 'trs-35', 'ts-35', 'trrs-35'),
  socket('jack-35-trrs', say.jack35Trrs(), 'jack', 'trrs-35', 'trs-35'),
  socket('jack-25-trs', say.jack25Trs(), 'jack', 'trs-25'),
  socket('jack-635-ts', say.jack635Ts(), 'jack', 'ts-635', 'trs-635'),
  socket('jack-635-trs', say.jack635Trs(), 'jack', 'trs-635', 'ts-635'),
  socket('jack-635-pair', say.jack635Pair(), 'jack', 'trs-635-pair', 'ts-635-pair', 'trs-635', 'ts-635'),
  socket('jack-635-insert', say.jack635Insert(), 'jack', 'insert-635'),
  socket('xlr-male', say.xlrMale(), 'xlr', 'xlr-f'),
  socket('xlr-female', say.xlrFemale(), 'xlr', 'xlr-m'),
  socket('xlr-male-pair', say.xlrMalePair(), 'xlr', 'xlr-f-pair', 'xlr-f'),
  socket('xlr-female-pair', say.xlrFemalePair(), 'xlr', 'xlr-m-pair', 'xlr-m'),
  {
    ...socket('combo-xlr', say.comboXlr(), 'xlr', 'xlr-m', 'trs-635', 'ts-635'),
    line: ['trs-635', 'ts-635'],
  },
  socket('phono', say.phonoSocket(), 'phono', 'phono'),
  socket('phono-pair', say.phonoPairSocket(), 'phono', 'phono-pair', 'phono'),
  socket('hdmi', 'HDMI', 'hdmi', 'hdmi'),
  socket('hdmi-mini', say.hdmiMini(), 'hdmi', 'hdmi-mini'),
  socket('hdmi-micro', say.hdmiMicro(), 'hdmi', 'hdmi-micro'),
  socket('usb-a', say.usbA(), 'usb', 'usb-a'),
  socket('usb-b', say.usbB(), 'usb', 'usb-b'),
  socket('usb-b3', say.usbB3(), 'usb', 'usb-b3', 'usb-b'),
  socket('usb-c', say.usbC(), 'usb', 'usb-c'),
  socket('usb-mini', say.usbMini(), 'usb', 'usb-mini'),
  socket('usb-micro', say.usbMicro(), 'usb', 'usb-micro'),
  socket('toslink', say.toslink(), 'optical', 'toslink'),
  socket('toslink-mini', say.toslinkMiniSocket(), 'optical', 'toslink-mini'),
  socket('rj45', say.rj45(), 'network', 'rj45'),
  socket('terminals', say.terminals(), 'loudspeaker', 'wires'),
  socket('locking', say.lockingSocket(), 'loudspeaker', 'locking'),
  socket('pins-8', say.pins8Socket(), 'pins', 'pins-8'),
  captive('plug-35-trs', 'jack', 'trs-35'),
  captive('plug-35-trrs', 'jack', 'trrs-35'),
  captive('plug-35-pair', 'jack', 'trs-35-pair'),
  captive('plug-635-trs', 'jack', 'trs-635'),
  captive('plug-usb-a', 'usb', 'usb-a'),
  captive('plug-usb-c', 'usb', 'usb-c'),
  captive('plug-hdmi', 'hdmi', 'hdmi'),
];

const byId = new Map(CONNECTORS.map((c) => [c.id, c]));
/** Undefined for air, light, software, files, points inside a device: nothing is plugged there. */
export const connectorOf = (id: string): Connector | undefined => byId.get(id);

/** Ends where nothing is plugged: air, light, radio, programs, files, points within a device. */
export const UNPLUGGED: ReadonlySet<string> = new Set([
  'air',
  'light',
  'radio',
  'bluetooth',
  'software',
  'file',
  'inside',
]);
