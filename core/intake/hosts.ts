import { connectorOf } from '#core/model/plug/index.ts';
import {
  type DeviceType,
  type Edit,
  endsThat,
  films,
  isProgram,
  isSupply,
  records,
  usbRoleOf,
} from '#core/model/rig/index.ts';
import { addDevice, bestBetween, isMeant } from '#core/routing/wiring/index.ts';
import { downstream, endsOf, hostsOf, isComputer, listenRank, programsOn, upstream } from './around.ts';
import { type Builder, listed } from './builder.ts';
import { type Answers, type Decision, decide } from './questions.ts';
import { say } from './sayings.ts';

/** What a desk computer is, where programs were named and nothing that they run on. */
const COMPUTER = 'computer-desktop';
const NONE = 'none';

/** Programs run on a computer: the one there is, or one that is put there. */
export function hostPrograms(b: Builder): void {
  const lost = b.rig.devices.filter((d) => isProgram(b.typeOf(d.id)) && d.on === undefined);
  if (lost.length === 0) return;
  let [host] = hostsOf(b.rig).sort((x, y) => Number(isComputer(b.typeOf(y))) - Number(isComputer(b.typeOf(x))));
  if (!host) {
    const { edit, device } = addDevice(b.rig, b.types.get(COMPUTER)!, 'Computer');
    if (!b.make('computer', say.runs({ host: device.name, what: listed(lost.map((d) => d.name)) }), () => [edit]))
      return;
    host = device.id;
  }
  for (const device of lost) b.take({ kind: 'set-device', device: { ...device, on: host } });
}

/** What gets its power from USB alone hangs on a computer: one is there, even if no one named it. */
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
  b.make('computer', say.needsComputer({ count: lost.length, who: listed(lost.map((d) => d.name)) }), () => [edit]);
}

const isUsbPort = (type: DeviceType, portId: string): boolean =>
  type.ports.some((p) => p.id === portId && connectorOf(p.connector)?.kind === 'usb');

/** A phone or a tablet that nothing was said to run on takes part in a call; what it is plugged to has a way back to it. */
export function callOnPhones(b: Builder): void {
  for (const hostId of hostsOf(b.rig)) {
    if (isComputer(b.typeOf(hostId)) || programsOn(b.rig, hostId).length > 0 || isOnlySpokenInto(b, hostId)) continue;
    const phone = b.device(hostId).name;
    const { edit, device } = addDevice(b.rig, b.types.get('call')!, `${phone}, call`.slice(0, 120));
    const on: Edit = { kind: 'set-device', device: { ...device, on: hostId } };
    b.make(`call-on:${hostId}`, say.isOnACall({ who: phone }), () => [edit, on]);
  }
  for (const hostId of hostsOf(b.rig)) {
    const calls = programsOn(b.rig, hostId).some((id) => endsThat(b.typeOf(id), 'call-microphone').length > 0);
    if (isComputer(b.typeOf(hostId)) || !calls) continue;
    const [next] = b.rig.cables
      .filter((c) => c.medium === 'lead' && c.from.deviceId === hostId)
      .map((c) => c.to.deviceId);
    const isBack = b.rig.cables.some((c) => c.to.deviceId === hostId && c.from.deviceId === next);
    if (!next || isBack || !b.typeOf(next).ports.some((p) => p.direction === 'out' && p.level === 'line')) continue;
    const offer = bestBetween(b.rig, next, hostId, { suits: isMeant(b.typeOf(next), b.typeOf(hostId)) });
    if (offer)
      b.make(
        `back:${hostId}`,
        say.backTo({ from: b.device(next).name, to: b.device(hostId).name }),
        () => b.plugs(offer),
        { note: say.soCallHearsYou() },
      );
  }
}

/** A mic is plugged into it, and nothing is plugged to hear it by: it films or records. */
const isOnlySpokenInto = ({ rig }: Builder, hostId: string): boolean =>
  endsOf(rig, hostId, 'in').some((e) => e.deviceId !== hostId && e.sound) &&
  endsOf(rig, hostId, 'out').every((e) => e.deviceId === hostId || listenRank(rig, e.deviceId, hostId) > 3);

/** What the computer is there for, where no program was named: a desk leads somewhere. */
export function nameProgram(b: Builder, text: string, answers: Answers): Decision[] {
  return hostsOf(b.rig).flatMap((hostId) => {
    const runs = programsOn(b.rig, hostId).map((id) => b.typeOf(id));
    const arrivals = endsOf(b.rig, hostId, 'in').filter((e) => e.deviceId !== hostId);
    const isGame = isCaptured(b, hostId) && runs.every((t) => !t.ports.some((p) => p.does === 'game'));
    if (runs.some((t) => endsThat(t, 'stream').length > 0 || records(t))) return [];
    if (arrivals.length === 0 && !(isGame && runs.length === 0)) return [];
    if (!isComputer(b.typeOf(hostId)) && runs.length > 0) return [];
    const host = b.device(hostId).name;
    const isCamera = (id: string) => [...upstream(b.rig, id)].some((d) => films(b.typeOf(d)));
    const captures = arrivals.some((e) => e.picture && !isCamera(e.deviceId));
    const calls = runs.some((t) => endsThat(t, 'call-microphone').length > 0);
    // On a call all else is heard and seen already; what is captured wants to go somewhere.
    if (calls && !captures && !isGame) return [];
    const [stream, call, record, game] = PURPOSES;
    const asked = decide(answers, {
      id: `purpose:${hostId}`,
      asks: calls ? say.purposeBesideCall({ host }) : say.purposeOf({ host }),
      options: [
        stream,
        ...(calls ? [] : [call]),
        record,
        ...(isGame ? [game] : []),
        { id: NONE, label: say.nothingYet() },
      ],
      usual: isGame
        ? game.id
        : ((isComputer(b.typeOf(hostId)) ? saidPurpose(text) : null) ??
          (captures || arrivals.some((e) => e.picture) ? stream.id : record.id)),
    });
    const type = b.types.get(asked.taken);
    if (type) {
      const { edit, device } = addDevice(b.rig, type, nameOfPurpose(b, asked.taken));
      const on: Edit = { kind: 'set-device', device: { ...device, on: hostId } };
      b.make(`purpose:${hostId}`, say.runs({ host, what: device.name }), () => [edit, on]);
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

/** An activity as someone typed it. */
const SAID: readonly (readonly [said: RegExp, purpose: number])[] = [
  [/\b(?:live ?)?stream(?:s|ing|er|ed)?\b|\bbroadcast/i, 0],
  [/\brecord(?:s|ed|ing)?\b|\bpodcast|\bvoice ?over|\baudio ?book/i, 2],
];
/** What the words of a desk say it is for; null where they say nothing. */
function saidPurpose(text: string): string | null {
  const found = SAID.find(([said]) => said.test(text));
  return found ? PURPOSES[found[1]]!.id : null;
}

const PURPOSES = [
  { id: 'capture-program', label: say.streaming(), name: 'Streaming app' },
  { id: 'call', label: say.aCall(), name: 'Call' },
  { id: 'recording-program', label: say.recording(), name: 'Recording app' },
  { id: 'game-program', label: say.aGame(), name: 'Game' },
] as const;

function nameOfPurpose(b: Builder, typeId: string): string {
  const { name } = PURPOSES.find((p) => p.id === typeId)!;
  const taken = new Set(b.rig.devices.map((d) => d.name));
  let free: string = name;
  for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
  return free;
}
