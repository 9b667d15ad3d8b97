import type { Text } from '#core/base/said/index.ts';
import {
  applyEdit,
  endsBehind,
  films,
  findTypes,
  isCall,
  isPerson,
  isWorn,
  type Rig,
  showsPicture,
  soundsIntoRoom,
} from '#core/model/rig/index.ts';
import { addDevice, addFarSeat, bestBetween, freeId, isMeant, type TypedUse, YOU } from '#core/routing/wiring/index.ts';
import { evaluate, rolesOf } from '#core/signal/index.ts';
import {
  earsPort,
  endsOf,
  hearsToo,
  isFedByLead,
  isHeadset,
  isMicrophone,
  listenRank,
  peopleOf,
  upstream,
} from './around.ts';
import type { Builder } from './builder.ts';
import { say } from './sayings.ts';

/** People besides the one who types. */
const GUEST = 'Guest';
const CALLER = 'Caller';
const ROOM = 'Room';
/** What one hears a call by, where nothing was named. */
const EARS = 'headphones';
/** What brings someone there who is elsewhere. */
const CALL = 'call';

/** A person named with a computer, without a mic here while others have one, is remote: on a call there. */
export function callThose(b: Builder, uses: readonly TypedUse[]): readonly TypedUse[] {
  const far = uses.filter(
    ({ programId, deviceId }) =>
      b.typeOf(programId).hosts &&
      isPerson(b.typeOf(deviceId)) &&
      deviceId !== b.you &&
      !isSeatedHere(b.rig, deviceId) &&
      !uses.some((u) => u.deviceId === deviceId && isCall(b.typeOf(u.programId))) &&
      b.rig.devices.some((d) => isMicrophone(b.typeOf(d.id))),
  );
  return far.flatMap(({ programId: hostId, deviceId }): TypedUse[] => {
    const known = b.rig.devices.find((d) => d.on === hostId && isCall(b.typeOf(d.id)));
    if (known) return [{ programId: known.id, deviceId }];
    const { edit, device } = addDevice(b.rig, b.types.get(CALL)!);
    const says = say.isOnCallOf({ who: b.device(deviceId).name, call: device.name, host: b.device(hostId).name });
    const edits = () => [edit, { kind: 'set-device' as const, device: { ...device, on: hostId } }];
    return b.make(`call-with:${hostId}`, says, edits) ? [{ programId: device.id, deviceId }] : [];
  });
}

/** Persons that were named with a call are over there, and hear by a headset of their own. */
export function seatFarPeople(b: Builder, uses: readonly TypedUse[]): void {
  const calls = b.rig.devices.filter((d) => isCall(b.typeOf(d.id)));
  for (const call of calls) {
    const named = uses.filter((u) => u.programId === call.id && isPerson(b.typeOf(u.deviceId)));
    const far = named.filter(({ deviceId }) => !isSeatedHere(b.rig, deviceId));
    for (const { deviceId } of far) moveOver(b, call.id, deviceId);
    if (far.length > 0) continue;
    b.make(`caller:${call.id}`, say.isOn({ who: CALLER, call: call.name }), () => [seat(b.rig, call.id, CALLER)], {
      note: say.callHasSomebody(),
    });
  }
}

/** A call that no one could hear gets headphones, where one plugs them: at the device that its mic is plugged into, else at the computer. */
export function earsForCalls(b: Builder): void {
  for (const call of b.rig.devices.filter((d) => isCall(b.typeOf(d.id)) && d.on !== undefined)) {
    const hostId = call.on!;
    const heard = endsOf(b.rig, hostId, 'out').some((e) => e.sound && listenRank(b.rig, e.deviceId, hostId) < 5);
    const arrivals = endsOf(b.rig, hostId, 'in').filter((e) => e.sound && e.deviceId !== hostId);
    if (heard || arrivals.length === 0 || b.rig.devices.some((d) => isWorn(b.typeOf(d.id)) && !isFarGear(b, d.id)))
      continue;
    const { edit, device } = addDevice(b.rig, b.types.get(EARS)!);
    const after = applyEdit(b.rig, edit);
    if (!after.ok) continue;
    const [offer] = [...arrivals.map((e) => e.deviceId), hostId].flatMap(
      (id) => bestBetween(after.rig, id, device.id, { suits: isMeant(b.typeOf(id), b.types.get(EARS)!) }) ?? [],
    );
    if (offer)
      b.make(
        `ears:${call.id}`,
        say.pluggedInto({ device: device.name, into: b.device(offer.cables[0]!.from.deviceId).name }),
        () => [edit, ...b.plugs(offer)],
        { note: say.soYouHearCall() },
      );
  }
}

