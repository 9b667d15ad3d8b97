import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate } from './index.ts';
import { aSmallNet, box, rigOf, through, twoWays } from './rigs.testkit.ts';

const ratio = (db: number) => 10 ** (db / 20);
const db = (r: number) => 20 * Math.log10(r);
const heard = (rig: Parameters<typeof evaluate>[0]) => evaluate(rig).pairs[0]!.ways[0]!;

/** Random links, each with a range of gain of its own and perhaps inverted. */
const someLinks = fc.array(
  fc.record({
    lowDb: fc.double({ min: -6, max: 0, noNaN: true }),
    db: fc.double({ min: -12, max: 6, noNaN: true }),
    highDb: fc.double({ min: 0, max: 6, noNaN: true }),
    invert: fc.boolean(),
  }),
  { minLength: 2, maxLength: 5 },
);
type Links = typeof someLinks extends fc.Arbitrary<infer T> ? T : never;

/** A source that comes to one bus by all of them, at one instant. */
function netOf(links: Links) {
  // A range of gain is a converter's: it comes out of full scale at a level known only so well.
  const wire = (i: number) => {
    const { lowDb, db: nominal, highDb, invert } = links[i]!;
    const range: [number, number, number] = [nominal + lowDb, nominal, nominal + highDb];
    return box(`wire-${i}`, 1, [
      through(
        1,
        1,
        { do: 'convert', to: 'analogue', fullScaleDbu: range },
        ...(invert ? [{ do: 'invert' as const }] : []),
      ),
    ]);
  };
  const fork = box(
    'fork',
    links.length,
    links.map((_, i) => through(1, i + 1)),
  );
  const bus = box(
    'bus',
    links.length,
    links.map((_, i) => through(i + 1, 1)),
  );
  const rig = rigOf({
    types: [fork, bus, box('src', 1, []), ...links.map((_, i) => wire(i))],
    devices: {
      src: 'src',
      fork: 'fork',
      bus: 'bus',
      ...Object.fromEntries(links.map((_, i) => [`w-${i}`, `wire-${i}`])),
    },
    cables: [
      'src.out-1 > fork.in-1',
      ...links.flatMap((_, i) => [`fork.out-${i + 1} > w-${i}.in-1`, `w-${i}.out-1 > bus.in-${i + 1}`]),
    ],
    source: 'src.out-1',
    listener: 'bus.out-1',
  });
  return rig;
}

describe('copies that meet at one instant', () => {
  it('add by amplitude, upside down take away, and no interval is ever out of order', () => {
    fc.assert(
      fc.property(someLinks, (links) => {
        const { low, nominal, high } = heard(netOf(links)).levelDb;
        expect(low).toBeLessThanOrEqual(nominal);
        expect(nominal).toBeLessThanOrEqual(high);
        const loudest = Math.max(...links.map((l) => l.db));
        const sum = Math.abs(links.reduce((s, l) => s + (l.invert ? -1 : 1) * ratio(l.db), 0));
        // Each time that two meet, at most 80 dB of them goes: so much of the loudest is left each time, either way up.
        const leftover = links.length * ratio(-80) * ratio(loudest);
        expect(Math.abs(ratio(nominal) - sum)).toBeLessThanOrEqual(leftover);
        expect(nominal).toBeGreaterThan(loudest - 100);
        // Whatever each really is within its range, what is left lies within the interval.
        for (let corner = 0; corner < 3 ** links.length; corner++) {
          const real = links.map((l, i) => l.db + [l.lowDb, 0, l.highDb][Math.floor(corner / 3 ** i) % 3]!);
          const left = Math.abs(links.reduce((s, l, i) => s + (l.invert ? -1 : 1) * ratio(real[i]!), 0));
          const floor = 5e-4 * ratio(loudest);
          expect(left).toBeLessThan(ratio(high) + floor);
          expect(left + floor).toBeGreaterThan(ratio(low));
        }
      }),
      { numRuns: 300 },
    );
  });
  it('share what they share: a source known to 12 dB, met by its inverted copy 6 dB down, is known to 12 dB again', () => {
    const rig = twoWays({ db: -6, invert: true });
    const uncertain = {
      ...rig,
      sources: rig.sources.map((s) => ({ ...s, level: [-6, 0, 6] as [number, number, number] })),
    };
    const leftDb = db(1 - ratio(-6));
    const { low, nominal, high } = heard(uncertain).levelDb;
    expect([low, nominal, high].map((v) => v - leftDb)).toEqual([-6, 0, 6].map((v) => expect.closeTo(v, 6)));
  });
  it('that are equal and inverted leave a figure, not a hole without a floor', () => {
    const way = heard(twoWays({ db: 0, invert: true }));
    expect(way.levelDb.nominal).toBeCloseTo(-80, 6);
    expect(way.arrival.cancelledBy).toMatchObject({ lossDb: expect.closeTo(80, 6) });
    expect(heard(twoWays({ db: 0, invert: false })).levelDb.nominal).toBeCloseTo(db(2), 6);
    expect(heard(twoWays({ db: 0, invert: false })).arrival.cancelledBy).toBeNull();
  });
  it('are in order in every net', () => {
    fc.assert(
      fc.property(aSmallNet(), ({ rig }) => {
        for (const list of evaluate(rig).arrivals)
          for (const a of list) {
            expect(a.levelLowDb).toBeLessThanOrEqual(a.levelDb);
            expect(a.levelDb).toBeLessThanOrEqual(a.levelHighDb);
          }
      }),
      { numRuns: 100 },
    );
  });
});
