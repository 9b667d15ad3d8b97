import { beforeAll, expect, it } from 'vitest';
import { OCCASIONS, type Occasion, rigFor } from '#core/intake/index.ts';
import { testPrograms } from '#core/routing/suggest/highs.testkit.ts';
import type { SolveProgram } from '#core/routing/suggest/index.ts';
import { planAhead } from './index.ts';
import { did, readinessOf } from './next.testkit.ts';

let solve: SolveProgram;
beforeAll(async () => {
  solve = await testPrograms();
});

/** As it is usually answered and drawn; and with the last answer to everything, none of it as it was assumed. */
const casesOf = ({ asks }: Occasion) => [
  { answers: {}, found: 0 },
  { answers: Object.fromEntries(asks.map((ask) => [ask.id, ask.options.at(-1)!.id] as const)), found: 1 },
];

it.each(OCCASIONS.map((o) => [o.id, o] as const))(
  'a desk of the occasion %s is led to ready, whatever one finds when one looks',
  (_, occasion) => {
    for (const { answers, found } of casesOf(occasion)) {
      let rig = rigFor(occasion, answers);
      expect(readinessOf(rig).ready).toBe(false);
      const done: string[] = [];
      for (let plan = planAhead(rig, { solve, last: null }); plan.steps.length > 0; ) {
        const [step] = plan.steps;
        rig = did(rig, step!, 'done', found);
        done.push(step!.id);
        expect(done.length, done.join('\n')).toBeLessThan(60);
        plan = planAhead(rig, { solve, last: null });
      }
      expect(readinessOf(rig), JSON.stringify(answers)).toMatchObject({ ready: true, blockers: 0 });
      expect(new Set(done).size, 'nothing is asked for twice').toBe(done.length);
    }
  },
);
