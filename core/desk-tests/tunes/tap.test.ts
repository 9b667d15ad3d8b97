import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Join, renderTune, SILENCE_S, TUNE_S, TUNES, tuneOf, whatIsKnown } from './index.ts';

const RATE = 8000;

describe('a tune', () => {
  it('is decided by its number alone, and unlike every other', () => {
    const all = Array.from({ length: 2 * TUNES }, (_, id) => JSON.stringify(tuneOf(id)));
    expect(new Set(all).size).toBe(2 * TUNES);
    expect(JSON.stringify(tuneOf(3))).toBe(all[3]);
    // The same on every machine: this is how the first one begins.
    expect(tuneOf(0)[0]).toMatchObject({ atS: 0, gain: 1 });
    for (const { fromHz, toHz } of tuneOf(5)) expect(Math.abs(Math.log2(toHz / fromHz))).toBeCloseTo(1, 9);
  });
  it('keeps to five notes of the scale in the middle, takes every note before any comes again, and ends in time', () => {
    for (let id = 0; id < TUNES; id++) {
      const middle = tuneOf(id).filter((g) => g.gain === 1);
      const steps = middle.map((g) => Math.round(12 * Math.log2(Math.min(g.fromHz, g.toHz) / 330)));
      expect(steps.every((s) => [0, 3, 5, 7, 10].includes(s % 12))).toBe(true);
      const bag = new Set(steps).size;
      expect(bag).toBe(12);
      for (let i = 0; i + bag <= steps.length; i += bag) expect(new Set(steps.slice(i, i + bag)).size).toBe(bag);
      const last = middle.at(-1)!;
      expect(last.atS + last.lengthS).toBeLessThanOrEqual(TUNE_S);
      expect(last.atS).toBeGreaterThan(TUNE_S - 0.6);
    }
  });
  it('sounds between its silences, at -6 dBFS, and hardly like another tune', () => {
    const [a, b] = [0, 1].map((id) => renderTune(id, RATE)) as [Float32Array, Float32Array];
    expect(a.length).toBe((TUNE_S + 2 * SILENCE_S) * RATE);
    const quiet = [a.subarray(0, SILENCE_S * RATE), a.subarray(a.length - SILENCE_S * RATE)];
    expect(quiet.every((part) => part.every((v) => v === 0))).toBe(true);
    const peak = (x: Float32Array) => 20 * Math.log10(x.reduce((m, v) => Math.max(m, Math.abs(v)), 0));
    const whole = peak(renderTune(0, 48_000));
    expect(whole).toBeLessThanOrEqual(-6);
    expect(whole).toBeGreaterThan(-7);
    // A low rate lacks the highest notes, and what is left is as loud as before.
    expect(peak(a)).toBeLessThan(whole);
    const rms = (x: Float32Array) => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length);
    expect(20 * Math.log10(rms(a))).toBeGreaterThan(-20);
    // At one lag each, as loud as itself, the other in the noise.
    const dot = (x: Float32Array, y: Float32Array) =>
      x.reduce((s, v, i) => s + v * y[i]!, 0) / (x.length * rms(x) * rms(y));
    expect(dot(a, a)).toBeCloseTo(1, 5);
    expect(Math.abs(dot(a, b))).toBeLessThan(0.05);
  });
  it('does not fold back what a low rate cannot hold', () => {
    const power = renderTune(2, 16_000).reduce((s, v) => s + v * v, 0);
    expect(Number.isFinite(power)).toBe(true);
    expect(tuneOf(2).some((g) => Math.max(g.fromHz, g.toHz) > 8000)).toBe(true);
  });
});

/** Rank of a matrix by elimination: small whole numbers, so that nothing is lost. */
function rankOf(rows: readonly (readonly number[])[]): number {
  const m = rows.map((r) => [...r]);
  let rank = 0;
  for (let c = 0; c < (m[0]?.length ?? 0) && rank < m.length; c++) {
    const pivot = m.findIndex((r, i) => i >= rank && Math.abs(r[c]!) > 1e-9);
    if (pivot < 0) continue;
    [m[rank], m[pivot]] = [m[pivot]!, m[rank]!];
    for (let i = 0; i < m.length; i++) {
      if (i === rank) continue;
      const f = m[i]![c]! / m[rank]![c]!;
      if (f !== 0) for (let k = c; k < m[i]!.length; k++) m[i]![k]! -= f * m[rank]![k]!;
    }
    rank++;
  }
  return rank;
}

