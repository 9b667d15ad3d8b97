// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { act } from 'react';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Rig } from '#core/model/rig/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { closed } from '#web/shared/store/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { phone as say } from '#words/index.ts';
import { PhoneScreen } from './index.ts';

const AT = '2026-11-25T10:00:00.000Z';
const CODE = 'K7WQ-3HXD';
const problem = (status: number, detail: string) =>
  answer(status, { type: 'about:blank', title: 'No', status, detail });

/** The desk as a phone sees it: a door with a code, rigs behind it, a day that takes what is told. */
function desk(rig: Rig, isOpen = false) {
  const state = { isOpen, lost: false, tries: [] as string[], told: [] as { kind: string; taskId?: string }[] };
  stubServer(async (request) => {
    if (state.lost) throw new TypeError('no connection');
    const { pathname } = new URL(request.url);
    if (pathname === '/api/door') {
      const { code } = (await request.json()) as { code: string };
      state.tries.push(code);
      if (code !== CODE) return problem(403, 'That is not the code. It opens once, and a new one stands at the desk.');
      state.isOpen = true;
      return answer(200, {});
    }
    if (!state.isOpen) return problem(401, 'The door is shut.');
    if (pathname === '/api/rigs')
      return answer(200, [
        {
          id: RIG_ID,
          name: rig.name,
          revision: 1,
          updatedAt: AT,
          blockers: 0,
          toFix: 0,
          state: 'judged',
          toWatch: 0,
          toDo: 1,
          measured: 0,
        },
      ]);
    if (pathname.endsWith('/day')) {
      if (request.method === 'POST') state.told.push(...((await request.json()) as { events: never[] }).events);
      return answer(200, { events: [], seq: 0, more: false, revision: 1 });
    }
    return answer(200, { id: RIG_ID, revision: 1, updatedAt: AT, document: rig });
  });
  return state;
}

const open = (at = '/hand') =>
  show(
    <Routes>
      <Route path="/hand" element={<PhoneScreen />} />
      <Route path="/hand/:rigId" element={<PhoneScreen />} />
    </Routes>,
    { at },
  );
const withTask = (): Rig => ({
  ...demoRig(),
  tasks: [
    {
      id: 'mixer.strip-1-mute',
      deviceId: 'mixer',
      settingId: 'strip-1-mute',
      before: { value: true, known: 'confirmed' },
      openedAt: AT,
    },
  ],
});

describe('a phone at the door', () => {
  let server: ReturnType<typeof desk>;
  beforeEach(() => {
    server = desk(demoRig());
    location.hash = '';
  });
  it('asks for the code, says what is wrong with another, and opens with the right one', async () => {
    open();
    const user = userEvent.setup();
    const field = await screen.findByLabelText('Code');
    expect(screen.getByRole('button', { name: 'Open' }).getAttribute('aria-disabled')).toBe('true');
    await user.type(field, 'WRONG');
    await user.click(screen.getByRole('button', { name: 'Open' }));
    expect((await screen.findByRole('alert')).textContent).toContain('That is not the code');
    await user.clear(field);
    await user.type(field, CODE);
    await user.keyboard('{Enter}');
    expect((await screen.findByRole('link', { name: 'Boathouse relay' })).getAttribute('href')).toBe(`/hand/${RIG_ID}`);
    expect(server.tries).toEqual(['WRONG', CODE]);
  });
  it('needs no typing where the picture of the code brought it, and does not leave it in the address', async () => {
    location.hash = `#${CODE}`;
    open();
    await screen.findByRole('link', { name: 'Boathouse relay' });
    expect(server.tries).toEqual([CODE]);
    expect(location.hash).toBe('');
  });
  it('is told where the desk does not answer', async () => {
    open();
    const field = await screen.findByLabelText('Code');
    server.lost = true;
    await userEvent.type(field, `${CODE}{Enter}`);
    expect((await screen.findByRole('alert')).textContent).toContain('on the same network');
  });
});

describe('a rig in the hand', () => {
  it('has its run, what is to do and tunes, and nothing that changes it', async () => {
    desk(withTask(), true);
    open(`/hand/${RIG_ID}`);
    const user = userEvent.setup();
    await user.click(await screen.findByRole('button', { name: 'To do (1)' }));
    expect(screen.getByRole('heading', { name: 'To do at the desk' })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: say.testTunes() }));
    expect(screen.getAllByRole('checkbox').length).toBeGreaterThan(2);
    await user.click(screen.getByRole('button', { name: 'Run' }));
    expect(screen.queryByRole('link', { name: /Wire|Route|Sync/ })).toBeNull();
  });
  it('tells the desk what was done, once, and shows it as done', async () => {
    const server = desk(withTask(), true);
    open(`/hand/${RIG_ID}`);
    const user = userEvent.setup();
    await user.click(await screen.findByRole('button', { name: 'To do (1)' }));
    await user.click(screen.getByRole('button', { name: 'Done' }));
    expect(await screen.findByText(/Done, and sent to the computer\./)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Done' })).toBeNull();
    await waitFor(() => expect(server.told.filter((e) => e.kind === 'task')).toHaveLength(1));
    expect(server.told.find((e) => e.kind === 'task')!.taskId).toBe('mixer.strip-1-mute');
  });
  it('stands as it was last read where the desk does not answer', async () => {
    const server = desk(withTask(), true);
    open(`/hand/${RIG_ID}`);
    await screen.findByRole('button', { name: 'To do (1)' });
    server.lost = true;
    await userEvent.click(screen.getByRole('button', { name: 'To do (1)' }));
    await userEvent.click(screen.getByRole('button', { name: 'Done' }));
    // It is not said to be sent before it is.
    expect(await screen.findByText(/It’s sent when the computer can be reached/)).toBeTruthy();
    expect(server.told.filter((e) => e.kind === 'task')).toEqual([]);
    server.lost = false;
    expect(await screen.findByText(/Done, and sent to the computer\./)).toBeTruthy();
    expect(server.told.filter((e) => e.kind === 'task')).toHaveLength(1);
  });
  it('that cannot be opened says why, and is opened when the desk is back', async () => {
    const server = desk(withTask(), true);
    server.lost = true;
    // Never read here before: there is nothing to fall back on.
    vi.stubGlobal('localStorage', {
      getItem: () => null,
      setItem: () => undefined,
      removeItem: () => undefined,
      key: () => null,
      length: 0,
    });
    const { store } = open(`/hand/${RIG_ID}`);
    act(() => void store.dispatch(closed()));
    expect((await screen.findByRole('alert')).textContent).toContain('Can’t reach the computer');
    server.lost = false;
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByRole('button', { name: 'To do (1)' })).toBeTruthy();
  });
});
