// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, type Rig } from '#core/model/rig/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { selectRig } from '#web/shared/store/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { common, sync as say } from '#words/index.ts';
import { SyncScreen } from './index.ts';

// The rig in hand is sent to a server that is not there: that is not looked at here.
beforeEach(() => stubServer(noServer));
const edited = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const openTap = (source: string, rig?: Rig) =>
  show(<SyncScreen />, { at: `/?listener=stream&source=${source}`, ...(rig ? { rig } : {}) });
const card = () => screen.getByLabelText(say.tapPoint());

describe('Sync', () => {
  it('shows each source’s arrival with its state, and says it in words', () => {
    openTap('couch');
    const arrivals = screen.getAllByRole('button', { name: /: (\d|twice)/ });
    expect(arrivals.map((a) => a.getAttribute('aria-label'))).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^Couch voices: 86 ms early/),
        expect.stringMatching(/^Wren, voice: 171 ms early/),
      ]),
    );
    // Its range reaches into the tolerance: that is no claim.
    expect(within(card()).getByText(/possibly early: part of the range is outside/)).toBeTruthy();
  });
  it('claims what lies outside as a whole', () => {
    openTap('wren');
    expect(within(card()).getByText('too early')).toBeTruthy();
  });
  it('adds up the way’s figures, each with its kind', () => {
    openTap('couch');
    const rows = within(card())
      .getAllByRole('row')
      .map((r) => r.textContent);
    expect(rows).toEqual(
      expect.arrayContaining(['1.5 m of air4.4standard ', 'Streaming software: Input 2, audio delay0set ']),
    );
    expect(rows).toEqual(
      expect.arrayContaining([expect.stringMatching(/^Camera capture: capture card, audio60typical 20 to 150/)]),
    );
    expect(within(card()).getByRole('button', { name: '114 ms, why?' })).toBeTruthy();
  });
  it('tells of a second way when it comes, how well that is known, and by which boxes', () => {
    openTap('couch-game');
    const twice = within(card()).getByText(/: the second path arrives/);
    expect(twice.textContent).toMatch(/\(typical|\(measured|\(set|through/);
    expect(within(twice).getByRole('button', { name: '31 ms, why?' })).toBeTruthy();
  });
  it('answers a typed delay at once, changes the rig only when somebody decides, and can be taken back', async () => {
    const user = userEvent.setup();
    const { store } = openTap('wren');
    const field = screen.getByLabelText('Mixer, Channel 1, delay, ms');
    await user.clear(field);
    await user.type(field, '171');
    expect(screen.getByRole('button', { name: /^Wren, voice: 0 ms/ })).toBeTruthy();
    const valueNow = () =>
      selectRig(store.getState())!.devices.find((d) => d.id === 'mixer')!.settings['strip-1-delay']?.value ?? 0;
    expect(valueNow()).toBe(0);
    await user.click(screen.getByRole('button', { name: /^Discard/ }));
    expect(screen.getByRole('button', { name: /^Wren, voice: 171 ms early/ })).toBeTruthy();
    await user.clear(field);
    await user.type(field, '160,4');
    // Held to the device's step when it is left.
    await user.tab();
    await user.click(screen.getByRole('button', { name: /^Add to-do/ }));
    expect(valueNow()).toBe(160);
    expect(selectRig(store.getState())!.tasks.map((t) => t.id)).toEqual(['mixer.strip-1-delay']);
    expect(within(card()).getByText(/1 setting on this path still on the to-do list/)).toBeTruthy();
  });
  it('speaks frames where one wants them', async () => {
    const user = userEvent.setup();
    openTap('wren');
    await user.click(screen.getByRole('button', { name: 'in ms; show frames' }));
    const field = screen.getByLabelText('Mixer, Channel 1, delay, frames') as HTMLInputElement;
    await user.clear(field);
    await user.type(field, '10');
    // Ten frames at 60 to the second are 166.7 ms; the mixer takes whole ones.
    expect(screen.getByRole('button', { name: /^Wren, voice: 4 ms early/ })).toBeTruthy();
  });
  it('walks sources and listeners by keys, and says where something is wrong', async () => {
    const user = userEvent.setup();
    openTap('couch');
    await user.keyboard('j');
    expect(card().textContent).toMatch(/^Tap point: Stream, Desk game/);
    await user.keyboard('k');
    expect(card().textContent).toMatch(/^Tap point: Stream, Couch voices/);
    const listener = screen.getByLabelText(common.destination()) as HTMLSelectElement;
    expect([...listener.options].find((o) => o.value === 'stream')!.textContent).toMatch(/^Stream: \d to fix$/);
    await user.keyboard('l');
    expect(screen.getByRole('heading', { level: 1 }).textContent).not.toMatch(/Stream/);
  });
  it('shows what was measured: the pair’s sum, what a setting rests on, and the clock it runs by', async () => {
    const at = '2026-11-25T10:00:00Z';
    const terms = (signs: Record<string, 1 | -1>) => Object.entries(signs).map(([figure, sign]) => ({ figure, sign }));
    const rig = edited(demoRig(), {
      kind: 'batch',
      edits: [
        {
          kind: 'add-measurement',
          measurement: {
            kind: 'delay',
            id: 'm1',
            label: 'couch clap',
            takenAt: at,
            sourceId: 'couch',
            listenerId: 'stream',
            terms: terms({
              'camera.sound': 1,
              'camera-capture.sound': 1,
              'camera.picture': -1,
              'camera-capture.picture': -1,
            }),
            ms: { mean: 60, sd: 2, count: 4 },
            offsetMs: 64.4,
          },
        },
        {
          kind: 'add-measurement',
          measurement: {
            kind: 'drift',
            id: 'm2',
            label: 'relay talk',
            takenAt: at,
            deviceId: 'backup-recorder',
            againstDeviceId: 'camera',
            ppm: { mean: 31, sd: 0.05, count: 9 },
          },
        },
      ],
    });
    openTap('couch', rig);
    expect(within(card()).getByText('64.4 ms late')).toBeTruthy();
    expect(within(card()).getByText('couch clap: 4 figures together')).toBeTruthy();
    // Measured against the camera: seen from the camera, the other way round.
    expect(card().textContent).toMatch(/ms in an hour/);
    await userEvent.setup().keyboard('p');
    const rests = screen.getAllByText(/^from (“|take|typical)/).map((e) => e.textContent);
    expect(rests).toContain('from take “couch clap”, 2026-11-25');
    expect(rests).toContain(say.fromTypicalFiguresMeasure());
  });
  it('says what a rig without listeners lacks', () => {
    show(<SyncScreen />, { rig: { ...demoRig(), listeners: [], plan: [] } });
    expect(screen.getByText(/No destinations yet\. Add a stream, recorder or/)).toBeTruthy();
  });
});
