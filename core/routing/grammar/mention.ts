import { type DeviceType, isPerson, type Types } from '#core/model/rig/index.ts';
import { COUNTED, facetOf, inputsOf } from './facets.ts';
import { numberOf, singular, tokensOf } from './tokens.ts';
import { type Called, FILLERS, GENERIC, meantBy, type Vocabulary, vocabularyOf } from './vocabulary.ts';

/** What a few words were taken for. */
export interface Mention {
  /** As typed, without the number before it. */
  readonly text: string;
  readonly count: number;
  /** What it is most likely; null where no word says what it is. */
  readonly type: DeviceType | null;
  /** What else it may be, the likeliest first. */
  readonly others: readonly DeviceType[];
  /** Several were said, and not how many. */
  readonly several: boolean;
  /** The last word says what it is, as in 'kick mic'; not so in 'laptop headphones', taken for a laptop. */
  readonly endsSo: boolean;
  /** Someone who is elsewhere, most likely: a friend, a caller, pupils. */
  readonly far: boolean;
  /** Everyone on the desk: 'everyone', 'each other'. */
  readonly everyone: boolean;
  /** Words of it that nothing was made of. */
  readonly left: readonly string[];
  /** Every type that the words allow as well as this one, and by how much each is less likely: what it is plugged to decides. */
  readonly near: readonly { readonly type: DeviceType; readonly less: number }[];
  /** Whether someone should look: more than one type is as likely, or words are left. */
  readonly doubt: 'none' | 'which' | 'words' | 'unknown';
}

const SCORE = {
  /** A word of a whole name; of the name here; of what fits; that is so of the type. */
  phrase: 2,
  name: 1.2,
  fits: 1,
  facet: 0.8,
  /** The words of a name stand together. */
  together: 0.3,
  /** Commoner names come first. */
  rank: 0.02,
  /** It says what the type is not; or nothing that is known of it. */
  contradicts: -2.5,
  elsewhere: -1.2,
  unknown: -0.4,
};
/** Nearer than this, two are as likely. */
const AS_LIKELY = 0.5;
/** Farther off, no one means it. */
const THOUGHT_OF = 2;
const MAX_OTHERS = 4;
/** Maximum number of unknown words before a name: 'my sd card recorder'. */
const MAX_LEFT = 2;

/** Words that are left away wherever they stand; others of the kind join: 'splitter with power'. */
const NEVER_NAMED = new Set(
  'a an the my our your his her their some this that these those is are i we you have has got use it also which who there here then so want need like would will do am im just really play'.split(
    ' ',
  ),
);

/** As one would write it on a label: 'I have a small mixer' is 'small mixer'. */
function withoutFillers(text: string, phrase: readonly string[] = []): string {
  const words = text
    .trim()
    .split(/\s+/)
    .filter((w) => !NEVER_NAMED.has(w.toLowerCase()));
  const isFiller = (w: string | undefined) =>
    w !== undefined && FILLERS.has(w.toLowerCase()) && !KEPT.has(w.toLowerCase()) && !phrase.includes(w.toLowerCase());
  while (isFiller(words[0]) && !COUNTED.has(words[1]?.toLowerCase() ?? '')) words.shift();
  while (isFiller(words.at(-1))) words.pop();
  return words.join(' ');
}
/** Words at the beginning of a name that distinguish items. */
const KEPT = new Set(
  'old new small big little large tiny compact main second first other another left right spare'.split(' '),
);

interface Word {
  /** As typed, and as it was meant. */
  readonly word: string;
  readonly as: string;
}
interface Counted {
  readonly count: number;
  /** 'A pair of': two, unless the item comes in pairs. */
  readonly isPair: boolean;
  readonly inputs: number | null;
  readonly words: readonly Word[];
}

/** 'two', '2 x', 'a pair of' before the words; '4 channel', '3 in' within them is no number of devices. */
/** No number of inputs, and no part of a name, as in 'usb 3 capture'. */
const isLabel = (words: readonly Word[], i: number): boolean =>
  !COUNTED.has(words[i - 1]!.as) && !COUNTED.has(words[i + 1]?.as ?? '') && facetless(words[i - 1]!.as);
const facetless = (word: string): boolean => !/^(?:usb|hdmi|version|v|jack)$/.test(word);

