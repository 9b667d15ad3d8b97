// @vitest-environment happy-dom
import { act, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { DayEvent, EventOf } from '#core/live/run/index.ts';
import { addTasks, applyEdit, type Rig } from '#core/model/rig/index.ts';
import { answerKey, isAssumed, questionsOf } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { findingsOf, selectDesk, selectRig, undoStep, useJournal, usePhoneNews } from './index.ts';
import { stepOfNews } from './usePhoneNews.ts';

const AT = '2026-11-25T10:00:00.000Z';
const SESSION = '22222222-2222-4222-8222-222222222222';
let made = 0;
const told = <E extends Partial<DayEvent>>(body: E) => ({
  id: `33333333-3333-4333-8333-${String(++made).padStart(12, '0')}`,
  at: AT,
  by: 'phone',
  sessionId: SESSION,
  ...body,
});
const rig = demoRig();
const questions = (of: Rig) => questionsOf(of, evaluate(of), findingsOf(of));

let events: DayEvent[];
beforeEach(() => {
  events = [];
  stubServer(async (request) => {
    const { pathname, searchParams } = new URL(request.url);
    if (!pathname.endsWith('/day')) return answer(404, {});
    if (request.method === 'POST') {
      const { events: sent } = (await request.json()) as { events: DayEvent[] };
      events.push(...sent.filter((e) => !events.some((k) => k.id === e.id)));
      return answer(200, {});
    }
    const after = Number(searchParams.get('after'));
    return answer(200, { events: events.slice(after), seq: events.length, more: false, revision: 1 });
  });
});

function Desk() {
  useJournal(RIG_ID);
  usePhoneNews();
  return null;
}
const taken = () => events.filter((e): e is EventOf<'taken'> => e.kind === 'taken').map((e) => e.eventId);

describe('what a phone tells the desk', () => {
  it('is drawn as confirmed once; undone there, it stays undone', async () => {
    const [question] = questions(rig);
    const other = question!.answers.find((a) => !a.asDrawn)!;
    events.push(
      told({ kind: 'begin', name: '' }) as DayEvent,
      told({ kind: 'answer', questionId: question!.id, answerKey: answerKey(other) }) as DayEvent,
    );
    const { store } = show(<Desk />, { rig });
    await waitFor(() => expect(isAssumed(selectRig(store.getState())!, question!)).toBe(false));
    await waitFor(() => expect(taken()).toEqual([events[1]!.id]));
    const wanted = applyEdit(rig, stepOfNews(rig, events[1] as never)!.edit);
    expect(selectRig(store.getState())).toEqual(wanted.ok && wanted.rig);
    act(() => void store.dispatch(undoStep()));
    expect(selectRig(store.getState())).toEqual(rig);
    // It is asked again and again, and told nothing new.
    await new Promise((resolve) => setTimeout(resolve, 2500));
    expect(selectRig(store.getState())).toEqual(rig);
    expect(selectDesk(store.getState()).history!.past).toEqual([]);
  });

  it('that is answered by each question as the rig has it now, and nothing else', () => {
    for (const question of questions(rig))
      for (const given of question.answers) {
        const news = told({ kind: 'answer', questionId: question.id, answerKey: answerKey(given) });
        const done = applyEdit(rig, stepOfNews(rig, news as never)!.edit);
        if (!done.ok) throw new Error('refused');
        expect(isAssumed(done.rig, question)).toBe(false);
      }
    const [question] = questions(rig);
    const news = (body: object) => told({ kind: 'answer', ...body }) as never;
    // Neither what is not asked nor what is no answer changes anything.
    expect(stepOfNews(rig, news({ questionId: 'lead:none', answerKey: 'as-drawn' }))).toBeNull();
    const forged = JSON.stringify([{ deviceId: question!.deviceId, settingId: 'x', value: 1 }]);
    expect(stepOfNews(rig, news({ questionId: question!.id, answerKey: forged }))).toBeNull();
  });

  it('ticks a task that is still open, and none that was opened since', () => {
    const [{ answers }] = questions(rig) as [ReturnType<typeof questions>[number]];
    const opened = (at: string): Rig => {
      const done = applyEdit(rig, addTasks(rig, answers.find((a) => !a.asDrawn)!.changes, at));
      if (!done.ok) throw new Error('refused');
      return done.rig;
    };
    const before = opened('2026-11-24T00:00:00.000Z');
    const news = told({ kind: 'task', taskId: before.tasks[0]!.id }) as never;
    const ticked = applyEdit(before, stepOfNews(before, news)!.edit);
    expect(ticked.ok && ticked.rig.tasks).toEqual([]);
    expect(stepOfNews(opened('2026-11-26T00:00:00.000Z'), news)).toBeNull();
  });
});
