import { Collapsible } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  /** What is to be seen inside; pressing it opens and closes. */
  readonly summary: ReactNode;
  readonly children: ReactNode;
  readonly className?: string;
}

/** Something that is there when it is asked for. It is made when it is opened first. */
export const Details = ({ summary, children, className }: Props) => (
  <Collapsible.Root lazyMount {...(className && { className })}>
    <Collapsible.Trigger>
      <Collapsible.Indicator />
      <span>{summary}</span>
    </Collapsible.Trigger>
    <Collapsible.Content>{children}</Collapsible.Content>
  </Collapsible.Root>
);
