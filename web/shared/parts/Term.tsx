import { Popover, Portal } from '@chakra-ui/react';
import { memo, type ReactNode } from 'react';
import { glossary, type TermId } from '#words/index.ts';
import { TermButton } from './buttons.tsx';

/** A word that opens its glossary entry. */
export const Term = memo(function Term({ id, children }: { id: TermId; children: ReactNode }) {
  const title = glossary[id].title();
  return (
    <Popover.Root lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <TermButton>{children}</TermButton>
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