/** Someone who talks into something here, or wears something here, sits here. */
const isSeatedHere = (rig: Rig, personId: string): boolean =>
  rig.cables.some((c) => c.from.deviceId === personId || c.to.deviceId === personId);

/** A person in place of the one that was drawn here: at the other end of a call, under the same name. */
function moveOver(b: Builder, callId: string, personId: string): void {
  const { name } = b.device(personId);
  for (const source of b.rig.sources.filter((s) => s.sound.deviceId === personId))
    b.take({ kind: 'remove-source', sourceId: source.id });
  b.take({ kind: 'remove-device', deviceId: personId });
  b.take(seat(b.rig, callId, name));
}

/** A far seat without wants: the plan is made once all is there; its listener is called as the person is. */
function seat(rig: Rig, callId: string, name: string) {
  const edit = addFarSeat(rig, callId, name);
  if (edit.kind !== 'batch') return edit;
  const edits = edit.edits
    .filter((e) => e.kind !== 'set-plan')
    .map((e) => (e.kind === 'add-listener' ? { ...e, listener: { ...e.listener, name } } : e));
  return { ...edit, edits };
}

/** Everybody who sits here. */
const here = (b: Builder): string[] => {
  const far = new Set(
    b.rig.cables
      .filter(
        (c) =>
          c.medium === 'software' &&
          b.typeOf(c.to.deviceId).ports.some((p) => p.id === c.to.portId && p.does === 'far-side'),
      )
      .flatMap((c) =>
        b.rig.cables.filter((air) => air.to.deviceId === c.from.deviceId).map((air) => air.from.deviceId),
      ),
  );
  return peopleOf(b.rig).filter((id) => !far.has(id));
};

const isFarGear = (b: Builder, deviceId: string): boolean =>
  b.rig.cables.some(
    (c) =>
      c.from.deviceId === deviceId &&
      b.typeOf(c.to.deviceId).ports.some((p) => p.id === c.to.portId && p.does === 'far-side'),
  );

/** Every microphone gets someone who talks into it, everything worn someone who wears it; a camera someone whom it films. */
export function seatPeople(b: Builder, isOpen: boolean): void {
  const mics = b.rig.devices.filter(
    (d) => isMicrophone(b.typeOf(d.id)) && !isFarGear(b, d.id) && !isFedByLead(b.rig, d.id),
  );
  const untalked = mics.filter((d) => !b.rig.cables.some((c) => c.medium === 'air' && c.to.deviceId === d.id));
  const plain = untalked.filter((d) => !isHeadset(b.typeOf(d.id)));
  const headsets = untalked.filter((d) => isHeadset(b.typeOf(d.id)));
  for (const { id, name } of plain) talkInto(b, id, name, talks, say.talksInto);
  for (const { id, name } of headsets) talkInto(b, id, name, wears, say.wears);
  wearEars(b);
  // What is not understood yet may be a microphone.
  if (!isOpen) talkToTheRoom(b);
  filmPeople(b);
  seatAudience(b);
}

/** Where there is no microphone at all, who sits here is heard by what hears the room: a camera first, else a computer. */
function talkToTheRoom(b: Builder): void {
  const all = b.rig.devices.filter((d) => !isFarGear(b, d.id));
  if (all.some((d) => isMicrophone(b.typeOf(d.id)))) return;
  // A camera first, then the computer that something runs on.
  const placeOf = (id: string) =>
    b.typeOf(id).hosts ? (b.rig.devices.some((d) => d.on === id && !films(b.typeOf(d.id))) ? 1 : 2) : 0;
  const [near] = all
    .filter(
      (d) =>
        hearsToo(b.typeOf(d.id)) &&
        b.rig.cables.some((c) => c.from.deviceId === d.id || c.to.deviceId === d.id || b.typeOf(d.id).hosts),
    )
    .sort((x, y) => placeOf(x.id) - placeOf(y.id));
  if (!near) return;
  const people = here(b);
  const isSpokenTo =
    b.rig.devices.some((d) => isCall(b.typeOf(d.id))) ||
    people.length > 0 ||
    (films(b.typeOf(near.id)) && !b.typeOf(near.id).hosts);
  if (!isSpokenTo) return;
  for (const person of people.length > 0 ? people : [newPerson(b)]) {
    const voice = b.typeOf(person).ports.find((p) => p.does === 'voice');
    const mic = b.typeOf(near.id).ports.find((p) => p.direction === 'in' && p.level === 'air');
    if (!voice || !mic || talks(b, person)) continue;
    const { name } = b.device(person);
    b.make(`talks:${person}`, say.talksAcross({ you: isYou(b, person), who: name, device: near.name }), () => [
      b.link({ deviceId: person, portId: voice.id }, { deviceId: near.id, portId: mic.id }, 'air', ACROSS_M),
    ]);
  }
}
const ACROSS_M = 0.8;

