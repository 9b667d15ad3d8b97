import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layoutName, layoutOfCount, loudnessWeights, maskOf, speakerName } from './index.ts';
import { layoutOfMask } from './layout.ts';

describe('a layout of channels', () => {
  it('goes into a WAVE mask and comes back, whatever loudspeakers it has', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2 ** 18 - 1 }), (mask) => {
        const channels = mask.toString(2).split('1').length - 1;
        const layout = layoutOfMask(mask, channels)!;
        expect(layout).toHaveLength(channels);
        expect(maskOf(layout)).toBe(mask);
        expect(new Set(layout.map(speakerName)).size).toBe(channels);
        // A mask that names fewer speakers than there are channels names none.
        expect(layoutOfMask(mask, channels + 1)).toBeNull();
      }),
    );
  });
  it('is called as people call it, by how many channels there are', () => {
    const names = [1, 2, 3, 4, 5, 6, 7, 8].map((n) => layoutName(layoutOfCount(n)!));
    expect(names).toEqual(['mono', 'stereo', '3.0', '4.0', '5.0', '5.1', '6.1', '7.1']);
    expect(layoutOfCount(9)).toBeNull();
  });
  it('weighs channels for loudness by BS.1770-5: low effects not, what stands beside the listener 1.5 dB more', () => {
    expect(loudnessWeights(layoutOfCount(2)!)).toEqual([1, 1]);
    expect(loudnessWeights(layoutOfCount(6)!)).toEqual([1, 1, 1, 0, 1.41, 1.41]);
    expect(loudnessWeights(layoutOfCount(8)!)).toEqual([1, 1, 1, 0, 1, 1, 1.41, 1.41]);
  });
});
