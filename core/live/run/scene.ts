import { postOrder } from '#core/base/search/index.ts';
import {
  amplifies,
  type Device,
  type DeviceType,
  findTypes,
  isCall,
  isHardware,
  isPerson,
  isProgram,
  isSupply,
  type PortSpec,
  placesOf,
  portOf,
  type Rig,
  type SettingSpec,
  showsPicture,
  soundsIntoRoom,
} from '#core/model/rig/index.ts';

type Cable = Rig['cables'][number];

/** A device of the rig with its type, and what has to be known of it on the day. */
export interface DayBox {
  readonly device: Device;
  readonly type: DeviceType;
  /** Has its own power switch: it has its own supply, and is neither an app nor a person. */
  readonly switched: boolean;
  readonly isProgram: boolean;
  readonly isCall: boolean;
  /** Speakers that amplify by themselves, and amplifiers before them. */
  readonly isLoud: boolean;
  /** Ends that something is at. */
  readonly used: ReadonlySet<string>;
  /** How far down the signal it stands: what feeds it stands before it. */
  readonly rank: number;
}

/** A cable that is plugged by hand: one for all ends behind the same two sockets. */
export interface DayLead {
  readonly cable: Cable;
  readonly from: DayBox;
  readonly to: DayBox;
  readonly fromPort: PortSpec;
  readonly toPort: PortSpec;
  readonly carriesPicture: boolean;
}

export interface DayScene {
  readonly rig: Rig;
  readonly boxes: readonly DayBox[];
  readonly leads: readonly DayLead[];
  box(deviceId: string): DayBox;
}

/** It makes a room loud, and nothing is looked at or done on it: it may come on last and go off first. */
const isLoud = (type: DeviceType): boolean =>
  isHardware(type) && (amplifies(type) || soundsIntoRoom(type)) && !showsPicture(type) && !type.hosts;

/** What is fed through a signal cable has no switch: it is on once that is plugged. */
const OWN_SUPPLIES: ReadonlySet<string> = new Set(['mains', 'battery']);
const HERE = 'here';

export function dayScene(rig: Rig): DayScene {
  const types = findTypes(rig);
  const ranks = ranksOf(rig);
  const placeOf = placesOf(rig);
  // What stands at the far side of a call is switched on there, by someone else.
  const isHere = ({ id, typeId }: Device): boolean => {
    const [port] = types.get(typeId)!.ports;
    const place = port ? placeOf({ deviceId: id, portId: port.id }) : HERE;
    return place === null || place === HERE || isCall(types.get(typeId)!);
  };
  const used = new Map<string, Set<string>>();
  for (const { deviceId, portId } of rig.cables.flatMap((c) => [c.from, c.to]))
    used.set(deviceId, (used.get(deviceId) ?? new Set()).add(portId));
  const boxes = rig.devices.filter(isHere).map((device): DayBox => {
    const type = types.get(device.typeId)!;
    const powered = OWN_SUPPLIES.has(type.power?.by[0] ?? '');
    return {
      device,
      type,
      switched: powered && isHardware(type) && !isSupply(type),
      isProgram: isProgram(type),
      isCall: isCall(type),
      isLoud: powered && isLoud(type),
      used: used.get(device.id) ?? new Set(),
      rank: ranks.get(device.id)!,
    };
  });
  const byId = new Map(boxes.map((b) => [b.device.id, b]));
  const box = (id: string): DayBox => byId.get(id)!;
  const isThere = (c: Cable): boolean => byId.has(c.from.deviceId) && byId.has(c.to.deviceId);
  return { rig, boxes, leads: leadsOf(rig.cables.filter(isThere), box), box };
}

/** Each device behind all that feed it; within a loop, in the order of the rig's leads. */
function ranksOf(rig: Rig): ReadonlyMap<string, number> {
  const next = new Map<string, string[]>();
  for (const { from, to } of rig.cables) next.set(from.deviceId, [...(next.get(from.deviceId) ?? []), to.deviceId]);
  const ids = rig.devices.map((d) => d.id);
  const order = postOrder(ids, (id) => next.get(id) ?? []);
  return new Map(order.reverse().map((id, rank) => [id, rank]));
}

function leadsOf(cables: readonly Cable[], box: DayScene['box']): DayLead[] {
  const seen = new Set<string>();
  return cables.flatMap((cable): DayLead[] => {
    if (cable.medium !== 'lead') return [];
    const [from, to] = [box(cable.from.deviceId), box(cable.to.deviceId)];
    const fromPort = from.type.ports.find((p) => p.id === cable.from.portId)!;
    const toPort = to.type.ports.find((p) => p.id === cable.to.portId)!;
    const ends = [
      `${from.device.id}/${fromPort.socket ?? fromPort.id}`,
      `${to.device.id}/${toPort.socket ?? toPort.id}`,
    ].sort();
    if (seen.has(ends.join())) return [];
    seen.add(ends.join());
    const carriesPicture = [fromPort, toPort].some((p) => p.channels.some((c) => c.carries === 'picture'));
    return [{ cable, from, to, fromPort, toPort, carriesPicture }];
  });
}

/**
 * Knobs of a device that make something louder at ears or in a room: of each way to where something is plugged, or that
 * something is played to, the last one. What is before it is silent with it.
 */
export function volumesOf({ type, used }: DayBox): SettingSpec[] {
  const before = new Map(
    type.ports.filter((p) => ['headphone', 'speaker', 'air'].includes(p.level)).map((p) => [p.id, p]),
  );
  if (before.size === 0 || isPerson(type)) return [];
  const inside = new Set(type.ports.filter((p) => p.direction === 'inside').map((p) => p.id));
  const knobs = new Set<string>();
  for (const way of type.inside) {
    const end = before.get(portOf(way.to));
    const start = portOf(way.from);
    if (!end || !(end.level === 'air' ? used.has(start) || inside.has(start) : used.has(end.id))) continue;
    const last = way.stages.findLast((stage) => stage.do === 'gain' && 'setting' in stage);
    if (last && 'setting' in last) knobs.add(String(last.setting));
  }
  return type.settings.filter((s) => s.kind === 'gain' && knobs.has(s.id));
}

/** Switches that put phantom power on a socket, with the cables that hang on it. */
export function phantomOf(
  scene: DayScene,
): { readonly box: DayBox; readonly settingId: string; readonly leads: readonly DayLead[] }[] {
  return scene.boxes.flatMap((box) => {
    const switches = new Map<string, DayLead[]>();
    for (const port of box.type.ports) {
      if (port.gives?.kind !== 'phantom' || !port.gives.setting) continue;
      const on = scene.leads.filter((l) => l.to === box && l.toPort.id === port.id);
      switches.set(port.gives.setting, [...(switches.get(port.gives.setting) ?? []), ...on]);
    }
    return [...switches].map(([settingId, leads]) => ({ box, settingId, leads }));
  });
}
