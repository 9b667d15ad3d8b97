import { check } from '#core/check/index.ts';
import { connectorOf } from '#core/plug/index.ts';
import {
  amplifiesInstrument,
  beginsAt,
  type DeviceType,
  type Edit,
  endsThat,
  films,
  givesMicrophoneLevel,
  hearsAir,
  isHardware,
  isProgram,
  isSupply,
  isWorn,
  records,
  showsPicture,
  soundsIntoRoom,
  usbRoleOf,
} from '#core/rig/index.ts';
import {
  addDevice,
  bestBetween,
  boxesBetween,
  fitsAmong,
  isMeant,
  isWithin,
  nameFor,
  type Offer,
  type TypedLead,
} from '#core/wire/index.ts';
import { downstream, endsOf, hostsOf, isMicrophone, listenRank, programsOn, upstream } from './around.ts';
import type { Builder } from './builder.ts';
import { type Answers, type Decision, decide } from './questions.ts';

/** What a desk computer is, where programs were named and nothing that they run on. */
const COMPUTER = 'computer-desktop';
const NONE = 'none';

/** Where nothing fits between two that were named one after the other: the box that would, put between. */
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
      asks: `No cable goes straight from ${a.name} to ${z.name}. What’s between them?`,
      options: [...types.map((t) => ({ id: t.id, label: t.name })), { id: NONE, label: 'Nothing: leave it' }],
    });
    const type = types.find((t) => t.id === asked.taken);
    if (type) putBetween(b, there.length > 0 ? from : to, there.length > 0 ? to : from, type);
    return [asked];
  });
}

/** @param instead  the lead that has been there till now */
function putBetween(b: Builder, from: string, to: string, type: DeviceType, instead?: string): void {
  const { edit, device } = addDevice(b.rig, type, nameFor(b.rig, type));
  b.make(
    `between:${from}:${to}`,
    { who: device.name, does: 'goes between', what: b.device(from).name, how: `and ${b.device(to).name}` },
    () => [edit, ...(instead ? [{ kind: 'unplug' as const, cableId: instead }] : [])],
  );
  if (!b.rig.devices.some((d) => d.id === device.id)) return;
  plug(b, from, device.id);
  plug(b, device.id, to);
}

function plug(b: Builder, from: string, to: string): boolean {
  const offer = bestBetween(b.rig, from, to, { suits: isMeant(b.typeOf(from), b.typeOf(to)) });
  return offer !== null && b.take({ kind: 'batch', edits: b.plugs(offer) });
}

/** Programs run on a computer: the one there is, or one that is put there. */
export function hostPrograms(b: Builder): void {
  const lost = b.rig.devices.filter((d) => isProgram(b.typeOf(d.id)) && d.on === undefined);
  if (lost.length === 0) return;
  let [host] = hostsOf(b.rig).sort((x, y) => Number(feeds(b, y)) - Number(feeds(b, x)));
  if (!host) {
    const { edit, device } = addDevice(b.rig, b.types.get(COMPUTER)!, 'Computer');
    if (
      !b.make('computer', { who: device.name, does: 'runs', what: lost.map((d) => d.name).join(' and ') }, () => [edit])
    )
      return;
    host = device.id;
  }
  for (const device of lost) b.take({ kind: 'set-device', device: { ...device, on: host } });
}

/** What gets its power from USB alone hangs on a computer: one is there, even if nobody named it. */
export function hostUsb(b: Builder): void {
  if (hostsOf(b.rig).length > 0) return;
  const lost = b.rig.devices.filter(({ id }) => {
    const type = b.typeOf(id);
    return (
      type.power?.by?.every((by) => by === 'usb') === true &&
      type.power.by.length > 0 &&
      !isSupply(type) &&
      type.ports.some((p) => p.level === 'digital' && usbRoleOf(type, p) === 'device') &&
      !b.rig.cables.some(
        (c) => c.medium === 'lead' && [c.from, c.to].some((e) => e.deviceId === id && isUsbPort(type, e.portId)),
      )
    );
  });
  if (lost.length === 0) return;
  const { edit } = addDevice(b.rig, b.types.get(COMPUTER)!, 'Computer');
  b.make(
    'computer',
    { who: lost.map((d) => d.name).join(' and '), does: lost.length > 1 ? 'need' : 'needs', what: 'a computer' },
    () => [edit],
  );
}

