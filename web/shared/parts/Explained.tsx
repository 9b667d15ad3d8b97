import { type ReactNode, type RefObject, Suspense, useRef, useState } from 'react';
import { TermButton } from './buttons.tsx';

/** Where an explanation opens, and what closes it. */
export interface Place {
  /** The word that it explains: it stands beside that, and gives the focus back to it. */
  readonly at: RefObject<HTMLElement | null>;
  readonly onClose: () => void;
}

interface Props {
  /** What it says, where its text alone does not. */
  readonly label?: string;
  /** What opens. Hundreds of words may stand on a page, and one is open at most: it is made when it is asked for. */
  readonly explains: (place: Place) => ReactNode;
  readonly children: ReactNode;
}

/** A word or a figure that explains itself when it is pressed. */
export function Explained({ label, explains, children }: Props) {
  const [open, setOpen] = useState(false);
  const at = useRef<HTMLButtonElement>(null);
  return (
    <>
      <TermButton
        ref={at}
        aria-haspopup="dialog"
        aria-expanded={open}
        {...(label && { 'aria-label': label })}
        onClick={() => setOpen(!open)}
      >
        {children}
      </TermButton>
      {open && <Suspense fallback={null}>{explains({ at, onClose: () => setOpen(false) })}</Suspense>}
    </>
  );
}
