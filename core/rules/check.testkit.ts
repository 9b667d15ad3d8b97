import { type LevelClass, parseRig, RIG_VERSION, type Rig } from '#core/model/rig/index.ts';

interface End {
  readonly connector: string;
  readonly level: LevelClass;
  readonly channels?: number;
}
interface Joined {
  readonly from: End;
  readonly to: End;
  readonly lengthM?: number;
  readonly known?: 'assumed' | 'confirmed';
  readonly medium?: 'lead' | 'radio';
}

/** Two devices and the cable between them, for rules that look at one cable. */
export function joined({ from, to, lengthM = 1, known = 'confirmed', medium = 'lead' }: Joined): Rig {
  const channels = (n = 1) => Array.from({ length: n }, (_, i) => ({ id: `ch-${i + 1}`, carries: 'sound' }));
  const type = (id: string, direction: 'in' | 'out', { connector, level, channels: n }: End) => ({
    id,
    name: id,
    family: 'tests',
    summary: '',
    ports: [{ id: 'port', name: 'the socket', direction, connector, level, channels: channels(n) }],
    settings: [],
    figures: {},
    inside: [],
  });
  return parseRig({
    schemaVersion: RIG_VERSION,
    name: 'two boxes',
    notes: '',
    session: { frameRate: { num: 50, den: 1 }, sampleRateHz: 48000, toleranceId: 'ebu-r37', fullScaleDbu: 18 },
    types: [type('giver', 'out', from), type('taker', 'in', to)],
    devices: [
      { id: 'a', typeId: 'giver', name: 'A', settings: {} },
      { id: 'b', typeId: 'taker', name: 'B', settings: {} },
    ],
    cables: [
      {
        id: 'lead',
        from: { deviceId: 'a', portId: 'port' },
        to: { deviceId: 'b', portId: 'port' },
        medium,
        lengthM,
        known,
      },
    ],
    sources: [],
    listeners: [],
    plan: [],
    measurements: [],
    tasks: [],
  });
}

interface DeskMore {
  /** 'device.setting': value, seen by someone. */
  readonly set?: Readonly<Record<string, string | number | boolean>>;
  readonly device?: Readonly<Record<string, Partial<Rig['devices'][number]>>>;
  readonly types?: Rig['types'];
  readonly hours?: number;
  /** Pictures a second of the session; 60. */
  readonly rate?: number;
  readonly session?: Partial<Rig['session']>;
  /** 'voice: device.port' */
  readonly sources?: readonly string[];
  readonly listeners?: readonly string[];
  /** 'voice > ear' that must be. */
  readonly plan?: readonly string[];
}

const MEDIA = ['lead', 'radio', 'software', 'air', 'light'];

/**
 * A desk of the library's boxes, for rules that look at more than one lead. Cables are 'a.out > b.in', then meters
 * (1), medium (lead), `?` where no one has looked, `straight` where no adapter stands between, 'left=ch-3' for a map.
 */
export function desk(boxes: Readonly<Record<string, string>>, cables: readonly string[], more: DeskMore = {}): Rig {
  const {
    set = {},
    device = {},
    types = [],
    hours,
    rate = 60,
    session = {},
    sources = [],
    listeners = [],
    plan = [],
  } = more;
  const ref = (place: string) => {
    const [deviceId, portId] = place.split('.') as [string, string];
    return { deviceId, portId };
  };
  const settingsOf = (id: string) =>
    Object.fromEntries(
      Object.entries(set)
        .filter(([key]) => key.startsWith(`${id}.`))
        .map(([key, value]) => [key.slice(id.length + 1), { value, known: 'confirmed' }]),
    );
  const named = (text: string) => text.split(/\s*[:>]\s*/) as [string, string];
  return parseRig({
    schemaVersion: RIG_VERSION,
    name: 'a desk',
    notes: '',
    session: {
      frameRate: { num: rate, den: 1 },
      sampleRateHz: 48000,
      toleranceId: 'ebu-r37',
      fullScaleDbu: 18,
      ...(hours && { hours }),
      ...session,
    },
    types,
    devices: Object.entries(boxes).map(([id, typeId]) => ({
      id,
      typeId,
      name: id,
      settings: settingsOf(id),
      ...device[id],
    })),
    cables: cables.map((text, i) => {
      const [from, , to, ...words] = text.split(' ') as [string, string, string, ...string[]];
      const map = words.filter((w) => w.includes('=')).map((w) => w.split('='));
      return {
        id: `c${i}`,
        from: ref(from),
        to: ref(to),
        medium: words.find((w) => MEDIA.includes(w)) ?? 'lead',
        lengthM: Number(words.find((w) => /^[\d.]+$/.test(w)) ?? 1),
        known: words.includes('?') ? 'assumed' : 'confirmed',
        ...(words.includes('straight') && { parts: [] }),
        ...(map.length > 0 && { map: map.map(([a, b]) => ({ from: a, to: b })) }),
      };
    }),
    sources: sources.map((text, i) => {
      const [id, place] = named(text);
      return { id, name: id, letter: 'ABCDEFGH'[i], hue: i + 1, sound: ref(place), level: [-10, -10, -10] };
    }),
    listeners: listeners.map((text) => {
      const [id, place] = named(text);
      return { id, name: id, sound: ref(place) };
    }),
    plan: plan.map((text) => {
      const [sourceId, listenerId] = named(text);
      return { sourceId, listenerId, want: 'must' };
    }),
    measurements: [],
    tasks: [],
  });
}
