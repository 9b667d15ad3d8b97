import { IntlMessageFormat } from 'intl-messageformat';

/**
 * What a parameter is. A count chooses between one and many; a number is shown as the reader's locale writes it; a name
 * was typed by a person, and is quoted and never altered; text is shown as it is.
 */
type ParameterKind = 'count' | 'number' | 'name' | 'text';

interface ValueOf {
  count: number;
  number: number;
  name: string;
  text: string | number;
}

export type Spec = Readonly<Record<string, ParameterKind>>;
export type Params<S extends Spec> = { readonly [K in keyof S]: ValueOf[S[K]] };
// biome-ignore lint/complexity/noBannedTypes: a message without parameters has no keys at all
type None = {};

/** A message in ICU MessageFormat, with what it needs. Called, it is the sentence in the language that is spoken. */
export interface Message<S extends Spec = Spec> {
  (...params: keyof S extends never ? [] : [Params<S>]): string;
  readonly icu: string;
  readonly spec: S;
}

/**
 * Parts of a sentence that are drawn differently: a key to press, strong text, a link. A message names them as tags; any
 * other tag is the id of a term in the glossary, which it opens.
 */
export const TAGS = ['kbd', 'b', 'a'] as const;

const TAG = /<([a-z][\w-]*)>/g;
/** The tags of a message, each once. */
export const tagsOf = (icu: string): string[] => [...new Set([...icu.matchAll(TAG)].map((match) => match[1]!))];

export interface Language {
  /** Chooses between one and many. */
  readonly locale: string;
  /** How numbers are written: the reader's own locale, whatever language is spoken. */
  readonly numberLocale: string;
  /** Feet beside meters: where the reader measures rooms in feet. */
  readonly feet: boolean;
  /** How a name that someone typed is set apart in a sentence. */
  readonly quoted: (name: string) => string;
  /** The text of a message, where it is another one than that in English. */
  readonly textOf: (message: Message) => string;
}

const ENGLISH: Language = {
  locale: 'en-US',
  numberLocale: 'en-US',
  feet: false,
  quoted: (name) => `“${name}”`,
  textOf: ({ icu }) => icu,
};
let spoken = ENGLISH;
let compiled = new WeakMap<Message, IntlMessageFormat>();
let formats = new Map<string, unknown>();

/** From now on this language is spoken; English in American numbers where nothing is given. */
export function speak(language: Partial<Language> = {}): void {
  spoken = { ...ENGLISH, ...language };
  compiled = new WeakMap();
  formats = new Map();
}

export function message(icu: string): Message<None>;
export function message<const S extends Spec>(icu: string, spec: S): Message<S>;
export function message(icu: string, spec: Spec = {}): Message {
  const self: Message = Object.assign(
    (params: Params<Spec> = {}) => String(sayWith(self, params, (_, inside) => inside.join(''))),
    {
      icu,
      spec,
    },
  );
  return self;
}

type Values = NonNullable<Parameters<IntlMessageFormat['format']>[0]>;
/** Draws the parts within a tag. */
export type DrawTag = (tag: string, inside: readonly unknown[]) => unknown;

/** A sentence whose tagged parts are drawn by `draw`: text, or a list of text and what was drawn. */
export function sayWith(
  message: Message,
  params: Params<Spec>,
  draw: DrawTag,
): ReturnType<IntlMessageFormat['format']> {
  let made = compiled.get(message);
  if (!made) {
    made = new IntlMessageFormat(withFeet(spoken.textOf(message)), spoken.locale, undefined, {
      formatters: FORMATTERS,
    });
    compiled.set(message, made);
  }
  const shown = Object.entries(params).map(([key, value]) => [
    key,
    message.spec[key] === 'name' ? spoken.quoted(String(value)) : value,
  ]);
  const tags = tagsOf(message.icu).map((tag) => [tag, (inside: readonly unknown[]) => draw(tag, inside)]);
  const lengths = spoken.feet ? Object.entries(params).filter(([key]) => LENGTH_KEY.test(key)) : [];
  const feet = lengths.map(([key, value]) => [`${key}Feet`, feetBeside(Number(value))]);
  return made.format(Object.fromEntries([...tags, ...shown, ...feet]) as Values);
}

/** A parameter in meters ends in M. */
const LENGTH_KEY = /M$/;
const LENGTH = /\{(\w*M)(?:, number[^}]*)?\} m\b/g;
const withFeet = (icu: string): string => (spoken.feet ? icu.replace(LENGTH, '$&{$1Feet}') : icu);

/** One foot, m: exact, by the international agreement of 1959. */
const FOOT_M = 0.3048;

/** ' (7 ft)' beside a length in meters; nothing where feet are not read, or where it is no length. */
export function feetBeside(lengthM: number): string {
  if (!spoken.feet || !Number.isFinite(lengthM)) return '';
  const feet = lengthM / FOOT_M;
  return ` (${FORMATTERS.getNumberFormat('', { maximumFractionDigits: feet < 3 ? 1 : 0 }).format(feet)} ft)`;
}

/** A length as someone types it, in m: '2.5', '2,5 m', '8 ft', '6\''. NaN where it is none. */
export function lengthMOf(text: string): number {
  const [, number, unit] = /^\s*(\d+(?:[.,]\d*)?|[.,]\d+)\s*(m|ft|feet|foot|['’′])?\s*$/i.exec(text) ?? [];
  if (number === undefined) return Number.NaN;
  const value = Number(number.replace(',', '.'));
  return unit === undefined || unit.toLowerCase() === 'm' ? value : Math.round(value * FOOT_M * 100) / 100;
}

const MINUS = '−';

/** Formats of the language that is spoken, each made once: making one takes longer than the rest of a sentence. */
function format<T>(kind: string, options: object | undefined, make: () => T): T {
  const key = kind + JSON.stringify(options);
  const known = formats.get(key);
  if (known !== undefined) return known as T;
  const made = make();
  formats.set(key, made);
  return made;
}

/** Numbers in the reader's way of writing them, with a true minus; plurals in the language's. */
const FORMATTERS: NonNullable<NonNullable<ConstructorParameters<typeof IntlMessageFormat>[3]>['formatters']> = {
  getNumberFormat: (_, options) =>
    format('number', options, () => {
      const made = new Intl.NumberFormat(spoken.numberLocale, options);
      // Nothing but this of it is asked for.
      return { format: (n: number) => made.format(n).replace('-', MINUS) } as Intl.NumberFormat;
    }),
  getDateTimeFormat: (_, options) =>
    format('date', options, () => new Intl.DateTimeFormat(spoken.numberLocale, options)),
  getPluralRules: (locale, options) => format('plural', options, () => new Intl.PluralRules(locale, options)),
};

/** How the language that is spoken joins a list: by and, or by or. */
export const listFormat = (how: string): Intl.ListFormat =>
  format(
    how,
    undefined,
    () => new Intl.ListFormat(spoken.locale, { type: how === 'or' ? 'disjunction' : 'conjunction' }),
  );
