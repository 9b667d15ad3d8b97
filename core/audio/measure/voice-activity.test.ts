import { describe, expect, it } from 'vitest';
import { game, hum, noise, voice } from '#core/desk-tests/stand-ins/index.ts';
import { inputWatch } from './index.ts';
import { voiceActivity } from './voice-activity.ts';

const RATE = 16_000;
const rms = (x: Float32Array): number => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length);
function loud(x: Float32Array, dbfs: number): Float32Array {
  const gain = 10 ** (dbfs / 20) / rms(x);
  return x.map((v) => v * gain);
}
const sum = (a: Float32Array, b: Float32Array): Float32Array => a.map((v, i) => v + b[i]!);
/** Share of the seconds that sound like a voice. */
function heardShare(x: Float32Array, rate = RATE): number {
  const activity = voiceActivity(rate);
  const seconds = Math.floor(x.length / rate);
  const heard = Array.from({ length: seconds }, (_, s) => activity.hears(x.slice(s * rate, (s + 1) * rate)));
  return heard.slice(1).filter(Boolean).length / (seconds - 1);
}
const LONG = 30 * RATE;

describe('a voice', () => {
  it.each([95, 120, 180, 240])('of %i Hz is found in most seconds, at any level', (pitchHz) => {
    const own = voice(pitchHz)(LONG, RATE, pitchHz);
    for (const dbfs of [-50, -20, -6]) expect(heardShare(loud(own, dbfs))).toBeGreaterThan(0.7);
    expect(heardShare(voice(pitchHz)(30 * 48_000, 48_000, pitchHz), 48_000)).toBeGreaterThan(0.7);
  });
  it('is found over other sound that is 12 dB under it', () => {
    for (const other of [noise, game])
      expect(heardShare(sum(loud(voice(120)(LONG, RATE, 1), -20), loud(other(LONG, RATE, 2), -32)))).toBeGreaterThan(
        0.5,
      );
  });
  it('is not found in what is no voice: noise, a game, hum, a tone, nothing', () => {
    for (let seed = 1; seed < 8; seed++)
      for (const x of [noise(LONG, RATE, seed), game(LONG, RATE, seed), hum(50)(LONG, RATE, seed)])
        expect(heardShare(x)).toBe(0);
    expect(heardShare(new Float32Array(LONG))).toBe(0);
    expect(heardShare(Float32Array.from({ length: LONG }, (_, i) => Math.sin(i)))).toBe(0);
  });
});

describe('an input that lost its voice', () => {
  const talk = loud(voice(120)(2 * LONG, RATE, 3), -20);
  const play = loud(game(100 * RATE, RATE, 4), -32);
  const hear = (watch: ReturnType<typeof inputWatch>, x: Float32Array) => {
    for (let at = 0; at < x.length; at += 1024) watch.push([x.subarray(at, at + 1024)]);
    return watch.state().alarms.map((a) => a.id);
  };
  it('says so a minute after the last word, while other sound goes on, and no more once it is back', () => {
    const watch = inputWatch(1, RATE, { voice: true });
    expect(hear(watch, sum(talk, play))).toEqual([]);
    expect(hear(watch, play.subarray(0, 58 * RATE))).toEqual([]);
    expect(hear(watch, play.subarray(0, 6 * RATE))).toEqual(['no-voice']);
    expect(hear(watch, sum(talk, play))).toEqual([]);
  });
  it('says nothing where none is expected, none was there yet, or all is silent', () => {
    for (const [voiced, before] of [
      [false, talk],
      [true, play.subarray(0, LONG)],
    ] as const) {
      const watch = inputWatch(1, RATE, { voice: voiced });
      hear(watch, before);
      expect(hear(watch, play)).toEqual([]);
    }
    const silent = inputWatch(1, RATE, { voice: true });
    hear(silent, talk);
    expect(hear(silent, new Float32Array(100 * RATE))).toEqual(['silent']);
  });
});
