/** What stands on boxes and at the ends of leads. Data; the solver knows none of it by name. */

export type ConnectorKind = 'jack' | 'xlr' | 'phono' | 'hdmi' | 'usb' | 'optical' | 'network' | 'loudspeaker' | 'pins';

/** A socket on a box, or the plug at the end of a lead that a box cannot part with. */
export interface Connector {
  readonly id: string;
  readonly name: string;
  readonly kind: ConnectorKind;
  /** Plugs that go in, the ones it is made for first; for a captive lead, the plug at its end. */
  readonly plugs: readonly PlugId[];
  readonly captive: boolean;
  /** Where one socket has two inputs behind it: the plugs that reach the one for line level. */
  readonly line?: readonly PlugId[];
}

/** Ends of leads, as one names them in a list. `-pair` is one plug for each side. */
export const PLUGS = {
  'ts-35': '3.5 mm mono',
  'trs-35': '3.5 mm stereo',
  'trrs-35': '3.5 mm TRRS (4-pole)',
  'trs-35-pair': 'two 3.5 mm (audio and mic)',
  'trs-25': '2.5 mm stereo',
  'ts-635': '6.35 mm mono',
  'trs-635': '6.35 mm TRS (3-pole)',
  'ts-635-pair': 'two 6.35 mm mono',
  'trs-635-pair': 'two 6.35 mm balanced',
  'insert-635': '6.35 mm insert',
  'xlr-f': 'XLR female',
  'xlr-m': 'XLR male',
  'xlr-f-pair': 'two XLR female',
  'xlr-m-pair': 'two XLR male',
  phono: 'phono',
  'phono-pair': 'two RCA (phono)',
  hdmi: 'HDMI',
  'hdmi-mini': 'HDMI mini',
  'hdmi-micro': 'HDMI micro',
  'usb-a': 'USB A',
  'usb-b': 'USB B',
  'usb-b3': 'USB 3 B',
  'usb-c': 'USB C',
  'usb-mini': 'USB mini B',
  'usb-micro': 'USB micro B',
  toslink: 'optical',
  'toslink-mini': 'optical mini, 3.5 mm',
  rj45: 'network',
  wires: 'bare speaker wires',
  locking: 'locking speaker',
  'pins-8': 'round, eight pins',
} as const;
export type PlugId = keyof typeof PLUGS;

const socket = (id: string, name: string, kind: ConnectorKind, ...plugs: PlugId[]): Connector => ({
  id,
  name,
  kind,
  plugs,
  captive: false,
});
const captive = (id: string, kind: ConnectorKind, plug: PlugId): Connector => ({
  id,
  name: `attached cable, ${PLUGS[plug]}`,
  kind,
  plugs: [plug],
  captive: true,
});

export const CONNECTORS: readonly Connector[] = [
  socket('jack-35-ts', '3.5 mm socket, mono', 'jack', 'ts-35'),
  socket('jack-35-trs', '3.5 mm socket, stereo', 'jack', 'trs-35', 'ts-35', 'trrs-35'),
  socket('jack-35-trrs', '3.5 mm socket, TRRS (4-pole)', 'jack', 'trrs-35', 'trs-35'),
  socket('jack-25-trs', '2.5 mm socket', 'jack', 'trs-25'),
  socket('jack-635-ts', '6.35 mm socket, unbalanced', 'jack', 'ts-635', 'trs-635'),
  socket('jack-635-trs', '6.35 mm socket, TRS (3-pole)', 'jack', 'trs-635', 'ts-635'),
  socket(
    'jack-635-pair',
    'two 6.35 mm sockets, left and right',
    'jack',
    'trs-635-pair',
    'ts-635-pair',
    'trs-635',
    'ts-635',
  ),
  socket('jack-635-insert', '6.35 mm insert socket', 'jack', 'insert-635'),
  socket('xlr-male', 'XLR, male, an output', 'xlr', 'xlr-f'),
  socket('xlr-female', 'XLR, female, an input', 'xlr', 'xlr-m'),
  socket('xlr-male-pair', 'two XLR, male, left and right', 'xlr', 'xlr-f-pair', 'xlr-f'),
  socket('xlr-female-pair', 'two XLR, female, left and right', 'xlr', 'xlr-m-pair', 'xlr-m'),
  {
    ...socket('combo-xlr', 'XLR and 6.35 mm in one', 'xlr', 'xlr-m', 'trs-635', 'ts-635'),
    line: ['trs-635', 'ts-635'],
  },
  socket('phono', 'RCA (phono) socket', 'phono', 'phono'),
  socket('phono-pair', 'two RCA (phono) sockets, left and right', 'phono', 'phono-pair', 'phono'),
  socket('hdmi', 'HDMI', 'hdmi', 'hdmi'),
  socket('hdmi-mini', 'HDMI mini', 'hdmi', 'hdmi-mini'),
  socket('hdmi-micro', 'HDMI micro', 'hdmi', 'hdmi-micro'),
  socket('usb-a', 'USB A', 'usb', 'usb-a'),
  socket('usb-b', 'USB B', 'usb', 'usb-b'),
  socket('usb-b3', 'USB 3 B', 'usb', 'usb-b3', 'usb-b'),
  socket('usb-c', 'USB C', 'usb', 'usb-c'),
  socket('usb-mini', 'USB mini B', 'usb', 'usb-mini'),
  socket('usb-micro', 'USB micro B', 'usb', 'usb-micro'),
  socket('toslink', 'optical', 'optical', 'toslink'),
  socket('toslink-mini', 'optical in a 3.5 mm socket', 'optical', 'toslink-mini'),
  socket('rj45', 'network', 'network', 'rj45'),
  socket('terminals', 'speaker terminals', 'loudspeaker', 'wires'),
  socket('locking', 'locking speaker socket', 'loudspeaker', 'locking'),
  socket('pins-8', 'round socket with eight pins', 'pins', 'pins-8'),
  captive('plug-35-trs', 'jack', 'trs-35'),
  captive('plug-35-trrs', 'jack', 'trrs-35'),
  captive('plug-35-pair', 'jack', 'trs-35-pair'),
  captive('plug-635-trs', 'jack', 'trs-635'),
  captive('plug-usb-a', 'usb', 'usb-a'),
  captive('plug-usb-c', 'usb', 'usb-c'),
  captive('plug-hdmi', 'hdmi', 'hdmi'),
];

const byId = new Map(CONNECTORS.map((c) => [c.id, c]));
/** Undefined for air, light, software, files, points inside a box: nothing is plugged there. */
export const connectorOf = (id: string): Connector | undefined => byId.get(id);

/** Ends where nothing is plugged: air, light, radio, programs, files, points within a box. */
export const UNPLUGGED: ReadonlySet<string> = new Set([
  'air',
  'light',
  'radio',
  'bluetooth',
  'software',
  'file',
  'inside',
]);
