import { Button } from '@chakra-ui/react';
import { parts as say } from '#words/index.ts';

interface Props {
  readonly folded: number;
  readonly isOpen: boolean;
  readonly toggle: () => void;
}

/** Opens and folds the tracks that nothing is asked of. */
export const FoldedTracks = ({ folded, isOpen, toggle }: Props) =>
  folded > 0 && (
    <Button size="sm" aria-expanded={isOpen} onClick={toggle}>
      {isOpen ? say.foldTracks({ count: folded }) : say.showTracks({ count: folded })}
    </Button>
  );