function counted(all: readonly Word[], { types }: Vocabulary): Counted {
  /** 'Two plug headset': the number is part of a name. */
  const isNamed = (list: readonly Word[]): boolean =>
    types.some(({ phrases }) => phrases.some((p) => numberOf(p[0]) !== null && p.every((t, i) => list[i]?.as === t)));
  const words = [...all];
  while (words.length > 1 && NEVER_NAMED.has(words[0]!.as) && words[0]!.as !== 'a') words.shift();
  const at = (i: number): string | undefined => words[i]?.as;
  let [count, inputs, isPair] = [1, null as number | null, false];
  const first = isNamed(words) ? null : numberOf(at(0));
  if (first !== null && !(COUNTED.has(at(1) ?? '') && words.length > 2)) {
    count = Math.max(1, first);
    words.shift();
    if (at(0) === 'x' && words.length > 1) words.shift();
  } else if (at(0) === 'both') {
    count = 2;
    words.shift();
  } else if (words.length > 2 && at(words.length - 2) === 'x' && numberOf(at(words.length - 1)) !== null) {
    // 'Turntables x2'
    count = Math.max(1, numberOf(at(words.length - 1))!);
    words.splice(-2);
  } else {
    const skip = at(0) === 'a' ? 1 : 0;
    if (at(skip) === 'couple' || at(skip) === 'pair') {
      [count, isPair] = [2, at(skip) === 'pair'];
      words.splice(0, skip + 1);
    }
  }
  // 'Console 2' and 'PC 2 (streaming)' are the second one: a number after the name.
  const label = words.findIndex((w, i) => i > 0 && /^(?:\d|[b-d])$/.test(w.as) && isLabel(words, i));
  if (label > 0) words.splice(label, 1);
  for (let i = isNamed(words) ? words.length : 0; i + 1 < words.length; i++) {
    const n = numberOf(at(i));
    if (n === null || !COUNTED.has(at(i + 1)!)) continue;
    inputs ??= n;
    words.splice(i, 2);
    i--;
  }
  return { count, inputs, isPair, words };
}

/** A number before the words, as `counted` reads it. */
const NUMBER_BEFORE =
  /^(?:\d{1,2}|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|both|(?:a )?(?:pair|couple) of)\s*[x×]?\s+(?!(?:in|input|inputs|channel|channels|ch|track|tracks|way|port|ports|preamp)\b)/i;

const NUMBER_BEHIND = /\s+[x×]\s*\d{1,2}$/i;

/** 'Mics', where 'headphones' or 'speakers' are called so even if they are one. */
export function isPlural(text: string, { words = [], name }: DeviceType): boolean {
  const last =
    text
      .toLowerCase()
      .split(/[\s-]+/)
      .at(-1) ?? '';
  return (
    singular(last) !== last &&
    ![...words, name].some((w) =>
      w
        .toLowerCase()
        .split(/[\s,()]+/)
        .includes(last),
    )
  );
}

/** The user's own words as remembered: filler words are removed. */
export const ownKey = (text: string): string =>
  tokensOf(text)
    .filter((t) => !FILLERS.has(t))
    .join(' ');

interface Judged {
  readonly type: DeviceType;
  readonly score: number;
  readonly left: readonly string[];
  /** The words are one of its names, and no more. */
  readonly whole: boolean;
  /** Only the kind of thing was said, by the end of one of its names. */
  readonly isKind: boolean;
  /** Words of the name that was found. */
  readonly phrase: readonly string[];
  /** One of its names is among the words, and the last word is of it; how many words say what it is. */
  readonly named: boolean;
  readonly last: boolean;
  readonly heads: number;
}

