// @vitest-environment happy-dom
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Rig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig, undoStep } from '#web/shared/store/index.ts';
import { fixesApi } from '#web/shared/workers/fix-api.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { stubWorker } from '#web/worker.testkit.ts';
import { common, wire as say } from '#words/index.ts';
import { WireScreen } from './index.ts';

beforeEach(() => {
  stubServer(noServer);
  stubWorker(fixesApi);
});
const small = (): Rig =>
  desk({ a: 'game-console', t: 'screen-with-jack', x: 'mixer-usb-10', m: 'microphone-condenser' }, ['a.hdmi > t.hdmi']);
const open = (rig: Rig, at = '/') => {
  const { store } = show(<WireScreen />, { rig, at });
  return { user: userEvent.setup(), store, rig: () => selectRig(store.getState())! };
};

describe(say.connect(), () => {
  it('goes from here to there by keys, says what comes with it, and draws it as seen', async () => {
    const { user, rig } = open(small());
    await user.keyboard('p');
    await user.keyboard('headphone jack{Enter}');
    expect(screen.getByRole('heading', { name: 'From “t, headphone jack”' })).toBeTruthy();
    await user.keyboard('channels 5{Enter}');
    expect(screen.getByText(/cable, 3.5 mm/)).toBeTruthy();
    expect(screen.getByText(/Ground loop/)).toBeTruthy();
    const length = screen.getByLabelText('Length, m');
    await user.clear(length);
    await user.type(length, '7,5');
    expect(screen.getByText(/7.5 m.*6 m/)).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(rig().cables.find((c) => c.to.portId === 'strip-5-6')).toMatchObject({ lengthM: 7.5, known: 'confirmed' });
  });
  it('offers only what fits, and says so where nothing does', async () => {
    const { user } = open(desk({ a: 'game-console', m: 'microphone-dynamic' }, []));
    await user.keyboard('p');
    await user.keyboard('a hdmi{Enter}');
    expect(
      screen.getByText(/^Nothing in this rig connects to “a, HDMI” \(HDMI\)\. “Game console” usually connects to/),
    ).toBeTruthy();
  });
  it('begins at the tap, and may be put on the list instead', async () => {
    const { user, rig, store } = open(small(), '/?tap=m.xlr');
    await user.keyboard('p');
    expect(screen.getByRole('heading', { name: 'From “m, XLR”' })).toBeTruthy();
    await user.keyboard('{Enter}');
    await user.click(screen.getByRole('button', { name: /^Add to-do/ }));
    expect(rig().tasks).toMatchObject([{ cableId: 'm-x', before: null }]);
    expect(rig().cables.find((c) => c.id === 'm-x')!.known).toBe('assumed');
    store.dispatch(undoStep());
    expect(rig()).toEqual(small());
  });
  it('refuses a length that is none', async () => {
    const { user, rig } = open(small(), '/?tap=m.xlr');
    await user.keyboard('p{Enter}');
    const length = screen.getByLabelText('Length, m');
    await user.clear(length);
    await user.type(length, 'long{Enter}');
    expect(screen.getByRole('dialog')).toBeTruthy();
    expect(rig().cables).toHaveLength(1);
  });
});

describe('Add a device', () => {
  it('is searched by words, and brings its source along', async () => {
    const { user, rig } = open(desk({}, []));
    expect(screen.getByText(/and type a signal chain from source to end:/)).toBeTruthy();
    await user.keyboard('a');
    await user.keyboard('console dock{Enter}');
    expect(rig().devices).toMatchObject([{ typeId: 'game-console-portable' }]);
    expect(rig().sources).toHaveLength(1);
  });
  it('reads a whole way, shows what it was understood as, and adds nothing it does not understand', async () => {
    const { user, rig } = open(desk({}, []));
    await user.keyboard('a');
    await user.keyboard('console > teapot');
    expect(within(screen.getByRole('status')).getByText(say.noDeviceTypeMatchesWord())).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(rig().devices).toEqual([]);
    const field = screen.getByRole('combobox', { name: say.deviceOrChain() });
    await user.clear(field);
    await user.type(field, 'console > tv');
    expect(within(screen.getByRole('status')).getByText(/2 devices and 1 cable more, assumed/)).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(rig().cables).toMatchObject([{ known: 'assumed', medium: 'lead' }]);
  });
});

