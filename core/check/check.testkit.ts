import { type LevelClass, parseRig, type Rig } from '#core/rig/index.ts';

interface End {
  readonly connector: string;
  readonly level: LevelClass;
  readonly channels?: number;
}
interface Joined {
  readonly from: End;
  readonly to: End;
  readonly lengthM?: number;
  readonly known?: 'assumed' | 'seen';
  readonly medium?: 'lead' | 'radio';
}

/** Two boxes and the lead between them, for rules that look at one lead. */
export function joined({ from, to, lengthM = 1, known = 'seen', medium = 'lead' }: Joined): Rig {
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
    schemaVersion: 1,
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
