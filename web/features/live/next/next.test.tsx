// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { planAhead } from '#core/live/next/index.ts';
import { addTasks, applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { quayDeskMixer } from '#demo/quay-desk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import {
  recordEvent,
  selectRig,
  selectSession,
  undoStep,
  useAppSelector,
  useJournal,
} from '#web/shared/store/index.ts';
import { RIG_ID, show } from '#web/web.testkit.tsx';
import { common, next as say } from '#words/index.ts';
import { AheadProvider, NextLine, NextScreen, Standing } from './index.ts';

vi.mock('#web/shared/workers/index.ts', () => ({
  planNext: (rig: Rig, last: Rig | null) => ({
    result: Promise.resolve().then(() => planAhead(rig, { solve: null, last })),
    stop: () => undefined,
  }),
}));
beforeEach(() => stubServer(noServer));

const copy = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));

function Framed() {
  const rig = useAppSelector(selectRig)!;
  useJournal(RIG_ID);
  return (
    <AheadProvider rig={rig}>
      <Standing rigId="r" />
      <NextLine rig={rig} rigId="r" />
      <NextScreen />
    </AheadProvider>
  );
}

function InHand() {
  const rig = useAppSelector(selectRig)!;
  useJournal(RIG_ID);
  return (
    <AheadProvider rig={rig}>
      <NextScreen hand />
    </AheadProvider>
  );
}

function open(rig: Rig) {
  const { store } = show(<Framed />, { rig: copy(rig) });
  const line = () => screen.getByRole('region', { name: say.next() });
  return { user: userEvent.setup(), store, line, rig: () => selectRig(store.getState())! };
}

describe('the next step', () => {
  it('says what, where, how long and why, and is done by one key; undo brings it back', async () => {
    const { user, line, rig, store } = open(clayHour);
    await waitFor(() => expect(line().textContent).toContain('set “USB records” to send'));
    expect(line().textContent).toContain(say.atDevice({ device: 'Mixer' }));
    expect(line().textContent).toContain(say.about({ minutes: 1 }));
    expect(line().textContent).toContain('Clears an issue.');
    const before = rig();
    await user.keyboard('{Shift>}Y{/Shift}');
    expect(rig().devices.find((d) => d.id === 'mixer')!.settings['usb-source']).toEqual({
      value: 'send',
      known: 'confirmed',
    });
    await waitFor(() => expect(line().textContent).toContain('Questions'));
    store.dispatch(undoStep());
    expect(rig()).toEqual(before);
  });
  it('goes onto the to-do list by the other key, and comes as an errand then', async () => {
    const { user, line, rig } = open(clayHour);
    await waitFor(() => expect(line().textContent).toContain('set “USB records” to send'));
    await user.keyboard('{Shift>}D{/Shift}');
    expect(rig().tasks.length).toBe(3);
    const errand = await screen.findByText(/^“Mixer”: .*USB records: .* → send/, {}, { timeout: 5000 });
    const item = within(errand.closest('li')!);
    await user.click(item.getByRole('button', { name: new RegExp(`^${say.done()}:`) }));
    expect(rig().tasks).toEqual([]);
  });
  it('is accepted with a reason where nothing mends it, and never without', async () => {
    const { user, line, rig } = open(skerryNet);
    await waitFor(() => expect(line().textContent).toContain('Ground loop'));
    await user.keyboard('{Shift>}Y{/Shift}');
    const reason = within(line()).getByLabelText(say.reason());
    await user.keyboard('{Enter}');
    expect(rig().dismissed).toEqual([]);
    await user.type(reason, 'A DI box is there{Enter}');
    expect(rig().dismissed).toMatchObject([{ reason: 'A DI box is there' }]);
  });
  it('ends at ready, by as much as ready means there', async () => {
    const { user, line } = open(quayDeskMixer);
    await waitFor(() => expect(line().textContent).toContain('line isolator'));
    await user.keyboard('{Shift>}Y{/Shift}');
    await waitFor(() => expect(line().textContent).toContain(say.readyConfirmed()));
    await user.selectOptions(screen.getByLabelText(say.readyMeans()), say.levelRehearsed());
    await waitFor(() => expect(line().textContent).toContain('Rehearse: start a session'));
    expect(screen.getByText(/^Ready in about \d+ min: 1 step$/, { selector: 'a' })).toBeTruthy();
  });
  it('is the run while a session goes on: steps, then checks, one of which may fail', async () => {
    const { user, line, store } = open(quayDeskMixer);
    store.dispatch(recordEvent({ kind: 'begin', name: 'x' }));
    await waitFor(() => expect(line().textContent).toContain('step 1 of'));
    for (let n = 0; !line().textContent!.includes(say.notOk()); n++) {
      expect(n).toBeLessThan(40);
      await user.keyboard('{Shift>}Y{/Shift}');
    }
    while (!line().textContent!.includes(say.runDone())) await user.keyboard('{Shift>}Y{/Shift}');
    expect(within(line()).getByRole('link', { name: say.show() })).toBeTruthy();
  });
});

describe('all steps', () => {
  it('stand by place in their order, each with its own buttons, named apart', async () => {
    const { line } = open(skerryNet);
    await waitFor(() => expect(line().textContent).toContain('Ground loop'));
    const stops = screen.getAllByRole('region').filter((r) => r.className === 'next-stop');
    expect(stops.map((s) => s.getAttribute('aria-label'))).toEqual([
      say.atDevice({ device: 'Radio A' }),
      say.atDevice({ device: 'Radio B' }),
    ]);
    const names = screen
      .getAllByRole('button', { name: new RegExp(`^${say.acceptWithReason()}`) })
      .map((b) => b.getAttribute('aria-label'));
    expect(new Set(names).size).toBe(2);
    expect(screen.getByRole('button', { name: new RegExp(common.print()) })).toHaveProperty('disabled', false);
  });
});

describe('in the hand', () => {
  it('ticks errands by telling the desk, and changes nothing itself', async () => {
    const change = { deviceId: 'mixer', settingId: 'usb-source', value: 'send' };
    const planned = applyEdit(copy(clayHour), addTasks(copy(clayHour), [change], '2026-12-01T10:00:00Z'));
    if (!planned.ok) throw new Error('refused');
    const { store } = show(<InHand />, { rig: planned.rig });
    const done = await screen.findByRole('button', { name: new RegExp(`^${say.done()}:`) });
    const before = selectRig(store.getState());
    await userEvent.setup().click(done);
    expect(selectRig(store.getState())).toBe(before);
    expect(Object.keys(selectSession(store.getState())!.tasks)).toEqual(['mixer.usb-source']);
    expect(screen.queryByRole('button', { name: /^Already done/ })).toBeNull();
    expect(screen.queryByLabelText(say.readyMeans())).toBeNull();
  });
});
