// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { catalogue, type DeviceType } from '#core/model/rig/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { common, gear as say } from '#words/index.ts';
import { GearScreen } from './index.ts';
import { drawInside, sayStage } from './inside.ts';
import { copyType, sealedType } from './own.ts';

beforeEach(() => stubServer(noServer));
const typeOf = (id: string): DeviceType => catalogue.find((t) => t.id === id)!;

describe('the inside of a type', () => {
  it('is drawn with every port, and each way once for left and right', () => {
    for (const type of catalogue) {
      const { drawing, ways } = drawInside(type);
      expect(drawing.boxes.size, type.id).toBe(type.ports.length);
      expect(ways.length, type.id).toBeLessThanOrEqual(type.inside.length);
      expect(drawing.wires.size).toBe(ways.length);
    }
    expect(drawInside(typeOf('loudspeakers-active')).ways).toHaveLength(1);
    expect(drawInside(typeOf('hdmi-splitter')).ways.filter((w) => w.picture)).toHaveLength(2);
  });
  it('is told in words with units, settings by their names', () => {
    const mixer = typeOf('mixer-usb-10');
    const words = mixer.inside.flatMap((w) => w.stages.map((s) => sayStage(mixer, s)));
    expect(words).toContain('Channel 1, delay (delay)');
    expect(words).toContain('open while Channel 1, mute is off');
    expect(words).toContain('open while Channels 9 and 10, input is USB return');
    expect(words.some((w) => /full scale 24, 24, 24 dBu$/.test(w))).toBe(true);
    for (const type of catalogue)
      for (const way of type.inside)
        for (const stage of way.stages) expect(sayStage(type, stage)).not.toMatch(/undefined/);
  });
});

