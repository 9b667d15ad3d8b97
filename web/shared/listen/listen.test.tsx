// @vitest-environment happy-dom
import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import type { HeardLoop } from '#web/shared/workers/index.ts';
import { demoRig, show } from '#web/web.testkit.tsx';
import { listen as say } from '#words/index.ts';
import { evenGain, evenGains } from './even.ts';
import { ListenBar, ListenButton, type ReceivedPath, SwitchBar } from './index.ts';
import { makePlayer } from './player.ts';

const loopOf = (peak: number, integratedLufs: number | null, sourceIds: string[] = ['wren']): HeardLoop => ({
  channels: [Float32Array.from({ length: 100 }, (_, i) => (i === 50 ? -peak : 0))],
  // A hundred samples are ten seconds.
  sampleRateHz: 10,
  fullDb: 0,
  scale: 'dbfs',
  sourceIds,
  hums: false,
  integratedLufs,
});

/** The browser's audio as far as a player uses it: what is set, when, and whether anything ever jumps. */
function fakeAudio() {
  const context = { currentTime: 0, sampleRate: 48_000, state: 'running', closed: false, destination: {} };
  const gains: { value: number; ramps: { to: number; at: number }[] }[] = [];
  const sources: { loop: boolean; offset: number; stopAt: number | null }[] = [];
  const make = () =>
    ({
      ...context,
      get currentTime() {
        return context.currentTime;
      },
      resume: async () => undefined,
      close: async () => {
        context.closed = true;
      },
      createGain: () => {
        const param = {
          value: 1,
          ramps: [] as { to: number; at: number }[],
          cancelScheduledValues: () => undefined,
          setValueAtTime: (v: number) => {
            param.value = v;
          },
          linearRampToValueAtTime: (to: number, at: number) => param.ramps.push({ to, at: at - context.currentTime }),
        };
        gains.push(param);
        return { gain: param, connect: (next: unknown) => next };
      },
      createBuffer: () => ({ copyToChannel: () => undefined }),
      createBufferSource: () => {
        const source = { loop: false, offset: 0, stopAt: null as number | null };
        sources.push(source);
        return Object.assign(source, {
          connect: (next: unknown) => next,
          start: (_when: number, offset: number) => {
            source.offset = offset;
          },
          stop: (at: number) => {
            source.stopAt = at;
          },
        });
      },
    }) as unknown as AudioContext;
  return { make, context, gains, sources };
}

const rig = demoRig();
const stream = { at: rig.listeners[0]!.sound, name: 'Stream' };
const room = { at: rig.listeners.at(-1)!.sound, name: 'Room' };