const isUsbPort = (type: DeviceType, portId: string): boolean =>
  type.ports.some((p) => p.id === portId && connectorOf(p.connector)?.kind === 'usb');

/** What USB devices are plugged to, where there is a tablet besides. */
const feeds = (b: Builder, id: string): boolean => b.typeOf(id).power?.feeds !== undefined;

/** A computer's jack is for want of anything better. */
const MAKESHIFT = 8;
/** Dearer than this, it is a makeshift that nobody means without saying so. */
const PLAIN = 33;

/** Boxes that were named alone are plugged where such a box goes: into the computer, or into what goes there. */
export function plugLoose(b: Builder, waiting: ReadonlySet<string>): void {
  const fits = fitsAmong(b.types);
  // What others are plugged into comes first: an interface, then the microphones.
  const order = [...b.rig.devices].sort(
    (x, y) => Number(takesOthers(b.typeOf(y.id))) - Number(takesOthers(b.typeOf(x.id))),
  );
  for (const device of order) {
    const { id, name } = device;
    const type = b.typeOf(id);
    const isPlugged = b.rig.cables.some(
      (c) => c.medium !== 'air' && c.medium !== 'light' && (c.from.deviceId === id || c.to.deviceId === id),
    );
    // A mic stands in front of it.
    const isHeard =
      soundsIntoRoom(type) &&
      b.rig.cables.some((c) => c.medium === 'air' && c.from.deviceId === id && hearsAir(b.typeOf(c.to.deviceId)));
    const isDone = (isPlugged && !isDeadEnd(b, id)) || isHeard;
    if (!isHardware(type) || type.hosts || isSupply(type) || isDone || waiting.has(id)) continue;
    const [host] = hostsOf(b.rig);
    if (isWithin(type)) {
      if (host && device.on === undefined) b.take({ kind: 'set-device', device: { ...device, on: host } });
      continue;
    }
    const near = new Set(hostsOf(b.rig).flatMap((h) => [...upstream(b.rig, h)]));
    const isScreen = showsPicture(type);
    const isUsb = type.ports.some((p) => connectorOf(p.connector)?.kind === 'usb');
    const options = b.rig.devices
      .filter((d) => d.id !== id && (isScreen || near.size === 0 || near.has(d.id)))
      .flatMap((d) => {
        const other = b.typeOf(d.id);
        const [there, back] = [fits(type, other), fits(other, type)];
        return [
          ...(there === null || isScreen
            ? []
            : [{ from: id, to: d.id, cost: there + (other.hosts && !isUsb ? MAKESHIFT : 0) }]),
          ...(back === null || isPlugged ? [] : [{ from: d.id, to: id, cost: back }]),
        ];
      })
      .filter((o) => o.cost < PLAIN)
      .sort((x, y) => x.cost - y.cost);
    for (const { from, to } of options) {
      const suits = isMeant(b.typeOf(from), b.typeOf(to));
      const offer = bestBetween(b.rig, from, to, { suits: (o) => suits(o) && isFree(b, o) });
      if (!offer) continue;
      const other = from === id ? to : from;
      b.make(`plug:${id}`, { who: name, does: 'plugs into', what: b.device(other).name }, () => b.plugs(offer));
      break;
    }
  }
}

const takesOthers = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'in' && ['microphone', 'line'].includes(p.level)) &&
  type.ports.some((p) => p.direction === 'out' && p.level !== 'air' && p.level !== 'light');

