import { memoized } from '#core/base/memo/index.ts';
import type { DeviceType, Types } from '#core/model/rig/index.ts';
import { COUNTED } from './facets.ts';
import { oneApart, SPELLED, singular, tokensOf } from './tokens.ts';

/** What a type is called, in words as they are compared. */
export interface Called {
  readonly type: DeviceType;
  /** Whole names: each suffices by itself. Most common first. */
  readonly phrases: readonly (readonly string[])[];
  /** Words of its name here. */
  readonly name: ReadonlySet<string>;
  /** Words that may go with a name. */
  readonly fits: ReadonlySet<string>;
}

export interface Vocabulary {
  readonly types: readonly Called[];
  /** Every word that is known. */
  readonly words: ReadonlySet<string>;
  /** Words that names of a type end in: what it is in the end. */
  readonly ends: ReadonlyMap<DeviceType, ReadonlySet<string>>;
}

/** Words that say nothing of what a device is. */
export const FILLERS = new Set(
  'my a an the our your his her their some this that these those old new cheap good nice little big large small tiny compact thing of and with for to in on at is it own one same usual normal regular standard basic main second first other left right spare i we you he she they them there here have got use which that who also just then so want need like would will do am im play record everything etc another extra more clean recorded separately separate sitting podcast setup rig show gig session interview online'.split(
    ' ',
  ),
);

/** Common to names of packs, bases and sets: it distinguishes none of them. */
const LINK = 'wireless';

const called = (type: DeviceType): Called => {
  const phrases: string[][] = [];
  const fits = new Set<string>();
  for (const text of type.words ?? []) {
    const beside = /^\((.*)\)$/.exec(text);
    if (beside) for (const word of tokensOf(beside[1]!)) fits.add(word);
    else phrases.push(tokensOf(text));
  }
  // Words of its other names say no other thing.
  for (const word of phrases.flat()) if (!FILLERS.has(word)) fits.add(word);
  return { type, phrases, name: new Set(tokensOf(type.name).filter((t) => !FILLERS.has(t) && t !== LINK)), fits };
};

/** The last word of each name. */
const endsOf = ({ type, phrases }: Called): ReadonlySet<string> =>
  new Set([...phrases, tokensOf(type.name.split(/,| with | for | to | on /)[0]!)].flatMap((p) => p.at(-1) ?? []));

/** The vocabulary of all types of a rig, read once. */
export const vocabularyOf = memoized((types: Types): Vocabulary => {
  const all = [...types.values()].map(called);
  const words = new Set(all.flatMap((c) => [...c.phrases.flat(), ...c.name, ...c.fits]));
  return { types: all, words, ends: new Map(all.map((c) => [c.type, endsOf(c)])) };
});

/** Words that any device may be called by: none of them says which. */
export const GENERIC = new Set([
  'box',
  'device',
  'unit',
  'gear',
  'set',
  'kit',
  'system',
  'pair',
  'one',
  'two',
  'adapter',
  'converter',
]);

/** Shorter words are too near each other for a letter to be wrong. */
const SHORTEST = 5;

/** A word as it was meant: itself where it is known, else the known one that is a letter away (the first one is never mistyped); null for neither. */
export function meantBy(word: string, { words }: Vocabulary): string | null {
  if (words.has(word) || FILLERS.has(word) || COUNTED.has(word)) return word;
  if (word.length < SHORTEST) return null;
  for (const w of [...words, ...COUNTED])
    if (w.length >= SHORTEST - 1 && w !== 'both' && w[0] === word[0] && oneApart(word, w)) return w;
  const spelled = Object.keys(SPELLED).find((w) => w.length >= SHORTEST && oneApart(word, singular(w)));
  return spelled === undefined ? null : SPELLED[spelled]!;
}
