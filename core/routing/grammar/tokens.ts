import { NUMBER_WORDS } from '#core/model/units/index.ts';

/** British spelling, and words that are two or one: as the vocabulary has them. */
export const SPELLED: Readonly<Record<string, string>> = {
  analogue: 'analog',
  mike: 'mic',
  mics: 'mic',
  microphone: 'mic',
  microphones: 'mic',
  loudspeaker: 'speaker',
  loudspeakers: 'speaker',
  talky: 'talkie',
  telly: 'tv',
  television: 'tv',
  bt: 'bluetooth',
  lavalier: 'lav',
  lapel: 'lav',
  cordless: 'wireless',
  smartphone: 'phone',
  cellphone: 'phone',
  grey: 'gray',
  programme: 'program',
  programmes: 'program',
  soundcard: 'sound card',
  soundboard: 'sound board',
  wifi: 'wireless',
  spdif: 'optical',
  toslink: 'optical',
  minijack: 'jack',
  passthrough: 'pass through',
};

/** Ends in s, and is no plural. */
const SINGULAR = new Set([
  'bus',
  'plus',
  'minus',
  'this',
  'bass',
  'gas',
  'os',
  'dis',
  'chaos',
  'dslr',
  'vhs',
  'gps',
  'ups',
  'its',
  'is',
  'has',
]);

/** 'boxes' is 'box', 'switches' 'switch', 'batteries' 'battery', 'speakers' 'speaker'. */
export function singular(word: string): string {
  // 'pcs', 'tvs', 'djs': letters that are spelled out.
  if (/^[bcdfghjklmnpqrtvwxz]{2}s$/.test(word)) return word.slice(0, -1);
  if (word.length < 4 || SINGULAR.has(word) || !word.endsWith('s') || word.endsWith('ss')) return word;
  if (word.endsWith('ies') && word.length > 4) return `${word.slice(0, -3)}y`;
  if (/(?:ch|sh|x|ss|z)es$/.test(word)) return word.slice(0, -2);
  return word.slice(0, -1);
}

/**
 * Words as they are compared: small letters without accents, one of each plural, one spelling of both sides of the ocean.
 * '3.5mm' is '3.5 mm'; hyphens part words.
 */
export function tokensOf(text: string): string[] {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[’']s\b/g, '')
    .replace(/[’'"“”]/g, '')
    .replace(/(\d)(mm|ch|in|out|x)\b/g, '$1 $2')
    .replace(/\bx(\d{1,2})\b/g, 'x $1')
    .replace(/(?<!\d)\.|\.(?!\d)/g, ' ')
    .replace(/[^\p{L}\p{N}.]+/gu, ' ')
    .split(' ')
    .filter(Boolean)
    .flatMap((word) => (SPELLED[word] ?? SPELLED[singular(word)] ?? singular(word)).split(' '));
}

/** A number as people write it; null for what is none. */
export function numberOf(token: string | undefined): number | null {
  if (token === undefined) return null;
  if (/^\d{1,2}$/.test(token)) return Number(token);
  const at = NUMBER_WORDS.indexOf(token);
  return at > 0 ? at : null;
}

/** Whether two words differ by one letter: one more, one less, another one, or two that have changed places (Damerau 1964). */
export function oneApart(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1 || a === b) return false;
  let i = 0;
  while (i < Math.min(a.length, b.length) && a[i] === b[i]) i++;
  const [x, y] = [a.slice(i), b.slice(i)];
  return (
    x.slice(1) === y.slice(1) ||
    x.slice(1) === y ||
    x === y.slice(1) ||
    (x.length > 1 && x[0] === y[1] && x[1] === y[0] && x.slice(2) === y.slice(2))
  );
}
