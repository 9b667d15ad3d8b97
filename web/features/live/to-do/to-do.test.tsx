// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { sayTask } from '#core/live/next/index.ts';
import { addTasks, applyEdit, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig, undoStep } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { toDo as say } from '#words/index.ts';
import { ToDoScreen } from './index.ts';

beforeEach(() => stubServer(noServer));

const edited = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const openedAt = '2026-11-25T10:00:00Z';
const planned = () => {
  const change = (deviceId: string, settingId: string, value: number) => ({ deviceId, settingId, value });
  const changes = [
    change('mixer', 'strip-1-delay', 171),
    change('mixer', 'strip-2-delay', 20),
    change('capture-program', 'in-2-picture-delay', 60),
  ];
  return edited(demoRig(), addTasks(demoRig(), changes, openedAt));
};
function open(rig: Rig = demoRig(), at = '/') {
  const { store } = show(<ToDoScreen />, { rig, at });
  return { user: userEvent.setup(), store, rig: () => selectRig(store.getState())! };
}
const section = (name: string) => within(screen.getByRole('region', { name }));

describe('at the desk', () => {
  it('asks by box what decides most first, and shows where to look', async () => {
    open();
    await waitFor(() => expect(screen.getByText(/would change a result/)).toBeTruthy());
    const first = screen.getAllByRole('region')[0]!;
    expect(within(first).getByRole('heading').textContent).toBe('Mixer');
    const told = [...first.querySelectorAll('tr')].map((row) => Number(/affects (\d+)/.exec(row.textContent!)?.[1]));
    expect(told).toEqual([...told].sort((a, b) => b - a));
    expect(told[0]).toBeGreaterThan(0);
    expect(screen.getByRole('img', { name: /^“Mixer, digital.*look at / })).toBeTruthy();
  });
  it('is answered by keys: the question goes, the next one stands in its place, undo brings it back', async () => {
    const { user, store, rig } = open();
    const asked = await screen.findByRole('button', { name: '“Channels 9 and 10, input”: jacks or USB return?' });
    await user.click(asked);
    const before = rig();
    await user.keyboard('2');
    expect(rig().devices.find((d) => d.id === 'mixer')!.settings['strip-9-10-input']).toEqual({
      value: 'jacks',
      known: 'confirmed',
    });
    await waitFor(() => expect(screen.queryByRole('button', { name: /^“Channels 9 and 10, input”/ })).toBeNull());
    expect(screen.getByRole('complementary', { name: say.toCheck() })).toBeTruthy();
    store.dispatch(undoStep());
    expect(rig()).toEqual(before);
  });
  it('is walked by j and k, and a yes makes what was assumed seen', async () => {
    const { user, rig } = open();
    await screen.findByRole('button', { name: /^“Channels 9 and 10, input”/ });
    const pressed = () => screen.getByRole('button', { pressed: true }).textContent;
    const first = pressed();
    await user.keyboard('j');
    expect(pressed()).not.toBe(first);
    await user.keyboard('k');
    expect(pressed()).toBe(first);
    await user.click(screen.getByRole('button', { name: /^How long is the cable “Camera capture”/ }));
    expect(screen.getByText(say.ifAssumptionIsRight())).toBeTruthy();
    const length = screen.getByLabelText('Length, m');
    await user.clear(length);
    await user.type(length, '1,2{Enter}');
    expect(rig().cables.find((c) => c.id === 'camera-usb')).toMatchObject({ lengthM: 1.2, known: 'confirmed' });
    await user.keyboard('y');
    expect(rig().tasks).toEqual([]);
  });
  it('lists what is to do in words with units, ticked or dropped one by one', async () => {
    const { user, rig } = open(planned());
    const mixer = () => section('Mixer');
    await user.click(mixer().getByRole('button', { name: 'Channel 1, delay: 0 → 171 ms' }));
    await user.keyboard('d');
    expect(rig().devices.find((d) => d.id === 'mixer')!.settings['strip-1-delay']).toEqual({
      value: 171,
      known: 'confirmed',
    });
    await user.click(section('Streaming software').getByRole('button', { name: /^Input 2/ }));
    await user.click(screen.getByRole('button', { name: /Cancel this task/ }));
    expect(rig().tasks.map((t) => t.id)).toEqual(['mixer.strip-2-delay']);
  });
  it('opens at the very item that the address names', async () => {
    open(planned(), '/?at=task:mixer.strip-2-delay');
    const chosen = await screen.findByRole('button', { pressed: true });
    expect(chosen.textContent).toMatch(/^Channel 2, delay/);
  });
  it('says so when there is nothing left', () => {
    const bare = { ...demoRig(), devices: [], cables: [], sources: [], listeners: [], plan: [], dismissed: [] };
    open(parseRig(bare));
    expect(screen.getByText(/All done: everything that matters is confirmed\./)).toBeTruthy();
  });
});

describe('leads that are to be changed', () => {
  const before = demoRig();
  const lead = (id: string) => before.cables.find((c) => c.id === id)!;
  const rig: Rig = {
    ...before,
    cables: before.cables
      .filter((c) => c.id !== 'wren-xlr')
      .map((c) => (c.id === 'camera-hdmi' ? { ...c, lengthM: 1 } : c)),
    tasks: [
      { id: 'lead:camera-hdmi', cableId: 'camera-hdmi', before: lead('camera-hdmi'), openedAt },
      { id: 'lead:extractor-line', cableId: 'extractor-line', before: null, openedAt },
      { id: 'lead:wren-xlr', cableId: 'wren-xlr', before: lead('wren-xlr'), openedAt },
    ],
  };
  it('are said by what to put in, change or take out', () => {
    expect(rig.tasks.map((t) => textOf(sayTask(rig, t)))).toEqual([
      'Change the cable Couch camera, HDMI → Camera capture, HDMI in: 1 m',
      'Connect Audio extractor, line out → Mixer, Channels 5 and 6 (3 m cable)',
      'Unplug the cable from Wren’s microphone, XLR',
    ]);
  });
  it('stand with the box that they go into, and come back when they are dropped', async () => {
    const { user, rig: now } = open(rig);
    await user.click(section('Mixer').getByRole('button', { name: /^Unplug the cable from Wren/ }));
    await user.keyboard('n');
    expect(now().cables.some((c) => c.id === 'wren-xlr')).toBe(true);
    expect(now().tasks).toHaveLength(2);
  });
});

describe('a switch with names', () => {
  it('is said by its positions', () => {
    const glider = parseRig(JSON.parse(JSON.stringify(gliderCorner)));
    const device = glider.devices.find((d) => Object.values(d.settings).some((s) => typeof s.value === 'string'))!;
    const [settingId, now] = Object.entries(device.settings).find(([, s]) => typeof s.value === 'string')!;
    const task = { id: `${device.id}.${settingId}`, deviceId: device.id, settingId, before: now, openedAt };
    const said = textOf(sayTask(glider, task));
    expect(said).toMatch(/: (.+) → \1$/);
    expect(said).not.toContain(settingId);
  });
});
