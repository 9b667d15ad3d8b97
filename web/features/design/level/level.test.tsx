// @vitest-environment happy-dom
import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit } from '#core/model/rig/index.ts';
import { ladderFor } from '#core/routing/suggest/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { layoutLadder } from '#web/shared/charts/index.ts';
import { selectRig } from '#web/shared/store/index.ts';
import { clearPage, demoRig, show } from '#web/web.testkit.tsx';
import { level as say } from '#words/index.ts';
import { LevelScreen } from './index.ts';
import { Reading, sayTurn } from './LiveMeter.tsx';

beforeEach(() => stubServer(noServer));
const open = (at: string) => ({ user: userEvent.setup(), ...show(<LevelScreen />, { at }) });
const WREN = '/?source=wren&listener=stream';
const stepAt = (name: RegExp) => screen.getByRole('button', { name });

describe('the ladder on paper', () => {
  const rig = demoRig();
  const evaluation = evaluate(rig);
  it('goes on level where the scale changes, and by the gain of each step within one', () => {
    let steps = 0;
    for (const pair of evaluation.pairs) {
      const ladder = ladderFor(rig, evaluation, pair);
      if (!ladder) continue;
      const { places, scales, pxPerDb } = layoutLadder(ladder, 800, 260);
      for (const [i, place] of places.entries()) {
        const before = places[i - 1];
        expect(place.levelPx).toBeGreaterThanOrEqual(0);
        expect(place.levelPx).toBeLessThanOrEqual(260);
        if (place.noisePx !== null) expect(place.noisePx).toBeLessThanOrEqual(260);
        if (!before) continue;
        const rise = before.rung.scale === place.rung.scale ? place.rung.gainDb : 0;
        expect(before.levelPx - place.levelPx).toBeCloseTo(rise * pxPerDb, 6);
        steps++;
      }
      // An axis tells a step's own level at its own height.
      for (const { ticks, fromPx } of scales) {
        const place = places.find((p) => p.fromPx === fromPx)!;
        for (const { px, db } of ticks)
          expect(px).toBeCloseTo(place.levelPx + (place.rung.levelDb.nominal - db) * pxPerDb, 6);
      }
    }
    expect(steps).toBeGreaterThan(80);
  });
});

