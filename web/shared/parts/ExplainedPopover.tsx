import { Popover, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { Place } from './Explained.tsx';

/** What a word means, beside it. */
export const ExplainedPopover = ({
  title,
  at,
  onClose,
  children,
}: Place & { readonly title: string; readonly children: ReactNode }) => (
  <Popover.Root
    open
    onOpenChange={(e) => !e.open && onClose()}
    positioning={{ getAnchorElement: () => at.current }}
    finalFocusEl={() => at.current}
    persistentElements={[() => at.current]}
  >
    <Portal>
      <Popover.Positioner>
        <Popover.Content aria-label={title}>
          <Popover.Body>{children}</Popover.Body>
        </Popover.Content>
      </Popover.Positioner>
    </Portal>
  </Popover.Root>
);
