import { findTypes, parseRig, RIG_VERSION, type Rig } from '#core/model/rig/index.ts';

type Cable = Rig['cables'][number];

/** A place at a desk: console, capture, two microphones, mixer, computer, programs, and who hears it. */
const STATION = {
  devices: {
    console: 'game-console',
    splitter: 'hdmi-splitter-powered',
    screen: 'screen-with-jack',
    extractor: 'hdmi-extractor',
    capture: 'capture-usb-compressed',
    talker: 'person',
    mic: 'microphone-dynamic',
    mixer: 'mixer-usb-send',
    computer: 'computer-desktop',
    program: 'capture-program',
    phones: 'headphones',
    recorder: 'recorder-stereo',
  },
  cables: [
    'console.hdmi > splitter.in',
    'splitter.out-1 > extractor.in',
    'extractor.out > screen.hdmi',
    'splitter.out-2 > capture.hdmi',
    'capture.usb > computer.usb-1',
    'computer.from-usb-1 > program.in-1',
    'talker.voice > mic.capsule',
    'mic.xlr > mixer.strip-1',
    'extractor.line > mixer.strip-3-4',
    'mixer.usb > computer.usb-2',
    'computer.from-usb-2 > program.in-2',
    'computer.usb-2-out > mixer.usb-return',
    'mixer.phones > phones.plug',
    'mixer.main-out > recorder.line',
    'program.stream > computer.to-usb-2',
    'computer.from-usb-1 > computer.to-screen-1',
  ],
  /** From each station into the next ones: lines between mixers, and what one computer shows the other. */
  across: [
    ['mixer.send-out', 'mixer.strip-5-6', 1],
    ['mixer.usb', 'computer.usb-3', 2],
    ['computer.hdmi-1', 'screen.hdmi', 3],
    ['mixer.send-out', 'recorder.line', 1],
    ['computer.line-out', 'mixer.strip-5-6', 4],
    ['computer.hdmi-2', 'capture.hdmi', 5],
    ['recorder.file', '', 0],
  ],
} as const;

/** A rig of so many devices with twice as many cables or a little more, from one plan, the same every time. */
export function bigRig(deviceCount: number): Rig {
  const stations = Math.ceil(deviceCount / Object.keys(STATION.devices).length);
  const ref = (place: string, s: number) => {
    const [box, portId] = place.split('.') as [string, string];
    return { deviceId: `${box}-${s}`, portId };
  };
  const medium = (from: string, to: string): Cable['medium'] =>
    from.startsWith('talker')
      ? 'air'
      : /from-|program|to-/.test(`${from} ${to}`) &&
          !from.includes('usb >') &&
          (from.includes('from-') || from.startsWith('program'))
        ? 'software'
        : 'lead';
  const numbers = Array.from({ length: stations }, (_, i) => i);
  const cables = numbers.flatMap((s) => [
    ...STATION.cables.map((text) => text.split(' > ') as [string, string]).map(([a, b]) => [a, b, s, s] as const),
    ...STATION.across.filter(([, to]) => to !== '').map(([a, b, by]) => [a, b, s, (s + by) % stations] as const),
  ]);
  return parseRig({
    schemaVersion: RIG_VERSION,
    name: `${deviceCount} devices`,
    notes: '',
    session: {
      frameRate: { num: 60, den: 1 },
      sampleRateHz: 48_000,
      toleranceId: 'ebu-r37',
      fullScaleDbu: 18,
      hours: 2,
    },
    types: [],
    devices: numbers.flatMap((s) =>
      Object.entries(STATION.devices).map(([box, typeId]) => ({
        id: `${box}-${s}`,
        typeId,
        name: `${box} ${s}`,
        settings: box === 'mixer' ? { 'strip-5-6-fader': { value: -20, known: 'confirmed' } } : {},
        ...(box === 'program' && { on: `computer-${s}` }),
      })),
    ),
    cables: cables
      .map(([a, b, s, t], i) => ({
        id: `c${i}`,
        from: ref(a, s),
        to: ref(b, t),
        medium: medium(a, b),
        lengthM: 1,
        known: 'confirmed',
      }))
      .filter((c) => c.from.deviceId !== c.to.deviceId || c.medium === 'software'),
    sources: numbers
      .slice(0, 30)
      .flatMap((s) => [
        {
          id: `game-${s}`,
          name: `game ${s}`,
          letter: 'G',
          hue: 1,
          sound: ref('console.hdmi', s),
          picture: ref('console.hdmi', s),
          level: [-20, -20, -20],
        },
        {
          id: `voice-${s}`,
          name: `voice ${s}`,
          letter: 'V',
          hue: 2,
          sound: ref('talker.voice', s),
          level: [74, 77, 80],
        },
      ])
      .slice(0, Math.min(60, 2 * stations)),
    listeners: numbers.slice(0, 60).map((s) => ({
      id: `stream-${s}`,
      name: `stream ${s}`,
      sound: ref('program.stream', s),
      picture: ref('program.stream', s),
    })),
    plan: numbers.slice(0, 30).map((s) => ({ sourceId: `voice-${s}`, listenerId: `stream-${s}`, want: 'must' })),
    measurements: [],
    tasks: [],
  });
}

/** One mute of the rig pressed, another one each time. */
export function turned(rig: Rig, n: number): Rig {
  const types = findTypes(rig);
  const mutes = rig.devices.flatMap((device) =>
    types.get(device.typeId)!.settings.flatMap((spec) => (spec.kind === 'mute' ? [{ device, spec }] : [])),
  );
  const { device, spec } = mutes[(n * 7) % mutes.length]!;
  const value = !(device.settings[spec.id]?.value ?? spec.default);
  const settings = { ...device.settings, [spec.id]: { value, known: 'assumed' as const } };
  return { ...rig, devices: rig.devices.map((d) => (d === device ? { ...d, settings } : d)) };
}
