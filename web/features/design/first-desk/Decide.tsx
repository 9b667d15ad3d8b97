import { Button } from '@chakra-ui/react';
import { type KeyboardEvent, useEffect, useRef } from 'react';

import { firstDesk as say } from '#words/index.ts';
import { MAX_KEYS, type Step } from './steps.ts';

interface Props {
  readonly steps: readonly Step[];
  /** The step that the keys are for; null while someone types. */
  readonly at: number | null;
  readonly onAt: (at: number) => void;
  readonly onTake: (step: Step, optionId: string) => void;
  /** The answer with a number, from 0. */
  readonly onKey: (n: number) => void;
  readonly onNext: () => void;
  readonly onBack: () => void;
}

/** Questions that only a person can answer, in one short list: by number keys or pointer. */
export function Decide({ steps, at, onAt, onTake, onKey, onNext, onBack }: Props) {
  const list = useRef<HTMLUListElement>(null);
  // The question in hand has the focus, so that its keys are its own.
  const inHand = at === null ? undefined : steps[at]?.id;
  useEffect(() => {
    if (inHand !== undefined) list.current?.querySelector<HTMLElement>('[aria-current=step]')?.focus();
  }, [inHand]);
  const onKeyDown = (e: KeyboardEvent) => {
    if (at === null) return;
    const digit = /^[1-9]$/.test(e.key) ? Number(e.key) : 0;
    if (digit > 0) onKey(digit - 1);
    else if (e.key === 'ArrowDown') onAt(Math.min(steps.length - 1, at + 1));
    else if (e.key === 'ArrowUp') onAt(Math.max(0, at - 1));
    else if (e.key === 'Escape') onBack();
    // On a button Enter presses it.
    else if (e.key === 'Enter' && !(e.target instanceof HTMLButtonElement)) onNext();
    else return;
    e.preventDefault();
  };
  if (steps.length === 0) return null;
  const unknown = steps.filter((s) => s.kind === 'unknown').length;
  return (
    <section aria-label={say.youDecide()}>
      <h2>
        {say.youDecide()}{' '}
        <span className="quiet plain-weight">
          {say.questionOrAnswerThem({
            know: unknown > 0 ? say.wordsUnknown({ word: unknown }) : '',
            question: steps.length,
          })}
        </span>
      </h2>
      <ul ref={list} className="plain made" onKeyDown={onKeyDown}>
        {steps.map((step, i) => (
          <li
            key={step.id}
            tabIndex={-1}
            className={`spread ${i === at ? 'in-hand' : ''}`}
            aria-current={i === at ? 'step' : undefined}
          >
            <span className={`made-says ${step.kind === 'unknown' ? 'unknown' : ''}`}>{step.asks}</span>
            <span className="row wrap made-buttons">
              {step.options.map((o, n) => (
                <Button
                  key={o.id}
                  size="sm"
                  variant={step.taken === o.id ? 'solid' : 'outline'}
                  aria-pressed={step.taken === o.id}
                  onClick={() => {
                    onAt(i);
                    onTake(step, o.id);
                  }}
                >
                  {o.label} {i === at && n < MAX_KEYS && <kbd>{n + 1}</kbd>}
                </Button>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
