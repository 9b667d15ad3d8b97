import { useNavigate } from 'react-router';
import type { NextStep } from '#core/live/next/index.ts';
import { carryOut, type Edit, markDone, type Rig, tickTask, type Verb } from '#core/model/rig/index.ts';
import { answerKey } from '#core/rules/index.ts';
import { applyStep, recordEvent, useAppDispatch } from '#web/shared/store/index.ts';
import { next as say, textOf } from '#words/index.ts';
import { sayStep } from './say.ts';
import { useAhead } from './useAhead.tsx';

/** Where a step is looked at in full, on the rig's own pages. */
function pageOf({ act, stage, findingIds }: NextStep): string {
  const finding = findingIds[0] === undefined ? '' : `?finding=${encodeURIComponent(findingIds[0])}`;
  const item = (id: string) => `desk?at=${encodeURIComponent(id)}`;
  switch (act.do) {
    case 'change':
    case 'decide':
      // Wire lists every issue but those of time.
      return stage === 'sync' ? 'sync' : `wire${finding}`;
    case 'answer':
      return item(act.questionId);
    case 'task':
      return item(`task:${act.taskIds[0]}`);
    case 'measure':
      return 'bench';
    case 'describe':
      return act.what === 'devices' ? 'wire' : 'plan';
    case 'rehearse':
      return 'run';
  }
}

export interface Acts {
  /** The two verbs of a change. */
  readonly carry: (step: NextStep, verb: Verb) => void;
  readonly answer: (step: NextStep, index: number) => void;
  readonly tick: (step: NextStep) => void;
  /** Lived with, for a reason. */
  readonly accept: (step: NextStep, reason: string) => void;
  /** Opens the page where it is done; a rehearsal begins a session. */
  readonly open: (step: NextStep) => void;
}

/** What is done about a step: each one step that can be undone. */
export function useAct(rig: Rig, rigId: string): Acts {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { of } = useAhead();
  // A step of the rig before the last edit may be done already: a key pressed twice does it once.
  const apply = (edit: Edit, label: string) => of === rig && dispatch(applyStep(edit, label, 'fix'));
  return {
    carry: (step, verb) => {
      if (step.act.do !== 'change') return;
      apply(carryOut(rig, step.act, verb, new Date().toISOString()), sayStep(step));
    },
    answer: (step, index) => {
      const given = step.act.do === 'answer' ? step.act.answers[index] : undefined;
      if (given)
        apply(
          markDone(rig, given.changes),
          say.answeredStep({ step: sayStep(step), answer: textOf(given.label) }).slice(0, 200),
        );
    },
    tick: (step) => {
      const { act } = step;
      if (act.do !== 'task') return;
      const tasks = rig.tasks.filter((t) => act.taskIds.includes(t.id));
      apply({ kind: 'batch', edits: tasks.map((t) => tickTask(rig, t)) }, sayStep(step));
    },
    accept: (step, reason) => {
      if (step.act.do !== 'decide') return;
      const dismissal = { id: step.act.findingId, reason, at: new Date().toISOString() };
      apply({ kind: 'dismiss', dismissal }, say.acceptedStep({ reason }));
    },
    open: (step) => {
      if (step.act.do === 'rehearse') dispatch(recordEvent({ kind: 'begin', name: rig.name }));
      navigate(`/rigs/${rigId}/${pageOf(step)}`);
    },
  };
}

/** What is done in the hand: it is told to the desk, which puts it into the rig. */
export function useActInHand(): Pick<Acts, 'answer' | 'tick'> {
  const dispatch = useAppDispatch();
  return {
    answer: ({ act }, index) => {
      const given = act.do === 'answer' ? act.answers[index] : undefined;
      if (act.do === 'answer' && given)
        dispatch(recordEvent({ kind: 'answer', questionId: act.questionId, answerKey: answerKey(given) }));
    },
    tick: ({ act }) => {
      if (act.do !== 'task') return;
      for (const taskId of act.taskIds) dispatch(recordEvent({ kind: 'task', taskId }));
    },
  };
}
