import { describe, expect, it } from 'vitest';
import { countingOf, rate, timecode } from './index.ts';

const ntsc = countingOf(rate(30_000, 1001))!;

/** The slow twin: counts frame by frame, leaving out what the standard leaves out. */
function* counted(): Generator<string> {
  const two = (n: number) => String(n).padStart(2, '0');
  for (let h = 0; ; h++)
    for (let m = 0; m < 60; m++)
      for (let s = 0; s < 60; s++)
        for (let f = s === 0 && m % 10 !== 0 ? 2 : 0; f < 30; f++) yield `${two(h)}:${two(m)}:${two(s)};${two(f)}`;
}

describe('timecode', () => {
  it('drops the numbers that the standard drops, over more than an hour, frame by frame', () => {
    const twin = counted();
    for (let frame = 0; frame < 112_000; frame++) {
      const wanted = twin.next().value;
      if (frame % 7 === 0 || frame % 1798 < 4) expect(timecode(frame, ntsc)).toBe(wanted);
    }
  });
  it('counts 24, 25 and 30 as they are, doubles in pairs, and knows what nobody counts', () => {
    expect(timecode(25 * 3661 + 7, countingOf(rate(25))!)).toBe('01:01:01:07');
    expect(countingOf(rate(24_000, 1001))).toEqual({ perSecond: 24, drop: false, frames: 1 });
    expect(countingOf(rate(60_000, 1001))).toEqual({ perSecond: 30, drop: true, frames: 2 });
    expect(countingOf(rate(50))).toEqual({ perSecond: 25, drop: false, frames: 2 });
    expect(countingOf(rate(120))).toBeNull();
    expect(timecode(24 * 86_400, countingOf(rate(24))!)).toBe('00:00:00:00');
  });
});
