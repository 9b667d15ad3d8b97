import type { DeviceType, Types } from '#core/rig/index.ts';
import { COUNTED, facetOf, inputsOf } from './facets.ts';
import { numberOf, tokensOf } from './tokens.ts';
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
  /** Words of it that nothing was made of. */
  readonly left: readonly string[];
  /** Whether somebody should look: more than one type is as likely, or words are left. */
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
/** Farther off, nobody means it. */
const THOUGHT_OF = 2;
const MOST_OTHERS = 4;

interface Word {
  /** As typed, and as it was meant. */
  readonly word: string;
  readonly as: string;
}
interface Counted {
  readonly count: number;
  /** 'A pair of': two, unless what is meant comes in pairs. */
  readonly isPair: boolean;
  readonly inputs: number | null;
  readonly words: readonly Word[];
}

/** 'two', '2 x', 'a pair of' before the words; '4 channel', '3 in' within them is no number of devices. */
function counted(all: readonly Word[]): Counted {
  const words = [...all];
  const at = (i: number): string | undefined => words[i]?.as;
  let [count, inputs, isPair] = [1, null as number | null, false];
  const first = numberOf(at(0));
  if (first !== null && !(COUNTED.has(at(1) ?? '') && words.length > 2)) {
    count = Math.max(1, first);
    words.shift();
    if (at(0) === 'x' && words.length > 1) words.shift();
  } else if (at(0) === 'both') {
    count = 2;
    words.shift();
  } else {
    const skip = at(0) === 'a' ? 1 : 0;
    if (at(skip) === 'couple' || at(skip) === 'pair') {
      [count, isPair] = [2, at(skip) === 'pair'];
      words.splice(0, skip + 1);
    }
  }
  for (let i = 0; i + 1 < words.length; i++) {
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

interface Judged {
  readonly type: DeviceType;
  readonly score: number;
  readonly left: readonly string[];
  /** The words are one of its names, and no more. */
  readonly whole: boolean;
}

/** The types that a few words may mean, the likeliest first. */
export function readMention(typed: string, types: Types): Mention {
  const vocabulary = vocabularyOf(types);
  const tokens = tokensOf(typed).map((word) => ({ word, as: meantBy(word, vocabulary) ?? word }));
  const { count: said, isPair, inputs, words: meant } = counted(tokens);
  const text = typed.trim().replace(NUMBER_BEFORE, '');
  const judged = vocabulary.types
    .flatMap((called) => judge(called, meant, inputs, vocabulary) ?? [])
    .sort((a, b) => b.score - a.score);
  const [best, ...rest] = judged;
  if (!best) return { text, count: said, type: null, others: [], left: meant.map((m) => m.word), doubt: 'unknown' };
  const count = isPair && tokensOf(best.type.name).includes('pair') ? 1 : said;
  const near = rest.filter((j) => j.score > best.score - AS_LIKELY);
  const doubt = best.left.length > 0 ? 'words' : near.length > 0 && !best.whole ? 'which' : 'none';
  return {
    text,
    count,
    type: best.type,
    others: rest
      .filter((j) => j.score > best.score - THOUGHT_OF)
      .slice(0, MOST_OTHERS)
      .map((j) => j.type),
    left: best.left,
    doubt,
  };
}

function judge(called: Called, meant: readonly Word[], inputs: number | null, vocabulary: Vocabulary): Judged | null {
  const { type, phrases, name, fits } = called;
  const words = meant.map((m) => m.as);
  const phrase = bestPhrase(phrases, words);
  const inPhrase = new Set(phrase?.tokens ?? []);
  let score = phrase ? phrase.score : 0;
  let heads = phrase ? 1 : 0;
  const left: string[] = [];
  for (const { word, as } of meant) {
    if (inPhrase.has(as)) continue;
    const facet = facetOf(as, type);
    if (name.has(as)) {
      score += SCORE.name;
      if (facet === null && !FILLERS.has(as) && !GENERIC.has(as)) heads++;
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
  return { type, score, left, whole: phrase !== null && phrase.tokens.length === rest.length && inputs === null };
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
