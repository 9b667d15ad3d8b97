// @vitest-environment happy-dom
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes, useLocation } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { readDesk } from '#core/intake/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { firstDesk as say } from '#words/index.ts';
import { FirstDeskScreen } from './index.ts';
import { nameFor } from './name.ts';
import { ownWords, remember } from './own-words.ts';
import { OTHER, stepsOf } from './steps.ts';

// A document of tests has no workers: the same reading, at once.
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...(await original<object>()),
  openDeskReader: () => ({
    read: async (...asked: Parameters<typeof readDesk>) => readDesk(...asked),
    close: () => undefined,
  }),
}));

let made: Rig[] = [];
beforeEach(() => {
  made = [];
  stubServer(async (request) => {
    if (request.method === 'GET') return answer(200, []);
    const { id, document } = (await request.json()) as { id: string; document: unknown };
    made.push(parseRig(document));
    return answer(201, { id, revision: 1, updatedAt: '2026-11-30T10:00:00.000Z', document });
  });
});

const Where = () => <output aria-label="Where">{useLocation().pathname}</output>;
const open = (at = '/new') =>
  show(
    <Routes>
      <Route path="/new" element={<FirstDeskScreen />} />
      <Route path="*" element={<Where />} />
    </Routes>,
    { at },
  );
const field = () => screen.getByRole('textbox', { name: 'What’s on your desk' });
const type = (text: string) => fireEvent.change(field(), { target: { value: text } });
const region = (name: string) => screen.findByRole('region', { name });

