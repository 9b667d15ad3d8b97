import { Fragment, type ReactNode } from 'react';
import { Link } from 'react-router';
import { type Message, type Params, type Spec, sayWith } from '#words/index.ts';

/** A sentence with its keys, what is strong in it, and its link, which goes `to`. */
export function rich<S extends Spec>(message: Message<S>, params: Params<S>, to?: string): ReactNode {
  const parts = sayWith(message as unknown as Message, params, {
    kbd: (inside: ReactNode[]) => <kbd key={String(inside)}>{inside}</kbd>,
    b: (inside: ReactNode[]) => <strong key={String(inside)}>{inside}</strong>,
    a: (inside: ReactNode[]) => (
      <Link key={String(inside)} to={to ?? '/'}>
        {inside}
      </Link>
    ),
  } as Parameters<typeof sayWith>[2]) as ReactNode | ReactNode[];
  if (!Array.isArray(parts)) return parts;
  // biome-ignore lint/suspicious/noArrayIndexKey: the parts of a sentence keep their places
  return parts.map((part, i) => <Fragment key={i}>{part}</Fragment>);
}
