import { group } from 'd3-array';
import { memoized } from '#core/base/memo/index.ts';
import { tokensOf } from './tokens.ts';
import type { Vocabulary } from './vocabulary.ts';

/** Relation of an item to the one named before: leads there, comes from there, or goes with it, either direction. */
export type Joint = 'to' | 'from' | 'either';

/** Words that say that something is plugged, and nothing of the way. */
const VERBS = new Set(
  'go goes going gone run runs running ran plug plugs plugged plugging connect connects connected connecting hook hooks hooked wire wires wired wiring route routes routed routing send sends sent sending come comes coming came straight directly patch patched link linked linking pass passes passed passing carry carries carried out back up is are all both each'.split(
    ' ',
  ),
);
/** Words that give a direction, by themselves or after a verb. */
const WAYS: ReadonlyMap<string, Joint> = new Map(
  (
    [
      ['to', 'into to onto through thru via then feeds feeding feed'],
      ['from', 'from by off takes taking gets getting receives hears hear hearing'],
      [
        'either',
        'with w using uses on in inside at around round has joins joining join wears wearing for listens listening talks talking speaks speaking sings plays playing runs running monitoring',
      ],
    ] as const
  ).flatMap(([joint, words]) => words.split(' ').map((word): [string, Joint] => [word, joint])),
);
/** Of a run of such words the way that is the clearest: 'talks into', 'out of', 'listening on'. */
const CLEARER: readonly Joint[] = ['either', 'to', 'from'];

/** Where a device is plugged, as people say it: 'line in', 'mini hdmi', 'out 7/8', 'headphone out', 'usb c'. */
const SOCKET_KINDS =
  'line|aux|mic|microphone|hdmi|mini hdmi|micro hdmi|usb|usb c|usb a|headphone|headphones|phones|optical|coax|digital|main|mains|monitor|control room|xlr|rca|jack|audio|headset|instrument|hi z|speaker|stereo|tape|bus|group|insert|fx|effects|loop|pass through|passthrough|thru|arc|earc|record|rec|aes|spdif|bluetooth';
const SOCKET_WAYS = 'ins?|outs?|inputs?|outputs?|jacks?|sockets?|ports?|sends?|returns?|channels?|ch|bus|inserts?';
const SOCKET = new RegExp(
  `^(?:(?:(?:${SOCKET_KINDS}) )+(?:${SOCKET_WAYS})(?: \\d{1,2}(?:(?: ?[/+&-] ?| )\\d{1,2})?)?|(?:${SOCKET_WAYS}) \\d{1,2}(?:(?: ?[/+&-] ?| )\\d{1,2})?)(?= |$)`,
);

/** Where a device is plugged, said behind it without more: 'mixer out', 'capture card loop'. */
export const isBareSocket = ([word = '', ...more]: readonly string[]): boolean =>
  /^(?:loop|thru|passthrough|loopthrough|arc|earc)$/i.test(word)
    ? more.length === 0 || jointAt(more) !== null
    : /^(?:ins?|outs?|inputs?|outputs?)$/i.test(word) && more.length === 0;

/** What a wire is plugged by, said behind a device without more: 'mixer usb', 'soundbar optical'. */
export const isBareConnector = (word: string): boolean =>
  /^(?:usb|hdmi|optical|toslink|aux|xlr|spdif|aes|coax|bluetooth|audio|controller)$/i.test(word);

/** How many words from here on name a socket; 0 where they name none. */
export function socketWords(words: readonly string[]): number {
  const text = words.slice(0, 6).join(' ').toLowerCase();
  const hit = SOCKET.exec(text)?.[0];
  if (!hit) return 0;
  // 'A headset in the laptop' names no socket: 'in' leads on.
  const next = words[hit.split(' ').length]?.toLowerCase() ?? '';
  return /\bins?$/.test(hit) && ARTICLES.has(next) ? 0 : hit.split(' ').length;
}

const ARTICLES = new Set(['the', 'my', 'a', 'an', 'our', 'your', 'his', 'her', 'their']);

export interface JointFound {
  readonly joint: Joint;
  /** Maximum number of words in a phrase. */
  readonly length: number;
}

/** The words for a way that begin here: 'goes straight into', 'plugged in to', 'fed by', 'with'; null where none do. */
export function jointAt(words: readonly string[]): JointFound | null {
  let joint: Joint | null = null;
  let length = 0;
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!.toLowerCase();
    const way = WAYS.get(word) ?? null;
    const isOutOf = word === 'of' && words[i - 1]?.toLowerCase() === 'out';
    const isFed = word === 'fed';
    if (!way && !isOutOf && !isFed && !VERBS.has(word)) break;
    if (isOutOf) joint = 'from';
    else if (way && (joint === null || CLEARER.indexOf(way) >= CLEARER.indexOf(joint))) joint = way;
    if (way || isOutOf) length = i + 1;
  }
  return joint && length > 0 ? { joint, length } : null;
}

/** Whether a word says how devices are connected, and is no part of a name by itself. */
export const isJoining = (word: string): boolean => VERBS.has(word) || WAYS.has(word) || word === 'fed';

/** Names of several words with one among them that joins elsewhere: 'hdmi to usb', 'splitter with power', 'on camera mic'. */
const joiningNames = memoized(({ types }: Vocabulary): ReadonlyMap<string, readonly (readonly string[])[]> => {
  const names = types
    .flatMap((c) => c.phrases)
    .filter((phrase) => {
      const hasSocket = phrase.some((_, i) => i > 0 && socketWords(phrase.slice(i)) > 0);
      return phrase.length >= 2 && (phrase.some(isJoining) || (phrase.length > 2 && hasSocket));
    });
  return group(names, (phrase) => phrase[0]!);
});

/** How many words from here on are a name with a joining word in it; 0 where they are none. */
export function joiningName(words: readonly string[], vocabulary: Vocabulary): number {
  const tokens = words.slice(0, 8).map((w) => tokensOf(w));
  const names = joiningNames(vocabulary).get(tokens[0]?.[0] ?? '') ?? [];
  let longest = 0;
  for (const name of names) {
    let at = 0;
    let used = 0;
    while (used < tokens.length && at < name.length) {
      const isNext = tokens[used]!.every((t, i) => name[at + i] === t);
      // 'Headset with a dongle'
      if (!isNext && !(at > 0 && ARTICLES.has(words[used]!.toLowerCase()))) break;
      if (isNext) at += tokens[used]!.length;
      used++;
    }
    if (at === name.length && used > longest) longest = used;
  }
  return longest;
}
