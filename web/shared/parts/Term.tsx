import { Popover, Portal } from '@chakra-ui/react';
import { memo, type ReactNode } from 'react';
import { glossary, type TermId } from '#words/index.ts';

/** A word that opens its glossary entry. */
export const Term = memo(function Term({ id, children }: { id: TermId; children: ReactNode }) {
  const title = glossary[id].title();
  return (
    <Popover.Root lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <button type="button" className="term">
          {children}
        </button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content aria-label={title}>
            <Popover.Body>
              <p className="strong">{title}</p>
              <p>{glossary[id].says()}</p>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
});
