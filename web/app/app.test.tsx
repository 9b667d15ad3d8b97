// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { addTasks, applyEdit, type Edit, markDone, type Rig } from '#core/model/rig/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { TwoVerbs } from '#web/shared/parts/index.ts';
import { applyStep, lost, overtaken, selectRig, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { common, frame, next } from '#words/index.ts';
import { RigNotices } from './RigNotices.tsx';
import { RigTop } from './RigTop.tsx';
import { useAnnouncedSteps } from './useAnnouncedSteps.ts';
import { verdictOf } from './verdict.ts';

beforeEach(() => stubServer(noServer));

function Top() {
  const rig = useAppSelector(selectRig);
  const verdict = rig && verdictOf(rig);
  return rig && verdict ? <RigTop rigId={RIG_ID} rig={rig} verdict={verdict} /> : null;
}
const verdictSaid = () => screen.getByLabelText('Verdict').textContent!.trim();
const edited = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const delay = (settingId: string, value: number) => ({ deviceId: 'mixer', settingId, value });
const planned = () =>
  edited(
    demoRig(),
    addTasks(
      demoRig(),
      [
        delay('strip-1-delay', 171),
        delay('strip-2-delay', 20),
        { deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 60 },
      ],
      '2026-11-25T10:00:00Z',
    ),
  );

describe('the top line', () => {
  it('says how the rig stands and what that rests on', () => {
    show(<Top />);
    expect(verdictSaid()).toMatch(/ \d+ to fix$/);
    expect(screen.getByRole('link', { name: next.planning() })).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Undo' }).getAttribute('aria-disabled')).toBe('true');
  });
  it('counts what is to be done, and never calls good what rests on it', () => {
    const pairsOff = planned();
    const devices = pairsOff.devices.filter((d) => ['capture-program', 'desk-computer', 'mixer'].includes(d.id));
    show(<Top />, { rig: { ...pairsOff, devices, cables: [], sources: [], listeners: [], plan: [], dismissed: [] } });
    expect(verdictSaid()).toMatch(/ 3 warnings$/);
  });
  it('undoes and does again, by button and by key, and says what', async () => {
    const user = userEvent.setup();
    const { store } = show(<Top />);
    const name = () => selectRig(store.getState())!.name;
    store.dispatch(applyStep({ kind: 'rename', name: 'Second try' }, 'Another name'));
    const undo = await screen.findByTitle('Undo: Another name');
    await user.click(undo);
    expect(name()).toBe('Boathouse relay');
    expect(screen.getByTitle('Redo: Another name')).toBeTruthy();
    await user.keyboard('{Control>}{Shift>}z{/Shift}{/Control}');
    expect(name()).toBe('Second try');
    await user.keyboard('{Control>}z{/Control}');
    expect(name()).toBe('Boathouse relay');
  });
});

function Verbs() {
  useAnnouncedSteps();
  const dispatch = useAppDispatch();
  return <TwoVerbs onVerb={(verb) => dispatch(applyStep({ kind: 'rename', name: verb }, `Named ${verb}`))} isKeyed />;
}

describe('between the rig in hand and the server', () => {
  it('what a verb does is explained with the first step that it makes here, once; each step has its way back', async () => {
    localStorage.clear();
    const { store } = show(<Verbs />);
    const name = () => selectRig(store.getState())!.name;
    await userEvent.click(screen.getByRole('button', { name: /^Already done/ }));
    expect(screen.getByText(`Named done. ${common.alreadyDoneEffect()}`)).toBeTruthy();
    await userEvent.keyboard('d');
    expect(screen.getByText(`Named to-do. ${common.addToDoEffect()}`)).toBeTruthy();
    await userEvent.keyboard('y');
    expect(screen.getByText('Named done.')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Undo: Named done' }));
    expect(name()).toBe('to-do');
    expect(screen.getByText('Undone: Named done.')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Redo: Named done' }));
    expect(name()).toBe('done');
  });
  it('a lost server is said, and that nothing is lost', async () => {
    const { store } = show(<RigNotices />);
    store.dispatch(applyStep({ kind: 'rename', name: 'x' }, 'x'));
    store.dispatch(lost());
    expect(await screen.findByText(/Your changes are kept in this browser/)).toBeTruthy();
  });
  it('another window’s rig can be taken, or one’s own kept', async () => {
    const theirs = edited(demoRig(), markDone(demoRig(), [delay('strip-1-delay', 9)]));
    for (const [button, expected] of [
      [frame.theirVersion(), 9],
      [frame.myVersion(), 7],
    ] as const) {
      const { store, unmount } = show(<RigNotices />);
      store.dispatch(applyStep(markDone(demoRig(), [delay('strip-1-delay', 7)]), 'mine'));
      store.dispatch(overtaken({ revision: 4, rig: theirs }));
      await userEvent.click(await screen.findByRole('button', { name: button }));
      const mixer = selectRig(store.getState())!.devices.find((d) => d.id === 'mixer')!;
      expect(mixer.settings['strip-1-delay']!.value).toBe(expected);
      expect(screen.queryByText(/Another window/)).toBeNull();
      unmount();
    }
  });
  it('a refused change is said with its reason', async () => {
    const { store } = show(<RigNotices />);
    store.dispatch(applyStep({ kind: 'unplug', cableId: 'no-such-cable' }, 'unplug'));
    expect(await screen.findByText(/no-such-cable/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: common.dismiss() }));
    expect(screen.queryByText(/no-such-cable/)).toBeNull();
  });
});