/** A room full of people hears the speakers of the room. */
function seatAudience(b: Builder): void {
  const rooms = b.rig.devices.filter((d) => b.typeOf(d.id).ports.some((p) => p.does === 'room-ears'));
  for (const { id, name } of rooms) {
    if (b.rig.cables.some((c) => c.to.deviceId === id)) continue;
    const speakers = b.rig.devices.filter(
      (d) =>
        soundsIntoRoom(b.typeOf(d.id)) &&
        !isFarGear(b, d.id) &&
        b.rig.cables.some((c) => c.to.deviceId === d.id && c.medium === 'lead'),
    );
    // Made for nothing else, before a screen that sounds as well.
    const best = speakers.sort(
      (x, y) => Number(showsPicture(b.typeOf(x.id))) - Number(showsPicture(b.typeOf(y.id))),
    )[0];
    if (!best) continue;
    const offer = bestBetween(b.rig, best.id, id, { suits: ({ cables }) => cables[0]!.medium === 'air' });
    if (offer) b.make(`room:${id}`, say.hears({ you: 'no', who: name, what: best.name }), () => b.plugs(offer));
  }
}

const talks = (b: Builder, personId: string): boolean =>
  b.rig.cables.some((c) => c.from.deviceId === personId && c.medium === 'air');
const wears = (b: Builder, personId: string): boolean =>
  b.rig.cables.some(
    (c) =>
      (c.from.deviceId === personId && isWorn(b.typeOf(c.to.deviceId))) ||
      (c.to.deviceId === personId && isWorn(b.typeOf(c.from.deviceId))),
  );

function newPerson(b: Builder): string {
  const people = here(b).length;
  const names = new Set(b.rig.devices.map((d) => d.name));
  const isFirst = people === 0;
  let name: string = isFirst ? YOU.name : GUEST;
  for (let n = 2; names.has(name); n++) name = `${GUEST} ${n}`;
  const { edit, device } = addDevice(b.rig, findTypes(b.rig).get('person')!, name, isFirst ? YOU.voice : name);
  b.take(edit);
  if (isFirst) b.you = device.id;
  return device.id;
}

/** 'You talk', 'Guest talks': which of them. */
const isYou = (b: Builder, personId: string): 'yes' | 'no' => (personId === b.you ? 'yes' : 'no');

/** Who gets an item: first someone without one, as changed; then someone who was not named. */
function whoTakes(b: Builder, madeId: string, hasOne: (b: Builder, personId: string) => boolean) {
  const people = here(b).map((id) => ({ id, label: b.device(id).name as Text }));
  const free = people.filter((p) => !hasOne(b, p.id));
  const busy = people.filter((p) => hasOne(b, p.id));
  const other = { id: SOMEBODY_ELSE, label: say.somebodyElse() };
  const options = people.length === 0 ? [other] : [...free, ...(free.length > 0 ? [...busy, other] : [other, ...busy])];
  const { one, choice } = b.choose(madeId, options)!;
  return { personId: one.id === SOMEBODY_ELSE ? newPerson(b) : one.id, choice };
}
const SOMEBODY_ELSE = 'somebody-else';

function talkInto(
  b: Builder,
  micId: string,
  micName: string,
  hasOne: (b: Builder, personId: string) => boolean,
  does: typeof say.talksInto | typeof say.wears,
): void {
  const { personId, choice } = whoTakes(b, `talks:${micId}`, hasOne);
  const person = b.device(personId).name;
  const suits = isMeant(b.typeOf(personId), b.typeOf(micId));
  const offer = bestBetween(b.rig, personId, micId, { suits });
  if (!offer) return;
  const says = does({ you: isYou(b, personId), who: person, what: micName });
  b.make(`talks:${micId}`, says, () => b.plugs(offer), { choice });
  callListener(b, micId, personId);
}

