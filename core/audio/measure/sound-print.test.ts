import { describe, expect, it } from 'vitest';
import { seededNormal } from '#core/audio/samples/index.ts';
import { soundPrint } from './index.ts';

const RATE = 16_000;
const SECONDS = 6;
const make = (f: (i: number) => number) => Float32Array.from({ length: SECONDS * RATE }, (_, i) => f(i));
const tone = (hz: number, amplitude: number) => (i: number) => amplitude * Math.sin((2 * Math.PI * hz * i) / RATE);
/** Half a second of voice, half a second of rest. */
const speech = (amplitude: number, rest: number, seed = 1) => {
  const normal = seededNormal(seed);
  return (i: number) => (Math.floor((2 * i) / RATE) % 2 === 0 ? amplitude : rest) * normal();
};

describe('the print of a sentence', () => {
  it('tells loudness, the noise in its rests, and no hum where none is', () => {
    const print = soundPrint([make(speech(0.1, 0.001))], RATE);
    expect(print.noiseDbfs!).toBeGreaterThan(-60);
    expect(print.noiseDbfs!).toBeLessThan(-55);
    expect(print.humDbfs).toBeNull();
    expect(print.sidesDb).toBeNull();
    const louder = soundPrint([make(speech(0.2, 0.001))], RATE);
    expect(louder.lufs! - print.lufs!).toBeCloseTo(6, 0);
    expect(louder.noiseDbfs!).toBeCloseTo(print.noiseDbfs!, 0);
  });
  it('tells where the energy lies, exactly for a tone', () => {
    expect(soundPrint([make(tone(440, 0.1))], RATE).toneHz).toBeCloseTo(440, 1);
    expect(soundPrint([make(tone(3000, 0.1))], RATE).toneHz).toBeCloseTo(3000, 0);
    const dull = soundPrint([make((i) => tone(300, 0.1)(i) + tone(2000, 0.02)(i))], RATE);
    const thin = soundPrint([make((i) => tone(300, 0.04)(i) + tone(2000, 0.05)(i))], RATE);
    expect(thin.toneHz!).toBeGreaterThan(1.5 * dull.toneHz!);
  });
  it('tells hum under a voice, and one side weaker than the other', () => {
    const voice = speech(0.01, 0.0005, 3);
    const hum = tone(50, 0.01);
    expect(soundPrint([make((i) => voice(i) + hum(i))], RATE).humDbfs).toBeCloseTo(-40, 0);
    const left = speech(0.1, 0.001, 4);
    const half = speech(0.05, 0.0005, 4);
    expect(soundPrint([make(left), make(half)], RATE).sidesDb).toBeCloseTo(6.02, 1);
  });
  it('of nothing is nothing', () => {
    expect(soundPrint([make(() => 0), make(() => 0)], RATE)).toEqual({
      lufs: null,
      noiseDbfs: null,
      humDbfs: null,
      toneHz: null,
      sidesDb: null,
      clips: 0,
    });
  });
});
