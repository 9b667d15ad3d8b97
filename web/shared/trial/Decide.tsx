import { Button } from '@chakra-ui/react';
import { rich, TwoVerbs } from '#web/shared/parts/index.ts';
import { common } from '#words/index.ts';
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
      <span>{common.settings({ count: changes.length })}</span>
      <TwoVerbs isKeyed onVerb={carryOut} />
      <Button onClick={drop}>{rich(common.discardKeyed, {})}</Button>
    </>
  );
}
