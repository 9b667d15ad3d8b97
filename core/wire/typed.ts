import { connectorOf } from '#core/plug/index.ts';
import {
  applyEdit,
  type Device,
  type DeviceType,
  type Edit,
  endsBehind,
  findTypes,
  type Rig,
} from '#core/rig/index.ts';
import { readMention } from '#core/typed/index.ts';
import { addDevice } from './add.ts';
import { startingLevels } from './levels.ts';
import { type Offer, offersFor } from './offers.ts';
import { socketsOf } from './sockets.ts';

/** What a word of a typed line was taken for. */
export interface TypedBox {
  readonly word: string;
  /** Null where no type has these words. */
  readonly type: DeviceType | null;
  /** Already on the desk, or named before in the line. */
  readonly known: boolean;
  /** What else it may be, where that is in doubt; and words that nothing was made of. */
  readonly others: readonly DeviceType[];
  readonly left: readonly string[];
}
export interface TypedLead {
  readonly from: string;
  readonly to: string;
  /** Null where nothing fits between the two. */
  readonly offer: Offer | null;
}
export interface Typed {
  readonly boxes: readonly TypedBox[];
  readonly leads: readonly TypedLead[];
  /** Null where a word is not understood, or nothing was typed. */
  readonly edit: Edit | null;
}

const MOST_BOXES = 60;
/** From one box to the next: arrows, and words for them. */
const STEP = /->|=>|[>→]|\b(?:into|goes to|going to|plugged into|connected to|through|via)\b/i;
/** Joints from each to each; one to one where as many follow as there were. */
const jointsOf = (from: readonly string[], to: readonly string[]): [string, string][] =>
  from.length === to.length
    ? from.map((f, i): [string, string] => [f, to[i]!])
    : from.flatMap((f) => to.map((t): [string, string] => [f, t]));

/**
 * Reads a line of boxes from source to end: 'console > splitter > capture > computer; usb mic > computer'. The same
 * words mean the same box, and a box of that name on the desk is meant where there is one; '2 mic' are two. Leads come
 * as assumed.
 */
