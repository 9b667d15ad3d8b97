// @vitest-environment happy-dom
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes, useParams } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { type DayEvent, orderUp } from '#core/live/run/index.ts';
import { answer, noServer, stubServer } from '#web/server.testkit.ts';
import { recordEvent, useJournal } from '#web/shared/store/index.ts';
import { clearPage, demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { common, run as say } from '#words/index.ts';
import { RunScreen } from './index.ts';
import { lastTicked, nextItem, openBefore } from './lists.ts';

const steps = orderUp(demoRig());
const at = (n: number) => `2026-11-26T10:00:${String(n).padStart(2, '0')}.000Z`;
const tickAt = (n: number) => ({ at: at(n), by: 'desk' });
beforeEach(() => {
  stubServer(noServer);
  localStorage.clear();
});

describe('a list that is ticked', () => {
  it('leads from step to step, none before what it rests on', () => {
    let ticks = {};
    const seen: string[] = [];
    for (let n = 0; n < steps.length; n++) {
      const step = nextItem(steps, ticks)!;
      expect(openBefore(step, steps, ticks)).toEqual([]);
      seen.push(step.id);
      ticks = { ...ticks, [step.id]: tickAt(n % 60) };
    }
    expect(seen).toEqual(steps.map((s) => s.id));
    expect(nextItem(steps, ticks)).toBeNull();
  });
  it('says what is open before a step, and which was ticked last', () => {
    const plug = steps.find((s) => s.kind === 'plug')!;
    expect(openBefore(plug, steps, {}).length).toBeGreaterThan(0);
    expect(lastTicked(steps, {})).toBeNull();
    expect(lastTicked(steps, { [steps[3]!.id]: tickAt(9), [steps[0]!.id]: tickAt(4) })!.id).toBe(steps[3]!.id);
  });
});

/** A server that keeps the day in a list; lost while it is told so. */
function dayServer() {
  const server = { events: [] as DayEvent[], lost: false, posts: 0 };
  stubServer(async (request) => {
    if (server.lost) return noServer();
    const url = new URL(request.url);
    if (!url.pathname.endsWith('/day')) return answer(404, {});
    if (request.method === 'GET') {
      const after = Number(url.searchParams.get('after'));
      return answer(200, { events: server.events.slice(after), seq: server.events.length, more: false, revision: 1 });
    }
    server.posts++;
    const { events } = (await request.json()) as { events: DayEvent[] };
    for (const e of events) if (!server.events.some((o) => o.id === e.id)) server.events.push(e);
    return new Response(null, { status: 204 });
  });
  return server;
}

function Day() {
  useJournal(useParams().rigId!);
  return <RunScreen />;
}
const open = (query = '') =>
  show(
    <Routes>
      <Route path="/rigs/:rigId/run" element={<Day />} />
    </Routes>,
    { at: `/rigs/${RIG_ID}/run?${query}` },
  );
const now = () => screen.getByTestId('run-step').textContent!;
const press = (key: string) => fireEvent.keyDown(document.body, { key, code: `Key${key.toUpperCase()}` });
const done = () => screen.getByRole('progressbar', { name: say.progress() }).getAttribute('aria-valuenow');

describe('the run', () => {
  it('shows one step at a time, ticked by one key, and again where one left off after a reload without a server', async () => {
    open();
    expect(now()).toContain(textOf(steps[0]!.says));
    press('d');
    expect(now()).toContain(textOf(steps[1]!.says));
    press('d');
    expect(done()).toBe('2');
    await waitFor(() => expect(document.body.textContent).toContain('The server isn’t responding: 3 kept here'));
    clearPage();
    open();
    await waitFor(() => expect(now()).toContain(textOf(steps[2]!.says)));
    press('b');
    expect(now()).toContain(textOf(steps[1]!.says));
  });
  it('sends what was told once the server is back, nothing twice, and forgets its own copy', async () => {
    const server = dayServer();
    server.lost = true;
    const { store } = open();
    press('d');
    press('d');
    await waitFor(() => expect(document.body.textContent).toContain('3 kept here'));
    expect(Object.keys(localStorage).filter((k) => k.startsWith('mellow.day.'))).toHaveLength(3);
    server.lost = false;
    act(() => store.dispatch(recordEvent({ kind: 'mark', says: 'back again' })));
    await waitFor(() => expect(server.events.map((e) => e.kind)).toEqual(['begin', 'tick', 'tick', 'mark']));
    await waitFor(() => expect(Object.keys(localStorage).filter((k) => k.startsWith('mellow.day.'))).toEqual([]));
    expect(done()).toBe('2');
  });
  it('shows what another screen has ticked', async () => {
    const server = dayServer();
    const { store } = open();
    press('d');
    await waitFor(() => expect(server.events).toHaveLength(2));
    server.events.push({
      ...server.events[1]!,
      id: '99999999-9999-4999-8999-999999999999',
      by: 'phone',
      itemId: steps[1]!.id,
    } as DayEvent);
    act(() => store.dispatch(recordEvent({ kind: 'note', says: 'ask now' })));
    await waitFor(() => expect(now()).toContain(textOf(steps[2]!.says)));
    expect(screen.getByLabelText(say.allSteps()).textContent).toContain('Done, on the phone.');
  });
  it('says what comes first where one looks ahead, and leaves a step out only with a reason', async () => {
    const user = userEvent.setup();
    open();
    const list = screen.getByLabelText(say.allSteps());
    const plugAt = steps.findIndex((s) => s.kind === 'plug');
    await user.click(within(list).getAllByRole('button')[plugAt]!);
    expect(now()).toMatch(/Do this first:/);
    await user.click(within(list).getAllByRole('button')[0]!);
    await user.click(screen.getByRole('button', { name: /Skip/ }));
    expect(screen.getByRole('button', { name: common.skip() }).getAttribute('aria-disabled')).toBe('true');
    await user.type(screen.getByLabelText(say.reasonForSkipping()), 'it has no knob{Enter}');
    expect(within(list).getAllByRole('listitem')[0]!.textContent).toContain('Skipped: it has no knob.');
    await user.click(within(list).getAllByRole('button')[0]!);
    await user.click(screen.getByRole('button', { name: say.undoTick() }));
    expect(done()).toBe('0');
  });
  it('offers only what has changed once a session went well, and ends one with how it went', async () => {
    const user = userEvent.setup();
    const server = dayServer();
    open();
    const ways = () =>
      within(screen.getByLabelText(say.whichList()))
        .getAllByRole('option')
        .map((o) => o.textContent);
    expect(ways()).not.toContain(say.onlyWhatChangedSince());
    await user.click(screen.getByRole('button', { name: say.startSession() }));
    await user.click(await screen.findByRole('button', { name: say.endSession() }));
    await user.click(screen.getByRole('button', { name: say.endItWentWell() }));
    await waitFor(() => expect(server.events.map((e) => e.kind)).toEqual(['begin', 'end']));
    expect(ways()).toContain(say.onlyWhatChangedSince());
    await user.selectOptions(screen.getByLabelText(say.whichList()), say.onlyWhatChangedSince());
    // Nothing has: what is left are volumes down, power and programs, and volumes up.
    expect(screen.getByLabelText(say.allSteps()).textContent).not.toContain('Plug ');
  });
});

describe('the checks', () => {
  it('are no go while one is open or not well, and say what is amiss', async () => {
    const user = userEvent.setup();
    open('view=checks');
    const verdict = () => screen.getByLabelText('Go or no go').textContent!;
    expect(verdict()).toMatch(/No go yet.*\d+ required checks? left/);
    press('x');
    expect(verdict()).toContain('1 check failed');
    await user.click(within(screen.getByLabelText(say.allSteps())).getAllByRole('button')[0]!);
    await user.click(screen.getByRole('button', { name: say.undoTick() }));
    const count = within(screen.getByLabelText(say.allSteps())).getAllByRole('button').length;
    for (let n = 0; n < count; n++) press('d');
    expect(verdict()).toContain('All required checks are OK');
  });
});

describe('while it goes on', () => {
  it('marks by one key, with a note or without, and takes breaks', async () => {
    const user = userEvent.setup();
    open('view=during');
    press('m');
    await user.type(screen.getByLabelText(say.note()), 'lap record{Enter}');
    const marks = () =>
      within(screen.getByLabelText('Markers'))
        .getAllByRole('listitem')
        .map((l) => l.textContent);
    expect(marks()).toHaveLength(2);
    expect(marks()[0]).toContain('lap record');
    await user.click(screen.getAllByRole('button', { name: common.remove() })[1]!);
    expect(marks()).toHaveLength(1);
    press('p');
    expect(screen.getByLabelText('Clock').textContent).toContain('Break, for');
    press('p');
    expect(screen.getByLabelText('Clock').textContent).toMatch(/left of 6 h/);
  });
  it('knows who is muted, as drawn and as pressed since', async () => {
    const user = userEvent.setup();
    open('view=during');
    const button = screen.getByRole('button', { name: /Mixer, Channel 1, mute: open/ });
    await user.click(button);
    expect(screen.getByLabelText('Mutes').textContent).toContain(
      'Different from the drawing: Mixer, Channel 1, mute muted',
    );
  });
});

describe('budgets', () => {
  it('are reckoned anew with what one reads off', async () => {
    const user = userEvent.setup();
    open('view=budgets');
    const row = () => screen.getByText('“Backup recorder”, disk or card').closest('tr')!;
    expect(row().textContent).toContain('free space not entered');
    await user.type(screen.getByLabelText('“Backup recorder”, disk or card: free, GB'), '5{Enter}');
    expect(row().textContent).toContain('more than is free');
    expect(row().textContent).toMatch(/3\.9 h.*before the end/);
  });
});