describe('Level', () => {
  it('shows each step with its distance to noise and ceiling, and says where most is lost', () => {
    open('/?source=wren&listener=backup');
    expect(stepAt(/^Mixer, Channel 1, gain: −?\d+ dBu, \d+ dB above noise, – dB below the clip point/)).toBeTruthy();
    expect(screen.getByText(/Biggest loss of signal-to-noise: \d+ dB at Wren’s microphone, capsule/)).toBeTruthy();
    expect(screen.getByText(/3 conversions on this path/)).toBeTruthy();
    expect(screen.getByText(/Where the noise comes from: .*%/)).toBeTruthy();
  });
  it('moves a step by keys within what the device can do, and every other reading follows', async () => {
    const { user, store } = open(WREN);
    const knob = screen.getByRole('slider', { name: 'Mixer, Channel 1, gain' });
    const level = () => screen.getByText(/dBFS$/, { selector: '.strong' }).textContent;
    const before = level();
    const at = Number(knob.getAttribute('aria-valuenow'));
    knob.focus();
    await user.keyboard('{ArrowDown}{Shift>}{ArrowDown}{/Shift}');
    const moved = screen.getByRole('slider', { name: 'Mixer, Channel 1, gain' });
    expect(moved.getAttribute('aria-valuenow')).toBe(String(at - 11));
    expect(moved.getAttribute('aria-valuetext')).toMatch(/dB, about \d/);
    expect(level()).not.toBe(before);
    await user.keyboard('{End}{ArrowUp}');
    expect(screen.getByRole('slider', { name: 'Mixer, Channel 1, gain' }).getAttribute('aria-valuenow')).toBe('60');
    // Only tried: the rig stands as it was until one decides.
    expect(selectRig(store.getState())!.tasks).toEqual([]);
    await user.keyboard('{Escape}');
    expect(level()).toBe(before);
  });
  it('is pulled by the pointer, a pixel for its part of a decibel', () => {
    open(WREN);
    const knob = screen.getByRole('slider', { name: 'Mixer, Channel 1, fader' });
    knob.setPointerCapture = () => undefined;
    const at = Number(knob.getAttribute('aria-valuenow'));
    fireEvent.pointerDown(knob, { pointerId: 1, clientY: 200 });
    fireEvent.pointerMove(knob, { pointerId: 1, clientY: 230 });
    fireEvent.pointerUp(knob, { pointerId: 1 });
    fireEvent.pointerMove(knob, { pointerId: 1, clientY: 500 });
    const now = Number(screen.getByRole('slider', { name: 'Mixer, Channel 1, fader' }).getAttribute('aria-valuenow'));
    expect(now).toBeLessThan(at);
    expect(now).toBeGreaterThan(-60);
  });
  it('sets the gains: says what to turn, where to and why, and puts it on the list', async () => {
    const { user, store } = open(WREN);
    await user.keyboard('p');
    const main = screen.getByRole('main');
    expect(within(main).getByText(/^Result: .*dB SNR/)).toBeTruthy();
    expect(within(main).getByText(/Mixer.*Channel 1, gain.*: \+\d+ to \+\d+ dB, about/)).toBeTruthy();
    expect(within(main).getByText(/Not changed \(other sources depend on them, or/).textContent).toContain(
      'Main level',
    );
    await user.keyboard('d');
    const tasks = selectRig(store.getState())!.tasks.map((t) => t.id);
    expect(tasks).toContain('mixer.strip-1-gain');
    // Done and gone: what the search is for is said again.
    expect(within(main).queryByText(/Result:/)).toBeNull();
    expect(within(main).getByText(/Lowest noise at your target level, with/)).toBeTruthy();
  });
  it('leaves a knob that somebody holds', async () => {
    const { user } = open(WREN);
    await user.click(stepAt(/^Mixer, Channel 1, gain/));
    await user.click(screen.getByRole('button', { name: say.lock() }));
    expect(screen.getByRole('button', { name: say.locked() }).getAttribute('aria-pressed')).toBe('true');
    await user.keyboard('p');
    expect(screen.queryByText(/Mixer, Channel 1, gain: \+\d+ to/)).toBeNull();
    expect(screen.getByText(/Not changed \(other sources depend on them, or/).textContent).toContain('Channel 1, gain');
  });
  it('says how loud it is at somebody’s ears and for how long, where it is a sound in air', () => {
    open('/?source=wren&listener=players');
    const ears = screen.getByRole('region', { name: 'Listening level and time' });
    expect(ears.textContent).toMatch(
      /everything together is about \d+ dB SPL, up to \d+\..*\(NIOSH, 85 dBA for 8 h\).*a week|all week/,
    );
    expect(ears.textContent).toContain('An estimate');
    clearPage();
    open(WREN);
    expect(screen.queryByRole('region', { name: 'Listening level and time' })).toBeNull();
  });
  it('says what an open channel costs, and shuts it', async () => {
    const rig = demoRig();
    // An unused strip turned all the way up: its preamplifier hisses into the mix.
    const loud = applyEdit(rig, {
      kind: 'set-setting',
      deviceId: 'mixer',
      settingId: 'strip-4-gain',
      setting: { value: 60, known: 'confirmed' },
    });
    if (!loud.ok) throw new Error(textOf(loud.refusal.reason));
    const user = userEvent.setup();
    const { store } = show(<LevelScreen />, { at: '/?source=wren&listener=backup', rig: loud.rig });
    const region = screen.getByRole('region', { name: say.openButUnusedInputs() });
    const row = within(region).getByRole('row', { name: /^Mixer, Channel 4 \d\.\d dB more noise/ });
    await user.click(within(row).getByRole('button', { name: /^Add to-do: / }));
    expect(selectRig(store.getState())!.tasks.map((t) => t.id)).toEqual(['mixer.strip-4-mute']);
    expect(within(region).queryByRole('row', { name: /Channel 4/ })).toBeNull();
  });
});

describe('gain by talking', () => {
  const knob = {
    deviceId: 'mixer',
    spec: {
      kind: 'gain' as const,
      id: 'strip-1-gain',
      name: 'Channel 1, gain',
      min: 0,
      max: 60,
      step: 1,
      default: 40,
      offAtMin: false,
    },
  };
  it('says how far to turn, in knob terms, within what the device can do', () => {
    expect(sayTurn(null, knob, 40)).toContain('No signal yet');
    expect(sayTurn(-8, knob, 40)).toContain('The gain is right');
    expect(sayTurn(-21, knob, 30)).toBe('Up 12 dB: “Channel 1, gain” to about 2 o’clock.');
    expect(sayTurn(-1, knob, 40)).toBe('Down 8 dB: “Channel 1, gain” to about 12:15 o’clock.');
    expect(sayTurn(-40, knob, 50)).toBe('Up 31 dB: “Channel 1, gain” to about 5 o’clock, as far as it goes (+60 dB).');
    expect(sayTurn(-40, null, 0)).toBe('Up 31 dB.');
  });
  const reading = {
    peakDbfs: -10,
    highestDbfs: -3,
    truePeakDbtp: -2.8,
    momentaryLufs: -20,
    shortTermLufs: -21,
    vuDbfs: -22,
    clips: 2,
    correlation: -0.9,
    restDbfs: -61,
  };
  it('shows clips and sides that move against each other', () => {
    show(<Reading reading={reading} knob={knob} valueDb={40} />);
    expect(screen.getByRole('status').textContent).toMatch(/^Down 6 dB.*Clipped 2 times.*cancel each other/s);
    expect(screen.getByText('−61.0 dBFS')).toBeTruthy();
    expect(screen.getByRole('img', { name: 'Level now' })).toBeTruthy();
  });
  it('says so where the browser opens no inputs', async () => {
    const { user } = open(WREN);
    await user.click(screen.getByRole('button', { name: 'Listen to an input' }));
    expect(await screen.findByText(/won’t open audio inputs|access was denied|can’t be opened/)).toBeTruthy();
  });
});
