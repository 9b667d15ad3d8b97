import { batteryHours } from '#core/check/index.ts';
import { parseMode } from '#core/picture/index.ts';
import { connectorOf } from '#core/plug/index.ts';
import {
  type Device,
  type DeviceType,
  findDevice,
  findPort,
  findTypes,
  isCall,
  isSupply,
  type Rig,
  type Types,
} from '#core/rig/index.ts';
import type { State } from '#core/signal/index.ts';

export type BudgetKind = 'battery' | 'disk' | 'upstream' | 'sockets' | 'outlets';

/** A figure that somebody reads off and tells: what a battery holds, a disk has free. */
export interface Gauge {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  /** As told; null while nobody has. */
  readonly told: number | null;
  /** What is reckoned with until then; null where nothing can be. */
  readonly usual: number | null;
  readonly min: number;
  readonly max: number;
}

/** Something that may run out, against the session. */
export interface Budget {
  readonly id: string;
  readonly kind: BudgetKind;
  readonly name: string;
  /** How much of what there is the session takes, 0 to beyond 1; null where nobody has told what there is. */
  readonly share: number | null;
  /** When it runs out, hours from the start; null for what does not run out with time, or cannot be told. */
  readonly lastsHours: number | null;
  readonly state: State;
  readonly says: string;
  readonly why: readonly { readonly says: string; readonly source: string }[];
  readonly gauges: readonly Gauge[];
}

type Gauges = Readonly<Record<string, number>>;

/** Nobody has said how long: a session of this many hours is reckoned with. */
const USUAL_HOURS = 3;
/** A battery is to last so much longer than the session. */
const SPARE = 1.25;
/** So much of a disk is kept free. */
const DISK_FULL_SHARE = 0.8;
/** A stream takes at most so much of what the line carries upwards. */
const LINE_SHARE = 0.7;
const BITS_A_BYTE = 8;
const BYTES_A_GB = 1e9;
const BYTES_A_SAMPLE = 3;
const SECONDS_AN_HOUR = 3600;
/** What a plain WAV file can hold. */
const WAV_BYTES = 2 ** 32;
/** Bits for each picture point: recorded well, and streamed (typical of H.264). */
const RECORDED_BITS_A_POINT = 0.2;
const STREAMED_BITS_A_POINT = 0.05;
const CALL_MBITS = 3;
const BITS_A_MBIT = 1e6;

/** Lithium in the cold: share of its charge by degrees (typical). */
const COLD: readonly (readonly [degC: number, share: number])[] = [
  [-20, 0.5],
  [-10, 0.7],
  [0, 0.8],
  [20, 1],
];

/** What a battery gives at a temperature, as a share of what it gives at 20 °C. */
export function coldShare(degC: number): number {
  const above = COLD.findIndex(([t]) => degC <= t);
  if (above === 0) return COLD[0]![1];
  if (above < 0) return COLD.at(-1)![1];
  const [[t0, a], [t1, b]] = [COLD[above - 1]!, COLD[above]!];
  return a + ((b - a) * (degC - t0)) / (t1 - t0);
}

/** Batteries, disks, the line, sockets and outlets of a rig against its session, by what is typical and what was told. */
export function budgetsOf(rig: Rig, gauges: Gauges = {}): Budget[] {
  const types = findTypes(rig);
  const hours = rig.session.hours ?? USUAL_HOURS;
  const boxes = rig.devices.map((device) => ({ device, type: types.get(device.typeId)! }));
  return [
    ...boxes.flatMap((box) => battery(box, hours, gauges)),
    ...disks(rig, types, hours, gauges),
    ...upstream(rig, types, gauges),
    ...boxes.flatMap((box) => sockets(rig, box)),
    ...boxes.flatMap((box) => outlets(rig, box)),
  ];
}

interface Box {
  readonly device: Device;
  readonly type: DeviceType;
}

const gauge = (gauges: Gauges, key: string, rest: Pick<Gauge, 'label' | 'unit' | 'usual' | 'min' | 'max'>): Gauge => ({
  key,
  told: gauges[key] ?? null,
  ...rest,
});
const readOff = ({ told, usual }: Gauge): number | null => told ?? usual;

const stateOf = (share: number, watchFrom: number): State => (share > 1 ? 'fix' : share > watchFrom ? 'watch' : 'good');

