import { Button, Input } from '@chakra-ui/react';
import { useState } from 'react';
import type { NextStep } from '#core/live/next/index.ts';
import { explainOnce, off, sentence, useKey } from '#web/shared/parts/index.ts';
import { common, next as say, textOf } from '#words/index.ts';
import type { Acts } from './useAct.ts';

interface Props {
  readonly step: NextStep;
  readonly acts: Acts;
  /** Of all steps, the one that the keys of the frame act on. */
  readonly isKeyed: boolean;
  /** In the hand: what is done is told to the desk, and nothing is opened there. */
  readonly hand?: boolean;
  /** After the others; on a step of its own line there is more room. */
  readonly children?: React.ReactNode;
}

/** Answers that have a button of their own; more are on the to-do list. */
const MAX_ANSWERS = 3;

/** What can be done about a step right here. */
export function StepButtons({ step, acts, isKeyed, hand = false, children }: Props) {
  const { act } = step;
  const [reason, setReason] = useState<string | null>(null);
  const of = textOf(step.says);
  const asDrawn = act.do === 'answer' ? act.answers.findIndex((a) => a.asDrawn) : -1;
  const first = (): void => {
    if (act.do === 'change') verb('done');
    else if (act.do === 'answer') acts.answer(step, asDrawn);
    else if (act.do === 'task') acts.tick(step);
    else if (act.do === 'decide') setReason('');
    else acts.open(step);
  };
  const verb = (which: 'done' | 'to-do'): void => {
    explainOnce(which);
    acts.carry(step, which);
  };
  useKey('shift+y', say.firstKey(), first, isKeyed);
  useKey('shift+d', common.addToDo(), () => verb('to-do'), isKeyed && act.do === 'change');
  const named = (label: string) => ({ 'aria-label': (isKeyed ? say.named : say.namedInList)({ label, step: of }) });
  const key = isKeyed && <kbd>⇧Y</kbd>;
  if (reason !== null)
    return (
      <form
        className="row"
        onSubmit={(e) => {
          e.preventDefault();
          if (reason.trim() !== '') acts.accept(step, reason.trim());
        }}
      >
        <Input
          autoFocus
          aria-label={say.reason()}
          placeholder={say.reason()}
          maxLength={120}
          width="220px"
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          onKeyDown={(e) => e.key === 'Escape' && setReason(null)}
        />
        <Button type="submit" variant="solid" {...off(reason.trim() === '' ? common.typeReasonFirst() : null)}>
          {say.accept()}
        </Button>
        <Button onClick={() => setReason(null)}>{common.cancel()}</Button>
      </form>
    );
  return (
    <span className="row">
      {act.do === 'change' && (
        <>
          <Button variant="solid" title={common.alreadyDoneEffect()} {...named(common.alreadyDone())} onClick={first}>
            {common.alreadyDone()} {key}
          </Button>
          <Button title={common.addToDoEffect()} {...named(common.addToDo())} onClick={() => verb('to-do')}>
            {common.addToDo()} {isKeyed && <kbd>⇧D</kbd>}
          </Button>
        </>
      )}
      {act.do === 'answer' &&
        act.answers.slice(0, MAX_ANSWERS).map((answer, i) => (
          <Button
            key={textOf(answer.label)}
            variant={answer.asDrawn ? 'solid' : 'outline'}
            {...named(sentence(textOf(answer.label)))}
            onClick={() => acts.answer(step, i)}
          >
            {sentence(textOf(answer.label))} {answer.asDrawn && key}
          </Button>
        ))}
      {act.do === 'task' && (
        <Button variant="solid" {...named(say.done())} onClick={first}>
          {say.done()} {key}
        </Button>
      )}
      {act.do === 'decide' && (
        <Button variant="solid" {...named(say.acceptWithReason())} onClick={first}>
          {say.acceptWithReason()} {key}
        </Button>
      )}
      {(act.do === 'measure' || act.do === 'describe' || act.do === 'rehearse') && (
        <Button variant="solid" {...named(OPENS[act.do]())} onClick={first}>
          {OPENS[act.do]()} {key}
        </Button>
      )}
      {!hand && act.do !== 'measure' && act.do !== 'describe' && act.do !== 'rehearse' && (
        <Button {...named(say.show())} onClick={() => acts.open(step)}>
          {say.show()}
        </Button>
      )}
      {children}
    </span>
  );
}

const OPENS = { measure: say.openMeasure, describe: say.openPlace, rehearse: say.startSession };
