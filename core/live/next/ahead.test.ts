import { beforeAll, describe, expect, it } from 'vitest';
import { applyEdit, emptyRig, type Rig } from '#core/model/rig/index.ts';
import { testPrograms } from '#core/routing/suggest/highs.testkit.ts';
import type { SolveProgram } from '#core/routing/suggest/index.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { type Ahead, type NextStep, planAhead } from './index.ts';
import { DEMOS, did, readinessOf, withGoal } from './next.testkit.ts';

let solve: SolveProgram;
beforeAll(async () => {
  solve = await testPrograms();
});
const ahead = (rig: Rig): Ahead => planAhead(rig, { solve, last: null });
const [boathouse] = DEMOS as [Rig];
const small = DEMOS.filter((rig) => rig !== boathouse);

describe('the way to ready', () => {
  it.each(DEMOS.map((rig) => [rig.name, rig] as const))('leads there: %s', (_, rig) => {
    const { steps, seconds, further } = ahead(rig);
    const end = steps.reduce((now, step) => did(now, step), rig);
    expect(further).toBe(0);
    expect(readinessOf(end)).toMatchObject({ ready: true, blockers: 0, fixes: 0, drawn: true });
    expect(seconds).toBeGreaterThanOrEqual(steps.reduce((sum, s) => sum + s.seconds, 0));
    if (steps.length > 0) expect(readinessOf(rig).ready).toBe(false);
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
  });
  it('is replanned after every step, whichever verb and whichever answer, and ends', () => {
    for (const first of small)
      for (const [verb, answer] of [
        ['done', 0],
        ['to-do', 0],
        ['done', 1],
      ] as const) {
        let rig = first;
        let count = 0;
        for (let plan = ahead(rig); plan.steps.length > 0; plan = ahead(rig)) {
          rig = did(rig, plan.steps[0]!, verb, answer);
          expect(++count, `${rig.name} ${verb} ${answer}: ${plan.steps[0]!.id}`).toBeLessThan(25);
        }
        expect(readinessOf(rig).ready, rig.name).toBe(true);
      }
  });
  it('has blockers first, and nothing before what it builds on', () => {
    for (const rig of DEMOS) {
      const { steps } = ahead(rig);
      const worst = steps.findLastIndex((s) => s.takesAway.blockers > 0);
      expect(steps.slice(0, worst + 1).every((s) => s.takesAway.blockers > 0)).toBe(true);
      steps.forEach((step, i) => {
        const later = new Set(steps.slice(i + 1).map((s) => s.id));
        expect(step.after.filter((id) => later.has(id))).toEqual([]);
      });
    }
  });
  it('plugs everything before anything gets louder at someone’s ears', () => {
    for (const rig of DEMOS) {
      const { steps } = ahead(rig);
      const plugs = (s: NextStep) => s.act.do === 'change' && s.act.changes.some((c) => 'cableId' in c);
      const firstLoud = steps.findIndex((s) => !plugs(s) && s.cautions.includes('ears'));
      if (firstLoud >= 0) expect(steps.slice(firstLoud).some(plugs)).toBe(false);
    }
  });
  it('asks for as much as ready means: takes where time is in doubt, and a run', () => {
    for (const rig of small) {
      const kinds = (goal: Parameters<typeof withGoal>[1]) => ahead(withGoal(rig, goal)).steps.map((s) => s.act.do);
      const confirmed = kinds('confirmed');
      expect(confirmed).not.toContain('measure');
      expect(kinds('drawn').every((k) => confirmed.includes(k))).toBe(true);
      expect(kinds('rehearsed').at(-1)).toBe('rehearse');
      expect(kinds('rehearsed').filter((k) => k === 'measure')).toEqual(
        kinds('measured').filter((k) => k === 'measure'),
      );
    }
    expect(small.some((rig) => ahead(withGoal(rig, 'measured')).steps.some((s) => s.act.do === 'measure'))).toBe(true);
  });
  it('leads there on desks that no one has thought of, and says what it leaves for later', () => {
    let steps = 0;
    for (let seed = 1; seed <= 12; seed++) {
      const rig = randomDesk(seed, 12);
      const plan = ahead(rig);
      steps += plan.steps.length;
      if (plan.steps.some((s) => s.act.do === 'describe')) continue;
      const end = plan.steps.reduce((now, step) => did(now, step), rig);
      const { blockers, fixes, ready } = readinessOf(end);
      expect({ seed, left: blockers + fixes }).toEqual({ seed, left: plan.further });
      if (plan.further === 0) expect({ seed, ready }).toEqual({ seed, ready: true });
    }
    expect(steps).toBeGreaterThan(20);
  });
  it('begins an empty rig with what only a person can say', () => {
    const empty = emptyRig('New');
    expect(ahead(empty).steps.map((s) => s.act)).toEqual([{ do: 'describe', what: 'devices' }]);
    const boxes = { ...small[0]!, sources: [], listeners: [], plan: [], moments: [], measurements: [] };
    expect(ahead(boxes).steps.map((s) => s.act)).toEqual([{ do: 'describe', what: 'ends' }]);
    expect(ahead({ ...small[0]!, plan: [] }).steps.map((s) => s.act)).toEqual([{ do: 'describe', what: 'plan' }]);
    expect(readinessOf(empty).ready).toBe(false);
  });
  it('changes nothing in the rig that it plans for', () => {
    const before = JSON.stringify(small);
    for (const rig of small) ahead(rig);
    expect(JSON.stringify(small)).toBe(before);
    expect(applyEdit(small[0]!, { kind: 'rename', name: 'x' }).ok).toBe(true);
  });
});
