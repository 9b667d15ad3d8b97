import { applyEdit, type Edit, findPort, findTypes, type Rig } from '#core/model/rig/index.ts';
import { addDevice } from './add.ts';
import { bestBetween } from './between.ts';
import type { Offer } from './offers.ts';

/** A sound or picture device as a browser names it. */
export interface NamedEnd {
  readonly kind: 'audioinput' | 'audiooutput' | 'videoinput';
  readonly label: string;
  /** Ends of one device share it. */
  readonly groupId: string;
  readonly deviceId: string;
}

/** A device that a browser has named, and the type that it most likely is. */
export interface NamedBox {
  readonly name: string;
  readonly kinds: readonly NamedEnd['kind'][];
  readonly typeId: string;
}

/** The same device under another hat: what the system has chosen. */
const ROLES = new Set(['default', 'communications']);
const WITHIN = /built.?in|internal|integrated/i;
/** USB numbers that browsers put behind a name. */
const NUMBERS = /\s*\([0-9a-f]{4}:[0-9a-f]{4}\)\s*$/i;

type Has = Readonly<Record<'in' | 'out' | 'picture', boolean>>;
/** The first that fits: what the words say, then what it has. */
const GUESSES: readonly [(label: string, has: Has) => boolean, string][] = [
  [(l, { picture }) => picture && /captur|grab|hdmi/i.test(l), 'capture-usb-compressed'],
  [(_, { picture }) => picture, 'webcam'],
  [(l, { in: i }) => i && /captur|grab|hdmi/i.test(l), 'capture-usb-compressed'],
  [(l) => /bluetooth|hands.?free/i.test(l), 'headset-bluetooth'],
  [(l) => /head.?set/i.test(l), 'headset-usb'],
  [(l) => /mix(er|ing)|console/i.test(l), 'mixer-usb-send'],
  [(l, { out }) => out && /hdmi|display|screen|monitor/i.test(l), 'screen-loudspeakers'],
  [(l, { in: i, out }) => i && out && /mic/i.test(l), 'microphone-usb'],
  [(_, { in: i, out }) => i && out, 'interface-2'],
  [(_, { in: i }) => i, 'microphone-usb'],
  [() => true, 'usb-to-line'],
];

/** Devices behind what a browser names; what is built into the computer is part of it already. */
export function boxesNamed(ends: readonly NamedEnd[]): NamedBox[] {
  const groups = new Map<string, NamedEnd[]>();
  for (const end of ends) {
    const { deviceId: given, label, groupId } = end;
    if (ROLES.has(given) || label === '' || WITHIN.test(label)) continue;
    const key = groupId || label;
    groups.set(key, [...(groups.get(key) ?? []), end]);
  }
  return [...groups.values()].map((group) => {
    const labels = group.map((e) => e.label.replace(NUMBERS, ''));
    const kinds = [...new Set(group.map((e) => e.kind))];
    const has = {
      in: kinds.includes('audioinput'),
      out: kinds.includes('audiooutput'),
      picture: kinds.includes('videoinput'),
    };
    const all = labels.join(' ');
    return {
      name: labels.reduce((a, b) => (b.length < a.length ? b : a)).slice(0, 120),
      kinds,
      typeId: GUESSES.find(([fits]) => fits(all, has))![1],
    };
  });
}

/** The devices put on the desk under their names and plugged to the computer, or the first of several; with a laptop, where there is none yet. */
export function addNamed(rig: Rig, boxes: readonly Pick<NamedBox, 'name' | 'typeId'>[], computerId?: string): Edit {
  const types = findTypes(rig);
  const edits: Edit[] = [];
  let now = rig;
  const take = (edit: Edit): void => {
    const done = applyEdit(now, edit);
    if (!done.ok) return;
    now = done.rig;
    edits.push(edit);
  };
  const isComputer = (typeId: string) => types.get(typeId)?.hosts === true;
  let computer = computerId ?? rig.devices.find((d) => isComputer(d.typeId))?.id;
  if (!computer) {
    const { edit, device } = addDevice(now, types.get('computer-laptop')!);
    take(edit);
    computer = device.id;
  }
  for (const { name, typeId } of boxes) {
    const type = types.get(typeId);
    if (!type) continue;
    const { edit, device } = addDevice(now, type, name);
    take(edit);
    // What a computer names hangs on it; that it could hear or film the device as well is not meant.
    const isPlugged = ({ cables }: Offer) => ['lead', 'radio'].includes(cables[0]!.medium);
    // By its jacks it would be one more thing on the computer's own sound device, without a name.
    const talks = (offer: Offer) =>
      isPlugged(offer) && offer.cables.every((c) => findPort(now, findTypes(now), c.from)!.level === 'digital');
    const between = (suits: (offer: Offer) => boolean) =>
      bestBetween(now, device.id, computer, { suits }) ?? bestBetween(now, computer, device.id, { suits });
    const offer = between(talks) ?? between(isPlugged);
    if (offer) take({ kind: 'batch', edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable })) });
  }
  return { kind: 'batch', edits };
}
