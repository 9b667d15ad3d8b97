import { connectorOf } from '#core/model/plug/index.ts';
import { type DeviceType, isHardware } from '#core/model/rig/index.ts';
import {
  addDevice,
  bestBetween,
  boxesBetween,
  fitsAmong,
  isMeant,
  nameFor,
  type TypedLead,
} from '#core/routing/wiring/index.ts';
import { check } from '#core/rules/index.ts';
import { type Builder, listed } from './builder.ts';
import { type Answers, type Decision, decide } from './questions.ts';
import { say } from './sayings.ts';

const NONE = 'none';

/** Dearer than this, it is a makeshift that no one means without saying so. */
export const PLAIN = 33;

/** Where nothing fits between two that were named one after the other: the device that would, put between. */
export function bridgeGaps(b: Builder, leads: readonly TypedLead[], answers: Answers, maybe: boolean): Decision[] {
  return leads.flatMap((lead) => {
    const { from, to, offer } = lead;
    if (offer || (lead.maybe ?? false) !== maybe) return [];
    // What was named in a list and has found a place of its own needs no way to where the others go.
    if (
      maybe &&
      b.rig.cables.some(
        (c) => ['lead', 'radio'].includes(c.medium) && [c.from, c.to].some((end) => end.deviceId === from),
      )
    )
      return [];
    const [a, z] = [b.device(from), b.device(to)];
    const there = boxesBetween(b.types, b.typeOf(from), b.typeOf(to));
    const back = there.length > 0 ? [] : boxesBetween(b.types, b.typeOf(to), b.typeOf(from));
    const types = there.length > 0 ? there : back;
    if (types.length === 0) return [];
    const asked = decide(answers, {
      id: `between:${from}:${to}`,
      asks: say.noCableStraight({ from: a.name, to: z.name }),
      options: [...types.map((t) => ({ id: t.id, label: t.name })), { id: NONE, label: say.nothingLeaveIt() }],
    });
    const type = types.find((t) => t.id === asked.taken);
    if (type) putBetween(b, there.length > 0 ? from : to, there.length > 0 ? to : from, type);
    return [asked];
  });
}

/** @param instead  the cable that has been there till now */
function putBetween(b: Builder, from: string, to: string, type: DeviceType, instead?: string): void {
  const { edit, device } = addDevice(b.rig, type, nameFor(b.rig, type));
  b.make(
    `between:${from}:${to}`,
    say.between({ device: device.name, from: b.device(from).name, to: b.device(to).name }),
    () => [edit, ...(instead ? [{ kind: 'unplug' as const, cableId: instead }] : [])],
  );
  if (!b.rig.devices.some((d) => d.id === device.id)) return;
  plug(b, from, device.id);
  plug(b, device.id, to);
}

/** The cheapest way from one to another that someone would mean. */
export function plug(b: Builder, from: string, to: string): boolean {
  const offer = bestBetween(b.rig, from, to, { suits: isMeant(b.typeOf(from), b.typeOf(to)) });
  return offer !== null && b.take({ kind: 'batch', edits: b.plugs(offer) });
}

/** A mic that wants a few volts from its jack, plugged where there are none: the adapter that makes them of phantom power. */
export function adaptPlugIns(b: Builder): void {
  for (const cable of b.rig.cables.filter((c) => c.medium === 'lead')) {
    const port = ({ deviceId, portId }: (typeof cable)['from']) =>
      b.typeOf(deviceId).ports.find((p) => p.id === portId)!;
    if (port(cable.from).takes?.kind !== 'plug-in' || port(cable.to).gives?.kind !== 'phantom') continue;
    const [type] = boxesBetween(b.types, b.typeOf(cable.from.deviceId), b.typeOf(cable.to.deviceId)).filter((t) =>
      t.ports.some((p) => p.gives?.kind === 'plug-in' && t.ports.some((q) => q.takes?.kind === 'phantom')),
    );
    if (!type) continue;
    putBetween(b, cable.from.deviceId, cable.to.deviceId, type, cable.id);
  }
}

