import { Fragment, type ReactNode } from 'react';
import { Link } from 'react-router';
import { type Message, type Params, type Spec, sayWith, TAGS, type TermId } from '#words/index.ts';
import { Term } from './Term.tsx';

/** Every tag of a message but the few that are drawn is a term; a test holds them to the glossary. */
const isTerm = (tag: string): tag is TermId => !(TAGS as readonly string[]).includes(tag);

/** A sentence with its keys, strong text, terms of the glossary, and its link, which goes `to`. */
export function rich<S extends Spec>(message: Message<S>, params: Params<S>, to?: string): ReactNode {
  const draw = (tag: string, inside: ReactNode[]): ReactNode => {
    const key = `${tag} ${inside}`;
    if (tag === 'kbd') return <kbd key={key}>{inside}</kbd>;
    if (isTerm(tag))
      return (
        <Term key={key} id={tag}>
          {inside}
        </Term>
      );
    if (tag === 'a')
      return (
        <Link key={key} to={to ?? '/'}>
          {inside}
        </Link>
      );
    return <strong key={key}>{inside}</strong>;
  };
  const parts = sayWith(message as unknown as Message, params, draw as Parameters<typeof sayWith>[2]) as
    | ReactNode
    | ReactNode[];
  if (!Array.isArray(parts)) return parts;
  // biome-ignore lint/suspicious/noArrayIndexKey: the parts of a sentence keep their places
  return parts.map((part, i) => <Fragment key={i}>{part}</Fragment>);
}