describe('Gear', () => {
  const rigNow = (store: ReturnType<typeof show>['store']) => selectRig(store.getState())!;
  const find = async (user: ReturnType<typeof userEvent.setup>, words: string) => {
    const field = screen.getByRole('combobox', { name: say.searchDeviceTypes() });
    await user.clear(field);
    await user.type(field, `${words}{Enter}`);
  };
  it('is searched by words, and shows sockets, power and price', async () => {
    const user = userEvent.setup();
    show(<GearScreen />);
    await find(user, 'condenser');
    expect(screen.getByRole('heading', { name: 'Microphone, condenser, XLR' })).toBeTruthy();
    expect(screen.getByText(/runs on phantom power/)).toBeTruthy();
    expect(
      within(screen.getByRole('table', { name: say.sockets() })).getByText(/needs phantom power, 4 mA/),
    ).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'capsule' }));
    expect(
      within(screen.getByRole('table', { name: say.pathsInside() }))
        .getAllByRole('row')[1]!
        .getAttribute('aria-selected'),
    ).toBe('true');
  });
  it('makes one’s own from a copy, refuses what cannot be, and the rig uses it', async () => {
    const user = userEvent.setup();
    const { store } = show(<GearScreen />);
    await find(user, 'extractor');
    await user.click(screen.getByRole('button', { name: say.copyAndEdit() }));
    const name = screen.getByLabelText('Name of the type');
    await user.clear(name);
    expect(screen.getByRole('button', { name: common.save() }).getAttribute('aria-disabled')).toBe('true');
    await user.type(name, 'Our extractor');
    await user.selectOptions(screen.getByLabelText('Level of line'), 'air');
    expect(screen.getAllByText(/but the socket carries sound in air/).length).toBeGreaterThan(0);
    await user.selectOptions(screen.getByLabelText('Level of line'), 'line');
    await user.selectOptions(screen.getByLabelText('Connector of line'), 'phono-pair');
    await user.click(screen.getByRole('button', { name: common.save() }));
    expect(rigNow(store).types).toMatchObject([{ id: 'own-hdmi-extractor', name: 'Our extractor' }]);
    expect(rigNow(store).types[0]!.ports.find((p) => p.id === 'line')!.connector).toBe('phono-pair');
    await user.click(screen.getByRole('button', { name: 'Remove' }));
    expect(rigNow(store).types).toEqual([]);
  });
  it('makes a sealed box known by fields: what can be set, its delay, a way with what it meets', async () => {
    const user = userEvent.setup();
    const { store } = show(<GearScreen />);
    await user.click(screen.getByRole('button', { name: say.addUnknownDevice() }));
    await user.click(screen.getByRole('button', { name: 'Add a delay' }));
    await user.click(screen.getByRole('button', { name: 'Add a switch' }));
    const positions = screen.getByLabelText('Positions of switch-1');
    await user.clear(positions);
    await user.type(positions, 'USB, jack{Tab}');
    await user.click(screen.getByRole('button', { name: say.addOwnDelay() }));
    const most = screen.getByLabelText('delay-1, max');
    await user.clear(most);
    await user.type(most, '2{Tab}');
    expect(screen.getByText(/a range is low, nominal, high/)).toBeTruthy();
    await user.clear(most);
    await user.type(most, '30,5{Tab}');
    await user.selectOptions(screen.getByLabelText(say.pathFrom()), 'in-1');
    await user.selectOptions(screen.getByLabelText(say.pathTo()), 'out-1');
    await user.click(screen.getByRole('button', { name: say.addPath() }));
    for (const meets of [/^delay 1 \(delay\)/, /^open while switch 1 is jack/, /^own delay: 1, 5, 30.5 ms/, /^noise/]) {
      await user.click(screen.getByRole('button', { name: 'Stage to add on in-1 to out-1' }));
      const list = screen.getByLabelText('Add to in-1 to out-1');
      const option = within(list).getByRole('option', { name: meets });
      await user.selectOptions(list, option);
    }
    const noise = screen.getByLabelText('in-1 to out-1, 4: dB');
    await user.clear(noise);
    await user.type(noise, '-84{Tab}');
    await user.click(screen.getByRole('button', { name: common.save() }));
    const [type] = rigNow(store).types;
    expect(type!.inside).toHaveLength(2);
    expect(type!.inside[1]).toEqual({
      from: 'in-1.right',
      to: 'out-1.right',
      stages: [
        { do: 'delay', setting: 'delay-1' },
        { do: 'door', setting: 'switch-1', openWhen: 'jack' },
        { do: 'latency', figure: 'delay-1' },
        { do: 'noise', db: -84 },
      ],
    });
    expect(type!.settings[1]).toMatchObject({ options: [{ value: 'usb' }, { value: 'jack' }], default: 'usb' });
  });
  it('takes in a type that was exported, and refuses another file with a sentence', async () => {
    const user = userEvent.setup();
    const { store } = show(<GearScreen />);
    const file = (text: string, name: string) => new File([text], name, { type: 'application/json' });
    const chooser = screen.getByLabelText(say.deviceTypeFile());
    await user.upload(chooser, file('{"id":"x"}', 'shopping.json'));
    expect(await screen.findByText(/“shopping.json” was not imported/)).toBeTruthy();
    expect(rigNow(store).types).toEqual([]);
    await user.upload(
      chooser,
      file(JSON.stringify({ ...typeOf('webcam'), id: 'club-webcam', name: 'Club webcam' }), 'club.json'),
    );
    expect(await screen.findByText(/“Club webcam” was added/)).toBeTruthy();
    expect(rigNow(store).types.map((t) => t.id)).toEqual(['club-webcam']);
  });
  it('keeps a type that the rig uses', () => {
    const rig = demoRig();
    const type = copyType(rig, typeOf('hdmi-splitter'), new Set());
    const devices = rig.devices.map((d) => (d.id === 'splitter' ? { ...d, typeId: type.id } : d));
    show(<GearScreen />, { rig: { ...rig, types: [type], devices } });
    expect(screen.getByRole('button', { name: 'Remove' }).getAttribute('aria-disabled')).toBe('true');
  });
});

describe('types of one’s own', () => {
  it('have ids that nobody else has, and sealed boxes have their sockets only', () => {
    const rig = { ...demoRig(), types: [copyType(demoRig(), typeOf('webcam'), new Set())] };
    expect(copyType(rig, typeOf('webcam'), new Set(['own-webcam-2'])).id).toBe('own-webcam-3');
    expect(sealedType('A box', 2, 3)).toMatchObject({ inside: [], ports: { length: 5 } });
  });
});