/** What comes in there has no way on, though it could go on: a mixer that was named only as what microphones go into. */
function isDeadEnd({ rig, types }: Builder, id: string): boolean {
  const type = types.get(rig.devices.find((d) => d.id === id)!.typeId)!;
  const isEnd =
    isWorn(type) ||
    soundsIntoRoom(type) ||
    showsPicture(type) ||
    records(type) ||
    rig.listeners.some((l) => l.sound.deviceId === id);
  return !isEnd && !rig.cables.some((c) => c.from.deviceId === id && c.medium !== 'light');
}

/** What is between an instrument and what it goes into, or makes it loud, is there because somebody plays: an amplifier, a DI box. */
export function playIntoIdle(b: Builder): void {
  const fits = fitsAmong(b.types);
  for (const { id, name } of b.rig.devices) {
    const type = b.typeOf(id);
    const isLed = b.rig.cables.some((c) => c.to.deviceId === id);
    const isHeard = b.rig.cables.some((c) => c.from.deviceId === id);
    if (isLed || !(amplifiesInstrument(type) || (isHeard && bringsDown(type)))) continue;
    const [best] = [...b.types.values()]
      .filter((t) => isHardware(t) && t.ports.some((p) => p.does === 'music' && beginsAt(t, p)))
      .map((t) => ({ type: t, cost: fits(t, type) }))
      .filter((t): t is { type: DeviceType; cost: number } => t.cost !== null)
      // Of those that are plugged plainly, the commonest: it stands first.
      .sort((x, y) => Number(x.cost >= PLAIN) - Number(y.cost >= PLAIN) || (x.cost < PLAIN ? 0 : x.cost - y.cost));
    if (!best) continue;
    const { edit, device } = addDevice(b.rig, best.type);
    if (b.make(`plays:${id}`, { who: device.name, does: 'plays through', what: name }, () => [edit]))
      plug(b, device.id, id);
  }
}

const bringsDown = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'in' && givesMicrophoneLevel(type, p));

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

/** A transmitter on the belt sends what is plugged into it: a mic is there, even if nobody named it. */
export function clipOnMics(b: Builder): void {
  const fits = fitsAmong(b.types);
  for (const { id, name } of b.rig.devices) {
    const type = b.typeOf(id);
    const byRadio = type.ports.filter((p) => p.connector === 'radio');
    const isSender = byRadio.length > 0 && byRadio.every((p) => p.direction === 'out');
    const input = type.ports.find((p) => p.direction === 'in' && p.gives?.kind === 'plug-in');
    const isPlugged = b.rig.cables.some((c) => c.to.deviceId === id && c.to.portId === input?.id);
    if (!isHardware(type) || type.hosts || !isSender || !input || isPlugged) continue;
    const [best] = [...b.types.values()]
      .filter((t) => isMicrophone(t) && !isWorn(t))
      .map((t) => ({ type: t, cost: fits(t, type) }))
      .filter((t): t is { type: DeviceType; cost: number } => t.cost !== null && t.cost < PLAIN)
      .sort((x, y) => x.cost - y.cost);
    if (!best) continue;
    const { edit, device } = addDevice(b.rig, best.type);
    if (b.make(`clip:${id}`, { who: device.name, does: 'plugs into', what: name }, () => [edit]))
      plug(b, device.id, id);
  }
}

/** A screen that is plugged to a computer for something else (a display on the head, for its microphone) gets its picture too. */
export function plugScreens(b: Builder): void {
  for (const { id, name } of b.rig.devices) {
    const type = b.typeOf(id);
    const inputs = type.ports.filter(
      (p) => p.direction === 'in' && p.level !== 'light' && p.channels.some((c) => c.carries === 'picture'),
    );
    if (!isHardware(type) || type.hosts || !showsPicture(type) || inputs.length === 0) continue;
    if (b.rig.cables.some((c) => c.to.deviceId === id && inputs.some((p) => p.id === c.to.portId))) continue;
    const host = hostsOf(b.rig).find((h) => b.rig.cables.some((c) => c.to.deviceId === h && c.from.deviceId === id));
    const offer =
      host && bestBetween(b.rig, host, id, { suits: (o) => inputs.some((p) => p.id === o.cables[0]!.to.portId) });
    if (offer)
      b.make(`screen:${id}`, { who: b.device(host).name, does: 'shows its picture on', what: name }, () =>
        b.plugs(offer),
      );
  }
}

