import { describe, expect, it } from 'vitest';
import { parts as say } from '#words/index.ts';
import {
  decimalsFor,
  formatBytes,
  formatClock,
  formatHz,
  formatNumber,
  formatOffset,
  formatSigned,
  formatSpread,
  sayBand,
} from './format.ts';

describe('numbers on the screen', () => {
  it('have a proper minus, and no minus at nothing', () => {
    expect(formatNumber(-18.5, 1)).toBe('−18.5');
    expect(formatNumber(-0.04, 1)).toBe('0.0');
    expect(formatSigned(64)).toBe('+64');
    expect(formatSigned(0.2)).toBe('0');
    expect(formatOffset(-171.4)).toBe('171 ms early');
    expect(formatOffset(63.96, 1)).toBe('64.0 ms late');
    expect(formatOffset(0.3)).toBe('0 ms');
  });
  it('have as many digits as their spread deserves', () => {
    expect([12, 0.4, 0.05, 0.001].map(decimalsFor)).toEqual([0, 1, 2, 3]);
    const figure = { label: '', unit: 'ms' as const, source: '', terms: [] };
    expect(formatSpread({ ...figure, kind: 'typical', value: { low: -5, nominal: 0, high: 7 } })).toBe('−5 to 7');
    expect(
      formatSpread({
        ...figure,
        kind: 'measured',
        value: { low: 60, nominal: 64, high: 68 },
        spread: { sd: 2, count: 4 },
      }),
    ).toBe('±4.0');
    expect(formatSpread({ ...figure, kind: 'set', value: { low: 1, nominal: 1, high: 1 } })).toBe('');
  });
  it('tell a band, as far as it ends at all', () => {
    expect(sayBand({ lowHz: 300, highHz: 3400 })).toBe('300 Hz to 3.4 kHz');
    expect(sayBand({ lowHz: 0, highHz: 8000 })).toBe('up to 8 kHz');
    expect(sayBand({ lowHz: 70, highHz: Number.POSITIVE_INFINITY })).toBe('from 70 Hz');
    expect(sayBand({ lowHz: 0, highHz: Number.POSITIVE_INFINITY })).toBe(say.fullBand());
    expect(formatHz(12_500)).toBe('13 kHz');
  });
  it('tell time and size', () => {
    expect(formatClock(61_500)).toBe('01:02');
    expect(formatClock(61_534, 2)).toBe('01:01.53');
    expect(formatBytes(209_443)).toBe('209 kB');
    expect(formatBytes(3_400_000_000)).toBe('3.4 GB');
  });
});
