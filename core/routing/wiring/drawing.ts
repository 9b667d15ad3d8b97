import { leadsTo } from '#core/base/search/index.ts';
import {
  applyEdit,
  type Device,
  type DeviceType,
  type Edit,
  endsThat,
  findDevice,
  findTypes,
  hearsAir,
  isCall,
  isHardware,
  isPerson,
  isProgram,
  isWorn,
  type Rig,
  records,
} from '#core/model/rig/index.ts';
import { type Chain, type Item, isPlural, type Joint } from '#core/routing/grammar/index.ts';
import { addDevice, nameFor } from './add.ts';
import { type Beside, bestBetween, fitsAmong, isMeant, isWithin, likeness, typesBeside } from './between.ts';
import { furtherOffers } from './further.ts';
import { isMe, Mentioned, namesOf, YOU } from './mentioned.ts';
import type { Offer } from './offers.ts';
import { socketsOf } from './sockets.ts';

/** What a few words of a typed text were taken for. */
export interface TypedBox {
  readonly word: string;
  /** Null where no type has these words. */
  readonly type: DeviceType | null;
  /** How many were meant. */
  readonly count: number;
  readonly deviceIds: readonly string[];
  /** Already on the desk. */
  readonly known: boolean;
  /** What else it may be, where that is in doubt or no one knows; and words that nothing was made of. */
  readonly others: readonly DeviceType[];
  readonly left: readonly string[];
  /** Its position in the text. */
  readonly from: number;
  readonly to: number;
}
export interface TypedLead {
  readonly from: string;
  readonly to: string;
  /** Null where nothing fits between the two. */
  readonly offer: Offer | null;
  /** Others of the list go there, and this one may be separate: 'laptop, webcam, mic > interface'. */
  readonly maybe?: true;
}
/** A program and what was named with it: what it is to take or to play to, or who is on it; a computer and who was named with that. */
export interface TypedUse {
  readonly programId: string;
  readonly deviceId: string;
}
/** Someone who was said to go into a device, and not by what. */
export interface Spoken {
  readonly person: string;
  readonly device: string;
}
const MAX_BOXES = 60;
/** What a desk computer is, where one has to be and none was named. */
const COMPUTER = 'computer-desktop';

/** Joints from each to each; one to one where both sides have as many, or this many of each kind. */
const jointsOf = (from: readonly string[], to: readonly string[], each: boolean): [string, string][] =>
  each && from.length > 0 && to.length % from.length === 0
    ? to.map((t, i): [string, string] => [from[i % from.length]!, t])
    : from.length === to.length
      ? from.map((f, i): [string, string] => [f, to[i]!])
      : from.flatMap((f) => to.map((t): [string, string] => [f, t]));

/** A rig as chain after chain is drawn onto it. */
export class Drawing {
  readonly boxes: TypedBox[] = [];
  readonly leads: TypedLead[] = [];
  readonly uses: TypedUse[] = [];
  readonly spoken: Spoken[] = [];
  readonly noSocket: { deviceId: string; socket: string }[] = [];
  readonly waiting: string[] = [];
  readonly added: string[] = [];
  readonly edits: Edit[] = [];
  /** The person who types, where they named themselves. */
  you: string | null = null;
  rig: Rig;
  readonly #names: 'typed' | 'type';
  readonly #chosen: ReadonlyMap<Item, DeviceType>;
  readonly #mentioned: Mentioned;
  readonly #takes: boolean;
  readonly #later: TypedUse[] = [];
  readonly #friends: string[] = [];

  constructor(rig: Rig, names: 'typed' | 'type', chosen: ReadonlyMap<Item, DeviceType>, takes: boolean) {
    this.#takes = takes;
    this.rig = rig;
    this.#names = names;
    this.#chosen = chosen;
    this.#mentioned = new Mentioned(rig);
  }

  take(edit: Edit): boolean {
    const done = applyEdit(this.rig, edit);
    if (done.ok) {
      this.rig = done.rig;
      this.edits.push(edit);
    }
    return done.ok;
  }