/** 'My mate's phone' */
const OWNER = /\b[\p{L}]+['’]s\b/gu;

/** The user's own words, tokens joined by spaces, and the type that each means. */
export type OwnWords = ReadonlyMap<string, string>;

/** Words for people whom one meets on calls. */
const FAR = new Set(
  'friend mate buddy teammate caller remote online far student pupil learner attendee participant client customer boss colleague'.split(
    ' ',
  ),
);

/** Everybody, by whatever word. */
const EVERYONE = new Set(['everyone', 'everybody', 'each other', 'one another', 'all of us', 'us all', 'us']);

const NOTHING_READ = {
  others: [],
  left: [],
  near: [],
  several: false,
  endsSo: true,
  far: false,
  everyone: false,
} as const;

/** The types that a few words may mean, the likeliest first. */
export function readMention(typed: string, types: Types, own?: OwnWords): Mention {
  const vocabulary = vocabularyOf(types);
  // An owner distinguishes items, not types.
  const tokens = tokensOf(typed.replace(OWNER, ' ')).map((word) => ({
    word,
    as: meantBy(word, vocabulary) ?? word,
  }));
  const { count: said, isPair, inputs, words: meant } = counted(tokens, vocabulary);
  const judged = vocabulary.types
    .flatMap((called) => judge(called, meant, inputs, vocabulary) ?? [])
    .sort((a, b) => b.score - a.score);
  const [best, ...rest] = judged;
  // 'Record player': what is part of the name is no filler.
  const bare = withoutFillers(typed, best?.phrase);
  const text = withoutFillers(bare.replace(NUMBER_BEFORE, '').replace(NUMBER_BEHIND, ''), best?.phrase) || typed.trim();
  const known = own && types.get(own.get(ownKey(text)) ?? '');
  if (known) return { ...NOTHING_READ, text, count: said, type: known, doubt: 'none' };
  if (EVERYONE.has(typed.trim().toLowerCase())) {
    const person = vocabulary.types.find(({ type }) => isPerson(type))?.type ?? null;
    return { ...NOTHING_READ, text, count: 1, type: person, everyone: true, doubt: 'none' };
  }
  if (!best)
    return { ...NOTHING_READ, text, count: said, type: null, left: meant.map((m) => m.word), doubt: 'unknown' };
  const one = isPair && tokensOf(best.type.name).includes('pair') ? 1 : said;
  const several =
    one === 1 &&
    said === 1 &&
    best.type.nature !== 'program' &&
    text === bare &&
    // 'Friend joins' are not two friends.
    !best.left.includes(tokens.at(-1)?.word ?? '') &&
    !FILLERS.has(tokens.at(-1)?.as ?? '') &&
    !COUNTED.has(tokens.at(-1)?.as ?? '') &&
    isPlural(text, best.type);
  const count = several ? 2 : one;
  // Less of it is known than is not, and what it is called in the end is not: no one should think that it was understood.
  const isLost = best.left.length >= 2 && best.left.length > best.heads && !(best.last && best.left.length <= MAX_LEFT);
  // A word out of the middle of a name says nothing: 'own track' is no multitrack recorder.
  const isPart = !best.named && !meant.some((m) => vocabulary.ends.get(best.type)!.has(m.as));
  // 'DJ software' is no one.
  const isNo = best.score < 0;
  if (isLost || isPart || isNo || (!best.named && best.left.length > 0 && best.left.length >= best.heads))
    return {
      text,
      count: said,
      type: null,
      others: judged.slice(0, MAX_OTHERS).map((j) => j.type),
      left: meant.map((m) => m.word),
      near: [],
      several: false,
      endsSo: false,
      far: false,
      everyone: false,
      doubt: 'unknown',
    };
  const near = rest.filter((j) => j.score > best.score - AS_LIKELY);
  const doubt = best.left.length > 0 ? 'words' : near.length > 0 && !best.whole ? 'which' : 'none';
  return {
    text,
    count,
    type: best.type,
    others: rest
      .filter((j) => j.score > best.score - THOUGHT_OF)
      .slice(0, MAX_OTHERS)
      .map((j) => j.type),
    left: best.left,
    several,
    endsSo: best.last,
    far: isPerson(best.type) && meant.some((m) => FAR.has(m.as)),
    everyone: false,
    near: rest
      .filter(
        (j) =>
          j.score > best.score - THOUGHT_OF &&
          j.left.length <= best.left.length &&
          (j.type.family === best.type.family || (j.whole && best.whole)) &&
          !isPerson(best.type),
      )
      .map((j) => ({
        type: j.type,
        less: best.score - j.score + UNSAID * unsaid(j.type, meant, vocabulary) + (j.isKind ? KIND : 0),
      }))
      .sort((a, b) => a.less - b.less),
    doubt,
  };
}

/** A word that would have been said of it. */
const UNSAID = 0.3;
/** Only its kind was said. */
const KIND = 3;
const MAX_UNSAID = 3;

/** How many words are missing from the nearest of a type's names, beside those that say how it is plugged. */
function unsaid(type: DeviceType, meant: readonly Word[], { types }: Vocabulary): number {
  const said = new Set(meant.map((m) => m.as));
  const telling = [...said].filter((w) => !FILLERS.has(w) && !GENERIC.has(w) && facetOf(w, type) === null);
  const phrases = types.find((t) => t.type === type)!.phrases;
  const missing = phrases
    .filter((p) => telling.every((w) => p.includes(w)))
    .map((p) => p.filter((w) => !said.has(w) && !FILLERS.has(w) && facetOf(w, type) !== true).length);
  return Math.min(MAX_UNSAID, ...missing);
}

function judge(called: Called, meant: readonly Word[], inputs: number | null, vocabulary: Vocabulary): Judged | null {
  const { type, phrases, name, fits } = called;
  const words = meant.map((m) => m.as);
  const phrase = bestPhrase(phrases, words);
  const inPhrase = new Set(phrase?.tokens ?? []);
  let score = phrase ? phrase.score : 0;
  let heads = phrase ? 1 : 0;
  const left: string[] = [];
  let isKind = false;
  for (const [i, { word, as }] of meant.entries()) {
    // 'USB-C' is a USB socket.
    if (inPhrase.has(as) || (as === 'c' && meant[i - 1]?.as === 'usb')) continue;
    const facet = facetOf(as, type);
    if (name.has(as)) {
      score += SCORE.name;
      if (facet === null && !FILLERS.has(as) && !GENERIC.has(as)) heads++;
    } else if (i === meant.length - 1 && vocabulary.ends.get(type)!.has(as)) {
      // What one of its names ends in: a DAC may be an optical one.
      score += SCORE.fits;
      heads++;
      isKind = true;
    } else if (fits.has(as)) score += SCORE.fits;
    else if (facet !== null) score += facet ? SCORE.facet : SCORE.contradicts;
    else if (FILLERS.has(as) || (GENERIC.has(as) && heads > 0)) continue;
    else {
      score += vocabulary.words.has(as) ? SCORE.elsewhere : SCORE.unknown;
      left.push(word);
    }
  }
  if (heads === 0) return null;
  if (inputs !== null) {
    score += inputScore(type, inputs);
    if (inputScore(type, inputs) < 0) left.push(`${inputs} in`);
  }
  const rest = meant.filter((m) => !FILLERS.has(m.as));
  // A name of one word that was misspelled is a guess.
  const isGuess = phrase?.tokens.length === 1 && meant.some((m) => m.as === phrase.tokens[0] && m.as !== m.word);
  return {
    type,
    score,
    left,
    phrase: phrase?.tokens ?? [],
    isKind: isKind && phrase === null,
    named: phrase !== null && !isGuess,
    last: phrase !== null && !isGuess && phrase.tokens.includes(words.at(-1)!),
    heads,
    whole: phrase !== null && phrase.tokens.length === rest.length && inputs === null,
  };
}

/** The name that says most of what was typed. */
function bestPhrase(phrases: Called['phrases'], words: readonly string[]) {
  let best: { readonly tokens: readonly string[]; readonly score: number } | null = null;
  phrases.forEach((tokens, rank) => {
    if (!tokens.every((t) => words.includes(t))) return;
    const at = words.indexOf(tokens[0]!);
    const together = tokens.every((t, i) => words[at + i] === t);
    const score = tokens.length * SCORE.phrase + (together ? SCORE.together : 0) - rank * SCORE.rank;
    if (!best || score > best.score) best = { tokens, score };
  });
  return best as { readonly tokens: readonly string[]; readonly score: number } | null;
}

/** As many inputs as were said, or more; fewer are not what was meant. */
function inputScore(type: DeviceType, wanted: number): number {
  const { sockets, channels } = inputsOf(type);
  if (sockets === wanted || channels === wanted) return SCORE.fits;
  return Math.max(sockets, channels) > wanted ? SCORE.facet / 2 - 0.02 * channels : SCORE.contradicts;
}
