import { lazy, memo, type ReactNode } from 'react';
import type { TermId } from '#words/index.ts';
import { Explained } from './Explained.tsx';

/** The glossary comes with the first word that is asked. */
const TermPopover = lazy(async () => ({ default: (await import('./TermPopover.tsx')).TermPopover }));

/** A word that opens its glossary entry. */
export const Term = memo(function Term({ id, children }: { id: TermId; children: ReactNode }) {
  return <Explained explains={(place) => <TermPopover id={id} {...place} />}>{children}</Explained>;
});
