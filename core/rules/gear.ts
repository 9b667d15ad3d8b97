import type { Said, Text } from '#core/base/said/index.ts';
import { connectorOf, UNPLUGGED } from '#core/model/plug/index.ts';
import { type DeviceType, parseDeviceType, RigError, type Stage, typeTroubles } from '#core/model/rig/index.ts';
import { say } from './sayings.ts';

/** What is wrong with a device type of one's own, and where. */
export interface GearFault {
  readonly path: string;
  readonly says: Text;
}

type Scale = 'spl' | 'dbu' | 'dbfs' | 'light';
const SCALE: Record<DeviceType['ports'][number]['level'], Scale> = {
  air: 'spl',
  microphone: 'dbu',
  line: 'dbu',
  headphone: 'dbu',
  speaker: 'dbu',
  digital: 'dbfs',
  software: 'dbfs',
  light: 'light',
};
const SCALE_NAMES: Record<Scale, Said> = {
  spl: say.soundInAir(),
  dbu: say.volts(),
  dbfs: say.bits(),
  light: say.light(),
};

/** The level scale after a stage; null where the stage can't follow the ones before. */
function after(scale: Scale, stage: Stage): Scale | null {
  if (stage.do === 'hear') return scale === 'spl' ? 'dbu' : null;
  if (stage.do === 'radiate') return scale === 'dbu' ? 'spl' : null;
  if (stage.do === 'convert') {
    if (stage.to === 'digital') return scale === 'dbu' ? 'dbfs' : null;
    return scale === 'dbfs' ? 'dbu' : null;
  }
  return scale;
}

/** Everything that keeps a type from being used like a built-in one: empty when it may be. */
export function gearFaults(type: DeviceType): GearFault[] {
  return [
    ...typeTroubles(type, '').map((e) => ({ path: e.path.replace(/^\//, ''), says: e.message })),
    ...connectorFaults(type),
    ...doubles(type),
    ...scaleFaults(type),
    ...(type.priceEur && type.priceEur[0] > type.priceEur[1]
      ? [{ path: 'priceEur', says: say.lowerPriceIsAbove() }]
      : []),
  ];
}

const connectorFaults = ({ ports }: DeviceType): GearFault[] =>
  ports
    .filter((p) => !connectorOf(p.connector) && !UNPLUGGED.has(p.connector))
    .map((p) => ({
      path: `ports/${p.id}`,
      says: say.noConnectorIsCalled({ p: p.name, connector: p.connector }),
    }));

function doubles({ ports, settings }: DeviceType): GearFault[] {
  const twice = (list: readonly { id: string }[]) => list.filter((x, i) => list.findIndex((o) => o.id === x.id) !== i);
  return [
    ...twice(ports).map((p) => ({
      path: `ports/${p.id}`,
      says: say.duplicateSocketIdChange({ id: p.id }),
    })),
    ...twice(settings).map((s) => ({
      path: `settings/${s.id}`,
      says: say.duplicateSettingIdChange({ id: s.id }),
    })),
  ];
}

/** Ways that end in another scale than the port that they lead to, or carry picture into sound. */
function scaleFaults(type: DeviceType): GearFault[] {
  const ports = new Map(type.ports.map((p) => [p.id, p]));
  return type.inside.flatMap((way, i): GearFault[] => {
    const [from, to] = [way.from, way.to].map((place) => {
      const [portId, channelId] = place.split('.') as [string, string];
      const port = ports.get(portId);
      return { port, channel: port?.channels.find((c) => c.id === channelId) };
    }) as [End, End];
    if (!from.port || !to.port || !from.channel || !to.channel) return [];
    const path = `inside/${i}`;
    const name = say.pathOf({ port: from.port.name, port2: to.port.name });
    if (from.channel.carries !== to.channel.carries)
      return [{ path, says: say.cannotBecome({ name, carries: from.channel.carries, carries2: to.channel.carries }) }];
    if (from.channel.carries === 'picture') return [];
    let scale: Scale | null = SCALE[from.port.level];
    for (const stage of way.stages) {
      const next: Scale | null = after(scale, stage);
      if (next === null) return [{ path, says: say.stageMisplaced({ name, do: stage.do, scale: SCALE_NAMES[scale] }) }];
      scale = next;
    }
    const wanted = SCALE[to.port.level];
    return scale === wanted
      ? []
      : [{ path, says: say.endsAs({ name, scale: SCALE_NAMES[scale], wanted: SCALE_NAMES[wanted] }) }];
  });
}

interface End {
  readonly port: DeviceType['ports'][number] | undefined;
  readonly channel: DeviceType['ports'][number]['channels'][number] | undefined;
}

export type GearRead = { ok: true; type: DeviceType } | { ok: false; faults: readonly GearFault[] };

/** Reads a type that someone wrote or was sent: its shape, what it points to, connectors and scales. */
export function readGear(text: string): GearRead {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { ok: false, faults: [{ path: '', says: say.notValidJsonChoose() }] };
  }
  try {
    const type = parseDeviceType(json);
    const faults = gearFaults(type);
    return faults.length === 0 ? { ok: true, type } : { ok: false, faults };
  } catch (error) {
    if (error instanceof RigError) return { ok: false, faults: [{ path: error.path, says: error.message }] };
    throw error;
  }
}
