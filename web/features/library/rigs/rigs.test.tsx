// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes, useLocation } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { LARGEST_RIG_BYTES } from '#api/index.ts';
import { planAhead } from '#core/live/next/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { keepLastRig } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { rigs, next as sayNext } from '#words/index.ts';
import { RigsScreen } from './index.ts';

vi.mock('#web/shared/workers/index.ts', () => ({
  planNext: (rig: Rig) => ({
    result: Promise.resolve().then(() => planAhead(rig, { solve: null, last: null })),
    stop: () => undefined,
  }),
}));

const AT = '2026-11-25T10:00:00.000Z';
const idOf = (n: number) => `33333333-3333-4333-8333-${String(n).padStart(12, '0')}`;

/** A server that keeps rigs in memory, deletes them and gives them back; it can be lost. */
function rigServer(names: readonly string[]) {
  const rigs = new Map(
    names.map((name, i) => [idOf(i), { document: { ...demoRig(), name }, deleted: false, toFix: i === 0 ? 2 : 0 }]),
  );
  const state = { rigs, lost: false };
  stubServer(async (request) => {
    if (state.lost) throw new TypeError('no connection');
    const [, , , id, verb] = new URL(request.url).pathname.split('/');
    const record = (rigId: string, document: unknown) => ({ id: rigId, revision: 1, updatedAt: AT, document });
    if (!id && request.method === 'GET')
      return answer(
        200,
        [...rigs]
          .filter(([, r]) => !r.deleted)
          .map(([rigId, { document, toFix }]) => ({
            id: rigId,
            name: document.name,
            revision: 1,
            updatedAt: AT,
            blockers: Math.min(1, toFix),
            toFix,
            state: 'judged',
            toWatch: 0,
            toDo: 0,
            measured: toFix,
          })),
      );
    if (!id) {
      const made = (await request.json()) as { id: string; document: Rig };
      rigs.set(made.id, { document: parseRig(made.document), deleted: false, toFix: 0 });
      return answer(201, record(made.id, made.document));
    }
    const own = rigs.get(id);
    if (!own) return answer(404, { title: 'Not there', status: 404, detail: 'There is no such rig.' });
    if (request.method === 'DELETE') {
      own.deleted = true;
      return new Response(null, { status: 204 });
    }
    if (verb) own.deleted = false;
    return answer(200, record(id, own.document));
  });
  return state;
}

const Where = () => <output aria-label="Where">{useLocation().pathname}</output>;
const open = () =>
  show(
    <Routes>
      <Route path="/" element={<RigsScreen />} />
      <Route path="*" element={<Where />} />
    </Routes>,
  );
const row = (name: string) => screen.findByRole('row', { name: new RegExp(name) });
const names = () =>
  screen
    .getAllByRole('link')
    .filter((a) => /\/rigs\/.*\/sync$/.test(a.getAttribute('href') ?? ''))
    .map((a) => a.textContent);
const choose = async (name: string, text: string) =>
  userEvent.upload(screen.getByLabelText('Rig file'), new File([text], name, { type: 'application/json' }));

let server: ReturnType<typeof rigServer>;
beforeEach(() => {
  server = rigServer(['Boathouse relay', 'Clay hour']);
});

describe('the rigs kept here', () => {
  it('stand with their verdict and what they rest on', async () => {
    open();
    expect((await row('Boathouse relay')).textContent).toContain('1 blocker, 1 to fix');
    expect((await row('Boathouse relay')).textContent).toContain('2 measurements');
    expect((await row('Clay hour')).textContent).toContain(rigs.matches());
    expect((await row('Clay hour')).textContent).toContain('as drawn');
    // Few enough to be seen at a glance.
    expect(screen.queryByLabelText('Search rigs')).toBeNull();
  });
  it('are searched once they are many', async () => {
    rigServer(['Alder', 'Birch', 'Cedar', 'Dogwood', 'Elder', 'Fir']);
    open();
    const user = userEvent.setup();
    await user.type(await screen.findByLabelText('Search rigs'), ' BIR');
    expect(names()).toEqual(['Birch']);
  });
  it('are duplicated under another name, whole', async () => {
    open();
    const user = userEvent.setup();
    await user.click(within(await row('Clay hour')).getByRole('button', { name: 'Duplicate' }));
    expect(await screen.findByText(rigs.created({ rig: 'Clay hour, copy' }))).toBeTruthy();
    await row('Clay hour, copy');
    const copy = [...server.rigs.values()].find((r) => r.document.name === 'Clay hour, copy')!;
    expect({ ...copy.document, name: '' }).toEqual({ ...server.rigs.get(idOf(1))!.document, name: '' });
  });
  it('go when they are deleted, and come back when that is taken back', async () => {
    open();
    const user = userEvent.setup();
    await user.click(within(await row('Clay hour')).getByRole('button', { name: 'Delete' }));
    expect(await screen.findByText(rigs.deleted({ rig: 'Clay hour' }))).toBeTruthy();
    await waitFor(() => expect(names()).toEqual(['Boathouse relay']));
    await user.click(screen.getByRole('button', { name: /^Undo: / }));
    expect(await screen.findByText(rigs.restored({ rig: 'Clay hour' }))).toBeTruthy();
    await row('Clay hour');
  });
  it('are exported as they are', async () => {
    const blobs: Blob[] = [];
    vi.spyOn(URL, 'createObjectURL').mockImplementation((b) => {
      blobs.push(b as Blob);
      return 'blob:x';
    });
    open();
    const user = userEvent.setup();
    await user.click(within(await row('Clay hour')).getByRole('button', { name: 'Export' }));
    expect(await screen.findByText(rigs.exported({ rig: 'Clay hour' }))).toBeTruthy();
    expect(parseRig(JSON.parse(await blobs[0]!.text())).name).toBe('Clay hour');
    vi.restoreAllMocks();
  });
});

