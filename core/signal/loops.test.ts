import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate } from './index.ts';
import { type LoopLink, loopGain } from './loop-gain.ts';
import { box, latencyFigure, rigOf, through } from './rigs.testkit.ts';

const FULL = { lowHz: 0, highHz: Number.POSITIVE_INFINITY };
const db = (ratio: number) => 20 * Math.log10(ratio);
/** Delays on a grid: what goes other ways is in step to the grid, or not at all. */
const GRID_MS = 1.0007;
const aLink = (nodes: number) =>
  fc.record({
    from: fc.integer({ min: 0, max: nodes - 1 }),
    to: fc.integer({ min: 0, max: nodes - 1 }),
    gain: fc.double({ min: 0.05, max: 1.2, noNaN: true }),
    sign: fc.constantFrom(1, -1),
    delayMs: fc.integer({ min: 1, max: 4000 }).map((n) => n * GRID_MS),
  });
const linkOf = ({ sign, gain, ...l }: { from: number; to: number; gain: number; sign: number; delayMs: number }) => ({
  ...FULL,
  ...l,
  gain: sign * gain,
});

describe('the gain of a loop', () => {
  it('is what comes back to the one node that all ways pass, added up: as path by path', () => {
    fc.assert(
      fc.property(fc.array(aLink(6), { minLength: 3, maxLength: 14 }), (drawn) => {
        // Node 0 sends out, the others only hand on to later ones or back to 0.
        const links: LoopLink[] = drawn
          .map(linkOf)
          .map((l) => (l.from !== 0 && l.to <= l.from ? { ...l, to: 0 } : l))
          .map((l) => (l.from === 0 && l.to === 0 ? { ...l, to: 1 } : l));
        // The plain trace: amplitudes along every path until it is back, in the worst step and by power.
        const back = new Map<number, number>();
        const follow = (node: number, gain: number, delayMs: number) => {
          for (const l of links) {
            if (l.from !== node) continue;
            const [g, ms] = [gain * l.gain, delayMs + l.delayMs];
            const instant = Math.round(ms / GRID_MS);
            if (l.to === 0) back.set(instant, (back.get(instant) ?? 0) + g);
            else follow(l.to, g, ms);
          }
        };
        follow(0, 1, 0);
        const amplitude = [...back.values()].reduce((sum, g) => sum + Math.abs(g), 0);
        const power = [...back.values()].reduce((sum, g) => sum + g * g, 0);
        const found = loopGain(6, links);
        if (amplitude < 1e-9) expect(found.gainDb).toBeLessThan(-170);
        else {
          expect(Math.abs(found.gainDb - db(amplitude))).toBeLessThan(0.1);
          expect(Math.abs(found.powerDb - 10 * Math.log10(power))).toBeLessThan(0.1);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('is over 0 dB exactly where a signal that goes round and round grows, however the ways are woven', () => {
    let [grows, dies] = [0, 0];
    fc.assert(
      fc.property(fc.array(aLink(5), { minLength: 4, maxLength: 16 }), (drawn) => {
        const links = drawn.map((l) => ({ ...linkOf(l), gain: l.gain }));
        const { gainDb } = loopGain(5, links);
        // The trace, turn by turn, everything in step: what is there after n steps against n / 2.
        let now = new Float64Array(5).fill(1);
        let grownDb = 0;
        const after: number[] = [];
        for (let step = 0; step < 2000; step++) {
          const next = new Float64Array(5);
          for (const l of links) next[l.to]! += now[l.from]! * l.gain;
          const size = Math.max(...next);
          if (size === 0) {
            grownDb = Number.NEGATIVE_INFINITY;
            after.push(grownDb);
            break;
          }
          grownDb += db(size);
          after.push(grownDb);
          now = next.map((x) => x / size);
        }
        const perStepDb = (after.at(-1)! - (after[after.length >> 1] ?? 0)) / (after.length / 2);
        if (!(Math.abs(perStepDb) > 0.02)) return;
        expect(gainDb > 0).toBe(perStepDb > 0);
        if (perStepDb > 0) grows++;
        else dies++;
      }),
      { numRuns: 400 },
    );
    expect(Math.min(grows, dies)).toBeGreaterThan(40);
  });

  it('adds only what sounds in the same band, and takes away what comes upside down at one instant', () => {
    const turn = (gain: number, more: Partial<LoopLink> = {}): LoopLink => ({
      ...FULL,
      from: 0,
      to: 0,
      gain,
      delayMs: 5,
      ...more,
    });
    const low = turn(0.5, { highHz: 300 });
    const high = turn(0.4, { lowHz: 3000, delayMs: 7 });
    expect(loopGain(1, [low, high])).toMatchObject({ lowHz: 0, highHz: 300 });
    expect(loopGain(1, [low, high]).gainDb).toBeCloseTo(db(0.5), 9);
    expect(loopGain(1, [turn(0.5), turn(-0.4)]).gainDb).toBeCloseTo(db(0.1), 6);
    // Of another delay there is a frequency at which it adds all the same.
    expect(loopGain(1, [turn(0.5), turn(-0.4, { delayMs: 5.3 })]).gainDb).toBeCloseTo(db(0.9), 6);
    expect(loopGain(1, [turn(0.5), turn(-0.4, { delayMs: 5.3 })]).powerDb).toBeCloseTo(10 * Math.log10(0.41), 6);
  });

  it('stays quick and finite in a thicket where everything feeds everything', () => {
    const nodes = 60;
    const links = Array.from({ length: nodes * nodes }, (_, i) => ({
      ...FULL,
      from: Math.floor(i / nodes),
      to: i % nodes,
      gain: 0.01 * (i % 2 ? 1 : -1),
      delayMs: 1 + (i % 97) / 3,
    }));
    // All in step: every row adds up to 0.6.
    expect(loopGain(nodes, links).gainDb).toBeCloseTo(db(0.6), 1);
  });
});

/** A room: one microphone into a desk, out of the desk by so many speakers, each so far down on its way back. */
function room(backDb: readonly number[], more: { electricDb?: number } = {}) {
  const desk = box(
    'desk',
    3,
    [
      ...backDb.map((_, i) => through(1, i + 1, { do: 'latency', figure: 'ms' })),
      ...(more.electricDb === undefined
        ? []
        : [through(1, 3), through(3, 1, { do: 'fixed-gain', db: more.electricDb }), through(3, 3)]),
    ],
    { figures: { ms: latencyFigure(2, 2, 2) } },
  );
  const speakers = backDb.map((down, i) => box(`speaker-${i}`, 1, [through(1, 1, { do: 'fixed-gain', db: down })]));
  const bus = box('bus', 3, [through(1, 1), through(2, 1), through(3, 1)]);
  return rigOf({
    types: [desk, bus, ...speakers, box('src', 1, [])],
    devices: {
      mic: 'bus',
      desk: 'desk',
      src: 'src',
      ...Object.fromEntries(speakers.map((s, i) => [`speaker-${i}`, s.id])),
    },
    cables: [
      'src.out-1 > mic.in-3',
      'mic.out-1 > desk.in-1',
      ...backDb.flatMap((_, i) => [`desk.out-${i + 1} > speaker-${i}.in-1`, `speaker-${i}.out-1 > mic.in-${i + 1}`]),
      ...(more.electricDb === undefined ? [] : ['desk.out-3 > desk.in-3']),
    ],
    source: 'src.out-1',
    listener: 'desk.out-1',
  });
}

const ms = (nominal: number) => ({ value: { nominal } });

describe('loops of a rig', () => {
  it('are told each, with what they are together: a pair is 6 dB over one of its loudspeakers', () => {
    const { loops } = evaluate(room([-12, -12]));
    expect(loops.map((l) => [...l.deviceIds].sort()).sort()).toEqual([
      ['desk', 'mic', 'speaker-0'],
      ['desk', 'mic', 'speaker-1'],
    ]);
    for (const { gainDb, together } of loops) {
      expect(gainDb).toBeCloseTo(-12, 6);
      expect(together.gainDb).toBeCloseTo(-12 + db(2), 6);
      expect(together.powerDb).toBeCloseTo(-12 + db(2), 6);
      expect(together.loops).toBe(2);
    }
  });
  it('are all found, also the fainter ones and those inside another box, the loudest first', () => {
    const { loops } = evaluate(room([-3, -20], { electricDb: -8 }));
    const near = (db: number) => expect.closeTo(db, 6);
    expect(loops).toMatchObject([
      { deviceIds: ['desk'], gainDb: near(0), delay: ms(0) },
      // By the first speaker straight, and over the jumper as well.
      { gainDb: near(db(10 ** (-3 / 20) + 10 ** (-11 / 20))), delay: ms(2) },
      { gainDb: near(-20) },
    ]);
    expect(loops.map((l) => l.deviceIds.length)).toEqual([1, 3, 3]);
  });
  it('grow in the trace by what they say: the returns of a turn against those of the turn before', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -30, max: -8 }), { minLength: 1, maxLength: 3 }), (backDb) => {
        const rig = room(backDb);
        const { arrivals, graph, loops } = evaluate(rig);
        const [node] = graph.nodesOf({ deviceId: 'mic', portId: 'out-1' });
        const byTurn = new Map<number, number>();
        // All ways round take 2 ms here: copies of one turn come at one instant, and are one arrival.
        for (const a of arrivals[node!]!) byTurn.set(Math.round(a.delayMs.nominal / 2), a.levelDb);
        const turns = [...byTurn.keys()].sort((a, b) => a - b);
        for (const turn of turns.slice(1))
          if (turn <= 2)
            expect(Math.abs(byTurn.get(turn)! - byTurn.get(turn - 1)! - loops[0]!.together.gainDb)).toBeLessThan(0.1);
        expect(turns.length).toBeGreaterThan(1);
      }),
      { numRuns: 60 },
    );
  });
});