  draw(chain: Chain): void {
    let before: Named = { ids: [], items: [] };
    let anchor = before;
    const earlier: Named[] = [];
    for (const [i, { joint, items, each }] of chain.entries()) {
      const around: Beside = { before: this.#typesOf(chain[i - 1]), after: this.#typesOf(chain[i + 1]) };
      const here = items.map((item) => ({ item, ids: this.#devicesFor(item, around) }));
      const ids = here.flatMap((h) => h.ids);
      // 'A call with a friend on the computer': what follows a person belongs to the item before them.
      const isAside = this.#arePeople(before.ids) && !this.#mayJoin(before.ids, ids);
      // 'Singer into the mixer': by what, is found later.
      if (isAside && anchor.ids.length === 0 && joint !== 'from')
        for (const device of ids.filter((id) => isHardware(this.#typeOf(id)!) && !this.#areHosts([id])))
          for (const person of before.ids) this.spoken.push({ person, device });
      let beside = isAside && (anchor.ids.length > 0 || !this.#areHosts(ids)) ? anchor : before;
      // 'Mics, interface, laptop with an app': it runs on the laptop, and takes nothing else by that.
      if (this.#arePrograms(ids) && beside.ids.some((id) => this.#areHosts([id])))
        beside = { ids: beside.ids.filter((id) => this.#areHosts([id])), items: beside.items };
      // 'Splitter > tv > capture': what nothing leads to from the last is fed by one before.
      const feeds = joint === 'to' ? [beside, ...earlier].find((e) => this.#mayJoin(e.ids, ids)) : beside;
      if (joint) this.#joinAll(feeds ?? beside, { ids, items }, joint, each);
      // 'Music on the laptop > call': from program to program on one computer.
      const program = earlier[0];
      if (joint && program && this.#arePrograms(ids) && this.#arePrograms(program.ids) && this.#areHosts(beside.ids))
        this.#joinAll(program, { ids, items }, joint);
      if (ids.length > 0 && !this.#arePeople(ids)) earlier.unshift(before);
      if (!this.#arePeople(ids)) anchor = { ids, items };
      if (joint && before.ids.length === 0) this.waiting.push(...ids);
      if (joint && ids.length === 0) this.waiting.push(...before.ids);
      // Of different things that are fed by one, it is the last that leads on: 'splitter > tv, capture > computer'.
      const last = here.at(-1)!;
      const leadsOn = joint !== null && !each && new Set(items.map((i) => this.#typeIdOf(i))).size > 1;
      const left = leadsOn ? [last.item] : items;
      before = { ids: leadsOn ? last.ids : ids, items: joint === 'to' ? left.map(withoutInput) : left };
    }
  }

  /** What could not be plugged before all was read: what is named with a program that got its computer later. */
  finish(): void {
    this.#callFriends();
    for (const { programId, deviceId } of this.#later) this.#plugBeside(findDevice(this.rig, programId)!, deviceId);
    for (const { from, to, offer } of [...this.leads])
      for (const next of offer ? furtherOffers(this.rig, from, to, offer) : []) {
        this.leads.push({ from, to, offer: next });
        this.take({ kind: 'batch', edits: next.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
      }
  }

  /** The devices that an item names: those that are there, or new ones. */
  #devicesFor(typed: Item, beside: Beside): readonly string[] {
    const type = this.#chosen.get(typed) ?? typed.mention.type;
    // 'Monitors' are several screens, and one pair of speakers.
    const isOne = typed.mention.several && type !== null && !isPlural(typed.text, type);
    const item = isOne ? { ...typed, mention: { ...typed.mention, count: 1 } } : typed;
    const { mention, from, to } = item;
    if (mention.everyone) return this.#everyone(item);
    const word = mention.text || item.text;
    const base = { word, type, count: mention.count, left: mention.left, from, to };
    const meant = this.#mentioned.find(item, type);
    if (meant) {
      // Notices of an earlier reading are not repeated, except about words that are new.
      if (meant.onDesk || mention.left.length > 0)
        this.boxes.push({
          ...base,
          type: this.#typeOf(meant.ids[0]!),
          deviceIds: meant.ids,
          known: true,
          others: [],
          left: meant.onDesk ? [] : mention.left,
        });
      return meant.ids;
    }
    const one = type && this.#mentioned.claim(item, type, (id) => this.#isListed(id));
    const [called] = type ? this.#namesFor(item, type) : [];
    if (one && called && this.take({ kind: 'set-device', device: { ...findDevice(this.rig, one)!, name: called } })) {
      this.#mentioned.add(item, type, [one]);
      return [one];
    }
    const likely = mention.doubt === 'none' ? [] : [mention.type, ...mention.others];
    const others = (
      type ? likely.filter((t) => t && t !== type) : typesBeside(findTypes(this.rig), beside)
    ) as DeviceType[];
    const ids: string[] = [];
    const isYou = type !== null && isPerson(type) && isMe(item);
    if (type)
      for (const name of this.#namesFor(item, type)) {
        if (this.rig.devices.length >= MAX_BOXES + this.boxes.length) break;
        const { edit, device } = addDevice(
          this.rig,
          type,
          name ?? nameFor(this.rig, type),
          ...(isYou ? [YOU.voice] : []),
        );
        if (this.take(edit)) ids.push(device.id);
      }
    if (isYou) this.you = ids[0] ?? null;
    if (mention.far) this.#friends.push(...ids);
    this.boxes.push({ ...base, deviceIds: ids, known: false, others });
    if (type) this.#mentioned.add(item, type, ids);
    return ids;
  }

  #everyone({ mention: { text, type }, from, to }: Item): readonly string[] {
    const here = this.rig.devices.filter((d) => isPerson(this.#typeOf(d.id)!) && !this.#isFar(d.id)).map((d) => d.id);
    const read = { word: text, type, count: here.length, deviceIds: here, known: true, others: [], left: [] };
    this.boxes.push({ ...read, from, to });
    return here;
  }

  /** Named by its number alone, and nothing said of it since. */
  #isListed(id: string): boolean {
    return !this.rig.cables.some((c) => c.from.deviceId === id || c.to.deviceId === id);
  }

  /** Without a name, the one call is with the person who is most likely elsewhere. */
  #callFriends(): void {
    const calls = this.rig.devices.filter((d) => isCall(this.#typeOf(d.id)!));
    const [call] = calls;
    const isPeopled = this.uses.some((u) => u.programId === call?.id && isPerson(this.#typeOf(u.deviceId)!));
    if (!call || calls.length > 1 || isPeopled) return;
    for (const id of this.#friends)
      if (this.#isListed(id) && !this.#isFar(id)) this.uses.push({ programId: call.id, deviceId: id });
  }

  /** On a call with someone: named with its program. */
  #isFar(personId: string): boolean {
    return this.uses.some((u) => u.deviceId === personId);
  }

  #typesOf(hop: Chain[number] | undefined): DeviceType[] {
    return (hop?.items ?? []).flatMap((item) => this.#chosen.get(item) ?? item.mention.type ?? []);
  }

  #namesFor(item: Item, type: DeviceType): readonly (string | null)[] {
    if (this.#names === 'type' && !item.name) return Array.from({ length: item.mention.count }, () => null);
    return namesOf(item, type, new Set(this.rig.devices.map((d) => d.name)));
  }

  #joinAll(before: Named, here: Named, joint: Joint, each = false): void {
    const joined = new Set<string>();
    const failed: [string, string][] = [];
    // No one talks into four microphones: the others have someone of their own.
    const isOne = before.ids.length === 1 && this.#arePeople(before.ids) && here.ids.length > 1;
    for (const [a, b] of jointsOf(before.ids, isOne ? here.ids.slice(0, 1) : here.ids, each)) {
      if (a === b || this.#isJoined(a, b, before.items, here.items)) {
        joined.add(a).add(b);
        continue;
      }
      if (this.#join(a, b, joint, socketOf(before.items), socketOf(here.items))) joined.add(a).add(b);
      else failed.push([a, b]);
    }
    const isHead =
      before.items.length > 1 && before.ids.some((id) => joined.has(id)) && here.ids.every((id) => joined.has(id));
    // Items of a list that found a place are right; only those that found none are reported.
    for (const [from, to] of failed)
      if (![from, to].some((id) => isPerson(this.#typeOf(id)!)) && (!joined.has(from) || !joined.has(to)))
        this.leads.push({ from, to, offer: null, ...(isHead && { maybe: true as const }) });
  }

  /** Said before: the cable is there, and no other socket is named. */
  #isJoined(a: string, b: string, before: readonly Item[], here: readonly Item[]): boolean {
    const isNamed = socketOf(before) !== null || socketOf(here) !== null;
    return !isNamed && this.rig.cables.some((c) => isBetween(c, a, b));
  }

  #arePeople(ids: readonly string[]): boolean {
    return ids.length > 0 && ids.every((id) => isPerson(this.#typeOf(id)!));
  }

  #arePrograms(ids: readonly string[]): boolean {
    return ids.length > 0 && ids.every((id) => isProgram(this.#typeOf(id)!));
  }
  #areHosts(ids: readonly string[]): boolean {
    return ids.length > 0 && ids.every((id) => this.#typeOf(id)!.hosts === true);
  }

  #mayJoin(people: readonly string[], ids: readonly string[]): boolean {
    const fits = fitsAmong(findTypes(this.rig));
    return people.some((p) =>
      ids.some(
        (id) =>
          fits(this.#typeOf(p)!, this.#typeOf(id)!) !== null || fits(this.#typeOf(id)!, this.#typeOf(p)!) !== null,
      ),
    );
  }

  #typeIdOf(item: Item): string {
    return (this.#chosen.get(item) ?? item.mention.type)?.id ?? item.text;
  }

  #join(a: string, b: string, joint: Joint, aSocket: string | null, bSocket: string | null): boolean {
    const [typeA, typeB] = [this.#typeOf(a)!, this.#typeOf(b)!];
    const [programA, programB] = [isProgram(typeA), isProgram(typeB)];
    // No signal goes through a stand or a panel of keys.
    if ([typeA, typeB].some((t) => t.ports.length === 0)) return true;
    // 'My friends on the gaming pc': by what, is found later.
    for (const [person, host] of [
      [a, b],
      [b, a],
    ] as const)
      if (isPerson(this.#typeOf(person)!) && this.#areHosts([host])) {
        this.uses.push({ programId: host, deviceId: person });
        return true;
      }
    if (programA !== programB) {
      const [programId, deviceId] = programA ? [a, b] : [b, a];
      const runs = this.#use(programId, deviceId);
      if (this.#takes && programB && typeA.hosts) this.#hand(a, b);
      return runs;
    }
    // An app that streams or records captures the apps that run beside it.
    if (programA && programB) {
      const [from, to] = joint === 'from' ? [b, a] : [a, b];
      const type = this.#typeOf(to)!;
      if (endsThat(type, 'stream').length > 0 || records(type)) {
        this.uses.push({ programId: to, deviceId: from });
        return true;
      }
    }
    // A card within the computer has no lead to it.
    for (const [card, host] of [
      [a, b],
      [b, a],
    ] as const)
      if (isWithin(this.#typeOf(card)!) && this.#typeOf(host)!.hosts)
        return this.take({ kind: 'set-device', device: { ...findDevice(this.rig, card)!, on: host } });
    const ways: [string, string, string | null, string | null][] = [
      [a, b, aSocket, bSocket],
      [b, a, bSocket, aSocket],
    ];
    const isPlain = isMeant(typeA, typeB);
    // Programs hand each other sound; a picture goes along where it is taken.
    const suits = (o: Offer): boolean => isPlain(o) && (!(programA && programB) || this.#carriesSound(o));
    const [first, second] = (joint === 'from' ? ways.reverse() : ways).map(([from, to, fromSocket, toSocket]) => ({
      from,
      to,
      fromSocket,
      toSocket,
      offer: bestBetween(this.rig, from, to, { suits, fromSocket, toSocket }),
    })) as [Way, Way];
    const isCheaper = joint === 'either' && second.offer && first.offer && second.offer.cost < first.offer.cost;
    // 'TV > capture card loop': the socket says which way it goes.
    const isSaid = second.offer && first.offer && this.#isAsSaid(second) && !this.#isAsSaid(first);
    const way = first.offer && !isCheaper && !isSaid ? first : second;
    if (!way.offer) return false;
    const { from, to, offer, fromSocket, toSocket } = way;
    this.leads.push({ from, to, offer });
    this.take({ kind: 'batch', edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
    this.#plugBack(from, to);
    for (const [deviceId, said, { portId }] of [
      [from, fromSocket, offer.cables[0]!.from],
      [to, toSocket, offer.cables[0]!.to],
    ] as const)
      if (said && !this.#isCalled(deviceId, said, portId)) this.noSocket.push({ deviceId, socket: said });
    return true;
  }

  /** Whether a way goes by the sockets that were named. */
  #isAsSaid({ from, to, fromSocket, toSocket, offer }: Way): boolean {
    const [cable] = offer!.cables;
    return this.#isCalled(from, fromSocket, cable!.from.portId) && this.#isCalled(to, toSocket, cable!.to.portId);
  }

  #isCalled(deviceId: string, said: string | null, portId: string): boolean {
    if (!said) return true;
    const socket = socketsOf(this.rig, deviceId).find((s) => s.ports.some((p) => p.id === portId));
    return socket !== undefined && likeness(socket, said) > 0;
  }

  /** What a computer brings, handed to a program. */
  #hand(from: string, to: string): void {
    const offer = bestBetween(this.rig, from, to);
    if (!offer) return;
    this.leads.push({ from, to, offer });
    this.take({ kind: 'batch', edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
  }

  /** Earphones with a microphone on plugs of their own: each has its socket. */
  #plugBack(from: string, to: string): void {
    const worn = [from, to].some((id) => isWorn(this.#typeOf(id)!) && hearsAir(this.#typeOf(id)!));
    if (!worn || this.rig.cables.some((c) => c.from.deviceId === to && c.to.deviceId === from)) return;
    const back = bestBetween(this.rig, to, from, { suits: isMeant(this.#typeOf(to)!, this.#typeOf(from)!) });
    if (back) this.take({ kind: 'batch', edits: back.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
  }

  #carriesSound({ cables: [first] }: Offer): boolean {
    const port = this.#typeOf(first!.from.deviceId)!.ports.find((p) => p.id === first!.from.portId);
    return port!.channels.some((c) => c.carries === 'sound');
  }

  /** A program with what was named beside it: it runs there, or takes it by its computer. */
  #use(programId: string, deviceId: string): boolean {
    const type = this.#typeOf(deviceId)!;
    const program = findDevice(this.rig, programId)!;
    if (type.hosts) return this.take({ kind: 'set-device', device: { ...program, on: deviceId } });
    if (!this.uses.some((u) => u.programId === programId && u.deviceId === deviceId))
      this.uses.push({ programId, deviceId });
    if (isPerson(type)) return true;
    // 'Headset for the chat on the pc': its computer may be named yet.
    if (!program.on) {
      this.#later.push({ programId, deviceId });
      return true;
    }
    return this.#plugBeside(program, deviceId);
  }

  #plugBeside(program: Device, deviceId: string): boolean {
    const programId = program.id;
    const host = this.#hostFor(program);
    if (this.#typeOf(programId) && this.rig.cables.some((c) => isBetween(c, deviceId, host))) return true;
    // What is named with a program hangs on its computer, unless another device takes it there.
    if (this.#leadsTo(deviceId, host) || this.#leadsTo(host, deviceId)) return true;
    return this.#join(deviceId, host, 'either', null, null);
  }

  #leadsTo(from: string, to: string): boolean {
    const leads = this.rig.cables.filter((c) => c.medium === 'lead');
    return leadsTo(from, to, (id) => leads.filter((c) => c.from.deviceId === id).map((c) => c.to.deviceId));
  }

  /** The computer that a program runs on; put there where there is none. */
  #hostFor(program: Device): string {
    const types = findTypes(this.rig);
    const hosts = this.rig.devices.filter((d) => types.get(d.typeId)!.hosts);
    const host = program.on ?? (hosts.find((d) => types.get(d.typeId)!.power?.feeds) ?? hosts[0])?.id;
    if (host) {
      if (!program.on) this.take({ kind: 'set-device', device: { ...program, on: host } });
      return host;
    }
    const { edit, device } = addDevice(this.rig, types.get(COMPUTER)!, 'Computer');
    this.take(edit);
    this.added.push(device.id);
    this.take({ kind: 'set-device', device: { ...program, on: device.id } });
    return device.id;
  }

  #typeOf(deviceId: string): DeviceType | null {
    return findTypes(this.rig).get(findDevice(this.rig, deviceId)!.typeId) ?? null;
  }
}

interface Named {
  readonly ids: readonly string[];
  readonly items: readonly Item[];
}

interface Way {
  readonly from: string;
  readonly to: string;
  readonly fromSocket: string | null;
  readonly toSocket: string | null;
  readonly offer: Offer | null;
}

const socketOf = (items: readonly Item[]): string | null => (items.length === 1 ? items[0]!.socket : null);
/** The socket by which something was reached is none by which it leads on. */
const withoutInput = (item: Item): Item =>
  item.socket && !/\b(?:outs?|outputs?|sends?|loop|thru|main|phones|headphones?)\b/i.test(item.socket)
    ? { ...item, socket: null }
    : item;
const isBetween = ({ from, to }: Rig['cables'][number], a: string, b: string): boolean =>
  (from.deviceId === a && to.deviceId === b) || (from.deviceId === b && to.deviceId === a);
