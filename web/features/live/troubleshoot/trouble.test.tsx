// @vitest-environment happy-dom
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { lineUp } from '#core/live/troubleshoot/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { useJournal } from '#web/shared/store/index.ts';
import { clearPage, demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { common, troubleshoot as say } from '#words/index.ts';
import { TroubleshootScreen } from './index.ts';

const rig = demoRig();
const lineup = lineUp(rig);
vi.mock('#web/shared/workers/index.ts', async (original) => ({
  ...((await original()) as object),
  lineUpFaults: () => ({ result: Promise.resolve(lineup), stop: () => undefined }),
}));

beforeEach(() => {
  stubServer(noServer);
  localStorage.clear();
});

function Here() {
  useJournal(RIG_ID);
  return <TroubleshootScreen />;
}
const open = () =>
  show(
    <Routes>
      <Route path="/rigs/:rigId/trouble" element={<Here />} />
    </Routes>,
    { rig, at: `/rigs/${RIG_ID}/trouble` },
  );
const press = (key: string) => fireEvent.keyDown(document.body, { key, code: /\d/.test(key) ? `Digit${key}` : key });
const suspects = () => screen.getByLabelText('Suspects').textContent!;
const complain = async (
  user: ReturnType<typeof userEvent.setup>,
  listener: string,
  source: string,
  symptom?: string,
) => {
  await user.selectOptions(screen.getByLabelText(common.destination()), listener);
  await user.selectOptions(screen.getByLabelText('Source'), source);
  if (symptom) await user.selectOptions(screen.getByLabelText('Symptom'), symptom);
  await user.click(screen.getByRole('button', { name: /Report problem|This works/ }));
};

describe('something is wrong', () => {
  it('is narrowed from a complaint by answers to its cause, kept over a reload, and remembered', async () => {
    const user = userEvent.setup();
    const { store } = open();
    await complain(user, 'Backup recorder', 'Wren, voice');
    await waitFor(() => expect(screen.getByTestId('next-look').textContent).toContain('Check this first'));
    expect(suspects()).toContain('“Mixer”, Channel 1, mute: on instead of off.');
    clearPage();
    open();
    expect(await screen.findByText('“Wren, voice” at “Backup recorder”: not heard.')).toBeTruthy();
    // As one answers whose strip is muted.
    for (let n = 0; n < 6 && !screen.queryByTestId('found')?.textContent?.includes('mute'); n++) {
      const buttons = within(screen.getByTestId('next-look')).getAllByRole('button');
      const shown =
        buttons.find((b) => /mute: on/.test(b.textContent!)) ??
        buttons.find((b) => /All are on|As always|No change|drawn/.test(b.textContent!));
      await user.click(shown ?? buttons[0]!);
    }
    expect(screen.getByTestId('found').textContent).toContain('“Mixer”: set Channel 1, mute to off.');
    await user.click(screen.getByRole('button', { name: /^It was this/ }));
    expect(screen.queryByTestId('found')).toBeNull();
    await complain(user, 'Backup recorder', 'Wren, voice');
    await waitFor(() => expect(suspects()).toContain('It was this once before.'));
    void store;
  });
  it('offers what is most likely on this rig, one press away', async () => {
    const user = userEvent.setup();
    open();
    const likely = await screen.findByLabelText(say.mostCommonProblemsOn());
    const [first] = within(likely).getAllByRole('button');
    const says = first!.textContent!;
    await user.click(first!);
    expect(screen.getByLabelText(say.yourAnswers()).textContent).toContain(says);
    expect(screen.getByTestId('next-look')).toBeTruthy();
  });
  it('has each answer taken back, looks that nobody can tell left out, and other looks at hand', async () => {
    const user = userEvent.setup();
    open();
    await complain(user, 'Stream', 'Couch game', 'no video');
    await waitFor(() => screen.getByTestId('next-look'));
    const first = screen.getByTestId('next-look').textContent;
    press('0');
    expect(screen.getByTestId('next-look').textContent).not.toBe(first);
    expect(screen.getByLabelText(say.yourAnswers()).textContent).toContain('Don’t know.');
    press('1');
    expect(within(screen.getByLabelText(say.yourAnswers())).getAllByRole('listitem')).toHaveLength(3);
    press('Backspace');
    expect(within(screen.getByLabelText(say.yourAnswers())).getAllByRole('listitem')).toHaveLength(2);
    const others = within(screen.getByLabelText(say.otherChecks())).getAllByRole('button');
    await user.click(others[1]!);
    expect(screen.getByTestId('next-look').textContent).toContain(others[1]!.textContent!.split('?')[0]);
    await user.click(screen.getByRole('button', { name: say.startOver() }));
    expect(screen.queryByTestId('next-look')).toBeNull();
  });
  it('takes what still works, and says so where the rig does it as drawn', async () => {
    const user = userEvent.setup();
    open();
    await complain(user, 'Ilse’s ears', 'Ilse, on the call', 'heard but shouldn’t be (e.g. your own voice)');
    await waitFor(() => expect(suspects()).toContain(say.rigDoesThisAs()));
    await user.click(screen.getByRole('button', { name: say.startOver() }));
    await complain(user, 'Backup recorder', 'Wren, voice', 'not heard');
    await complain(user, 'Players’ ears', 'Wren, voice', say.worksAsItShould());
    expect(screen.getByLabelText(say.yourAnswers()).textContent).toContain(
      '“Wren, voice” at “Players’ ears” works as it should.',
    );
    await waitFor(() => expect(suspects()).not.toContain('Wren’s microphone'));
  });
  it('draws the rig as the desk is, where it is to stay so', async () => {
    const user = userEvent.setup();
    const { store } = open();
    await complain(user, 'Backup recorder', 'Ambrose, jingles', 'too quiet');
    await waitFor(() => screen.getByTestId('next-look'));
    for (let n = 0; n < 8 && !screen.queryByRole('button', { name: /Keep it that way: update the drawing/ }); n++) {
      const buttons = within(screen.getByTestId('next-look')).getAllByRole('button');
      await user.click(buttons.find((b) => /gain|fader|Weaker/.test(b.textContent!)) ?? buttons[0]!);
    }
    const before = store.getState().desk!.history!.rig;
    await user.click(screen.getByRole('button', { name: /Keep it that way: update the drawing/ }));
    expect(store.getState().desk!.history!.rig).not.toBe(before);
  });
});