const aScene = fc
  .record({ sources: fc.integer({ min: 1, max: 4 }), takes: fc.integer({ min: 1, max: 4 }) })
  .chain(({ sources, takes }) =>
    fc.record({
      sources: fc.constant(sources),
      takes: fc.constant(takes),
      joins: fc.array(
        fc.oneof(
          fc.tuple(fc.constant('path' as const), fc.nat(sources - 1), fc.nat(takes - 1)),
          fc.tuple(fc.constant('player' as const), fc.nat(sources - 1), fc.nat(sources - 1)),
          fc.tuple(fc.constant('file' as const), fc.nat(takes - 1), fc.nat(takes - 1)),
        ),
        { maxLength: 7 },
      ),
    }),
  );

describe('what may be said about time', () => {
  it('is what the linear system of all readings and joins determines, no more and no less', () => {
    fc.assert(
      fc.property(aScene, ({ sources: S, takes: L, joins }) => {
        // Unknowns: a(s), b(l), d(s,l).
        const width = S + L + S * L;
        const [a, b, d] = [(s: number) => s, (l: number) => S + l, (s: number, l: number) => S + L + s * L + l];
        const row = (...terms: (readonly [number, number])[]) => {
          const r = new Array<number>(width).fill(0);
          for (const [at, sign] of terms) r[at]! += sign;
          return r;
        };
        const rows: number[][] = [];
        for (let s = 0; s < S; s++) for (let l = 0; l < L; l++) rows.push(row([a(s), 1], [d(s, l), 1], [b(l), -1]));
        for (const [kind, x, y] of joins)
          rows.push(
            kind === 'path'
              ? row([d(x, y), 1])
              : kind === 'player'
                ? row([a(x), 1], [a(y), -1])
                : row([b(x), 1], [b(y), -1]),
          );
        const rank = rankOf(rows);
        const determined = (...terms: (readonly [number, number])[]) => rankOf([...rows, row(...terms)]) === rank;
        const known = whatIsKnown(
          Array.from({ length: S }, (_, s) => String(s)),
          Array.from({ length: L }, (_, l) => String(l)),
          joins.map(
            ([kind, x, y]): Join =>
              kind === 'path'
                ? { kind, sourceId: String(x), takeId: String(y) }
                : kind === 'player'
                  ? { kind, sourceIds: [String(x), String(y)] }
                  : { kind, takeIds: [String(x), String(y)] },
          ),
        );
        for (let s = 0; s < S; s++)
          for (let l = 0; l < L; l++) {
            expect(known.delay(String(s), String(l))).toBe(determined([d(s, l), 1]));
            for (let o = 0; o < S; o++)
              expect(known.betweenSources(String(s), String(o))).toBe(determined([d(s, l), 1], [d(o, l), -1]));
            for (let o = 0; o < L; o++)
              expect(known.betweenTakes(String(l), String(o))).toBe(determined([d(s, l), 1], [d(s, o), -1]));
          }
        // When all of it happened by some clock outside is never known, and asked by no one.
        expect(known.lacking).toBe(width - rank - 1);
      }),
      { numRuns: 500 },
    );
  });
  it('is everything once as many joins that tell something new are there as are lacking', () => {
    const bare = whatIsKnown(['game', 'voice'], ['stream', 'backup'], []);
    expect(bare.lacking).toBe(3);
    expect(bare.delay('game', 'stream')).toBe(false);
    const all = whatIsKnown(
      ['game', 'voice'],
      ['stream', 'backup'],
      [
        { kind: 'file', takeIds: ['stream', 'backup'] },
        { kind: 'path', sourceId: 'voice', takeId: 'backup' },
        { kind: 'player', sourceIds: ['game', 'voice'] },
        { kind: 'path', sourceId: 'nobody', takeId: 'backup' },
      ],
    );
    expect(all.lacking).toBe(0);
    expect(all.delay('game', 'stream')).toBe(true);
  });
});
