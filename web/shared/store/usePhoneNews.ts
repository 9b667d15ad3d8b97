import { useEffect } from 'react';
import type { Session } from '#core/live/run/index.ts';
import { type Edit, markDone, type Rig, tickTask } from '#core/model/rig/index.ts';
import { answerKey, questionOf } from '#core/rules/index.ts';
import { store as say, textOf } from '#words/index.ts';
import { findingsOf } from './findings.ts';
import { recordEvent, selectSession } from './journal.ts';
import { applyStep, selectRig } from './open-rig.ts';
import { useAppDispatch, useAppSelector } from './store.ts';

/** The step that something told makes in this rig; null where it is so already, or is asked no more. */
export function stepOfNews(rig: Rig, news: Session['untaken'][number]): { edit: Edit; label: string } | null {
  if (news.kind === 'task') {
    const task = rig.tasks.find((t) => t.id === news.taskId && news.at >= t.openedAt);
    return task ? { edit: tickTask(rig, task), label: say.doneOnPhone() } : null;
  }
  const question = questionOf(rig, findingsOf(rig), news.questionId);
  const answer = question?.answers.find((a) => answerKey(a) === news.answerKey);
  if (!question || !answer) return null;
  const label = say.answeredOnPhone({ question: textOf(question.asks), answer: textOf(answer.label) });
  return { edit: markDone(rig, answer.changes), label: label.slice(0, 200) };
}

/** Ticks and answers from a phone are drawn as done and confirmed, once, by a window with the rig open. */
export function usePhoneNews(): void {
  const dispatch = useAppDispatch();
  const rig = useAppSelector(selectRig);
  const news = useAppSelector(selectSession)?.untaken[0];
  useEffect(() => {
    if (!rig || !news) return;
    const step = stepOfNews(rig, news);
    if (step) dispatch(applyStep(step.edit, step.label));
    dispatch(recordEvent({ kind: 'taken', eventId: news.id }));
  }, [rig, news, dispatch]);
}
