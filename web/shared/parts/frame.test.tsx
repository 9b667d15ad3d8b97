// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Outlet, Route, Routes, useLocation } from 'react-router';
import { describe, expect, it } from 'vitest';
import { show } from '#web/web.testkit.tsx';
import { common, frame } from '#words/index.ts';
import { Frame, useKey } from './index.ts';

function Here() {
  return <p>at {useLocation().pathname}</p>;
}

const framed = (
  <Routes>
    <Route
      element={
        <Frame
          nav={[
            { to: '/plan', label: 'Plan', key: 'p', state: 'good', unconfirmed: true },
            { to: '/wire', label: 'Wire', key: 'w', state: 'good' },
          ]}
          more={[
            { to: '/desk', label: 'To-do list', waits: 3 },
            { to: '/log', label: 'Log', waits: 0 },
          ]}
          top={<h1>Top</h1>}
          next={<p>the one thing</p>}
        >
          <Outlet />
        </Frame>
      }
    >
      <Route path="*" element={<Here />} />
    </Route>
  </Routes>
);

function Keys({ done }: { done: string[] }) {
  useKey('d', 'do', () => done.push('d'));
  useKey('j,arrowdown', 'next', () => done.push('j'));
  useKey('mod+z', 'undo', () => done.push('z'));
  return null;
}

describe('the frame', () => {
  it('opens a page by its capital letter, from wherever one is', async () => {
    const user = userEvent.setup();
    show(framed, { at: '/log' });
    await user.keyboard('{Shift>}W{/Shift}');
    expect(screen.getByText('at /wire')).toBeTruthy();
    await user.keyboard('p');
    expect(screen.getByText('at /wire')).toBeTruthy();
    await user.keyboard('{Shift>}P{/Shift}');
    expect(screen.getByText('at /plan')).toBeTruthy();
    expect(screen.getByText('the one thing')).toBeTruthy();
  });
  it('ticks nothing that no one has confirmed, and counts what waits', () => {
    show(framed, { at: '/log' });
    expect(screen.getByRole('img', { name: common.goodAsDrawn() }).querySelector('path')).toBeNull();
    expect(screen.getByRole('img', { name: common.good() }).querySelector('path')).toBeTruthy();
    expect(screen.getByRole('link', { name: new RegExp(`^To-do list ?3 ?${frame.toDo()}$`) })).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Log' }).textContent).toBe('Log');
  });
  it('is skipped by its first link, and a new page has the keys at once', async () => {
    const user = userEvent.setup();
    show(framed, { at: '/log' });
    const page = document.querySelector('#page');
    expect(document.activeElement).toBe(page);
    expect(document.querySelector('a')!.getAttribute('href')).toBe('#page');
    expect(document.querySelector('a')!.textContent).toBe(frame.skipToPage());
    await user.click(screen.getByRole('link', { name: /Wire/ }));
    expect(document.activeElement).toBe(page);
  });
});

describe('a key that is held down', () => {
  it('moves and undoes on, and does everything else once', () => {
    const done: string[] = [];
    show(<Keys done={done} />);
    const held = (key: string, more = {}) => {
      fireEvent.keyDown(document.body, { key, code: `Key${key.toUpperCase()}`, ...more });
      for (let n = 0; n < 3; n++)
        fireEvent.keyDown(document.body, { key, code: `Key${key.toUpperCase()}`, repeat: true, ...more });
      fireEvent.keyUp(document.body, { key, code: `Key${key.toUpperCase()}` });
    };
    held('d');
    expect(done.join('')).toBe('d');
    held('j');
    expect(done.join('')).toBe('djjjj');
    held('z', { ctrlKey: true });
    expect(done.join('')).toBe('djjjjzzzz');
  });
});
