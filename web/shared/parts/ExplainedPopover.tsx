import { Popover, Portal } from '@chakra-ui/react';
import { type ReactNode, useEffect, useState } from 'react';
import type { Place } from './Explained.tsx';

/** What a word means, beside it. */
export function ExplainedPopover({
  title,
  at,
  onClose,
  children,
}: Place & { readonly title: string; readonly children: ReactNode }) {
  const [open, setOpen] = useState(false);
  // Opened once it is there: that is when it takes the focus; it is away once it has given that back.
  useEffect(() => setOpen(true), []);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(e) => setOpen(e.open)}
      onExitComplete={onClose}
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
}