/** Several consoles, and one input for them: a switch chooses. */
export function shareInputs(b: Builder): void {
  const leadsOf = (id: string) => b.rig.cables.filter((c) => c.medium === 'lead' && c.from.deviceId === id);
  const players = b.rig.devices.filter(({ id }) => {
    const type = b.typeOf(id);
    return !type.hosts && type.ports.some((p) => p.does === 'game' && p.direction === 'out') && isHardware(type);
  });
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
    if (all.length < 2 || !type) continue;
    const { edit, device } = addDevice(b.rig, type, nameFor(b.rig, type));
    const target = lead.to.deviceId;
    const says = {
      who: device.name,
      does: 'goes between',
      what: all.map((p) => p.name).join(' and '),
      how: `and ${b.device(target).name}`,
      note: 'it has one input for them',
    };
    const unplugged = same.map((c) => ({ kind: 'unplug' as const, cableId: c.id }));
    if (!b.make(`share:${target}:${lead.to.portId}`, says, () => [...unplugged, edit])) continue;
    for (const { id } of all) plug(b, id, device.id);
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

/** Nothing is plugged yet where the lead would begin and end. */
const isFree = ({ rig }: Builder, { cables: [first], socket }: Offer): boolean =>
  socket.cableIds.length === 0 &&
  !rig.cables.some((c) => c.from.deviceId === first!.from.deviceId && c.from.portId === first!.from.portId);

/** A phone or a tablet that nothing was said to run on takes part in a call; what it is plugged to has a way back to it. */
export function callOnPhones(b: Builder): void {
  for (const hostId of hostsOf(b.rig)) {
    if (feeds(b, hostId) || programsOn(b.rig, hostId).length > 0 || isOnlySpokenInto(b, hostId)) continue;
    const phone = b.device(hostId).name;
    const { edit, device } = addDevice(b.rig, b.types.get('call')!, `${phone}, call`.slice(0, 120));
    const on: Edit = { kind: 'set-device', device: { ...device, on: hostId } };
    b.make(`call-on:${hostId}`, { who: phone, does: 'is on', what: 'a call' }, () => [edit, on]);
  }
  for (const hostId of hostsOf(b.rig)) {
    const calls = programsOn(b.rig, hostId).some((id) => endsThat(b.typeOf(id), 'call-microphone').length > 0);
    if (feeds(b, hostId) || !calls) continue;
    const [next] = b.rig.cables
      .filter((c) => c.medium === 'lead' && c.from.deviceId === hostId)
      .map((c) => c.to.deviceId);
    const isBack = b.rig.cables.some((c) => c.to.deviceId === hostId && c.from.deviceId === next);
    if (!next || isBack || !b.typeOf(next).ports.some((p) => p.direction === 'out' && p.level === 'line')) continue;
    const offer = bestBetween(b.rig, next, hostId, { suits: isMeant(b.typeOf(next), b.typeOf(hostId)) });
    if (offer)
      b.make(
        `back:${hostId}`,
        {
          who: b.device(next).name,
          does: 'goes back to',
          what: b.device(hostId).name,
          note: 'so that who is on the call hears you',
        },
        () => b.plugs(offer),
      );
  }
}

/** A mic is plugged into it, and nothing is plugged to hear it by: it films or records. */
const isOnlySpokenInto = ({ rig }: Builder, hostId: string): boolean =>
  endsOf(rig, hostId, 'in').some((e) => e.deviceId !== hostId && e.sound) &&
  endsOf(rig, hostId, 'out').every((e) => e.deviceId === hostId || listenRank(rig, e.deviceId, hostId) > 3);

/** What the computer is there for, where no program was named: a desk leads somewhere. */
export function nameProgram(b: Builder, answers: Answers): Decision[] {
  return hostsOf(b.rig).flatMap((hostId) => {
    const runs = programsOn(b.rig, hostId).map((id) => b.typeOf(id));
    const arrivals = endsOf(b.rig, hostId, 'in').filter((e) => e.deviceId !== hostId);
    const isGame = isCaptured(b, hostId) && runs.every((t) => !t.ports.some((p) => p.does === 'game'));
    if (runs.some((t) => endsThat(t, 'stream').length > 0 || records(t))) return [];
    if (arrivals.length === 0 && !(isGame && runs.length === 0)) return [];
    if (!feeds(b, hostId) && runs.length > 0) return [];
    const host = b.device(hostId).name;
    const isCamera = (id: string) => [...upstream(b.rig, id)].some((d) => films(b.typeOf(d)));
    const captures = arrivals.some((e) => e.picture && !isCamera(e.deviceId));
    const calls = runs.some((t) => endsThat(t, 'call-microphone').length > 0);
    // On a call all else is heard and seen already; what is captured wants to go somewhere.
    if (calls && !captures && !isGame) return [];
    const [stream, call, record, game] = PURPOSES;
    const asked = decide(answers, {
      id: `purpose:${hostId}`,
      asks: calls ? `What is ${host} for, beside the call?` : `What is ${host} for?`,
      options: [
        stream,
        ...(calls ? [] : [call]),
        record,
        ...(isGame ? [game] : []),
        { id: NONE, label: 'Nothing yet' },
      ],
      usual: isGame ? game.id : captures || arrivals.some((e) => e.picture) ? stream.id : record.id,
    });
    const type = b.types.get(asked.taken);
    if (type) {
      const { edit, device } = addDevice(b.rig, type, nameOfPurpose(b, asked.taken));
      const on: Edit = { kind: 'set-device', device: { ...device, on: hostId } };
      b.make(`purpose:${hostId}`, { who: host, does: 'runs', what: device.name }, () => [edit, on]);
    }
    return [asked];
  });
}

/** Another computer takes its picture in: what is played on it is seen there. */
const isCaptured = ({ rig }: Builder, hostId: string): boolean => {
  const after = downstream(rig, hostId);
  return hostsOf(rig).some(
    (other) => other !== hostId && endsOf(rig, other, 'in').some((e) => e.picture && after.has(e.deviceId)),
  );
};

const PURPOSES = [
  { id: 'capture-program', label: 'Streaming', name: 'Streaming app' },
  { id: 'call', label: 'A call', name: 'Call' },
  { id: 'recording-program', label: 'Recording', name: 'Recording app' },
  { id: 'game-program', label: 'A game', name: 'Game' },
] as const;

function nameOfPurpose(b: Builder, typeId: string): string {
  const { name } = PURPOSES.find((p) => p.id === typeId)!;
  const taken = new Set(b.rig.devices.map((d) => d.name));
  let free: string = name;
  for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
  return free;
}

/** What begins in a box is heard where the box is plugged: at Bluetooth, where nothing stands in its jack. */
export function moveSources(b: Builder): void {
  b.rig.sources.forEach((source, at) => {
    const { deviceId, portId } = source.sound;
    const type = b.typeOf(deviceId);
    const isUsed = (id: string) => b.rig.cables.some((c) => c.from.deviceId === deviceId && c.from.portId === id);
    const does = type.ports.find((p) => p.id === portId)?.does;
    const other = type.ports.find((p) => beginsAt(type, p) && p.does === does && p.id !== portId && isUsed(p.id));
    if (isUsed(portId) || !other) return;
    b.take({ kind: 'remove-source', sourceId: source.id });
    b.take({ kind: 'add-source', source: { ...source, sound: { deviceId, portId: other.id } }, at });
  });
}
