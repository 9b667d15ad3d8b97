import { Button } from '@chakra-ui/react';
import { count } from '#web/parts/index.ts';
import type { Trying } from './useTrial.ts';

interface Props {
  readonly trying: Trying;
  /** What finds settings, while nothing is tried: its words, and what it does. */
  readonly find: string;
  readonly onFind: () => void;
}

/** What can be done with what is tried; while nothing is, what finds it. */
export function Decide({ trying: { changes, carryOut, drop }, find, onFind }: Props) {
  if (changes.length === 0)
    return (
      <Button variant="solid" onClick={onFind}>
        {find} <kbd>p</kbd>
      </Button>
    );
  return (
    <>
      <Button variant="solid" onClick={() => carryOut('to-do')}>
        To do at the desk: {count(changes.length, 'setting')} <kbd>d</kbd>
      </Button>
      <Button onClick={() => carryOut('so')}>
        {changes.length === 1 ? 'It is so already' : 'They are so already'} <kbd>s</kbd>
      </Button>
      <Button onClick={drop}>
        Drop it <kbd>Esc</kbd>
      </Button>
    </>
  );
}
