import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boathouse } from '#demo/boathouse.ts';
import { parseRig } from './parse.ts';
import { changesOf, heldTo, tryOn } from './trial.ts';

describe('what is tried', () => {
  const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
  it('changes the rig only where it differs and the device can', () => {
    expect(tryOn(rig, {})).toBe(rig);
    expect(tryOn(rig, { 'mixer.strip-1-delay': 0 })).toBe(rig);
    expect(changesOf(rig, { 'mixer.strip-1-delay': 501, 'mixer.nowhere': 3, 'nobody.x': 1 })).toEqual([]);
    const tried = tryOn(rig, { 'mixer.strip-1-delay': 171 });
    expect(tried.devices.find((d) => d.id === 'mixer')!.settings['strip-1-delay']).toEqual({
      value: 171,
      known: 'assumed',
    });
  });
  it('is held to the nearest step within the range', () => {
    fc.assert(
      fc.property(fc.double({ min: -1000, max: 2000, noNaN: true }), (value) => {
        const held = heldTo({ min: 0, max: 500, step: 0.5 }, value);
        expect(held).toBeGreaterThanOrEqual(0);
        expect(held).toBeLessThanOrEqual(500);
        expect(Number.isInteger(held * 2)).toBe(true);
        if (value >= 0 && value <= 500) expect(Math.abs(held - value)).toBeLessThanOrEqual(0.25 + 1e-9);
      }),
    );
    expect(heldTo({ min: 0, max: 10, step: 3 }, 99)).toBe(9);
  });
});