describe('a rig from a file', () => {
  it('is imported, and shown', async () => {
    open();
    await row('Clay hour');
    await choose('tide.json', JSON.stringify({ ...demoRig(), name: 'Tide table' }));
    expect(await screen.findByText(rigs.imported({ rig: 'Tide table' }))).toBeTruthy();
    await row('Tide table');
  });
  it.each([
    ['no JSON', 'half.json', '{"name":'],
    ['of something else', 'other.json', '{"tracks":[]}'],
    ['too large', 'large.json', ' '.repeat(LARGEST_RIG_BYTES + 1)],
  ])('that is %s is refused with what to do, and nothing changes', async (_, name, text) => {
    open();
    await row('Clay hour');
    await choose(name, text);
    const says = await screen.findByRole('button', { name: 'Close' });
    expect(says.closest('.announcement')!.textContent!.length).toBeGreaterThan(30);
    expect(says.closest('.announcement')!.textContent).not.toMatch(/undefined|\[object|Unexpected token/);
    expect(server.rigs.size).toBe(2);
    await userEvent.click(says);
    expect(screen.queryByRole('button', { name: 'Close' })).toBeNull();
  });
});

describe('a desk of one’s own', () => {
  it('begins empty by one key, and opens where it is wired', async () => {
    open();
    await row('Clay hour');
    await userEvent.keyboard('n');
    expect((await screen.findByLabelText('Where')).textContent).toMatch(/^\/rigs\/[0-9a-f-]{36}\/wire$/);
    const made = [...server.rigs.values()].at(-1)!.document;
    expect(made).toMatchObject({ name: rigs.newRig(), devices: [] });
  });
  it('leads to where one types what is there, and to the templates', async () => {
    open();
    await row('Clay hour');
    await userEvent.keyboard('d');
    expect((await screen.findByLabelText('Where')).textContent).toBe('/new');
  });
});

describe('without a server', () => {
  it('says so, and looks again when asked', async () => {
    server.lost = true;
    open();
    const again = await screen.findByRole('button', { name: 'Try again' });
    expect(again.closest('p')!.textContent).toMatch(/server/);
    server.lost = false;
    await userEvent.click(again);
    await row('Clay hour');
  });
  it('deletes nothing, and says why', async () => {
    open();
    const own = await row('Clay hour');
    server.lost = true;
    await userEvent.click(within(own).getByRole('button', { name: 'Delete' }));
    await screen.findByRole('button', { name: 'Close' });
    expect(names()).toContain('Clay hour');
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull();
  });
});

describe('the rig that was open last', () => {
  it('stands first, with the one thing to do next there', async () => {
    rigServer(['One', 'Two']);
    keepLastRig(idOf(1));
    show(<RigsScreen />);
    const last = await screen.findByRole('region', { name: sayNext.lastRig() });
    expect(within(last).getByRole('link', { name: 'Two' }).getAttribute('href')).toBe(`/rigs/${idOf(1)}/next`);
    await waitFor(() =>
      expect(last.textContent).toMatch(/Ready in about \d+ min: \d+ steps\. Next, at “Game console”/),
    );
    expect(screen.getByText(rigs.whatThisIs())).toBeTruthy();
  });
  it('is no other one: not where none was open, nor one that is not there any more', async () => {
    rigServer(['One']);
    keepLastRig(idOf(7));
    show(<RigsScreen />);
    expect(await screen.findByRole('link', { name: 'One' })).toBeTruthy();
    expect(screen.queryByRole('region', { name: sayNext.lastRig() })).toBeNull();
  });
});
