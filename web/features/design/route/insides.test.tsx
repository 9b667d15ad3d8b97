// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { atMoment, findDevice } from '#core/model/rig/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { applyStep, lookedAt, selectRig } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { common, route as say } from '#words/index.ts';
import { RouteScreen } from './index.ts';

beforeEach(() => stubServer(noServer));

function open() {
  const { store } = show(<RouteScreen />, { rig: demoRig() });
  const now = () => selectRig(store.getState())!;
  const setting = (deviceId: string, id: string) => findDevice(now(), deviceId)!.settings[id];
  return { user: userEvent.setup(), store, now, setting };
}
const inside = () => within(screen.getByRole('region', { name: say.insideDevices() }));

describe('the inside of a box', () => {
  it('shows what passes, and which control shuts what does not; a change is heard in the table at once', async () => {
    const { user, setting } = open();
    await user.selectOptions(inside().getByLabelText(common.device()), 'mixer');
    expect(inside().getByText('muted: Channel 1, send 1')).toBeTruthy();
    expect(screen.getByRole('gridcell', { name: /^Wren, voice at Room: not received/ })).toBeTruthy();
    const send = inside().getByLabelText('Mixer, Channel 1, send 1, dB');
    await user.clear(send);
    await user.type(send, '-3,2{Enter}');
    expect(setting('mixer', 'strip-1-send-1')).toEqual({ value: -3, known: 'confirmed' });
    expect(inside().queryByText('muted: Channel 1, send 1')).toBeNull();
    expect(screen.getByRole('gridcell', { name: /^Wren, voice at Room: arrives/ })).toBeTruthy();
  });
  it('sets mutes and switches with one press; as so already, or to be done at the desk', async () => {
    const { user, now, setting } = open();
    await user.selectOptions(inside().getByLabelText(common.device()), 'mixer');
    await user.selectOptions(inside().getByLabelText(say.myChangesAre()), 'to-do');
    await user.click(inside().getByRole('button', { name: 'Mixer, Channel 1, mute' }));
    expect(setting('mixer', 'strip-1-mute')).toEqual({ value: true, known: 'assumed' });
    expect(now().tasks.map((t) => t.id)).toContain('mixer.strip-1-mute');
    await user.selectOptions(inside().getByLabelText('Mixer, Channels 9 and 10, input'), 'jacks');
    expect(setting('mixer', 'strip-9-10-input')!.value).toBe('jacks');
  });
  it('refuses what the control cannot do, and turns a level off by its word', async () => {
    const { user, setting } = open();
    await user.selectOptions(inside().getByLabelText(common.device()), 'mixer');
    const gain = inside().getByLabelText('Mixer, Channel 1, gain, dB');
    await user.clear(gain);
    await user.type(gain, '99');
    expect(gain.getAttribute('aria-invalid')).toBe('true');
    await user.keyboard('{Enter}');
    expect(setting('mixer', 'strip-1-gain')!.value).toBe(58);
    const send = inside().getByLabelText('Mixer, Channel 1, send 3, dB');
    await user.clear(send);
    await user.type(send, 'off{Enter}');
    expect(setting('mixer', 'strip-1-send-3')!.value).toBe(-90);
  });
  it('presses in the moment that is looked at, and leaves the rig as it is', async () => {
    const { user, store, now, setting } = open();
    const moment = { id: 'break', name: 'Break', settings: [], plan: [] };
    store.dispatch(applyStep({ kind: 'add-moment', moment }, 'Break'));
    store.dispatch(lookedAt('break'));
    await user.selectOptions(await inside().findByLabelText(common.device()), 'mixer');
    await user.click(inside().getByRole('button', { name: 'Mixer, Channel 1, mute' }));
    expect(setting('mixer', 'strip-1-mute')).toBeUndefined();
    expect(findDevice(atMoment(now(), 'break'), 'mixer')!.settings['strip-1-mute']!.value).toBe(true);
    expect(screen.getByRole('gridcell', { name: /^Wren, voice at Stream: must; missing/ })).toBeTruthy();
  });
});

