import { glossary, type TermId } from '#words/index.ts';
import type { Place } from './Explained.tsx';
import { ExplainedPopover } from './ExplainedPopover.tsx';

/** An entry of the glossary. */
export const TermPopover = ({ id, ...place }: Place & { readonly id: TermId }) => (
  <ExplainedPopover title={glossary[id].title()} {...place}>
    <p className="strong">{glossary[id].title()}</p>
    <p>{glossary[id].says()}</p>
  </ExplainedPopover>
);
