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

/** The box of the browser is over ours, and not seen: what presses it, by pointer or by a program, presses a checkbox. */
const OVER_ITS_BOX = {
  position: 'absolute',
  left: 0,
  top: '50%',
  width: 16,
  height: 16,
  margin: '-8px 0 0',
  clipPath: 'none',
  clip: 'auto',
  opacity: 0,
  cursor: 'pointer',
} as const;

/** A box to tick, with its text. */
export const Check = ({ checked, onCheck, label, disabled = false, children }: Props) => (
  <Checkbox.Root checked={checked} disabled={disabled} onCheckedChange={(e) => onCheck(e.checked === true)}>
    <Checkbox.HiddenInput style={OVER_ITS_BOX} {...(label && { 'aria-label': label })} />
    <Checkbox.Control>
      <Checkbox.Indicator />
    </Checkbox.Control>
    {children !== undefined && <Checkbox.Label>{children}</Checkbox.Label>}
  </Checkbox.Root>
);
