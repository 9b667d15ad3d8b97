import { Button, chakra } from '@chakra-ui/react';
import { type ReactNode, useState } from 'react';
import { parts as say } from '#words/index.ts';
import { formatNumber } from './format.ts';

/** Rows that are drawn at once: more of them cost seconds, and no one reads them. */
const AT_ONCE = 100;

/** The first rows of a long list, and a button for the rest; `always` are shown wherever they stand. */
export function useMore<T>(
  all: readonly T[],
  always: (item: T) => boolean = () => false,
): { shown: readonly T[]; more: ReactNode } {
  const [upTo, setUpTo] = useState(AT_ONCE);
  if (all.length <= upTo) return { shown: all, more: null };
  const shown = all.filter((item, i) => i < upTo || always(item));
  return {
    shown,
    more: (
      <chakra.p marginTop="6px">
        <span className="quiet">
          {say.shown({ length: formatNumber(shown.length), length2: formatNumber(all.length) })}
        </span>{' '}
        <Button onClick={() => setUpTo(upTo + 4 * AT_ONCE)}>{say.showMore()}</Button>
      </chakra.p>
    ),
  };
}