/** Earphones without a microphone are worn, and heard by their wearer. */
function wearEars(b: Builder): void {
  for (const { id, name } of b.rig.devices) {
    const type = b.typeOf(id);
    const ears = type.ports.find((p) => p.does === 'ears' && p.direction === 'out');
    if (!isWorn(type) || isHeadset(type) || !ears || isFarGear(b, id)) continue;
    const already = b.rig.cables.find(
      (c) => c.from.deviceId === id && c.medium === 'air' && isPerson(b.typeOf(c.to.deviceId)),
    );
    if (already) {
      callListener(b, id, already.to.deviceId);
      continue;
    }
    // Spare ones are left unconnected.
    if (here(b).length > 0 && here(b).every((p) => wears(b, p))) continue;
    const { personId, choice } = whoTakes(b, `wears:${id}`, wears);
    const port = earsPort(b.typeOf(personId));
    if (!port) continue;
    const says = say.wears({ you: isYou(b, personId), who: b.device(personId).name, what: name });
    const at = { deviceId: personId, portId: port.id };
    b.make(`wears:${id}`, says, () => [b.link({ deviceId: id, portId: ears.id }, at, 'air', 0.01)], { choice });
    callListener(b, id, personId);
  }
}

/** 'Your ears', 'Guest'. */
const earsOf = (b: Builder, personId: string): string => (personId === b.you ? YOU.ears : b.device(personId).name);

/** What is heard at something worn is called as its wearer is, as long as no one called it otherwise. */
function callListener(b: Builder, deviceId: string, personId: string): void {
  const at = b.rig.listeners.findIndex((l) => l.sound.deviceId === deviceId);
  const listener = b.rig.listeners[at];
  if (!listener || listener.name !== b.device(deviceId).name) return;
  const ears = earsOf(b, personId);
  const taken = b.rig.listeners.some((l) => l.name === ears);
  const name = taken ? `${ears}, ${listener.name}` : ears;
  b.take({ kind: 'remove-listener', listenerId: listener.id });
  b.take({ kind: 'add-listener', listener: { ...listener, name: name.slice(0, 120) }, at });
}

/** A camera without anyone in front films the first person here. */
function filmPeople(b: Builder): void {
  for (const { id, name } of b.rig.devices) {
    const type = b.typeOf(id);
    if (!films(type) || type.hosts || b.rig.cables.some((c) => c.to.deviceId === id && c.medium === 'light')) continue;
    const chosen = b.choose(
      `films:${id}`,
      here(b).map((p) => ({ id: p, label: p === b.you ? say.you() : b.device(p).name })),
    );
    const face = chosen && b.typeOf(chosen.one.id).ports.find((p) => p.level === 'light' && p.direction === 'out');
    const lens = type.ports.find((p) => p.level === 'light' && p.direction === 'in');
    if (!chosen || !face || !lens) continue;
    const [from, to] = [
      { deviceId: chosen.one.id, portId: face.id },
      { deviceId: id, portId: lens.id },
    ];
    const says = say.films({ who: name, whom: chosen.one.label });
    b.make(`films:${id}`, says, () => [b.link(from, to, 'light', 1)], { choice: chosen.choice });
  }
}

/** Someone who talks into nothing is no voice of the desk: only ears. */
export function dropSilentVoices(b: Builder): void {
  for (const personId of here(b)) {
    if (!talks(b, personId)) hush(b, personId);
  }
}

/** A voice that comes nowhere, where nothing goes out and no one else listens: of a headset whose mic has no use here. */
export function dropIdleVoices(b: Builder): void {
  const roles = rolesOf(b.rig);
  if (b.rig.listeners.some((l) => roles.listener(l) !== 'ears')) return;
  const { pairs } = evaluate(b.rig);
  for (const source of b.rig.sources.filter((s) => isPerson(b.typeOf(s.sound.deviceId)))) {
    const own = pairs.filter((p) => p.sourceId === source.id);
    const isWorn = b.rig.cables.some(
      (c) => c.medium === 'air' && c.from.deviceId === source.sound.deviceId && isHeadset(b.typeOf(c.to.deviceId)),
    );
    if (isWorn && own.every((p) => p.ways.length === 0)) b.take({ kind: 'remove-source', sourceId: source.id });
  }
}

