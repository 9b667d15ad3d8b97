import { describe, expect, it } from 'vitest';
import type { Offset } from '#core/audio/measure/index.ts';
import { rate } from '#core/model/units/index.ts';
import { someWork } from '#web/shared/jobs/jobs.testkit.ts';
import { restingTake } from './bench.testkit.ts';
import { slipsOf } from './SlipList.tsx';

const offset = (more: Partial<Offset>): Offset => ({
  offsetMs: 250,
  spreadMs: 0.1,
  confidence: 1,
  driftPpm: null,
  driftSdPpm: null,
  polarity: 1,
  points: [],
  ...more,
});
const bench = [restingTake('a'), restingTake('b')];
const slips = (found: Offset | null) =>
  slipsOf({
    bench,
    comparison: { offset: found, apart: null, work: someWork() },
    frameRate: rate(25),
  });

describe('what two takes ask for in the edit', () => {
  it('is to move the second by what it is late, and to undo its drift where that is sure', () => {
    expect(slips(offset({}))!.items).toMatchObject([
      { name: 'a', fileName: 'a.mp4', moveMs: 0, longerPpm: 0, durationMs: 5000 },
      { name: 'b', moveMs: -250, longerPpm: 0, sampleRateHz: 48_000 },
    ]);
    expect(slips(offset({ driftPpm: 31, driftSdPpm: 1 }))!.items[1]!.longerPpm).toBe(31);
    expect(slips(offset({ driftPpm: 3, driftSdPpm: 2 }))!.items[1]!.longerPpm).toBe(0);
  });
  it('is cut where a buffer was lost, each part laid where it was heard', () => {
    const apart = {
      jumps: [{ atMs: 2000, withinMs: 500, stepMs: -15 }],
      driftPpm: 0,
      driftSdPpm: 0.1,
      startMs: 250,
      readings: Array.from({ length: 40 }, (_, i) => ({ atMs: 100 * i, offsetMs: i < 20 ? 250 : 235 })),
    };
    const found = slipsOf({
      bench,
      comparison: { offset: offset({}), apart, work: someWork() },
      frameRate: rate(25),
    })!;
    expect(found.items.slice(1)).toMatchObject([
      { moveMs: -250, durationMs: 2250 },
      { moveMs: 2000, fromMs: 2235, durationMs: 5000 - 2235 },
    ]);
    expect(found.items[1]!.fromMs).toBeUndefined();
  });
  it('is nothing as long as it is not known how they lie', () => {
    expect(slips(null)).toBeNull();
  });
});
