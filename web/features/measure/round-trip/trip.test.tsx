// @vitest-environment happy-dom
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type SentChirp, TRIP_EVERY_S, type Trip } from '#core/desk-tests/slates/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { show } from '#web/web.testkit.tsx';
import { RoundTripScreen } from './index.ts';
import { runLoop } from './loop.ts';

const RATE = 48_000;

/** A sound card whose clock is turned by hand, with ears that hear what is put into them. */
function soundCard() {
  const started: number[] = [];
  const gains: number[] = [];
  const ears = { port: { onmessage: null as ((e: MessageEvent) => void) | null }, connect: () => undefined };
  const node = () => ({
    gain: { value: 0, setTargetAtTime: (v: number) => gains.push(v) },
    delayTime: { value: 0 },
    connect: (n: unknown) => n,
  });
  const card = {
    currentTime: 5,
    sampleRate: RATE,
    baseLatency: 0.01,
    outputLatency: 0.03,
    state: 'running',
    destination: {},
    audioWorklet: { addModule: async () => undefined },
    resume: async () => undefined,
    close: async () => {
      card.state = 'closed';
    },
    createGain: node,
    createDelay: node,
    createBuffer: (_: number, length: number) => ({ length, copyToChannel: () => undefined }),
    createBufferSource: () => ({ buffer: null, connect: () => undefined, start: (at: number) => started.push(at) }),
  };
  vi.stubGlobal(
    'AudioWorkletNode',
    class {
      port = ears.port;
    },
  );
  const hear = (frame: number, frames: number) =>
    ears.port.onmessage?.({ data: { frame, pieces: [new Float32Array(frames).fill(0.01)] } } as MessageEvent);
  return { card, started, gains, hear, make: () => card as unknown as AudioContext };
}

describe('the loop of a round trip', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  it('sends both chirps in turn, on whole samples, and hands a repeat over once its return could have come', async () => {
    const { card, started, gains, hear, make } = soundCard();
    const asked: { startS: number; sent: SentChirp; samples: number }[] = [];
    const read = async (samples: Float32Array, _: number, startS: number, sent: SentChirp): Promise<Trip> => {
      asked.push({ startS, sent, samples: samples.length });
      return { sentAtS: sent.atS, ms: 48.3 };
    };
    const trips: Trip[] = [];
    const loop = await runLoop({
      back: { kind: 'stand-in' },
      gain: 0,
      read,
      onTrip: (t) => trips.push(t),
      onEnd: () => undefined,
      makeContext: make,
    });
    expect(loop).toMatchObject({ sampleRateHz: RATE, inputMs: null, inputs: [] });
    expect(loop.outputMs).toBeCloseTo(40, 9);
    await vi.advanceTimersByTimeAsync(200);
    expect(started[0]).toBeCloseTo(5.3, 4);
    expect(started.every((at) => Math.abs(at * RATE - Math.round(at * RATE)) < 1e-6)).toBe(true);
    expect(asked).toEqual([]);
    card.currentTime = 7;
    for (let frame = 5 * RATE; frame < 7 * RATE; frame += 1024) hear(frame, 1024);
    await vi.advanceTimersByTimeAsync(200);
    expect(asked).toHaveLength(1);
    expect(asked[0]!.startS).toBeCloseTo(asked[0]!.sent.atS, 6);
    expect(trips).toEqual([{ sentAtS: asked[0]!.sent.atS, ms: 48.3 }]);
    expect(started[1]! - started[0]!).toBeCloseTo(TRIP_EVERY_S, 4);
    loop.level(0.1);
    expect(gains).toEqual([0.1]);
    loop.stop();
    expect(card.state).toBe('closed');
    const before = started.length;
    card.currentTime = 60;
    await vi.advanceTimersByTimeAsync(2000);
    expect(started).toHaveLength(before);
  });
  it('closes what it opened when the ears cannot be fitted', async () => {
    const { card, make } = soundCard();
    card.audioWorklet.addModule = async () => Promise.reject(new Error('no worklets here'));
    const options = { back: { kind: 'stand-in' as const }, gain: 0, onTrip: () => undefined, onEnd: () => undefined };
    await expect(
      runLoop({ ...options, read: async () => ({ sentAtS: 0, ms: null }), makeContext: make }),
    ).rejects.toThrow('no worklets here');
    expect(card.state).toBe('closed');
  });
});

describe('the page of the round trip', () => {
  beforeEach(() => stubServer(noServer));
  afterEach(() => vi.unstubAllGlobals());
  it('begins silent, warns before a lead is plugged, and says why no input can be opened', async () => {
    vi.stubGlobal(
      'Worker',
      class {
        terminate() {}
        addEventListener() {}
        postMessage() {}
      },
    );
    const user = userEvent.setup();
    show(<RoundTripScreen />);
    expect(screen.getByLabelText('Listening level, dB').getAttribute('aria-valuetext')).toBe('silent');
    expect(screen.getByText(/Take headphones off\. If you use a cable, first/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /^Start/ }));
    expect(await screen.findByText(/won’t open audio inputs|can’t be opened|access was denied/)).toBeTruthy();
    expect(screen.queryByTestId('round-trip')).toBeNull();
    await act(async () => undefined);
  });
});