function battery(box: Box, hours: number, gauges: Gauges): Budget[] {
  const fresh = batteryHours(box);
  if (fresh === null) return [];
  const { id, name } = box.device;
  const percent = { unit: '%', usual: 100, min: 0, max: 100 };
  const charge = gauge(gauges, `charge:${id}`, { label: 'charged to', ...percent });
  const health = gauge(gauges, `health:${id}`, { label: 'health', ...percent });
  const cold = gauge(gauges, 'celsius', { label: 'kept at', unit: '°C', usual: 20, min: 0, max: 60 });
  const lasts = fresh * (readOff(charge)! / 100) * (readOff(health)! / 100) * coldShare(readOff(cold)!);
  const share = lasts > 0 ? hours / lasts : Number.POSITIVE_INFINITY;
  return [
    {
      id: `battery:${id}`,
      kind: 'battery',
      name,
      share,
      lastsHours: lasts,
      state: stateOf(share, 1 / SPARE),
      says:
        share > 1
          ? `Empty before the end: have a second one charged, or feed it.`
          : share > 1 / SPARE
            ? 'Lasts, with little to spare.'
            : 'Lasts, with reserve.',
      why: [
        { says: `${fresh} h when new, full and at 20 °C`, source: `typical of ${box.type.name}` },
        { says: '0.8 of it at 0 °C, 0.5 at −20 °C', source: 'lithium, typical' },
        { says: `${SPARE} times the session of ${hours} h is wanted`, source: 'as practised' },
      ],
      gauges: [charge, health, cold],
    },
  ];
}

const points = (rig: Rig): number => {
  const { width, height, rate } = parseMode(rig.session.pictureMode ?? '1920x1080@60');
  return (width * height * rate.num) / rate.den;
};

/** Each computer or recorder that files are written on. */
function disks(rig: Rig, types: Types, hours: number, gauges: Gauges): Budget[] {
  const writers = new Map<string, { channels: number; longest: number; picture: boolean; tracks: number }>();
  for (const { sound } of rig.listeners) {
    const device = findDevice(rig, sound.deviceId)!;
    const type = types.get(device.typeId)!;
    const port = type.ports.find((p) => p.id === sound.portId);
    if (port?.connector !== 'file') continue;
    const on = device.on ?? device.id;
    const known = writers.get(on) ?? { channels: 0, longest: 0, picture: false, tracks: 0 };
    const channels = port.channels.filter((c) => c.carries === 'sound').length;
    const picture = type.ports.some((p) => p.direction !== 'in' && p.channels.some((c) => c.carries === 'picture'));
    writers.set(on, {
      channels: known.channels + channels,
      longest: Math.max(known.longest, channels),
      picture: known.picture || picture,
      tracks: known.tracks + 1,
    });
  }
  return [...writers].map(([id, { channels, longest, picture, tracks }]): Budget => {
    const soundBytes = channels * rig.session.sampleRateHz * BYTES_A_SAMPLE;
    const pictureBytes = picture ? (points(rig) * RECORDED_BITS_A_POINT) / BITS_A_BYTE : 0;
    const gbAnHour = ((soundBytes + pictureBytes) * SECONDS_AN_HOUR) / BYTES_A_GB;
    const free = gauge(gauges, `free:${id}`, { label: 'free', unit: 'GB', usual: null, min: 0, max: 1e6 });
    const has = readOff(free);
    const usable = has === null ? null : has * DISK_FULL_SHARE;
    const needs = gbAnHour * hours;
    const share = usable === null ? null : usable > 0 ? needs / usable : Number.POSITIVE_INFINITY;
    const wavHours = WAV_BYTES / (longest * rig.session.sampleRateHz * BYTES_A_SAMPLE) / SECONDS_AN_HOUR;
    return {
      id: `disk:${id}`,
      kind: 'disk',
      name: `${findDevice(rig, id)!.name}, disk or card`,
      share,
      lastsHours: usable === null ? null : usable / gbAnHour,
      state: share === null ? 'watch' : stateOf(share, DISK_FULL_SHARE),
      says: `${tracks} ${tracks === 1 ? 'track' : 'tracks'}${picture ? ' and a picture' : ''}: ${needs.toFixed(1)} GB in ${hours} h${share === null ? '; nobody has said how much is free' : share > 1 ? ', more than there is' : ''}.${wavHours < hours ? ` A plain WAV file ends after ${wavHours.toFixed(1)} h: let the program split it, or write RF64.` : ''}`,
      why: [
        {
          says: `${gbAnHour.toFixed(2)} GB an hour: ${channels} channels at ${rig.session.sampleRateHz / 1000} kHz, 24 bit`,
          source: 'rate x bytes x channels',
        },
        ...(picture
          ? [
              {
                says: `picture at ${((pictureBytes * BITS_A_BYTE) / BITS_A_MBIT).toFixed(0)} Mbit/s`,
                source: 'recorded well, typical',
              },
            ]
          : []),
        { says: 'a fifth of the disk stays free', source: 'as practised' },
      ],
      gauges: [free],
    };
  });
}

