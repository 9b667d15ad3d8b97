// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, stubServer } from '#web/server.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { Backup } from './Backup.tsx';
import { sayAge, sayRestored } from './say-backup.ts';

const RESTORED = {
  madeAt: '2026-11-28T10:00:00.000Z',
  bytes: 1_000_000,
  rigsNew: 2,
  rigsUndeleted: 1,
  rigsBeside: ['Clay hour'],
  rigsSame: 3,
  takesNew: 4,
  takesWithoutFile: 1,
  photographs: 0,
};
let asked: string[];
let bad: boolean;
beforeEach(() => {
  asked = [];
  bad = false;
  stubServer(async (request) => {
    const { pathname } = new URL(request.url);
    asked.push(`${request.method} ${pathname.replace(/[0-9a-f-]{36}/, 'ID')}`);
    if (pathname.endsWith('/copies'))
      return answer(200, {
        folder: '/data/copies/daily',
        withTakes: false,
        copies: [{ name: 'mellow-tap-2026-11-29.zip', bytes: 5, madeAt: new Date().toISOString() }],
      });
    if (pathname.endsWith('/upload')) return answer(202, { at: 5 });
    if (request.method === 'DELETE') return new Response(null, { status: 204 });
    if (bad)
      return answer(422, {
        type: 'x',
        title: 'No',
        status: 422,
        detail: 'takes/a is not what it was. Nothing was changed.',
      });
    return answer(200, RESTORED);
  });
});
const choose = async () => {
  show(<Backup />);
  await userEvent.upload(
    screen.getByLabelText('Backup file'),
    new File(['12345'], 'desk.zip', { type: 'application/zip' }),
  );
};

describe('a backup that is chosen', () => {
  it('is looked at before anything is changed, and restored when you say so', async () => {
    await choose();
    const dialog = await screen.findByRole('dialog', { name: 'Restore this backup?' });
    expect(dialog.textContent).toContain('Adds 2 rigs with every version and the log.');
    expect(dialog.textContent).toContain('“Clay hour” next to the rig of that name');
    expect(asked).not.toContain('POST /api/restores/ID');
    await userEvent.click(within(dialog).getByRole('button', { name: 'Restore' }));
    expect(await screen.findByText(/^Restored\. Adds 2 rigs/)).toBeTruthy();
    expect(asked).toContain('POST /api/restores/ID');
  });
  it('may be a copy that is kept here: looked at first, and left alone when you cancel', async () => {
    show(<Backup />);
    const COPY = '/api/restores/copies/mellow-tap-2026-11-29.zip';
    const open = async () => {
      await userEvent.click(await screen.findByRole('button', { name: 'Automatic copies' }));
      await userEvent.click(await screen.findByRole('button', { name: /^Restore the copy of / }));
      return screen.findByRole('dialog', { name: 'Restore this backup?' });
    };
    await userEvent.click(within(await open()).getByRole('button', { name: 'Cancel' }));
    expect(asked.filter((a) => a.endsWith(COPY))).toEqual([`GET ${COPY}`]);
    await userEvent.click(within(await open()).getByRole('button', { name: 'Restore' }));
    expect(await screen.findByText(/^Restored\. Adds 2 rigs/)).toBeTruthy();
    expect(asked.filter((a) => a.endsWith(COPY)).at(-1)).toBe(`POST ${COPY}`);
  });
  it('is dropped when you cancel, and refused with what is wrong with it', async () => {
    await choose();
    const dialog = await screen.findByRole('dialog', { name: 'Restore this backup?' });
    await userEvent.click(within(dialog).getByRole('button', { name: 'Cancel' }));
    await expect.poll(() => asked).toContain('DELETE /api/restores/ID');
    expect(asked).not.toContain('POST /api/restores/ID');
    bad = true;
    await userEvent.upload(
      screen.getByLabelText('Backup file'),
      new File(['12345'], 'bad.zip', { type: 'application/zip' }),
    );
    expect(await screen.findByText(/takes\/a is not what it was\. Nothing was changed\./)).toBeTruthy();
  });
  it('says how old the last copy is, and what restoring does', async () => {
    show(<Backup />);
    expect(await screen.findByText(/Last automatic copy: just now/)).toBeTruthy();
    expect(sayAge(5 * 60_000)).toBe('5 min ago');
    expect(sayAge(3 * 3_600_000)).toBe('3 h ago');
    expect(sayAge(50 * 3_600_000)).toBe('2 days ago');
    const nothing = {
      ...RESTORED,
      rigsNew: 0,
      rigsUndeleted: 0,
      rigsBeside: [],
      rigsSame: 0,
      takesNew: 0,
      takesWithoutFile: 0,
    };
    expect(sayRestored(nothing)).toEqual(['Everything in it is here already.']);
  });
});
