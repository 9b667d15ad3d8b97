import type { Text } from '#core/base/said/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
import {
  type DeviceType,
  findDevice,
  findSource,
  findTypes,
  isHardware,
  isProgram,
  type PortSpec,
  type Rig,
  settingFor,
} from '#core/model/rig/index.ts';
import { type Evaluation, talkerEchoLossDb } from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** One of the known ways to send a guest everything but themselves, with what it costs. */
export interface ReturnWay {
  readonly id: 'desk' | 'send' | 'cable' | 'second-device';
  readonly name: Text;
  readonly says: Text;
  /** Devices of this rig that could do it. */
  readonly boxes: readonly string[];
  /** What has to be got where none is there: its price in euros, low and high. */
  readonly priceEur: readonly [number, number];
  /** Added on the way to the guest, ms, low to high; conversions added. */
  readonly addsMs: readonly [number, number];
  readonly conversions: number;
  readonly cannot: Text;
}

/** How a guest's own voice returns now; null where it doesn't, or where they receive nothing. */
export interface OwnVoice {
  readonly afterMs: number;
  /** How far under their own voice, dB, and how far it should be. */
  readonly downDb: number;
  readonly wantedDb: number;
}

const isUsb = ({ connector }: PortSpec): boolean => connectorOf(connector)?.kind === 'usb';
const hasSound = ({ channels }: PortSpec): boolean => channels.some((c) => c.carries === 'sound');

/** A sound device of its own with sockets: USB both ways, and something analog both ways. */
const playsAndRecords = (type: DeviceType): boolean =>
  isHardware(type) &&
  type.hosts !== true &&
  settingFor(type, 'send') === undefined &&
  (['in', 'out'] as const).every((direction) => {
    const ends = type.ports.filter((p) => p.direction === direction && hasSound(p));
    return ends.some(isUsb) && ends.some((p) => ['microphone', 'line', 'headphone'].includes(p.level));
  });

const WAYS: readonly (Omit<ReturnWay, 'boxes' | 'priceEur' | 'addsMs' | 'conversions'> & {
  readonly typeId: string;
  /** Whether another type could do it, too; where absent, only that one can. */
  readonly can?: (type: DeviceType) => boolean;
  readonly figures: readonly string[];
})[] = [
  {
    id: 'desk',
    name: say.matrixMixerOneMix(),
    says: say.eachOutputIsIts(),
    cannot: say.oneOutputPerGuest(),
    typeId: 'mixer-matrix',
    figures: ['inside'],
  },
  {
    id: 'send',
    name: say.auxSendMixerWith(),
    says: say.preFaderIndependentMain(),
    cannot: say.oneAuxSendPer(),
    typeId: 'mixer-usb-send',
    can: (type) => settingFor(type, 'send') !== undefined,
    figures: ['record'],
  },
  {
    id: 'cable',
    name: say.virtualCableInComputer(),
    says: say.appsPlayIntoIt(),
    cannot: say.audioFromMixerHas(),
    typeId: 'virtual-cable',
    figures: ['through'],
  },
  {
    id: 'second-device',
    name: say.secondAudioDeviceFor(),
    says: say.callUsesItsOwn(),
    cannot: say.twoClocksOverHours(),
    typeId: 'interface-2',
    can: playsAndRecords,
    figures: ['record', 'play'],
  },
];

/** The known ways to a guest return (mix-minus): what of them is there, and what each costs. Figures are the library's, typical. */
export function returnWays(rig: Rig): ReturnWay[] {
  const types = findTypes(rig);
  return WAYS.map(({ typeId, figures, ...way }): ReturnWay => {
    const type = types.get(typeId)!;
    const isLike = (deviceId: string): boolean => {
      const own = types.get(findDevice(rig, deviceId)!.typeId)!;
      return way.can ? way.can(own) : own.id === typeId;
    };
    const ranges = figures.flatMap((f) => (type.figures[f] ? [type.figures[f].range] : []));
    const converts = new Set(type.inside.flatMap((w) => w.stages.flatMap((s) => (s.do === 'convert' ? [s.to] : []))))
      .size;
    const boxes = rig.devices.filter((d) => isLike(d.id)).map((d) => d.name);
    const { can: _, ...said } = way;
    return {
      ...said,
      boxes,
      priceEur: boxes.length > 0 ? [0, 0] : (type.priceEur ?? [0, 0]),
      addsMs: [ranges.reduce((ms, r) => ms + r[0], 0), ranges.reduce((ms, r) => ms + r[2], 0)],
      conversions: isProgram(type) ? 0 : converts,
    };
  });
}

/** A guest's own voice at their ears: how late and how loud, against what a talker bears. */
export function ownVoiceAt(
  rig: Rig,
  evaluation: Evaluation,
  sourceId: string,
  listenerId: string | null,
): OwnVoice | null {
  const pair = evaluation.pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId);
  const [way] = pair?.ways ?? [];
  const source = findSource(rig, sourceId);
  if (way?.scale !== 'spl' || !source) return null;
  const afterMs = way.delay.value.nominal;
  return { afterMs, downDb: source.level[1] - way.levelDb.nominal, wantedDb: talkerEchoLossDb(afterMs) };
}
