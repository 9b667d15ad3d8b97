import type { Said } from '#core/base/said/index.ts';
import { parseMode } from '#core/model/picture/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
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
} from '#core/model/rig/index.ts';
import { BATTERY_SPARE, batteryHours } from '#core/rules/index.ts';
import type { State } from '#core/signal/index.ts';
import { say } from './sayings.ts';

type BudgetKind = 'battery' | 'disk' | 'upstream' | 'sockets' | 'outlets';

/** A figure that a user reads off and enters: battery capacity, free disk space. */
export interface Gauge {
  readonly key: string;
  readonly label: Said;
  readonly unit: string;
  /** The entered value; null until someone enters it. */
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
  readonly name: Said;
  /** Fraction of the resource that the session uses, 0 to above 1; null where the amount available isn't known. */
  readonly share: number | null;
  /** When it runs out, hours from the start; null for what doesn't run out over time, or is unknown. */
  readonly lastsHours: number | null;
  readonly state: State;
  readonly says: Said;
  readonly why: readonly { readonly says: Said; readonly source: Said }[];
  readonly gauges: readonly Gauge[];
}

type Gauges = Readonly<Record<string, number>>;

/** No one has said how long: a session of this many hours is reckoned with. */
const USUAL_HOURS = 3;
/** Share of a disk to keep free. */
const DISK_FULL_SHARE = 0.8;
/** Maximum share of the upload bandwidth that a stream may use. */
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

/** Batteries, disks, upload, sockets and outlets of a rig against its session, by typical and entered figures. */
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
  const charge = gauge(gauges, `charge:${id}`, { label: say.chargedTo(), ...percent });
  const health = gauge(gauges, `health:${id}`, { label: say.health(), ...percent });
  const cold = gauge(gauges, 'celsius', { label: say.keptAt(), unit: '°C', usual: 20, min: 0, max: 60 });
  const lasts = fresh * (readOff(charge)! / 100) * (readOff(health)! / 100) * coldShare(readOff(cold)!);
  const share = lasts > 0 ? hours / lasts : Number.POSITIVE_INFINITY;
  return [
    {
      id: `battery:${id}`,
      kind: 'battery',
      name: say.deviceName({ device: name }),
      share,
      lastsHours: lasts,
      state: stateOf(share, 1 / BATTERY_SPARE),
      says:
        share > 1
          ? say.runsOutBeforeEnd()
          : share > 1 / BATTERY_SPARE
            ? say.lastsWithLittleTo()
            : say.lastsWithReserve(),
      why: [
        { says: say.hWhenNewFull({ fresh }), source: say.typical({ type: box.type.name }) },
        { says: say.itAtCAt(), source: say.lithiumTypical() },
        { says: say.timesSessionHIs({ SPARE: BATTERY_SPARE, hours }), source: say.ruleThumb() },
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
    const free = gauge(gauges, `free:${id}`, { label: say.free(), unit: 'GB', usual: null, min: 0, max: 1e6 });
    const has = readOff(free);
    const usable = has === null ? null : has * DISK_FULL_SHARE;
    const needs = gbAnHour * hours;
    const share = usable === null ? null : usable > 0 ? needs / usable : Number.POSITIVE_INFINITY;
    const wavHours = WAV_BYTES / (longest * rig.session.sampleRateHz * BYTES_A_SAMPLE) / SECONDS_AN_HOUR;
    return {
      id: `disk:${id}`,
      kind: 'disk',
      name: say.diskOf({ name: findDevice(rig, id)!.name }),
      share,
      lastsHours: usable === null ? null : usable / gbAnHour,
      state: share === null ? 'watch' : stateOf(share, DISK_FULL_SHARE),
      says: say.recordingNeeds({
        tracks,
        picture: picture ? say.andVideo() : '',
        n1: needs.toFixed(1),
        hours,
        is: share === null ? say.freeSpaceNotEntered() : share > 1 ? say.moreThanIsFree() : '',
        RF64: wavHours < hours ? say.plainWavFileEnds({ n1: wavHours.toFixed(1) }) : '',
      }),
      why: [
        {
          says: say.gbHourChannelsAt({ n2: gbAnHour.toFixed(2), channels, n1000: rig.session.sampleRateHz / 1000 }),
          source: say.rateBytesChannels(),
        },
        ...(picture
          ? [
              {
                says: say.videoAtMbitS({ n0: ((pictureBytes * BITS_A_BYTE) / BITS_A_MBIT).toFixed(0) }),
                source: say.goodRecordingQuality(),
              },
            ]
          : []),
        { says: say.keepFifthDiskFree(), source: say.ruleThumb() },
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
  const rate = gauge(gauges, 'stream-mbits', { label: say.eachStream(), unit: 'Mbit/s', usual, min: 0.1, max: 500 });
  const line = gauge(gauges, 'line-mbits', {
    label: say.measuredUpload(),
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
      name: say.uploadBandwidth(),
      share,
      lastsHours: null,
      state: share === null ? 'watch' : stateOf(share, 0.9),
      says: say.mbitSUploadUse({
        n1: takes.toFixed(1),
        line: share === null ? say.yourLineHasntBeen() : share > 1 ? say.moreThanIsSafe() : '',
      }),
      why: [
        {
          says: say.streamsAt({
            streams,
            rate: readOff(rate) ?? '?',
            CALL_MBITS: calls > 0 ? say.callsAt({ calls, CALL_MBITS }) : '',
          }),
          source: say.typicalHAtThis(),
        },
        { says: say.atMostWhatWas(), source: say.ruleThumb() },
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
  return [
    counted(
      `sockets:${device.id}`,
      'sockets',
      say.usbSockets({ device: device.name }),
      taken.size,
      all.size,
      type.name,
    ),
  ];
}

function outlets(rig: Rig, { device, type }: Box): Budget[] {
  const { feeds } = type.power ?? {};
  if (!feeds || !isSupply(type)) return [];
  const taken = rig.devices.filter((d) => d.fedBy === device.id).length;
  return [
    counted(`outlets:${device.id}`, 'outlets', say.outletsOf({ device: device.name }), taken, feeds.outlets, type.name),
  ];
}

const counted = (id: string, kind: BudgetKind, name: Said, taken: number, all: number, of: string): Budget => ({
  id,
  kind,
  name,
  share: taken / all,
  lastsHours: null,
  state: taken > all ? 'fix' : taken === all ? 'watch' : 'good',
  says:
    taken > all
      ? say.areNeededButThere({ taken, all })
      : say.takenOf({ taken, all, spare: taken === all ? say.noneToSpare() : '' }),
  why: [{ says: say.inTotal({ all }), source: say.typical2({ of }) }],
  gauges: [],
});
