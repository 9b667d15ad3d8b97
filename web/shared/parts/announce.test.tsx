// @vitest-environment happy-dom

import { Button } from '@chakra-ui/react';
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, it, vi } from 'vitest';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { closeAnnouncement } from './announce.ts';
import { announce, announceStep, off } from './index.ts';

beforeEach(() => {
  stubServer(noServer);
  closeAnnouncement();
});

it('says one thing at a time; what a page says of a step is not talked over', async () => {
  const user = userEvent.setup();
  const undo = vi.fn();
  show(<p>page</p>);
  act(() => announceStep('Cable added.', { label: 'Undo', name: 'Undo: it', run: undo }));
  expect(screen.getByText('Cable added.')).toBeTruthy();
  act(() => announce('good', '3 rows read.'));
  act(() => announceStep('Cables imported.', { label: 'Undo', name: 'Undo: it', run: undo }));
  expect(screen.getByText('3 rows read.')).toBeTruthy();
  expect(screen.queryByText('Cables imported.')).toBeNull();
  await new Promise((resolve) => setTimeout(resolve, 600));
  act(() => announceStep('Gain set.', { label: 'Undo', name: 'Undo: it', run: undo }));
  await user.click(screen.getByRole('button', { name: 'Undo: it' }));
  expect(undo).toHaveBeenCalledOnce();
  expect(screen.queryByText('Gain set.')).toBeNull();
});

it('what went well goes by itself, what did not stays until it is closed', () => {
  vi.useFakeTimers();
  show(<p>page</p>);
  act(() => announce('good', 'Saved.'));
  act(() => void vi.advanceTimersByTime(60_000));
  expect(screen.queryByText('Saved.')).toBeNull();
  act(() => announce('fix', 'It can’t be read.'));
  act(() => void vi.advanceTimersByTime(60_000));
  expect(screen.getByText('It can’t be read.')).toBeTruthy();
  vi.useRealTimers();
});

it('a button that is off does nothing and says why, by pointer, by Enter in its form, and when it is reached', async () => {
  const user = userEvent.setup();
  const press = vi.fn();
  const submit = vi.fn((e: { preventDefault: () => void }) => e.preventDefault());
  const form = (reason: string | null) => (
    <form onSubmit={submit}>
      <input aria-label="name" />
      <Button type="submit" {...off(reason)} onClick={press}>
        Add
      </Button>
    </form>
  );
  const page = show(form('Type a name first.'));
  await user.click(screen.getByRole('button', { name: 'Add' }));
  expect(screen.getByText('Type a name first.')).toBeTruthy();
  act(closeAnnouncement);
  await user.type(screen.getByLabelText('name'), 'x{Enter}');
  expect(screen.getByText('Type a name first.')).toBeTruthy();
  expect(press).not.toHaveBeenCalled();
  expect(submit).not.toHaveBeenCalled();
  // Unlike one that is disabled it can be reached, and read.
  await user.tab();
  expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Add' }));
  expect(document.activeElement!.getAttribute('title')).toBe('Type a name first.');
  page.unmount();
  show(form(null));
  await user.click(screen.getByRole('button', { name: 'Add' }));
  expect(press).toHaveBeenCalledOnce();
  expect(submit).toHaveBeenCalledOnce();
});