describe('a first desk', () => {
  it('shows what is understood, what follows and what everybody will hear, and makes it', async () => {
    open();
    const user = userEvent.setup();
    type('console > capture card > pc > streaming app; usb mic > pc');
    expect(within(await region('What was understood')).getByText('capture card')).toBeTruthy();
    expect((await region('What follows')).textContent).toContain('Streaming app takes Capture card as input 1');
    const table = screen.getByRole('table');
    expect(within(table).getByRole('columnheader', { name: /Streaming app/ })).toBeTruthy();
    expect(table.textContent).toContain('clear');
    expect(screen.getByRole('img', { name: /6 devices/ })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /Create this rig/ }));
    expect((await screen.findByLabelText('Where')).textContent).toMatch(/^\/rigs\/[0-9a-f-]{36}\/route$/);
    expect(made).toHaveLength(1);
    expect(made[0]!.name).toMatch(/^Stream desk, [A-Z][a-z]+day$/);
    expect(made[0]!.plan.some((c) => c.want === 'must')).toBe(true);
  });
  it('asks a word that it does not know, remembers it, and takes it along with the rig', async () => {
    open();
    const user = userEvent.setup();
    type('console > blue box > tv');
    const asked = await region('You decide');
    expect(asked.textContent).toMatch(/1 word I don’t know/);
    await user.type(field(), '{Enter}');
    const question = within(asked)
      .getByText(/what is it/)
      .closest('li')!;
    await waitFor(() => expect(document.activeElement).toBe(question));
    const choice = within(question).getByRole('button', { name: /HDMI splitter, one in/ });
    await user.keyboard(within(choice).getByText(/\d/).textContent!);
    await waitFor(() => expect(screen.queryByText(/what is it/)).toBeNull());
    expect(ownWords().get('blue box')).toMatch(/^hdmi-splitter/);
    await user.click(screen.getByRole('button', { name: /Create this rig/ }));
    await screen.findByLabelText('Where');
    expect(made[0]!.words).toEqual({ 'blue box': ownWords().get('blue box') });
  });
  it('offers the whole list for a word, by what it does', async () => {
    open();
    const user = userEvent.setup();
    type('console > thingy > pc');
    const asked = await region('You decide');
    await user.click(within(asked).getAllByRole('button', { name: /Something else/ })[0]!);
    const dialog = await screen.findByRole('dialog', { name: 'What is “thingy”?' });
    await user.type(within(dialog).getByRole('combobox'), 'capture stick{Enter}');
    await waitFor(() => expect(ownWords().get('thingy')).toBe('capture-stick'));
  });
  it('is answered by keys, one question after another, and changed at once', async () => {
    open();
    const user = userEvent.setup();
    type('usb headset > pc > streaming app; friend on voice chat; usb mic > pc');
    const asked = await region('You decide');
    expect(within(asked).getByRole('button', { name: /^Yes/ }).getAttribute('aria-pressed')).toBe('true');
    await user.type(field(), '{Enter}');
    await user.keyboard('2');
    await waitFor(() =>
      expect(within(asked).getByRole('button', { name: /^No/ }).getAttribute('aria-pressed')).toBe('true'),
    );
    await waitFor(() => expect(screen.getByRole('table').textContent).toContain('not there, as required'));
    await user.keyboard('{ArrowUp}');
    await user.keyboard('{Escape}');
    expect(document.activeElement).toBe(field());
  });
  it('takes back what follows, and puts it back', async () => {
    open();
    const user = userEvent.setup();
    type('console > capture card > pc > streaming app');
    const remove = await screen.findByRole('button', { name: /^Remove: Streaming app takes Capture card/ });
    await user.click(remove);
    const back = await screen.findByRole('button', { name: /^Put back: Streaming app takes Capture card/ });
    await user.click(back);
    expect(await screen.findByRole('button', { name: /^Remove: Streaming app takes Capture card/ })).toBeTruthy();
  });
  it('makes what follows in another way', async () => {
    open();
    const user = userEvent.setup();
    type('console > capture card > pc > streaming app');
    const change = await screen.findByRole('button', { name: /^Change: Streaming app takes Capture card/ });
    await user.click(change);
    const others = screen.getByRole('group', { name: /^Instead of: Streaming app takes Capture card/ });
    expect(within(others).getByRole('button', { name: 'On its own track 2 too' }).getAttribute('aria-pressed')).toBe(
      'true',
    );
    await user.click(within(others).getByRole('button', { name: 'In the mix only' }));
    await waitFor(() => expect(screen.queryByText(/on its own track 2/)).toBeNull());
    expect(within(others).getByRole('button', { name: 'In the mix only' }).getAttribute('aria-pressed')).toBe('true');
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('group', { name: /^Instead of/ })).toBeNull();
  });
  it('begins with a template: its questions by keys, its words to be changed', async () => {
    open('/new?template');
    const user = userEvent.setup();
    const dialog = await screen.findByRole('dialog', { name: say.chooseTemplate() });
    await user.type(within(dialog).getByRole('combobox'), 'podcast{Enter}');
    expect(await screen.findByText(/Question 1 of/)).toBeTruthy();
    for (let i = 0; i < 4; i++) await user.keyboard('1');
    await waitFor(() =>
      expect((field() as HTMLTextAreaElement).value).toContain('2 xlr mics > digital mixer > laptop'),
    );
  });
  it('says what the server says, and keeps the text', async () => {
    stubServer(async (request) =>
      request.method === 'GET'
        ? answer(200, [])
        : answer(507, { type: 'about:blank', title: 'Full', status: 507, detail: 'The disk is full.' }),
    );
    open();
    const user = userEvent.setup();
    type('usb mic > laptop');
    await user.click(await screen.findByRole('button', { name: /Create this rig/ }));
    expect(await screen.findByText(/The disk is full/)).toBeTruthy();
    expect((field() as HTMLTextAreaElement).value).toBe('usb mic > laptop');
  });
});

describe('names and words', () => {
  it('name a desk by what runs on it, each once', () => {
    const monday = new Date('2026-11-30T12:00:00');
    const call = readDesk('usb headset > laptop; video call').rig;
    expect(nameFor(call, [], monday)).toBe('Call desk, Monday');
    expect(nameFor(call, ['Call desk, Monday', 'Call desk, Monday 2'], monday)).toBe('Call desk, Monday 3');
    expect(nameFor(null, [], monday)).toBe('Desk, Monday');
  });
  it('are kept on this computer, and a broken list is none', () => {
    remember(new Map([['old bess', 'mixer-usb-10']]));
    expect(ownWords().get('old bess')).toBe('mixer-usb-10');
    localStorage.setItem('mellow-tap.words', '{"a":1}');
    expect(ownWords().size).toBe(0);
  });
  it('are asked first where nobody knows them, then where they are doubtful', () => {
    const steps = stepsOf(readDesk('turquoise usb mixer > pc; teapot > usb mixer'));
    expect(steps.slice(0, 2).map((s) => s.kind)).toEqual(['unknown', 'doubtful']);
    expect(steps[0]).toMatchObject({ words: 'teapot', taken: null });
    expect(steps[0]!.options.at(-1)!.id).toBe(OTHER);
    expect(steps[1]!.asks).toContain('turquoise');
  });
});
