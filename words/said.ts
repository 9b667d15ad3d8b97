import { type Said, type SaidValue, type Sayers, type Saying, textOf } from '#core/base/said/index.ts';
import { common } from './en/common.ts';
import { listFormat, type Message, message, type Params, type Spec } from './message.ts';

/** The sentences of a subject of core: one for every code, with the parameters that core gives it. */
export function wordingOf<T extends Readonly<Record<string, Saying>>>(
  sayers: Sayers<T>,
  texts: { readonly [K in keyof T]: string },
): { readonly [K in keyof T]: Message } {
  return Object.fromEntries(
    Object.entries(sayers).map(([key, { spec }]) => [key, message(texts[key]!, spec as Spec)]),
  ) as unknown as { readonly [K in keyof T]: Message };
}

type Subjects = Readonly<Record<string, Readonly<Record<string, Message>>>>;

/** The message of a code of `subjects`, and its parameters as it takes them. */
export const messageOf =
  (subjects: Subjects) =>
  ({ code, params }: Said): { readonly message: Message; readonly params: Params<Spec> } => {
    const [subject, key] = code.split('.') as [string, string];
    const message = subjects[subject]?.[key];
    if (!message) throw new Error(`No words for the code ${code}.`);
    return { message, params: Object.fromEntries(Object.entries(params).map(([name, value]) => [name, plain(value)])) };
  };

/** Says what core says: `subjects` by the first part of a code. */
export const speakerOf =
  (subjects: Subjects) =>
  (said: Said): string => {
    const [subject, key] = said.code.split('.') as [string, string];
    if (subject === 'list') return listed(key, (said.params.items as readonly SaidValue[]).map(textOf));
    const { message, params } = messageOf(subjects)(said);
    return (message as (params: unknown) => string)(params);
  };

const plain = (value: SaidValue): string | number => (typeof value === 'number' ? value : textOf(value));

/** 'A, B and C', 'A, B or C' as the language puts them; 'A, then B'. */
const listed = (how: string, items: readonly string[]): string =>
  how === 'name'
    ? common.quoted({ name: items[0]! })
    : how === 'then' && items.length > 1
      ? common.thenLast({ first: items.slice(0, -1).join(', '), last: items.at(-1)! })
      : listFormat(how === 'then' ? 'and' : how).format(items);
