import { connectorOf, type PlugId } from './connectors.ts';

/** One end of a cable: the connector, and the signals of its port. */
export interface End {
  readonly connector: string;
  /** The level class of its port. */
  readonly level: string;
  /** How many channels of sound it has. */
  readonly sides: number;
  readonly direction: 'in' | 'out';
  /** Two wires and a screen a channel; where absent, as the connector usually is. */
  readonly balanced?: boolean | undefined;
  /** Bit layout, where it isn't the usual one for the plug. */
  readonly format?: string | undefined;
}

export const isTwoSided = ({ sides }: End): boolean => sides > 1;

/** The end that a port of a device is, by whatever else is known of it. */
export const endOf = (port: {
  readonly connector: string;
  readonly level: string;
  readonly direction: string;
  readonly channels: readonly { readonly carries: string }[];
  readonly balanced?: boolean | undefined;
  readonly format?: string | undefined;
}): End => ({
  connector: port.connector,
  level: port.level,
  direction: port.direction === 'in' ? 'in' : 'out',
  sides: port.channels.filter((c) => c.carries === 'sound').length,
  balanced: port.balanced,
  format: port.format,
});

/** Whether two ends speak alike: sound waves to sound waves, bits to bits of the same format. */
export const speakAlike = (a: End, b: End): boolean =>
  (a.level === 'digital') === (b.level === 'digital') && a.format === b.format;

/** What a contact of an end is there for: a wire of a side, ground, or nothing. */
export type Role = { readonly side: number; readonly leg: 'hot' | 'cold' } | 'ground' | 'open';

const TS = ['tip', 'sleeve'];
const TRS = ['tip', 'ring', 'sleeve'];
const TRRS = ['tip', 'ring', 'ring2', 'sleeve'];
const XLR = ['1', '2', '3'];
const PHONO = ['pin', 'shell'];
const pair = (of: readonly string[], names: readonly [string, string] = ['left', 'right']): string[] =>
  names.flatMap((name) => of.map((c) => `${name}.${c}`));
const HEADSET_PAIR = ['sound', 'microphone'] as const;

/** The contacts of a plug, from its tip; empty for what carries bits or speaker power, which is taken whole. */
const CONTACTS: Partial<Record<PlugId, readonly string[]>> = {
  'ts-35': TS,
  'trs-35': TRS,
  'trrs-35': TRRS,
  'trs-35-pair': pair(TRS, [...HEADSET_PAIR]),
  'trs-25': TRS,
  'ts-635': TS,
  'trs-635': TRS,
  'ts-635-pair': pair(TS),
  'trs-635-pair': pair(TRS),
  'insert-635': TRS,
  'xlr-f': XLR,
  'xlr-m': XLR,
  'xlr-f-pair': pair(XLR),
  'xlr-m-pair': pair(XLR),
  phono: PHONO,
  'phono-pair': pair(PHONO),
};
export const contactsOf = (plug: PlugId): readonly string[] => CONTACTS[plug] ?? [];

/** What a socket is built like: the plug that it was made for. */
const madeFor = (connector: string): PlugId | null => connectorOf(connector)?.plugs[0] ?? null;

/**
 * Which contacts touch when a plug stands in a socket, as [plug, socket]. A jack's contacts lie one behind the other:
 * a plug with fewer of them covers several of the socket's with its sleeve; one with four, in a socket for three, meets
 * the socket's sleeve with its second ring.
 */
export function mated(plug: PlugId, connector: string): readonly (readonly [string, string])[] {
  const own = madeFor(connector);
  if (own === null) return [];
  const [p, s] = [contactsOf(plug), contactsOf(own)];
  if (p.length === 0 || s.length === 0) return [];
  if (own.startsWith('xlr') && !plug.startsWith('xlr')) return inCombined(p);
  // One plug in the left of two sockets.
  if (isPair(s) && !isPair(p))
    return inJack(
      p,
      s.filter((c) => c.startsWith('left.')),
    );
  if (p.length === s.length) return p.map((c, i) => [c, s[i]!]);
  const sides = isPair(p) ? [...new Set(p.map((c) => c.split('.')[0]!))] : [''];
  return sides.flatMap((side) => {
    const of = (all: readonly string[]) => (side ? all.filter((c) => c.startsWith(`${side}.`)) : all);
    return inJack(of(p), of(s));
  });
}