function upstream(rig: Rig, types: Types, gauges: Gauges): Budget[] {
  const streams = rig.listeners.filter((l) => findPort(rig, types, l.sound)?.does === 'stream').length;
  const calls = rig.devices.filter((d) => isCall(types.get(d.typeId)!)).length;
  if (streams + calls === 0) return [];
  const usual = Math.round((points(rig) * STREAMED_BITS_A_POINT) / BITS_A_MBIT);
  const rate = gauge(gauges, 'stream-mbits', { label: 'each stream', unit: 'Mbit/s', usual, min: 0.1, max: 500 });
  const line = gauge(gauges, 'line-mbits', {
    label: 'the line upwards, measured',
    unit: 'Mbit/s',
    usual: null,
    min: 0,
    max: 1e5,
  });
  const takes = streams * readOff(rate)! + calls * CALL_MBITS;
  const has = readOff(line);
  const share = has === null ? null : has > 0 ? takes / (LINE_SHARE * has) : Number.POSITIVE_INFINITY;
  return [
    {
      id: 'upstream',
      kind: 'upstream',
      name: 'The line upwards',
      share,
      lastsHours: null,
      state: share === null ? 'watch' : stateOf(share, 0.9),
      says: `${takes.toFixed(1)} Mbit/s go out${share === null ? '; nobody has measured what the line carries' : share > 1 ? ', more than is safe: a lower bit rate, or another line' : ''}. By wire rather than radio.`,
      why: [
        {
          says: `${streams} at ${readOff(rate)} Mbit/s${calls > 0 ? `, ${calls} call at ${CALL_MBITS}` : ''}`,
          source: 'typical of H.264 at this picture',
        },
        { says: 'at most 70 % of what was measured', source: 'as practised' },
      ],
      gauges: streams > 0 ? [line, rate] : [line],
    },
  ];
}

/** Sockets for USB of a computer or hub: how many are taken. */
function sockets(rig: Rig, { device, type }: Box): Budget[] {
  const byPort = new Map(
    type.ports
      .filter((p) => connectorOf(p.connector)?.kind === 'usb' && p.direction !== 'inside')
      .map((p) => [p.id, p.socket ?? p.id]),
  );
  const all = new Set(byPort.values());
  if (!type.hosts || all.size < 2) return [];
  const taken = new Set(
    rig.cables
      .filter((c) => c.medium === 'lead')
      .flatMap((c) => [c.from, c.to])
      .flatMap((ref) => (ref.deviceId === device.id && byPort.has(ref.portId) ? [byPort.get(ref.portId)!] : [])),
  );
  if (taken.size === 0) return [];
  return [counted(`sockets:${device.id}`, 'sockets', `${device.name}, USB sockets`, taken.size, all.size, type.name)];
}

function outlets(rig: Rig, { device, type }: Box): Budget[] {
  const { feeds } = type.power ?? {};
  if (!feeds || !isSupply(type)) return [];
  const taken = rig.devices.filter((d) => d.fedBy === device.id).length;
  return [counted(`outlets:${device.id}`, 'outlets', `${device.name}, outlets`, taken, feeds.outlets, type.name)];
}

const counted = (id: string, kind: BudgetKind, name: string, taken: number, all: number, of: string): Budget => ({
  id,
  kind,
  name,
  share: taken / all,
  lastsHours: null,
  state: taken > all ? 'fix' : taken === all ? 'watch' : 'good',
  says:
    taken > all
      ? `${taken} are wanted, ${all} are there.`
      : `${taken} of ${all} taken${taken === all ? ', none to spare' : ''}.`,
  why: [{ says: `${all} in all`, source: `typical of ${of}` }],
  gauges: [],
});
