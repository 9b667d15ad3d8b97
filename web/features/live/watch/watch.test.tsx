// @vitest-environment happy-dom
import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { watch as say } from '#words/index.ts';
import { complaintOf, seenBy, WatchNotice, WatchPanel, watchers } from './index.ts';

const RATE = 8000;
let hear: (pieces: readonly Float32Array[], rate: number) => void;
let end: (why: string) => void;
let refuse: string | null = null;
vi.mock('#web/shared/listen/index.ts', () => ({
  openPieces: async (id: string | null, _: number, onPieces: typeof hear, onEnd: typeof end) => {
    if (refuse) throw new Error(refuse);
    hear = onPieces;
    end = onEnd;
    return {
      inputs: [{ id: 'cable', name: 'Cable' }],
      inputId: id ?? 'cable',
      sampleRateHz: RATE,
      stop: () => undefined,
    };
  },
}));
vi.stubGlobal('navigator', { ...navigator, mediaDevices: { enumerateDevices: async () => [] } });
afterEach(() => {
  watchers.stopAll();
  refuse = null;
});

const rig = demoRig();
const seconds = (count: number, left: number, right = left) =>
  act(() =>
    hear(
      [left, right].map((a) => Float32Array.from({ length: count * RATE }, (_, i) => a * Math.sin(i))),
      RATE,
    ),
  );
const open = () =>
  show(
    <>
      <WatchNotice rig={rig} rigId={RIG_ID} />
      <WatchPanel rig={rig} />
    </>,
    { rig },
  );
const begin = async () => {
  const user = userEvent.setup();
  open();
  await user.selectOptions(screen.getByLabelText('What it carries'), 'Stream');
  await user.click(screen.getByRole('button', { name: 'Watch an input' }));
  await screen.findByTestId('watch-card');
  return user;
};
const card = () => screen.getByTestId('watch-card').textContent!;

describe('the watch', () => {
  it('says what is watched and what is not, and over every view what is wrong', async () => {
    const user = await begin();
    expect(card()).toContain('WAITING');
    expect(screen.getByText(/Not monitored: Track 1, all/)).toBeTruthy();
    seconds(3, 0.1);
    await waitFor(() => expect(card()).toContain('WELL'));
    expect(screen.queryByRole('alert')).toBeNull();
    seconds(12, 0);
    await waitFor(() => expect(card()).toContain('SILENT'));
    expect(card()).toContain('Last OK 0:00:12 ago.');
    expect(screen.getByRole('alert').textContent).toContain('Stream: silent');
    const [seen] = seenBy(watchers.snapshot());
    expect(complaintOf(seen!, 'wren')).toEqual({ symptomId: 'nothing-at-all', listenerId: 'stream', sourceId: null });
    seconds(12, 0.1, 0);
    await waitFor(() => expect(card()).toContain(say.oneSideOnly()));
    expect(complaintOf(seenBy(watchers.snapshot())[0]!, 'wren')).toEqual({
      symptomId: 'one-side',
      listenerId: 'stream',
      sourceId: 'wren',
    });
    await user.click(screen.getByRole('button', { name: say.stopWatching() }));
    expect(screen.queryByTestId('watch-card')).toBeNull();
    expect(screen.queryByRole('alert')).toBeNull();
  });
  it('knows what is usual once told, and an input that goes away', async () => {
    const user = await begin();
    seconds(35, 0.1);
    await waitFor(() =>
      expect(screen.getByRole('button', { name: say.setAsNormal() }).getAttribute('aria-disabled')).toBeNull(),
    );
    await user.click(screen.getByRole('button', { name: say.setAsNormal() }));
    seconds(40, 0.02);
    await waitFor(() => expect(card()).toContain(say.levelChanged()));
    act(() => end('The input went away.'));
    await waitFor(() => expect(card()).toContain('GONE'));
    expect(screen.getByRole('alert').textContent).toContain('The input went away.');
  });
  it('says why an input cannot be opened', async () => {
    refuse = 'The browser was not given leave.';
    const user = userEvent.setup();
    open();
    await user.click(screen.getByRole('button', { name: 'Watch an input' }));
    expect(await screen.findByText('The browser was not given leave.')).toBeTruthy();
  });
});