/** A jack in an XLR socket that takes both: tip is pin 2, ring pin 3, sleeve pin 1. */
function inCombined(plug: readonly string[]): [string, string][] {
  const last = plug.at(-1)!;
  return [
    [plug[0]!, '2'],
    [plug.length > 2 ? plug[1]! : last, '3'],
    [last, '1'],
  ];
}

const isPair = (contacts: readonly string[]): boolean => contacts[0]!.includes('.');

function inJack(plug: readonly string[], socket: readonly string[]): [string, string][] {
  const [last, ground] = [plug.length - 1, socket.length - 1];
  if (plug.length === socket.length) return socket.map((contact, i): [string, string] => [plug[i]!, contact]);
  if (plug.length < socket.length)
    return socket.map((contact, i): [string, string] => [plug[Math.min(i, last)]!, contact]);
  return socket.map((contact, i): [string, string] => [i === ground ? plug[Math.min(2, last)]! : plug[i]!, contact]);
}

const hot = (side: number): Role => ({ side, leg: 'hot' });
const cold = (side: number): Role => ({ side, leg: 'cold' });

/** Contacts of one side by themselves: a phono, a mono jack, a jack or XLR with two wires. */
function oneSide(contacts: readonly string[], side: number, balanced: boolean): Role[] {
  if (contacts.length === 2) return [hot(side), 'ground'];
  const second: Role = balanced ? cold(side) : 'ground';
  // Pin 1 of an XLR is its ground; on a jack it is the sleeve.
  return contacts[0]!.endsWith('1') ? ['ground', hot(side), second] : [hot(side), second, 'ground'];
}

/**
 * What each contact of an end is there for, in the order of its contacts; empty for what carries bits or power. A
 * four-contact jack is wired as CTIA has it: tip left, ring 1 right, ring 2 ground, sleeve microphone.
 */
export function rolesOfContacts({ connector, level, sides, balanced, direction }: End): readonly Role[] {
  const plug = madeFor(connector);
  if (plug === null) return [];
  const contacts = contactsOf(plug);
  const isMicrophone = level === 'microphone';
  if (plug === 'trrs-35')
    return isMicrophone ? ['open', 'open', 'ground', hot(0)] : [hot(0), hot(sides > 1 ? 1 : 0), 'ground', 'open'];
  if (plug === 'trs-35-pair') {
    const own: Role[] = isMicrophone ? [hot(0), hot(0), 'ground'] : [hot(0), hot(sides > 1 ? 1 : 0), 'ground'];
    const other: Role[] = ['open', 'open', 'ground'];
    return isMicrophone ? [...other, ...own] : [...own, ...other];
  }
  if (plug === 'insert-635') return [hot(0), 'open', 'ground'];
  if (contacts.length === 6 || contacts.length === 4) {
    const each = contacts.length / 2;
    // Three contacts a side are two wires and a screen, unless someone says otherwise.
    return [0, 1].flatMap((side) =>
      oneSide(contacts.slice(side * each, (side + 1) * each), side < sides ? side : 0, balanced ?? true),
    );
  }
  if (contacts.length === 3 && sides > 1) {
    return contacts[0] === '1' ? ['ground', hot(0), hot(1)] : [hot(0), hot(1), 'ground'];
  }
  if (contacts.length === 3) {
    // Small jacks are never balanced, and headphones hang on one wire a side: both contacts carry the one channel.
    const small = plug.endsWith('-35') || plug.endsWith('-25');
    // The ring of a small microphone socket brings power, and takes no sound.
    if (small && isMicrophone && direction === 'in' && !balanced) return [hot(0), 'open', 'ground'];
    if ((small && balanced !== true) || level === 'headphone') return [hot(0), hot(0), 'ground'];
    return oneSide(contacts, 0, balanced ?? true);
  }
  return contacts.length === 2 ? [hot(0), 'ground'] : [];
}
