import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { clockBetween, clockLine, onPage } from './index.ts';

describe('two clocks', () => {
  it('are one line, whatever comes late now and then', () => {
    const [normal, random] = [seededNormal(1), seededRandom(2)];
    const rate = 1 - 80e-6;
    const readings = Array.from({ length: 400 }, (_, i) => {
      const ownS = 3 + i * 0.05;
      const late = random() < 0.1 ? 0.2 * random() : 0;
      return { ownS, pageS: ownS * rate + 71 + 0.0005 * normal() + late };
    });
    const line = clockLine(readings)!;
    expect(Math.abs(line.rate - rate)).toBeLessThan(15e-6);
    for (const ownS of [3, 13, 23]) expect(Math.abs(onPage(line, ownS) - (ownS * rate + 71))).toBeLessThan(0.0003);
  });
  it('cannot be told from one reading, nor be further apart than clocks are', () => {
    expect(clockLine([{ ownS: 1, pageS: 2 }])).toBeNull();
    const line = clockLine([
      { ownS: 0, pageS: 0 },
      { ownS: 1, pageS: 1.2 },
    ])!;
    expect(line.rate).toBeLessThanOrEqual(1.0005);
  });
  it('are steady until samples are lost, and then a line of their own', () => {
    const normal = seededNormal(5);
    const readings = Array.from({ length: 600 }, (_, i) => {
      const ownS = i * 0.025;
      return { ownS, pageS: ownS + 50 + (ownS > 9 ? 0.04 : 0) + 0.002 * normal() };
    });
    const before = clockBetween(readings, 51, 58)!;
    const across = clockBetween(readings, 55, 62)!;
    const after = clockBetween(readings, 60, 64)!;
    expect([before.isSteady, across.isSteady, after.isSteady]).toEqual([true, false, true]);
    expect(Math.abs(onPage(before, 4) - 54)).toBeLessThan(0.001);
    expect(Math.abs(onPage(after, 12) - 62.04)).toBeLessThan(0.001);
    expect(clockBetween([], 0, 1)).toBeNull();
  });
});
