// @vitest-environment happy-dom
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { inquire, lineUp } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { watch as say } from '#words/index.ts';
import { complaintsIn } from './alarms.ts';
import { complaintOf, seenBy, WatchNotice, WatchPanel, watchers } from './index.ts';

const RATE = 8000;
let hear: (pieces: readonly Float32Array[], rate: number) => void;
let end: (why: string) => void;
let refuse: string | null = null;
/** What this computer has: ids and names. */
let inputs = [{ id: 'cable', name: 'Cable' }];
vi.mock('#web/shared/listen/index.ts', () => ({
  openPieces: async (id: string | null, _: number, onPieces: typeof hear, onEnd: typeof end) => {
    if (refuse) throw new Error(refuse);
    hear = onPieces;
    end = onEnd;
    return {
      inputs,
      inputId: id ?? inputs[0]!.id,
      sampleRateHz: RATE,
      stop: () => undefined,
    };
  },
}));
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...(await original<object>()),
  lineUpFaults: (here: Rig) => ({ result: Promise.resolve(lineUp(here)), stop: () => undefined }),
}));
vi.stubGlobal('navigator', { ...navigator, mediaDevices: { enumerateDevices: async () => [] } });
afterEach(() => {
  watchers.stopAll();
  refuse = null;
  inputs = [{ id: 'cable', name: 'Cable' }];
  localStorage.clear();
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
      <WatchPanel rigId={RIG_ID} rig={rig} />
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
  it('says what its alarms are most likely from, and the one look that tells most of it', async () => {
    await begin();
    seconds(3, 0.1);
    seconds(12, 0);
    const likely = await screen.findByRole('region', { name: 'Most likely' }, { timeout: 20_000 });
    expect(within(likely).getAllByRole('listitem').length).toBeGreaterThan(0);
    const shares = within(likely)
      .getAllByRole('listitem')
      .map((li) => Number(/^(\d+)%/.exec(li.textContent!)![1]));
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    expect(likely.textContent).toMatch(/Check first: .+ s, leaves at most \d+ suspect/);
    expect(screen.getByRole('alert').textContent).toContain('Check first: ');
    // What is said is what the search for a fault says of the same complaint.
    const entries = complaintsIn(rig, seenBy(watchers.snapshot())).map((complaint) => ({
      kind: 'complaint' as const,
      complaint,
    }));
    const { odds } = inquire(rig, lineUp(rig), entries);
    expect(shares[0]).toBe(Math.round(100 * odds[0]!.share));
  });
  it('watches the same inputs as last time, and says of another device that it is another one', async () => {
    const user = await begin();
    seconds(3, 0.1);
    await waitFor(() => expect(card()).toContain('WELL'));
    await user.click(screen.getByRole('button', { name: say.stopWatching() }));
    await user.click(screen.getByRole('button', { name: 'Watch as last time: Cable' }));
    await screen.findByTestId('watch-card');
    expect(screen.queryByRole('button', { name: /^Watch as last time/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: say.stopWatching() }));
    inputs = [{ id: 'lid', name: 'Lid microphone' }];
    await user.click(screen.getByRole('button', { name: 'Watch an input' }));
    await screen.findByTestId('watch-card');
    seconds(3, 0.1);
    await waitFor(() => expect(card()).toContain('OTHER DEVICE'));
    expect(card()).toContain('Last time it came on “Cable”; now it comes on “Lid microphone”.');
    // Nothing is wrong with it yet.
    expect(complaintsIn(rig, seenBy(watchers.snapshot()))).toEqual([]);
    await user.click(screen.getByRole('button', { name: say.setAsNormal() }));
    await waitFor(() => expect(card()).toContain('WELL'));
    await user.click(screen.getByRole('button', { name: say.stopWatching() }));
    expect(screen.getByRole('button', { name: 'Watch as last time: Lid microphone' })).toBeTruthy();
    refuse = 'That input isn’t there.';
    await user.click(screen.getByRole('button', { name: 'Watch as last time: Lid microphone' }));
    expect(await screen.findByText('“Lid microphone”: That input isn’t there.')).toBeTruthy();
  });
  it('says why an input cannot be opened', async () => {
    refuse = 'The browser was not given leave.';
    const user = userEvent.setup();
    open();
    await user.click(screen.getByRole('button', { name: 'Watch an input' }));
    expect(await screen.findByText('The browser was not given leave.')).toBeTruthy();
  });
});
