import { Button } from '@chakra-ui/react';
import type { Verb } from '#core/model/rig/index.ts';
import { common } from '#words/index.ts';
import { useKey } from './keys.tsx';
import { explainOnce } from './verb-effect.ts';

interface Props {
  readonly onVerb: (verb: Verb) => void;
  readonly disabled?: boolean;
  /** Of several on a page, the one that the keys y and d act on. */
  readonly isKeyed?: boolean;
  /** The first button is that of a form, and Enter presses it. */
  readonly isForm?: boolean;
  /** What the buttons change, for those who do not see what is beside them. */
  readonly of?: string;
  /** The first button is reached at once. */
  readonly autoFocus?: boolean;
}

/** The two verbs, the same everywhere: Already done (y), Add to-do (d). */
export function TwoVerbs({ onVerb, disabled = false, isKeyed = false, isForm = false, of, autoFocus = false }: Props) {
  const choose = (verb: Verb) => {
    explainOnce(verb);
    onVerb(verb);
  };
  useKey('y', common.alreadyDone(), () => choose('done'), isKeyed && !disabled);
  useKey('d', common.addToDo(), () => choose('to-do'), isKeyed && !disabled);
  const named = (label: string) => (of === undefined ? {} : { 'aria-label': `${label}: ${of}` });
  return (
    <>
      <Button
        disabled={disabled}
        autoFocus={autoFocus}
        title={common.alreadyDoneEffect()}
        {...named(common.alreadyDone())}
        {...(isForm ? { type: 'submit', onClick: () => explainOnce('done') } : { onClick: () => choose('done') })}
      >
        {common.alreadyDone()} {isForm ? <kbd>Enter</kbd> : isKeyed && <kbd>y</kbd>}
      </Button>
      <Button
        disabled={disabled}
        title={common.addToDoEffect()}
        {...named(common.addToDo())}
        onClick={() => choose('to-do')}
      >
        {common.addToDo()} {isKeyed && <kbd>d</kbd>}
      </Button>
    </>
  );
}