describe('mutes', () => {
  it('are told with who loses what, and found for exactly what is marked', async () => {
    const { user, setting } = open();
    const mutes = () => within(screen.getByRole('region', { name: 'Mutes' }));
    // Each is tried in turn; that takes a moment.
    await screen.findByRole('region', { name: 'Mutes' }, { timeout: 5000 });
    await user.selectOptions(mutes().getByLabelText('Mute'), 'mixer.strip-7-8-mute');
    expect(mutes().getByText(/^“Ambrose, jingles” at Stream, .*Ilse’s ears$/)).toBeTruthy();
    expect(mutes().getByText(/to find the one mute that silences exactly/)).toBeTruthy();
    const wren = (listener: string) =>
      screen.getByRole('gridcell', { name: new RegExp(`^Couch voices at ${listener}`) });
    await user.click(wren('Track 3, couch'));
    await user.keyboard('e');
    expect(wren('Track 3, couch').getAttribute('aria-label')).toMatch(/marked$/);
    // The camera's own, the input's, and that of the track.
    const exact = await mutes().findAllByText(say.silencesExactlyThese());
    expect(exact).toHaveLength(3);
    const last = exact.at(-1)!.closest<HTMLElement>('.row')!;
    await user.click(within(last).getByRole('button', { name: /^Already done: / }));
    expect(setting('capture-program', 'in-2-not-on-3')).toEqual({ value: true, known: 'confirmed' });
    await user.keyboard('e');
    expect(mutes().getByText(/to find the one mute that silences exactly/)).toBeTruthy();
  });
});

describe('the sound devices of a computer', () => {
  it('are named, hidden and preferred; what comes there now is told', async () => {
    const { user, now } = open();
    const computer = () => now().devices.find((d) => d.id === 'desk-computer')!;
    await user.selectOptions(inside().getByLabelText(common.device()), 'desk-computer');
    const devices = within(inside().getByRole('table', { name: say.audioDevices() }));
    const name = devices.getAllByLabelText(/^Name of /)[0]!;
    await user.clear(name);
    await user.type(name, 'Console in{Enter}');
    expect(Object.values(computer().ends!)).toEqual([{ name: 'Console in' }]);
    await user.click(devices.getAllByRole('button', { name: 'shown' })[0]!);
    await user.click(devices.getAllByRole('button', { name: 'not the default' })[0]!);
    expect(Object.values(computer().ends!)).toEqual([{ name: 'Console in', hidden: true, preferred: true }]);
    expect(devices.getAllByTitle('Couch game').length).toBeGreaterThan(0);
    // Disabled in the system, nothing comes there any more.
    const games = devices.getAllByTitle('Couch game').length;
    const row = devices.getAllByTitle('Couch game')[0]!.closest('tr')!;
    await user.click(within(row).getByRole('button', { name: 'enabled' }));
    expect(Object.values(computer().ends!).filter((e) => e.disabled)).toHaveLength(1);
    expect(devices.getAllByRole('button', { name: 'disabled' })).toHaveLength(1);
    expect(devices.queryAllByTitle('Couch game').length).toBeLessThan(games);
    await user.click(devices.getByRole('button', { name: 'disabled' }));
    expect(devices.getAllByTitle('Couch game')).toHaveLength(games);
    // A program that follows the default goes where that goes, and is found at its new place.
    const played = () => now().cables.find((c) => c.id === 'mixer-return-out')!;
    await user.click(inside().getByRole('button', { name: /more, with nothing connected/ }));
    const other = devices.getByLabelText(/^Name of output “played to USB 1”$/).closest('tr')!;
    const outputs = within(other);
    await user.click(
      devices
        .getByLabelText(/^Name of output .*USB 3/)
        .closest('tr')!
        .querySelector('[aria-label$="follows the default"]')!,
    );
    expect(played()).toMatchObject({ follows: 'default', to: { portId: 'to-usb-3' } });
    await user.click(outputs.getByRole('button', { name: 'not the default' }));
    expect(played()).toMatchObject({ follows: 'default', to: { portId: 'to-usb-1' } });
    await user.click(outputs.getByRole('button', { name: /^“Computer audio, .*” follows the default$/ }));
    expect(played().follows).toBeUndefined();
    await user.click(outputs.getByRole('button', { name: 'default' }));
    await user.click(devices.getByRole('button', { name: 'hidden' }));
    await user.click(devices.getByRole('button', { name: 'default' }));
    await user.clear(devices.getByLabelText(/^Name of /, { selector: '[value="Console in"]' }));
    await user.keyboard('{Enter}');
    expect(computer().ends).toBeUndefined();
  });
});
