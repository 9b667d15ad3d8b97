import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COST_OF_A_SECOND, type Job, MAX_EXACT, orderJobs, type Walk } from './order.ts';

const PLACES = ['computer', 'mixer', 'screen', 'couch'];
/** Places on a line: what is walked between them, s. */
const walkOf =
  (at: readonly number[]): Walk =>
  (a, b) =>
    a === b ? 0 : 2 + Math.abs(at[PLACES.indexOf(a)]! - at[PLACES.indexOf(b)]!);

const someJobs = (min: number, max: number): fc.Arbitrary<{ jobs: Job[]; walk: Walk }> =>
  fc
    .tuple(
      fc.array(
        fc.tuple(
          fc.integer({ min: 5, max: 200 }),
          fc.integer({ min: 1, max: 110 }),
          fc.nat(3),
          fc.array(fc.nat(), { maxLength: 2 }),
        ),
        {
          minLength: min,
          maxLength: max,
        },
      ),
      fc.array(fc.nat(12), { minLength: 4, maxLength: 4 }),
    )
    .map(([list, at]) => ({
      walk: walkOf(at),
      jobs: list.map(([seconds, relieves, place, before], i) => ({
        id: `j${i}`,
        seconds,
        relieves,
        place: PLACES[place]!,
        // Only what is before it in the list: no circle.
        after: i === 0 ? [] : [...new Set(before.filter((b) => b % 3 === 0).map((b) => `j${b % i}`))],
      })),
    }));

/** What an order costs, added up by hand. */
function costOf(order: readonly Job[], walk: Walk): { cost: number; seconds: number } {
  let [burden, cost, seconds, at] = [order.reduce((sum, j) => sum + j.relieves, 0), 0, 0, PLACES[0]!];
  for (const job of order) {
    const takes = walk(at, job.place) + job.seconds;
    cost += takes * (burden + COST_OF_A_SECOND);
    seconds += takes;
    burden -= job.relieves;
    at = job.place;
  }
  return { cost, seconds };
}

const isAllowed = (order: readonly Job[]): boolean =>
  order.every((job, i) => job.after.every((id) => order.slice(0, i).some((j) => j.id === id)));

function* permutations(jobs: readonly Job[]): Generator<readonly Job[]> {
  if (jobs.length === 0) yield [];
  for (const job of jobs) for (const rest of permutations(jobs.filter((j) => j !== job))) yield [job, ...rest];
}

describe('the order of steps', () => {
  it('costs as little as the best of all orders, and starts as one of the best does', () => {
    fc.assert(
      fc.property(someJobs(1, 6), ({ jobs, walk }) => {
        const { ids, cost, seconds } = orderJobs(jobs, walk, PLACES[0]!);
        const orders = [...permutations(jobs)].filter(isAllowed).map((order) => ({ order, ...costOf(order, walk) }));
        const least = Math.min(...orders.map((o) => o.cost));
        expect(cost).toBeCloseTo(least, 6);
        const best = orders.filter((o) => o.cost < least + 1e-6);
        expect(best.map((o) => o.order[0]!.id)).toContain(ids[0]);
        expect(best.some((o) => Math.abs(o.seconds - seconds) < 1e-6)).toBe(true);
      }),
      { numRuns: 150 },
    );
  });
  it('keeps to what comes before what, however many there are, and beats every order found by chance', () => {
    fc.assert(
      fc.property(
        someJobs(MAX_EXACT + 1, 40),
        fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 40, maxLength: 40 }),
        ({ jobs, walk }, chance) => {
          const { ids, cost } = orderJobs(jobs, walk, PLACES[0]!);
          const byId = new Map(jobs.map((j) => [j.id, j]));
          const order = ids.map((id) => byId.get(id)!);
          expect(new Set(ids).size).toBe(jobs.length);
          expect(isAllowed(order)).toBe(true);
          expect(cost).toBeCloseTo(costOf(order, walk).cost, 3);
          for (let shift = 0; shift < 5; shift++) {
            const other: Job[] = [];
            while (other.length < jobs.length) {
              const open = jobs.filter(
                (j) => !other.includes(j) && j.after.every((id) => other.some((o) => o.id === id)),
              );
              // Half of them by what they relieve for their time, half by chance.
              const ratio = (j: Job) => j.relieves / (j.seconds + walk(other.at(-1)?.place ?? PLACES[0]!, j.place));
              const dice = chance[(other.length + shift) % 40]!;
              other.push(
                dice < 0.5
                  ? open.reduce((a, b) => (ratio(b) > ratio(a) ? b : a))
                  : open[Math.floor(dice * open.length)]!,
              );
            }
            expect(cost).toBeLessThanOrEqual(costOf(other, walk).cost * 1.001);
          }
        },
      ),
      { numRuns: 25 },
    );
  });
  it('puts jobs that wait for each other last, and loses none', () => {
    const job = (id: string, ...after: string[]): Job => ({ id, seconds: 10, relieves: 1, place: 'mixer', after });
    const { ids } = orderJobs([job('a', 'b'), job('b', 'a'), job('c'), job('d', 'gone')], () => 0, 'mixer');
    expect(new Set(ids)).toEqual(new Set(['a', 'b', 'c', 'd']));
    expect(ids.slice(0, 2).sort()).toEqual(['c', 'd']);
  });
});