describe('listening at a place', () => {
  it('brings every place to the same loudness, but never over full scale', () => {
    expect(evenGain(loopOf(0.1, -33))).toBeCloseTo(10 ** (10 / 20), 9);
    expect(evenGain(loopOf(0.1, -13))).toBeCloseTo(10 ** (-10 / 20), 9);
    expect(evenGain(loopOf(0.5, -40))).toBeCloseTo(1.8, 9);
    expect(evenGain(loopOf(0, null))).toBe(0);
    // Where one of them has no room, all are as quiet as that one.
    const [spiky, calm, none] = evenGains([loopOf(0.9, -30), loopOf(0.1, -20), loopOf(0, null)]);
    expect(spiky).toBeCloseTo(1, 6);
    expect(calm).toBeCloseTo(10 ** (-10 / 20), 6);
    expect(none).toBe(0);
  });
  it('starts from nothing, comes up slowly, and goes over to another place at the same instant of the loop', async () => {
    const audio = fakeAudio();
    const player = makePlayer(audio.make, async () => loopOf(0.1, -23));
    await player.listen(rig, stream);
    const [master, first] = audio.gains;
    expect(master!.value).toBe(0);
    expect(master!.ramps).toEqual([{ to: 10 ** (-18 / 20), at: 4 }]);
    expect(first!.ramps[0]!.at).toBeLessThan(0.1);
    expect(audio.sources[0]).toMatchObject({ loop: true, offset: 0, stopAt: null });
    audio.context.currentTime = 13;
    await player.listen(rig, room);
    expect(audio.sources[1]).toMatchObject({ loop: true, offset: 3 });
    expect(audio.sources[0]!.stopAt).toBeCloseTo(13.08, 6);
    expect(first!.ramps.at(-1)!.to).toBe(0);
    expect(master!.ramps).toHaveLength(1);
    player.level(-60);
    expect(master!.ramps.at(-1)!.to).toBe(0);
    expect(player.state()).toMatchObject({ spot: room, busy: false, levelDb: -60 });
  });
  it('plays what was asked for last, stops at once, and says what went wrong', async () => {
    vi.useFakeTimers();
    const audio = fakeAudio();
    const waiting: ((loop: HeardLoop) => void)[] = [];
    const player = makePlayer(audio.make, () => new Promise((done) => waiting.push(done)));
    const both = [player.listen(rig, stream), player.listen(rig, room)];
    await vi.advanceTimersByTimeAsync(0);
    waiting[1]!(loopOf(0.1, -23, ['ilse']));
    waiting[0]!(loopOf(0.1, -23, ['wren']));
    await Promise.all(both);
    expect(player.state().loop!.sourceIds).toEqual(['ilse']);
    expect(audio.sources).toHaveLength(1);
    player.stop();
    expect(player.state()).toMatchObject({ spot: null, loop: null });
    await vi.advanceTimersByTimeAsync(500);
    expect(audio.context.closed).toBe(true);
    const broken = makePlayer(audio.make, async () => {
      throw new Error('It broke.');
    });
    await broken.listen(rig, stream);
    expect(broken.state()).toMatchObject({ failed: 'It broke.', busy: false });
    vi.useRealTimers();
  });
  it('shows where one listens and to what, and goes from listener to listener by keys', async () => {
    const audio = fakeAudio();
    vi.stubGlobal('AudioContext', function make() {
      return audio.make();
    });
    vi.stubGlobal(
      'Worker',
      class {
        addEventListener() {}
        removeEventListener() {}
        postMessage() {}
        terminate() {}
      },
    );
    show(
      <>
        <ListenButton rig={rig} spot={stream} />
        <ListenBar rig={rig} />
      </>,
    );
    const user = userEvent.setup();
    expect(screen.queryByRole('region', { name: 'Listening' })).toBeNull();
    await user.click(screen.getByRole('button', { name: /Listen here/ }));
    const bar = () => within(screen.getByRole('region', { name: 'Listening' }));
    expect(bar().getByText('Stream')).toBeTruthy();
    expect(bar().getByText(say.renderingAudio())).toBeTruthy();
    await act(() => user.keyboard('{Shift>}{ArrowRight}{/Shift}'));
    expect(bar().getByText(rig.listeners[1]!.name)).toBeTruthy();
    await act(() => user.keyboard('{Shift>}{ArrowLeft}{ArrowLeft}{/Shift}'));
    expect(bar().getByText(rig.listeners.at(-1)!.name)).toBeTruthy();
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
    expect(bar().getByText('−21 dB')).toBeTruthy();
    await user.click(bar().getByRole('button', { name: /Stop/ }));
    expect(screen.queryByRole('region', { name: 'Listening' })).toBeNull();
  });
});

/** Rounds of a trial about the same sounds. */
function Rounds({ sounds }: { sounds: readonly ReceivedPath[] }) {
  const [round, setRound] = useState(0);
  return (
    <>
      <button type="button" onClick={() => setRound(round + 1)}>
        next
      </button>
      <SwitchBar sounds={sounds} says="" round={round} />
    </>
  );
}

describe('switching between sounds', () => {
  const sound = (name: string, value: number | null) => ({
    name,
    loop: value === null ? null : { channels: [new Float32Array(100).fill(value)], sampleRateHz: 10, gain: 1 },
  });
  it('plays one at a time by its number, from nothing, at the same instant; what is being made comes when it is there', async () => {
    const audio = fakeAudio();
    vi.stubGlobal('AudioContext', function make() {
      return audio.make();
    });
    const user = userEvent.setup();
    const page = show(<SwitchBar sounds={[sound('A', 0.1), sound('B', null)]} says="" />);
    const pressed = (name: RegExp) => screen.getByRole('button', { name }).getAttribute('aria-pressed');
    await user.keyboard('1');
    await waitFor(() => expect(pressed(/^A/)).toBe('true'));
    expect(audio.sources).toHaveLength(1);
    expect(audio.gains[0]!.ramps.at(-1)!.at).toBe(4);
    audio.context.currentTime = 13;
    await user.keyboard('2');
    await waitFor(() => expect(pressed(/^B/)).toBe('true'));
    expect(screen.getByText(say.renderingAudio())).toBeTruthy();
    page.unmount();
    await waitFor(() => expect(audio.sources).toHaveLength(1));
  });
  it('goes back to the first when the round changes, and stops by its key', async () => {
    const audio = fakeAudio();
    vi.stubGlobal('AudioContext', function make() {
      return audio.make();
    });
    const user = userEvent.setup();
    const sounds = [sound('A', 0.1), sound('B', 0.2), sound('X', 0.1)];
    show(<Rounds sounds={sounds} />);
    const pressed = (name: RegExp) => screen.getByRole('button', { name }).getAttribute('aria-pressed');
    await user.keyboard('3');
    await waitFor(() => expect(pressed(/^X/)).toBe('true'));
    await user.click(screen.getByRole('button', { name: 'next' }));
    expect([pressed(/^A/), pressed(/^X/)]).toEqual(['true', 'false']);
    await user.keyboard('h');
    expect(pressed(/^A/)).toBe('false');
    expect(screen.queryByRole('button', { name: /^Stop/ })).toBeNull();
  });
});