describe('several at once', () => {
  it('are ticked with counts, one more by Enter, and put on the desk by Ctrl and Enter in one step', async () => {
    const { user, rig, store } = open(desk({}, []));
    await user.keyboard('{Shift>}a{/Shift}');
    await user.keyboard('person{Enter}{Enter}');
    await user.keyboard('television{Enter}');
    await user.click(screen.getByRole('button', { name: 'One more “Person”' }));
    await user.click(screen.getByRole('button', { name: 'One “Television” fewer' }));
    expect(screen.queryByRole('row', { name: /^Television/ })).toBeNull();
    screen.getByRole('combobox', { name: say.deviceType() }).focus();
    await user.keyboard('{Control>}{Enter}{/Control}');
    expect(
      rig()
        .devices.map((d) => d.name)
        .sort(),
    ).toEqual(['Person', 'Person 2', 'Person 3']);
    store.dispatch(undoStep());
    expect(rig().devices).toEqual([]);
  });
});

describe('what the computer names', () => {
  const named = (ends: readonly Partial<MediaDeviceInfo>[], more: object = {}) => {
    vi.stubGlobal('navigator', {
      ...globalThis.navigator,
      mediaDevices: {
        enumerateDevices: async () => ends,
        getUserMedia: async () => ({ getTracks: () => [] }),
        ...more,
      },
    });
    return open(desk({}, []));
  };
  const look = async (user: ReturnType<typeof userEvent.setup>) => {
    await user.keyboard('a');
    await user.click(screen.getByRole('button', { name: say.whatThisComputerLists() }));
  };
  it('comes to the desk as the type that one says, or is left out', async () => {
    const { user, rig } = named([
      { kind: 'audioinput', label: 'Broadcast mic', groupId: 'a', deviceId: '1' },
      { kind: 'videoinput', label: 'Lid picture', groupId: 'b', deviceId: '2' },
    ]);
    await look(user);
    await user.selectOptions(await screen.findByLabelText('What “Lid picture” is'), '');
    await user.click(screen.getByRole('button', { name: 'Add 1 device' }));
    expect(
      rig()
        .devices.map((d) => d.name)
        .sort(),
    ).toEqual(['Broadcast mic', 'Computer']);
  });
  it('is asked for, where the browser tells no names yet; refused, one types instead', async () => {
    const { user } = named([{ kind: 'audioinput', label: '', groupId: '', deviceId: '' }], {
      getUserMedia: async () => {
        throw new DOMException('no', 'NotAllowedError');
      },
    });
    await look(user);
    await user.click(await screen.findByRole('button', { name: say.listMyDevices() }));
    expect(await screen.findByText(/Microphone access was denied\. Allow it for this/)).toBeTruthy();
  });
});

describe('the box under the tap', () => {
  it('is renamed, moved, fed and taken out, each undone in one step', async () => {
    const { user, rig, store } = open(demoRig(), '/?tap=extractor.line');
    const name = screen.getByLabelText(say.deviceName());
    await user.clear(name);
    await user.type(name, 'Extractor{Enter}');
    expect(rig().devices.find((d) => d.id === 'extractor')!.name).toBe('Extractor');
    await user.selectOptions(screen.getByLabelText(say.poweredBy()), 'desk-computer');
    expect(rig().devices.find((d) => d.id === 'extractor')!.fedBy).toBe('desk-computer');
    await user.click(screen.getByLabelText(say.movesDuringUse()));
    expect(rig().devices.find((d) => d.id === 'extractor')!.moves).toBe(true);
    expect((await screen.findAllByText(/“Extractor” moves/)).length).toBeGreaterThan(0);
    await user.click(screen.getByRole('button', { name: common.remove() }));
    expect(rig().devices.some((d) => d.id === 'extractor')).toBe(false);
    await waitFor(() => expect(screen.queryByLabelText(say.tapPoint())).toBeNull());
    store.dispatch(undoStep());
    expect(rig().cables.some((c) => c.id === 'extractor-line')).toBe(true);
  });
  it('runs on another computer', async () => {
    const { user, rig } = open(demoRig(), '/?tap=capture-program.stream');
    await user.selectOptions(screen.getByLabelText('Runs on'), 'club-laptop');
    expect(rig().devices.find((d) => d.id === 'capture-program')!.on).toBe('club-laptop');
    expect((await screen.findAllByText(/but they run on two computers/)).length).toBeGreaterThan(0);
  });
  it('is replaced by what keeps its leads first', async () => {
    const { user, rig } = open(demoRig(), '/?tap=splitter.in');
    await user.click(screen.getByRole('button', { name: 'Replace' }));
    const options = await screen.findAllByRole('option');
    expect(options[0]!.textContent).toMatch(/every cable stays/);
    await user.keyboard('own supply{Enter}');
    expect(rig().devices.find((d) => d.id === 'splitter')!.typeId).toBe('hdmi-splitter-powered');
  });
  it('says what is on it, and opens the finding', async () => {
    const { user } = open(demoRig(), '/?tap=desk-webcam.usb');
    const card = screen.getByLabelText(say.tapPoint());
    await user.click(within(card).getByRole('button', { name: /built-in mic of “Desk webcam” is on/ }));
    await waitFor(() =>
      expect(screen.getByLabelText(common.issue()).textContent).toMatch(/Desk webcam, Own microphone, mute: on/),
    );
  });
});

