import { Checkbox } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  readonly checked: boolean;
  readonly onCheck: (checked: boolean) => void;
  /** Its name, where no text stands beside it, or another one than the text. */
  readonly label?: string;
  readonly disabled?: boolean;
  readonly children?: ReactNode;
}

/** A box to tick, with its text. */
export const Check = ({ checked, onCheck, label, disabled = false, children }: Props) => (
  <Checkbox.Root checked={checked} disabled={disabled} onCheckedChange={(e) => onCheck(e.checked === true)}>
    <Checkbox.HiddenInput {...(label && { 'aria-label': label })} />
    <Checkbox.Control>
      <Checkbox.Indicator />
    </Checkbox.Control>
    {children !== undefined && <Checkbox.Label>{children}</Checkbox.Label>}
  </Checkbox.Root>
);
