import { describe, expect, it } from 'vitest';
import type { Diagnosis } from '#core/audio/measure/index.ts';
import { levelOf } from './level-of.ts';

const floor = (programmeDbfs: number | null, floorDbfs: number | null) => ({
  programmeDbfs,
  floorDbfs,
  restPart: 0.3,
  bandHz: [1000, 14_000] as const,
});
const diagnosis = (shortTermLufs: number[], ...floors: ReturnType<typeof floor>[]): Diagnosis => ({
  faults: [],
  levels: {
    integratedLufs: -20,
    rangeLu: 4,
    maxMomentaryLufs: -15,
    maxShortTermLufs: -17,
    truePeakDbtp: -3,
    samplePeakDbfs: -3.1,
  },
  curves: { momentaryLufs: new Float64Array(), shortTermLufs: Float64Array.from(shortTermLufs) },
  floors,
  spectra: [],
});

describe('how loud a take is', () => {
  it('is what the louder side is while it sounds, with what is left in its pauses', () => {
    const level = levelOf(diagnosis(Array(300).fill(-20), floor(-24, -70), floor(-19, -72)))!;
    expect(level).toMatchObject({ levelDb: -19, floor: { db: -72, bandHz: [1000, 14_000] } });
    expect(level.count).toBe(10);
  });
  it('is the surer the longer and the more evenly it sounds; pauses count for nothing', () => {
    const wavering = Array.from({ length: 300 }, (_, i) => -20 + (i % 2 ? 4 : -4));
    const long = Array.from({ length: 3000 }, (_, i) => -20 + (i % 2 ? 4 : -4));
    const [short, longer] = [wavering, long].map((c) => levelOf(diagnosis(c, floor(-19, null)))!.sdDb);
    expect(longer!).toBeLessThan(short!);
    expect(levelOf(diagnosis([...Array(300).fill(-20), ...Array(300).fill(-60)], floor(-19, null)))!.sdDb).toBe(0.3);
    expect(levelOf(diagnosis([-20], floor(-19, null)))).toMatchObject({ count: 1, floor: null });
  });
  it('is nothing of silence', () => {
    expect(levelOf(diagnosis([], floor(null, null)))).toBeNull();
  });
});
