// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { slateReading } from '#core/desk-tests/slates/slate.testkit.ts';
import { keepSkew, notesFrom, offsetOf, offsetOfSlate, skewOf } from './index.ts';
import { look } from './look.testkit.ts';

beforeEach(() => localStorage.clear());
const withSlate = () => {
  const plain = look();
  const slate = slateReading({ id: 2, fromMs: 900, toMs: 4200, zeroMs: -1000, offsetMs: 80 });
  return {
    ...plain,
    sound: { ...plain.sound!, chirps: [{ atMs: 3066, kind: 0 as const, likeness: 1 }] },
    picture: { ...plain.picture!, slates: [slate] },
  };
};

describe('what a take tells', () => {
  it('are its flashes and claps where it has no slate', () => {
    const notes = notesFrom(look());
    expect(offsetOf(look(), notes)).toMatchObject({ by: 'claps', offsetMs: 65, count: 2 });
    expect(offsetOf(null, null)).toBeNull();
  });
  it('is its slate before all; a slate’s clicks and flashes are no marks', () => {
    const seen = withSlate();
    const notes = notesFrom(seen);
    // The flashes at 1 and 3 s stand on beats; the clap at 3066 ms is the slate's own click.
    expect(notes.flashes).toEqual([]);
    expect(notes.claps.map((c) => c.atMs)).toEqual([1064, 2000]);
    expect(offsetOf(seen, notes)).toMatchObject({ by: 'slate', offsetMs: 80, slateId: 2 });
  });
  it('keeps the player’s own skew in its spread, until a clap beside the slate takes it out', () => {
    const [slate] = withSlate().picture.slates;
    expect(offsetOfSlate(slate!)!.sdMs).toBeGreaterThan(23);
    keepSkew(2, { skewMs: 12, sdMs: 3, takeName: 'beside' });
    expect(offsetOfSlate(slate!)).toMatchObject({ offsetMs: 68 });
    expect(offsetOfSlate(slate!)!.sdMs).toBeLessThan(5);
    expect(skewOf(3)).toBeNull();
    keepSkew(2, null);
    expect(skewOf(2)).toBeNull();
  });
  it('sees flashes beside a slate, and none in its cells', () => {
    const seen = withSlate();
    const flash = { frame: 1, strength: 50 };
    const flashes = [
      { ...flash, atMs: 2200, cell: 3 * 16 + 4 },
      { ...flash, atMs: 2300, cell: 15 },
      { ...flash, atMs: 4700, cell: 3 * 16 + 4 },
    ];
    const notes = notesFrom({ ...seen, picture: { ...seen.picture, flashes } });
    expect(notes.flashes.map((f) => f.atMs)).toEqual([2300, 4700]);
  });
  it('keeps of a strobe what lies near a clap, within a blink', () => {
    const seen = look();
    const flashes = Array.from({ length: 40_000 }, (_, n) => ({
      atMs: 160 * n,
      frame: n,
      strength: 20 + (n % 7),
      cell: 3,
    }));
    const claps = Array.from({ length: 30 }, (_, n) => ({
      atMs: 200_000 * n + 77,
      strength: 20,
      confidence: 0.99,
      kind: 'hands' as const,
    }));
    const begun = performance.now();
    const strobe = { ...seen, sound: { ...seen.sound!, claps }, picture: { ...seen.picture!, flashes } };
    const notes = notesFrom(strobe);
    expect(notes.flashes.length).toBeGreaterThan(0);
    expect(notes.flashes.length).toBeLessThanOrEqual(400);
    for (const f of notes.flashes) expect(claps.some((c) => Math.abs(c.atMs - f.atMs) < 1000)).toBe(true);
    expect(notes.flashes.map((f) => f.atMs)).toEqual(notes.flashes.map((f) => f.atMs).sort((a, b) => a - b));
    offsetOf(strobe, notes);
    // No stopwatch decides, but minutes would be a defect.
    expect(performance.now() - begun).toBeLessThan(20_000);
  });
});