/** A line that goes into a microphone jack goes through what takes it down to that. */
export function padLines(b: Builder): void {
  const fits = fitsAmong(b.types);
  const loud = new Set(check(b.rig).flatMap((f) => (f.rule === 'level-into-microphone' ? f.where.cableIds : [])));
  for (const { id, from, to } of b.rig.cables.filter((c) => loud.has(c.id))) {
    const [a, z] = [from, to].map((end) => b.typeOf(end.deviceId));
    const input = z!.ports.find((p) => p.id === to.portId);
    if (!input || connectorOf(input.connector)?.kind !== 'jack') continue;
    const [best] = [...b.types.values()]
      .filter((t) => isHardware(t) && t.power?.by?.length === 0 && takesDown(t))
      .map((type) => ({ type, into: fits(a!, type), out: fits(type, z!) }))
      .filter(({ into, out }) => into !== null && out !== null && into < PLAIN && out < PLAIN)
      .sort((x, y) => x.into! + x.out! - y.into! - y.out!);
    if (!best) continue;
    putBetween(b, from.deviceId, to.deviceId, best.type, id);
  }
}

const takesDown = ({ ports }: DeviceType): boolean =>
  ports.every((p) => (p.direction === 'in' ? p.level === 'line' : p.level === 'microphone')) && ports.length === 2;

/** Several consoles, and one input for them: a switch chooses. */
export function shareInputs(b: Builder): void {
  const leadsOf = (id: string) => b.rig.cables.filter((c) => c.medium === 'lead' && c.from.deviceId === id);
  const players = b.rig.devices.filter(({ id }) => {
    const type = b.typeOf(id);
    return !type.hosts && type.ports.some((p) => p.does === 'game' && p.direction === 'out') && isHardware(type);
  });
  const asked = new Set<string>();
  for (const first of players) {
    const lead = leadsOf(first.id).find((c) => isPictureAt(b, c.from));
    if (!lead) continue;
    const same = b.rig.cables.filter((c) => c.to.deviceId === lead.to.deviceId && c.to.portId === lead.to.portId);
    const joined = players.filter((p) => same.some((c) => c.from.deviceId === p.id));
    const idle = players.filter((p) => p.typeId === first.typeId && leadsOf(p.id).length === 0);
    const all = [...joined, ...idle];
    const [type] = [...b.types.values()]
      .filter((t) => isHardware(t) && !t.hosts && choosesOneOf(t) >= all.length)
      .sort((x, y) => choosesOneOf(x) - choosesOneOf(y));
    const id = `share:${lead.to.deviceId}:${lead.to.portId}`;
    if (all.length < 2 || !type || asked.has(id)) continue;
    // Once dismissed, it is not reported again for each of them.
    asked.add(id);
    const { edit, device } = addDevice(b.rig, type, nameFor(b.rig, type));
    const target = lead.to.deviceId;
    const says = say.between({
      device: device.name,
      from: listed(all.map((p) => p.name)),
      to: b.device(target).name,
    });
    const unplugged = same.map((c) => ({ kind: 'unplug' as const, cableId: c.id }));
    if (!b.make(id, says, () => [...unplugged, edit], { note: say.oneInputForThem() })) continue;
    for (const player of all) plug(b, player.id, device.id);
    plug(b, device.id, target);
  }
}

const isPictureAt = (b: Builder, { deviceId, portId }: { deviceId: string; portId: string }): boolean =>
  b.typeOf(deviceId).ports.some((p) => p.id === portId && p.channels.some((c) => c.carries === 'picture'));

/** How many pictures a type chooses one of, and does nothing else; 0 for any other. */
function choosesOneOf({ ports }: DeviceType): number {
  const [ins, outs] = ['in', 'out'].map((d) => ports.filter((p) => p.direction === d));
  const isPlain = ports.every((p) => p.picture !== undefined && connectorOf(p.connector)?.kind === 'hdmi');
  return isPlain && outs!.length === 1 && ins!.length > 1 ? ins!.length : 0;
}