export function readTyped(rig: Rig, text: string, { levels = true } = {}): Typed {
  const types = findTypes(rig);
  const named = new Map<string, readonly string[]>();
  const boxes: TypedBox[] = [];
  const leads: TypedLead[] = [];
  const edits: Edit[] = [];
  let now = rig;
  const take = (edit: Edit): boolean => {
    const done = applyEdit(now, edit);
    if (done.ok) {
      now = done.rig;
      edits.push(edit);
    }
    return done.ok;
  };
  const devicesFor = (text: string): readonly string[] => {
    const { text: word, type, count, others, left, doubt } = readMention(text, types);
    const key = `${count} ${word.toLowerCase().replace(/\s+/g, ' ')}`;
    const before = named.get(key);
    if (before) return before;
    const onDesk = count === 1 && byName(now, word.toLowerCase())?.id;
    if (onDesk) {
      boxes.push({ word, type: typeOf(now, onDesk), known: true, others: [], left: [] });
      named.set(key, [onDesk]);
      return [onDesk];
    }
    const added: string[] = [];
    for (let n = 1; n <= count; n++) {
      boxes.push({
        word: count > 1 ? `${word} ${n}` : word,
        type,
        known: false,
        others: doubt === 'none' ? [] : others,
        left,
      });
      if (!type || boxes.length > MOST_BOXES) break;
      const { edit, device } = addDevice(now, type);
      if (take(edit)) added.push(device.id);
    }
    named.set(key, added);
    return added;
  };
  for (const way of text.split(/[;\n]/)) {
    let before: readonly string[] = [];
    for (const word of way
      .split(STEP)
      .map((w) => w.trim())
      .filter(Boolean)) {
      const here = devicesFor(word);
      for (const [from, to] of jointsOf(before, here)) {
        if (from === to) continue;
        const offer = bestBetween(now, from, to);
        leads.push({ from, to, offer });
        if (offer) take({ kind: 'batch', edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
      }
      before = here;
    }
  }
  const drawn = new Set(rig.devices.map((d) => d.id));
  const added = now.devices.filter((d) => !drawn.has(d.id)).map((d) => d.id);
  if (levels) edits.push(...startingLevels(now, new Set(added)));
  const understood = boxes.length > 0 && boxes.every((b) => b.type !== null);
  return { boxes, leads, edit: understood ? { kind: 'batch', edits } : null };
}

const typeOf = (rig: Rig, deviceId: string): DeviceType | null =>
  findTypes(rig).get(rig.devices.find((d) => d.id === deviceId)!.typeId) ?? null;

const byName = (rig: Rig, key: string): Device | undefined => rig.devices.find((d) => d.name.toLowerCase() === key);

/** The cheapest way from one box to another by any of its outputs that is free and has something to give. */
export function bestBetween(
  rig: Rig,
  from: string,
  to: string,
  suits: (offer: Offer) => boolean = () => true,
): Offer | null {
  const offers = socketsOf(rig, from)
    .filter((s) => s.ports.some((p) => p.direction === 'out'))
    .flatMap((socket) =>
      offersFor(rig, socket)
        .filter((o) => o.socket.deviceId === to && o.cables[0]!.from.deviceId === from && suits(o))
        .map((offer) => ({
          offer,
          cost:
            offer.cost +
            (socket.cableIds.length > 0 ? TAKEN : 0) +
            (givesSomething(rig, socket.deviceId, socket.id) ? 0 : IDLE),
        })),
    )
    .sort((a, b) => a.cost - b.cost);
  return offers[0]?.offer ?? null;
}
const TAKEN = 30;
const IDLE = 20;

/**
 * Whether an output has something to give: a software end of a computer where a lead stands in the socket behind it;
 * any other where a way leads to it that is open as the box comes.
 */
function givesSomething(rig: Rig, deviceId: string, socketId: string): boolean {
  const type = typeOf(rig, deviceId)!;
  const outs = type.ports.filter((p) => (p.socket ?? p.id) === socketId && p.direction === 'out');
  const plugged = outs.flatMap((p) => (type.hosts && p.connector === 'software' ? endsBehind(type, p.id) : []));
  if (plugged.some((p) => connectorOf(p.connector)))
    return rig.cables.some((c) => c.to.deviceId === deviceId && plugged.some((p) => p.id === c.to.portId));
  return outs.some((p) => openPorts(type).has(p.id));
}

const opened = new WeakMap<DeviceType, ReadonlySet<string>>();

/** Ports that something comes to without anybody turning a knob: where signals begin, and all that open ways lead to. */
function openPorts(type: DeviceType): ReadonlySet<string> {
  const known = opened.get(type);
  if (known) return known;
  const settings = new Map(type.settings.map((s) => [s.id, s]));
  const isOpen = (stage: DeviceType['inside'][number]['stages'][number]): boolean => {
    if (!('setting' in stage)) return true;
    const spec = settings.get(stage.setting)!;
    if (stage.do === 'door') return spec.default === stage.openWhen;
    return !(spec.kind === 'gain' && spec.offAtMin && spec.default === spec.min);
  };
  const ways = type.inside
    .filter((w) => w.stages.every(isOpen))
    .map((w) => [w.from, w.to].map((p) => p.split('.')[0]!) as [string, string]);
  const led = new Set(type.inside.map((w) => w.to.split('.')[0]!));
  const reached = new Set(type.ports.filter((p) => p.direction === 'in' || !led.has(p.id)).map((p) => p.id));
  for (let grew = true; grew; ) {
    const before = reached.size;
    for (const [from, to] of ways) if (reached.has(from)) reached.add(to);
    grew = reached.size > before;
  }
  opened.set(type, reached);
  return reached;
}
