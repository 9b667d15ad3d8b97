// @vitest-environment happy-dom
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { framesALoop, SLATE_RATES, type Slate, secondsALoop } from '#core/desk-tests/slates/index.ts';
import { hertz } from '#core/model/units/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { paintSlate, playSlate } from '#web/shared/players/index.ts';
import { show } from '#web/web.testkit.tsx';
import { slate as say } from '#words/index.ts';
import { SlateScreen } from './index.ts';

const slate: Slate = { rate: SLATE_RATES[7]!, id: 3 };

/** A sound card whose clock is turned by hand. */
function soundCard(outputLatency = 0.05) {
  const started: number[] = [];
  const card = {
    currentTime: 10,
    sampleRate: 48_000,
    baseLatency: 0.01,
    outputLatency,
    destination: {},
    state: 'running',
    stamp: { contextTime: 0, performanceTime: 0 },
    resume: async () => undefined,
    close: async () => {
      card.state = 'closed';
    },
    getOutputTimestamp: () => card.stamp,
    createGain: () => ({ gain: { value: 0, setTargetAtTime: (v: number) => gains.push(v) }, connect: () => undefined }),
    createBuffer: (_: number, length: number) => ({ length, copyToChannel: () => undefined }),
    createBufferSource: () => ({ buffer: null, connect: () => undefined, start: (at: number) => started.push(at) }),
  };
  const gains: number[] = [];
  return { card, started, gains, make: () => card as unknown as AudioContext };
}

describe('the slate’s player', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());
  it('draws the frame whose sound leaves the loudspeaker just then', async () => {
    const { card, make } = soundCard();
    const player = await playSlate(slate, 0, make);
    // The first loop begins 0.3 s after the start; this much has come out of the speaker at 5000 ms.
    card.stamp = { contextTime: 10.3 + 2.5, performanceTime: 5000 };
    expect(player.frameAt(5000)).toBe(150);
    expect(player.frameAt(5016.7)).toBe(151);
    expect(player.frameAt(5000 + 1000 * secondsALoop(slate.rate))).toBe(150);
    expect(player.frameAt(2000)).toBe(framesALoop(slate.rate) - 30);
    card.stamp = { contextTime: 0, performanceTime: 0 };
    card.currentTime = 10.3 + 1 + 0.05;
    expect(player.frameAt(0)).toBe(hertz(slate.rate));
    expect(player.latency()).toEqual({ baseMs: 10, outputMs: 50 });
    player.stop();
  });
  it('hands over loop after loop at instants of the sound card, and none after it was stopped', async () => {
    const { card, started, gains, make } = soundCard();
    const player = await playSlate(slate, 0, make);
    expect(started).toEqual([10.3]);
    card.currentTime = 10.3 + 13;
    vi.advanceTimersByTime(600);
    expect(started[1]! - started[0]!).toBeCloseTo(secondsALoop(slate.rate), 9);
    player.level(0.25);
    expect(gains).toEqual([0.25]);
    player.stop();
    card.currentTime = 100;
    vi.advanceTimersByTime(5000);
    expect(started).toHaveLength(2);
    player.stop();
    expect(card.state).toBe('closed');
  });
});

describe('the slate’s picture', () => {
  it('is white on black within the canvas; the rest is grey', () => {
    const boxes: [string, number, number, number, number][] = [];
    const paint = {
      fillStyle: '',
      font: '',
      fillRect: (...at: [number, number, number, number]) => boxes.push([paint.fillStyle, ...at]),
      fillText: () => undefined,
    };
    paintSlate(paint as unknown as CanvasRenderingContext2D, 640, 360, slate, 61, ['Sync slate 4']);
    expect(boxes[0]).toEqual(['#000', 0, 0, 640, 360]);
    const white = boxes.filter(([style]) => style === '#fff');
    // Ring in five pieces and sixteen bits; its flash is out.
    expect(white).toHaveLength(21);
    paintSlate(paint as unknown as CanvasRenderingContext2D, 640, 360, slate, 120, []);
    expect(boxes.filter(([style]) => style === '#fff')).toHaveLength(21 + 22);
  });
});

describe('the slate’s page', () => {
  beforeEach(() => stubServer(noServer));
  it('begins silent, keeps its choices in its address, and says so when no sound can be played', async () => {
    vi.stubGlobal(
      'AudioContext',
      class {
        resume = async () => Promise.reject(new Error('not allowed'));
      },
    );
    const user = userEvent.setup();
    show(<SlateScreen />, { at: '/slate?rate=25&id=4' });
    expect(screen.getByLabelText('Listening level, dB').getAttribute('aria-valuetext')).toBe('silent');
    expect((screen.getByLabelText(say.frameRateSlate()) as HTMLSelectElement).selectedOptions[0]!.text).toMatch(/^25 /);
    expect((screen.getByLabelText(say.slateNumber()) as HTMLSelectElement).value).toBe('4');
    await user.selectOptions(screen.getByLabelText(say.slateNumber()), 'number 2');
    expect((screen.getByLabelText(say.slateNumber()) as HTMLSelectElement).value).toBe('1');
    await user.click(screen.getByRole('button', { name: /^Start/ }));
    expect(await screen.findByText(/Your browser blocked audio\. Press Start again,/)).toBeTruthy();
  });
});
