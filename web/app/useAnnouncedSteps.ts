import { useEffect, useRef } from 'react';
import { announceStep, takeVerbEffect } from '#web/shared/parts/index.ts';
import { redoStep, selectDesk, undoStep, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, frame } from '#words/index.ts';

/** Labels of steps are sentences, or parts of one. */
const sentenceOf = (label: string): string => (/[.!?…]$/.test(label) ? label : `${label}.`);

/** Says each step that is made, undone and done again, with the way back. */
export function useAnnouncedSteps(): void {
  const dispatch = useAppDispatch();
  const history = useAppSelector((state) => selectDesk(state).history);
  const before = useRef(history);
  useEffect(() => {
    const was = before.current;
    before.current = history;
    if (!was || !history || was === history) return;
    const made = history.past.at(-1);
    const undone = history.future[0];
    if (history.past.length < was.past.length && undone)
      announceStep(frame.undone({ step: sentenceOf(undone.label) }), {
        label: common.redo(),
        name: frame.redoStep({ step: undone.label }),
        run: () => dispatch(redoStep()),
      });
    else if (made && made !== was.past.at(-1))
      announceStep(`${sentenceOf(made.label)} ${takeVerbEffect()}`.trim(), {
        label: common.undo(),
        name: frame.undoStep({ step: made.label }),
        run: () => dispatch(undoStep()),
      });
  }, [history, dispatch]);
}
