import { describe, expect, it } from 'vitest';
import { DEMOS } from '#core/live/next/next.testkit.ts';
import { applyEdit, carryOut, type Rig } from '#core/model/rig/index.ts';
import { renamed } from '#core/model/rig/renamed.testkit.ts';
import { makeWhole } from '#core/routing/plan/index.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { check, RULES } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { MAX_STEPS } from './guide.ts';
import {
  asking,
  type Chosen,
  castOf,
  followGuide,
  GUIDES,
  type Guide,
  nameOf,
  proposalFor,
  wantOfStep,
} from './index.ts';

const NONE: Chosen = {};
const follow = (rig: Rig, guide: Guide, chosen = NONE) => {
  const evaluation = evaluate(rig);
  return followGuide(rig, evaluation, check(rig, evaluation), guide, chosen);
};
/** Whoever was meant is meant still, whatever comes into the rig. */
const chosenFrom = (rig: Rig, one: Guide): Chosen =>
  Object.fromEntries(Object.entries(castOf(rig, one)).flatMap(([name, [first]]) => (first ? [[name, first.id]] : [])));
const guide = (id: string): Guide => GUIDES.find((g) => g.id === id)!;
const demo = (name: RegExp): Rig => DEMOS.find((rig) => name.test(rig.name))!;

describe('guides as data', () => {
  it('are twenty, of at most seven steps, and end with the proof', () => {
    expect(new Set(GUIDES.map((g) => g.id)).size).toBe(20);
    for (const { id, steps, seeks } of GUIDES as readonly Guide[]) {
      expect(steps.length, id).toBeLessThanOrEqual(MAX_STEPS);
      expect(steps.at(-1)!.do, id).toBe('proof');
      const used = steps.flatMap((s) => (s.do === 'have' ? [s.of] : 'from' in s ? [s.from, s.to] : []));
      for (const name of used) expect(Object.keys(seeks), id).toContain(name);
    }
  });
  it('speak of rules that there are', () => {
    const rules = new Set(RULES.map((r) => r.id));
    for (const { id, steps } of GUIDES as readonly Guide[])
      for (const step of steps)
        if (step.do === 'clear') for (const rule of step.rules) expect(rules.has(rule), `${id}: ${rule}`).toBe(true);
  });
  it.each(GUIDES.map((g) => [g.id, g as Guide] as const))('run on a demo without anything missing: %s', (_, one) => {
    const complete = DEMOS.filter((rig) => follow(rig, one).every((f) => f.state !== 'missing'));
    expect(complete.length).toBeGreaterThan(0);
  });
});

describe('a guide on a rig', () => {
  it('says of every pair what the evaluation says of it, whichever device is meant', () => {
    let pairs = 0;
    for (const rig of DEMOS) {
      const evaluation = evaluate(rig);
      for (const one of GUIDES as readonly Guide[]) {
        const cast = castOf(rig, one);
        for (const [name, found] of Object.entries(cast))
          for (const { id } of found) {
            const chosen = { [name]: id };
            if (found.length > 0) expect(nameOf(cast, chosen, name)).toBe(found.find((f) => f.id === id)!.name);
            for (const { step, state, pair } of follow(rig, one, chosen)) {
              if (!pair || !('from' in step)) continue;
              pairs++;
              const seen = evaluation.pairs.find(
                (p) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId,
              )!;
              if (step.do === 'reach' || step.do === 'proof') expect(state === 'done').toBe(seen.ways.length > 0);
              if (step.do === 'once')
                expect(state === 'done').toBe(seen.ways.length > 0 && seen.verdict.word !== 'twice');
            }
          }
      }
    }
    expect(pairs).toBeGreaterThan(300);
  });
  it('goes by what things are, not by their names', () => {
    for (const rig of DEMOS) {
      const other = renamed(rig);
      for (const one of GUIDES as readonly Guide[])
        expect(
          follow(other, one).map((f) => f.state),
          one.id,
        ).toEqual(follow(rig, one).map((f) => f.state));
    }
  });
  it('asks the plan for what a step wants, once, and changes nothing else', () => {
    for (const rig of DEMOS)
      for (const one of GUIDES as readonly Guide[])
        for (const followed of follow(rig, one)) {
          const edit = wantOfStep(rig, followed);
          const asked = asking(rig, followed);
          expect({ ...asked, plan: rig.plan }).toEqual(rig);
          if (!edit) continue;
          const again = follow(asked, one).find((f) => f.step === followed.step)!;
          expect(wantOfStep(asked, again)).toBeNull();
        }
  });
  it('leads to what it is for: guests hear themselves no more, by what the search finds for its plan', () => {
    const rig = demo(/^Clay hour/);
    const step = (of: Rig) => follow(of, guide('guest-echo')).find((f) => f.step.do === 'apart')!;
    expect(step(rig).state).toBe('open');
    const proposal = proposalFor(rig, step(rig), makeWhole(asking(rig, step(rig))))!;
    expect(proposal.settings.map((c) => c.settingId)).toContain('usb-source');
    const done = applyEdit(rig, carryOut(rig, proposal, 'done', '2026-12-01T10:00:00Z'));
    expect(done.ok && step(done.rig).state).toBe('done');
  });
  it('proposes only what makes the step so and spoils nothing that was right, on any rig', () => {
    let [proposed, open] = [0, 0];
    for (const rig of [...DEMOS, ...[3, 7, 11, 19].map((seed) => randomDesk(seed, 14))])
      for (const one of GUIDES as readonly Guide[])
        for (const followed of follow(rig, one)) {
          const { step, state } = followed;
          if (state !== 'open' || !('from' in step) || !['reach', 'apart', 'once', 'alone'].includes(step.do)) continue;
          open++;
          const asked = asking(rig, followed);
          const proposal = proposalFor(rig, followed, makeWhole(asked));
          if (!proposal) continue;
          proposed++;
          const done = applyEdit(asked, carryOut(asked, proposal, 'done', '2026-12-01T10:00:00Z'));
          if (!done.ok) throw new Error(JSON.stringify(done.refusal));
          const again = follow(done.rig, one, chosenFrom(rig, one)).find((f) => f.step === step)!;
          expect(again.state, `${rig.name}, ${one.id}`).toBe('done');
          const wrong = (r: Rig) =>
            new Set(
              evaluate(r)
                .pairs.filter((p) => ['missing', 'unwanted'].includes(p.verdict.word))
                .map((p) => `${p.sourceId}>${p.listenerId}`),
            );
          const was = wrong(asked);
          expect([...wrong(done.rig)].filter((p) => !was.has(p))).toEqual([]);
        }
    expect(open).toBeGreaterThan(15);
    expect(proposed).toBeGreaterThan(5);
  });
});
