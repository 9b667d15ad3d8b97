import { describe, expect, it, vi } from 'vitest';
import { SILENCE_S, TUNE_S } from '#core/desk-tests/tunes/index.ts';
import { rate } from '#core/model/units/index.ts';
import { playTune, tryTune } from './index.ts';

/** A sound card whose clock is turned by hand. */
function soundCard() {
  const ramps: { gain: number; atS: number; kind: 'set' | 'ramp' }[] = [];
  const buffers: Float32Array[] = [];
  const started: number[] = [];
  let ended: () => void = () => undefined;
  const card = {
    currentTime: 20,
    sampleRate: 8000,
    outputLatency: 0.04,
    destination: {},
    state: 'running',
    stamp: {} as { contextTime?: number; performanceTime?: number },
    resume: async () => undefined,
    close: async () => {
      card.state = 'closed';
    },
    getOutputTimestamp: () => card.stamp,
    createGain: () => ({
      gain: {
        setValueAtTime: (gain: number, atS: number) => ramps.push({ gain, atS, kind: 'set' }),
        linearRampToValueAtTime: (gain: number, atS: number) => ramps.push({ gain, atS, kind: 'ramp' }),
        setTargetAtTime: (gain: number, atS: number) => ramps.push({ gain, atS, kind: 'set' }),
        cancelScheduledValues: () => undefined,
      },
      connect: () => undefined,
    }),
    createBuffer: (_: number, length: number) => {
      const data = new Float32Array(length);
      buffers.push(data);
      return { getChannelData: () => data };
    },
    createBufferSource: () => {
      const node = {
        buffer: null,
        connect: () => undefined,
        start: (at: number) => started.push(at),
        set onended(then: () => void) {
          ended = then;
        },
      };
      return node;
    },
  };
  return { card, ramps, buffers, started, end: () => ended(), make: () => card as unknown as AudioContext };
}
const play = { gain: 0.1, rate: rate(60), onEnd: () => undefined };

describe('a tune’s player', () => {
  it('plays the whole tune once, at the level that is set, and says when it is over', async () => {
    const { card, ramps, buffers, started, end, make } = soundCard();
    const onEnd = vi.fn();
    const player = await playTune({ ...play, tune: 3, onEnd, makeContext: make });
    expect(started).toEqual([20.3]);
    expect(ramps).toEqual([{ gain: 0.1, atS: 20, kind: 'set' }]);
    expect(buffers[0]!.length).toBe((TUNE_S + 2 * SILENCE_S) * 8000);
    expect(buffers[0]!.some((v) => v !== 0)).toBe(true);
    player.level(0.2);
    expect(ramps.at(-1)!.gain).toBe(0.2);
    end();
    expect(onEnd).toHaveBeenCalledOnce();
    expect(card.state).toBe('closed');
  });
  it('counts its panel by what has left the loudspeaker', async () => {
    const { card, make } = soundCard();
    const player = await playTune({ ...play, tune: 3, makeContext: make });
    card.stamp = { contextTime: 20.3 + 2.5, performanceTime: 9000 };
    expect(player.frameAt(9000)).toBe(150);
    expect(player.frameAt(9017)).toBe(151);
    expect(player.frameAt(0)).toBe(0);
    // A browser that tells nothing: by its own figure of latency.
    card.stamp = {};
    card.currentTime = 20.3 + 1 + 0.04;
    expect(player.frameAt(0)).toBe(60);
    player.stop();
    player.stop();
    expect(card.state).toBe('closed');
  });
  it('tries the level with another tune, that rises from nothing', async () => {
    const one = soundCard();
    await playTune({ ...play, tune: 3, makeContext: one.make });
    const other = soundCard();
    await tryTune({ ...play, makeContext: other.make });
    expect(other.ramps[0]).toMatchObject({ gain: 0, kind: 'set' });
    expect(other.ramps[1]).toMatchObject({ gain: 0.1, kind: 'ramp' });
    expect(other.ramps[1]!.atS - other.ramps[0]!.atS).toBeGreaterThanOrEqual(5);
    expect(other.buffers[0]).not.toEqual(one.buffers[0]);
  });
});