describe('questions', () => {
  const asking = () =>
    desk(
      { m: 'microphone-condenser', x: 'interface-2', n: 'microphone-condenser', y: 'interface-1', u: 'usb-charger' },
      ['m.xlr > x.in-1', 'n.xlr > y.in-1'],
      { device: { x: { fedBy: 'u' }, y: { fedBy: 'u' } } },
    );
  it('about a setting are answered by its positions, or by y, and the next one comes by itself', async () => {
    const { user, rig } = open(asking());
    const card = () => screen.getByLabelText(common.issue());
    expect(card().textContent).toMatch(/To check.*“x”, Phantom power: is it off\?/);
    await user.click(within(card()).getByRole('button', { name: 'On' }));
    expect(rig().devices.find((d) => d.id === 'x')!.settings.phantom).toEqual({ value: 'on', known: 'confirmed' });
    expect(card().textContent).toMatch(/“y”, Phantom power: is it off\?/);
    await user.keyboard('y');
    expect(rig().devices.find((d) => d.id === 'y')!.settings.phantom).toEqual({ value: 'off', known: 'confirmed' });
    expect(card().textContent).toMatch(/Won’t work, or could cause damage/);
    await waitFor(() => expect(card().textContent).toMatch(/y, Phantom power: on/));
  });
  it('are gone through by one key', async () => {
    const { user } = open(asking());
    await user.keyboard('q');
    await waitFor(() => expect(screen.getByLabelText(common.issue()).textContent).toMatch(/y, Phantom power/));
    await user.keyboard('q');
    await waitFor(() => expect(screen.getByLabelText(common.issue()).textContent).toMatch(/x, Phantom power/));
  });
});

describe('connections', () => {
  const drawn = desk(
    { k: 'game-console', c: 'capture-usb-compressed', p: 'computer-desktop', s: 'capture-program', t: 'television' },
    ['k.hdmi > c.hdmi', 'c.usb > p.usb-1', 'p.from-usb-1 > s.in-1'],
    {},
  );
  const rig: Rig = {
    ...drawn,
    cables: drawn.cables.map((c) => (c.to.deviceId === 's' ? { ...c, medium: 'software' as const, lengthM: 0 } : c)),
  };
  it('stand on the card of a device, those within the computer too, and go out at once where nobody misses them', async () => {
    const { user, rig: now } = open(rig, '/?tap=s.in-1');
    const card = screen.getByLabelText(say.tapPoint(), { exact: true });
    await user.click(within(card).getByRole('button', { name: /^Remove ← p, / }));
    expect(now().cables.map((c) => c.to.deviceId)).toEqual(['c', 'p']);
    expect(card.textContent).toContain('Nothing is connected to it. Press p to connect it.');
  });
  it('stand in a socket that is named where one sees it, and called so everywhere', async () => {
    const { user, rig: now } = open(rig, '/?tap=c.hdmi');
    const card = screen.getByLabelText(say.tapPoint(), { exact: true });
    await user.click(within(card).getByLabelText('Rename this socket: HDMI in'));
    const field = within(card).getByLabelText('Name of socket “HDMI in”');
    await user.clear(field);
    await user.type(field, 'From the couch{Enter}');
    expect(now().devices.find((d) => d.id === 'c')!.ends).toEqual({ hdmi: { name: 'From the couch' } });
    expect(await within(card).findByLabelText('Rename this socket: From the couch')).toBeTruthy();
    expect(await screen.findByRole('row', { name: /From the couch/ })).toBeTruthy();
  });
  it('stand in one list for all computers', async () => {
    const { user, rig: now } = open(rig);
    const list = screen.getByRole('region', { name: say.insideComputerTitle() });
    expect(list.textContent).toContain('p, USB 1: c → s, input 1');
    await user.click(within(list).getByRole('button', { name: /^Remove/ }));
    expect(now().cables).toHaveLength(2);
    await waitFor(() => expect(screen.queryByRole('region', { name: say.insideComputerTitle() })).toBeNull());
  });
  it('are plugged anew in place of what stood there, told before', async () => {
    const { user, rig: now } = open(rig);
    await user.keyboard('p');
    await user.keyboard('k hdmi{Enter}');
    await user.keyboard('t hdmi{Enter}');
    expect(screen.getByText(/^Unplugs: c, HDMI in to k, HDMI/)).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(
      now()
        .cables.filter((c) => c.from.deviceId === 'k')
        .map((c) => c.to.deviceId),
    ).toEqual(['t']);
  });
});
