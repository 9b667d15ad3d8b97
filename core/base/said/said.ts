/** What a parameter is: see words/message.ts. A text may be said itself, or be a list of such. */
type Kind = 'count' | 'number' | 'name' | 'text';
export type Saying = Readonly<Record<string, Kind>>;

/** What is said by a code, or as it is: a name, a figure. */
export type Text = string | Said;
export type SaidValue = string | number | Said | readonly SaidValue[];
interface ValueOf {
  count: number;
  number: number;
  name: string;
  text: SaidValue;
}
type ParamsOf<S extends Saying> = { readonly [K in keyof S]: ValueOf[S[K]] };

/** A message as data: a code with its parameters. Its sentence is in words/, in each language. */
export interface Said {
  readonly code: string;
  readonly params: Readonly<Record<string, SaidValue>>;
}

/** One saying: called with what it is about, it is said. */
interface Sayer<S extends Saying> {
  (...params: keyof S extends never ? [] : [ParamsOf<S>]): Said;
  readonly code: string;
  readonly spec: S;
}
export type Sayers<T extends Readonly<Record<string, Saying>>> = { readonly [K in keyof T]: Sayer<T[K]> };

/** Everything a subject says: its codes are `subject.key`, its parameters those of `sayings`. */
export function sayersOf<const T extends Readonly<Record<string, Saying>>>(subject: string, sayings: T): Sayers<T> {
  return Object.fromEntries(
    Object.entries(sayings).map(([key, spec]) => {
      const code = `${subject}.${key}`;
      return [key, Object.assign((params: Said['params'] = {}) => said(code, params), { code, spec })];
    }),
  ) as unknown as Sayers<T>;
}

/** Put into a text, it is its sentence. */
const said = (code: string, params: Said['params']): Said => {
  const made: Said = { code, params };
  Object.defineProperty(made, 'toString', { value: () => textOf(made), enumerable: false });
  return made;
};

/** Several things, joined as the language joins them. */
export const listOf = (how: 'and' | 'or' | 'then', items: readonly SaidValue[]): Said => said(`list.${how}`, { items });

/** A name that someone typed, as it appears in a sentence. */
export const quoted = (name: string): Said => said('list.name', { items: [name] });

/** The same in every language, and another for whatever is said otherwise: the code, and what it is about. */
export const keyOf = (value: SaidValue): string =>
  typeof value === 'object' ? ('code' in value ? bare(value) : value.map(keyOf).join(', ')) : String(value);

/** Where no one gives words: the code, and what it is about. */
const bare = ({ code, params }: Said): string => {
  const values = Object.values(params).map(keyOf);
  return values.length === 0 ? code : `${code}(${values.join(', ')})`;
};
let speaker: (said: Said) => string = bare;

/** From now on `speak` makes a sentence of a code; without one, codes are shown as they are. */
export function speakWith(speak: ((said: Said) => string) | null): void {
  speaker = speak ?? bare;
}

/** An error with a code; its message is the sentence in the language spoken when it was made. */
export class SaidError extends Error {
  readonly said: Text;
  constructor(what: Text) {
    super(textOf(what));
    this.said = what;
  }
}

/** The sentence, in the language that is spoken now. A list is joined by commas. */
export function textOf(said: SaidValue): string {
  if (typeof said === 'string') return said;
  if (typeof said === 'number') return String(said);
  if ('code' in said) return speaker(said);
  return said.map(textOf).join(', ');
}