function hush(b: Builder, personId: string): void {
  for (const source of b.rig.sources.filter((s) => s.sound.deviceId === personId))
    b.take({ kind: 'remove-source', sourceId: source.id });
}

/** What sounds in the room here: speakers, screens and computers that something is played to. */
const soundingHere = (b: Builder): string[] =>
  b.rig.devices
    .filter(({ id }) => {
      const type = b.typeOf(id);
      const air = type.ports
        .filter((p) => p.direction === 'out' && p.level === 'air')
        .flatMap((p) => endsBehind(type, p.id));
      // Of a computer, only what programs play to its own speakers.
      const isPlayed = b.rig.cables.some(
        (c) => c.to.deviceId === id && c.medium !== 'air' && (!type.hosts || air.some((p) => p.id === c.to.portId)),
      );
      return soundsIntoRoom(type) && !isFarGear(b, id) && isPlayed;
    })
    .map((d) => d.id);

/** Someone without headphones hears the speakers in the room; with an audience, the audience does. */
export function seatInRoom(b: Builder): void {
  const isHall = b.rig.devices.some((d) => b.typeOf(d.id).ports.some((p) => p.does === 'room-ears'));
  if (isHall) return;
  const speakers = soundingHere(b);
  // Speakers that play voices of the room are for others.
  const amplified = speakers.filter(
    (id) => !b.typeOf(id).hosts && [...upstream(b.rig, id)].some((d) => d !== id && isMicrophone(b.typeOf(d))),
  );
  if (amplified.length > 0) {
    const { edit, device } = addDevice(b.rig, findTypes(b.rig).get('audience')!, ROOM);
    if (b.make('room', say.hears({ you: 'no', who: ROOM, what: b.device(amplified[0]!).name }), () => [edit])) {
      const offer = bestBetween(b.rig, amplified[0]!, device.id, {
        suits: ({ cables }) => cables[0]!.medium === 'air',
      });
      if (offer) b.take({ kind: 'batch', edits: b.plugs(offer) });
    }
  }
  const others = speakers.filter((id) => !amplified.includes(id));
  // Where no one was named, the person who types listens.
  if (others.length > 0 && here(b).length === 0) hush(b, newPerson(b));
  for (const person of here(b)) if (!wears(b, person)) hearInRoom(b, person, others);
}

/** A person's ears at some speakers: the destination this adds, null where nothing plays. */
export function hearInRoom(b: Builder, personId: string, speakers: readonly string[]): string | null {
  const ears = earsPort(b.typeOf(personId));
  if (!ears || speakers.length === 0) return null;
  const { name } = b.device(personId);
  for (const id of speakers) {
    if (b.rig.cables.some((c) => c.from.deviceId === id && c.to.deviceId === personId)) continue;
    const offer = bestBetween(b.rig, id, personId, { suits: ({ cables }) => cables[0]!.medium === 'air' });
    if (offer)
      b.make(
        `room:${personId}:${id}`,
        say.hearsInRoom({ you: isYou(b, personId), who: name, what: b.device(id).name }),
        () => b.plugs(offer),
      );
  }
  if (
    !b.rig.cables.some(
      (c) => c.to.deviceId === personId && c.to.portId === ears.id && speakers.includes(c.from.deviceId),
    )
  )
    return null;
  const known = b.rig.listeners.find((l) => l.sound.deviceId === personId);
  if (known) return known.id;
  const called = earsOf(b, personId);
  const taken = b.rig.listeners.some((l) => l.name === called);
  const eyes = b.typeOf(personId).ports.find((p) => p.does === 'view');
  const id = freeId(new Set(b.rig.listeners.map((l) => l.id)), personId);
  b.take({
    kind: 'add-listener',
    listener: {
      id,
      name: taken ? `${called}, in the room` : called,
      sound: { deviceId: personId, portId: ears.id },
      ...(eyes && { picture: { deviceId: personId, portId: eyes.id } }),
    },
  });
  return id;
}

/** Who wears a device. */
export const wearerOf = (b: Builder, deviceId: string): string | undefined =>
  b.rig.cables
    .flatMap((c) =>
      c.medium !== 'air'
        ? []
        : c.to.deviceId === deviceId
          ? [c.from.deviceId]
          : c.from.deviceId === deviceId
            ? [c.to.deviceId]
            : [],
    )
    .find((id) => isPerson(b.typeOf(id)));
