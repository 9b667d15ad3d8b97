import { describe, expect, it } from 'vitest';
import { rate } from '#core/model/units/index.ts';
import { slipListToCsv } from '#core/output/exchange/index.ts';
import { slipsOfGroup } from './slips.ts';

describe('the slip list of joined takes', () => {
  it('moves each to where it was heard, and plays those that run longer faster', () => {
    const facts = [8000, 5000, 9000].map((durationMs) => ({
      durationMs,
      sampleRateHz: 48_000,
      peaks: { framesPerBin: 1, sampleRateHz: 1, low: new Float32Array(), high: new Float32Array() },
    }));
    const group = {
      contradictsMs: 0,
      takes: [
        { index: 2, startMs: 0, longerPpm: 0, against: null, confidence: 1 },
        { index: 0, startMs: 1234.5, longerPpm: 40, against: 2, confidence: 1 },
        { index: 1, startMs: 6000, longerPpm: null, against: 0, confidence: 0.9 },
      ],
    };
    const list = slipsOfGroup(group, facts, ['a.wav', 'b.mp4', 'c.mov'], rate(25));
    expect(list.title).toBe('c.mov');
    expect(list.items.map((i) => [i.name, i.fileName, i.moveMs, i.longerPpm, i.durationMs])).toEqual([
      ['c', 'c.mov', 0, 0, 9000],
      ['a', 'a.wav', 1234.5, 40, 8000],
      ['b', 'b.mp4', 6000, 0, 5000],
    ]);
    expect(slipListToCsv(list)).toContain('1234.5');
  });
});
