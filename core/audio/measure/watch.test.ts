import { describe, expect, it } from 'vitest';
import { seededNormal } from '#core/audio/samples/index.ts';
import { inputWatch, type WatchState } from './index.ts';

const RATE = 16_000;

type Sound = (i: number) => number;
const normal = seededNormal(5);
const noise =
  (amplitude: number): Sound =>
  () =>
    amplitude * normal();
const tone =
  (hz: number, amplitude: number): Sound =>
  (i) =>
    amplitude * Math.sin((2 * Math.PI * hz * i) / RATE);
const nothing: Sound = () => 0;

/** So many seconds of sounds, one a side, pushed in pieces as a worklet gives them. */
function hear(watch: ReturnType<typeof inputWatch>, seconds: number, ...sides: Sound[]): WatchState {
  const frames = Math.round(seconds * RATE);
  for (let at = 0; at < frames; at += 1024) {
    const count = Math.min(1024, frames - at);
    watch.push(sides.map((side) => Float32Array.from({ length: count }, (_, i) => side(at + i))));
  }
  return watch.state();
}
const ids = (state: WatchState) => state.alarms.map((a) => a.id);

describe('an input that is watched', () => {
  it('is well while it sounds, and silent after ten seconds without', () => {
    const watch = inputWatch(2, RATE);
    const voice = noise(0.1);
    expect(hear(watch, 12, voice, voice)).toMatchObject({ alarms: [], secondsSinceGood: 0, watchedS: 12 });
    expect(ids(hear(watch, 9, nothing, nothing))).toEqual([]);
    const silent = hear(watch, 2, nothing, nothing);
    expect(ids(silent)).toEqual(['silent']);
    expect(silent.alarms[0]!.forS).toBe(11);
    expect(silent.secondsSinceGood).toBe(11);
    expect(hear(watch, 2, voice, voice)).toMatchObject({ alarms: [], secondsSinceGood: 0 });
  });
  it('never was well where nothing ever came', () => {
    expect(hear(inputWatch(1, RATE), 12, nothing).secondsSinceGood).toBeNull();
  });
  it('tells one side only, and which', () => {
    const watch = inputWatch(2, RATE);
    const state = hear(watch, 12, noise(0.1), noise(0.0001));
    expect(state.alarms).toMatchObject([{ id: 'one-side', says: { params: { side: 'left' } } }]);
    expect(ids(hear(inputWatch(2, RATE), 12, noise(0.1), noise(0.02)))).toEqual([]);
    expect(ids(hear(inputWatch(1, RATE), 12, noise(0.1)))).toEqual([]);
  });
  it('tells clipping for ten seconds, and forgets it', () => {
    const watch = inputWatch(1, RATE);
    const hot: Sound = (i) => Math.max(-1, Math.min(1, 1.4 * Math.sin((2 * Math.PI * 200 * i) / RATE)));
    expect(ids(hear(watch, 2, hot))).toContain('clipping');
    expect(ids(hear(watch, 11, noise(0.1)))).toEqual([]);
  });
  it.each([50, 60])('tells hum of %i Hz under a voice, by its level', (hz) => {
    const hum = tone(hz, 0.01);
    const voice = noise(0.003);
    const state = hear(inputWatch(1, RATE), 8, (i) => hum(i) + voice(i));
    expect(state.alarms).toMatchObject([{ id: 'hum' }]);
    expect(state.alarms[0]!.says).toBe(`${hz} Hz, -40 dBFS`);
  });
  it('takes neither noise, nor a low note, nor hum that nobody hears for hum', () => {
    expect(ids(hear(inputWatch(1, RATE), 8, noise(0.1)))).toEqual([]);
    expect(ids(hear(inputWatch(1, RATE), 8, tone(82.4, 0.1)))).toEqual([]);
    const faint = tone(50, 0.0002);
    const voice = noise(0.01);
    expect(ids(hear(inputWatch(1, RATE), 8, (i) => faint(i) + voice(i)))).toEqual([]);
  });
  it('tells when it is far from usual for half a minute', () => {
    const watch = inputWatch(1, RATE);
    const usual = hear(watch, 35, noise(0.1)).usualLufs!;
    watch.setUsual(usual);
    expect(ids(hear(watch, 35, noise(0.08)))).toEqual([]);
    const quiet = hear(watch, 40, noise(0.03));
    expect(quiet.alarms).toMatchObject([{ id: 'off-usual' }]);
    expect(quiet.alarms[0]!.says).toMatchObject({ params: { change: 'quieter' } });
    watch.setUsual(null);
    expect(ids(hear(watch, 2, noise(0.03)))).toEqual([]);
  });
});
