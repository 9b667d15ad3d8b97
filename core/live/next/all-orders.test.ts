import { beforeAll, describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import { applyEdit, findTypes, type Rig } from '#core/model/rig/index.ts';
import { testPrograms } from '#core/routing/suggest/highs.testkit.ts';
import type { SolveProgram } from '#core/routing/suggest/index.ts';
import { burdenOf, type Outcome, wrongIn } from './draft.ts';
import { planAhead } from './index.ts';
import { DEMOS, withGoal } from './next.testkit.ts';
import { COST_OF_A_SECOND } from './order.ts';
import { carriedOut, fixRemedies, outcomeOf, type Remedy, routingRemedies } from './remedies.ts';
import { cautionsFor } from './safe.ts';
import { secondsFor } from './seconds.ts';
import { placesIn } from './where.ts';

let solve: SolveProgram;
beforeAll(async () => {
  solve = await testPrograms();
});

/** Demos with a few switches and mutes turned round by chance: small desks on which something is wrong. */
function brokenDesks(count: number): Rig[] {
  const random = seededRandom(24);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const found: Rig[] = [];
  const small = DEMOS.filter((rig) => rig.devices.length < 16).map((rig) => withGoal(rig, 'drawn'));
  for (let tries = 0; found.length < count && tries < 40 * count; tries++) {
    let rig = pick(small);
    for (let n = 0; n < 2; n++) {
      const device = pick(rig.devices);
      const spec = pick(
        findTypes(rig)
          .get(device.typeId)!
          .settings.filter((s) => s.kind === 'mute' || s.kind === 'switch'),
      );
      if (!spec) continue;
      const value = spec.kind === 'switch' ? pick(spec.options).value : true;
      const done = applyEdit(rig, {
        kind: 'set-setting',
        deviceId: device.id,
        settingId: spec.id,
        setting: { value, known: 'confirmed' },
      });
      if (done.ok) rig = done.rig;
    }
    const wrong = [...wrongIn(outcomeOf(rig)).values()];
    if (wrong.length > 0 && wrong.length <= 5 && wrong.every((f) => f.stage !== 'sync' && !f.asks)) found.push(rig);
  }
  return found;
}

interface Way {
  readonly first: string;
  readonly seconds: number;
  readonly cost: number;
  readonly left: number;
}

/** Every order of every change that takes anything away, tried to its end: which of them leave least wrong, and at what cost. */
function allWays(rig: Rig): Way[] {
  const places = placesIn(rig);
  const found: Way[] = [];
  const placeOf = ({ changes }: Remedy): string => {
    const [change] = changes;
    return places.at('settingId' in change! ? change.deviceId : (change!.cable?.to.deviceId ?? places.start));
  };
  const go = (
    at: Outcome,
    place: string,
    first: string,
    seconds: number,
    cost: number,
    depth: number,
    isLoud: boolean,
  ) => {
    const wrong = wrongIn(at);
    const burden = burdenOf(wrong.values());
    let further = false;
    if (wrong.size > 0 && depth < 4) {
      const moments = [...new Set([...wrong.values()].map((f) => f.momentId))];
      const all = [
        ...[...wrong.values()].flatMap((f) => fixRemedies(at.rig, f)),
        ...moments.flatMap((m) => routingRemedies(at.rig, m)),
      ];
      const remedies = [...new Map(all.map((r) => [r.key, r])).values()];
      for (const remedy of remedies) {
        const after = carriedOut(at.rig, remedy);
        if (!after || burdenOf(wrongIn(after).values()) >= burden) continue;
        // Nothing is plugged once something got louder at someone's ears.
        const isPlug = remedy.changes.some((c) => 'cableId' in c);
        if (isPlug && isLoud) continue;
        const getsLoud = !isPlug && cautionsFor(at.rig, after.rig, remedy).includes('ears');
        further = true;
        const takes = places.walk(place, placeOf(remedy)) + secondsFor(at.rig, remedy.changes, remedy.first);
        const relieved = cost + takes * (burden + COST_OF_A_SECOND);
        go(
          after,
          placeOf(remedy),
          first || `change:${remedy.key}`,
          seconds + takes,
          relieved,
          depth + 1,
          isLoud || getsLoud,
        );
      }
    }
    if (!further) found.push({ first, seconds, cost, left: burden });
  };
  go(outcomeOf(rig), places.start, '', 0, 0, 0, false);
  const least = Math.min(...found.map((w) => w.left));
  return found.filter((w) => w.left === least);
}

describe('against all orders of everything that mends something', () => {
  it('leaves no more wrong, begins with the same step, and takes at most a tenth longer', () => {
    const told: string[] = [];
    const desks = brokenDesks(40);
    let mended = 0;
    for (const rig of desks) {
      const ways = allWays(rig);
      if (ways[0]!.first === '') continue;
      mended++;
      const { steps } = planAhead(rig, { solve, last: null });
      const own = steps.filter((s) => s.act.do === 'change');
      const best = Math.min(...ways.map((w) => w.cost));
      const quickest = Math.min(...ways.map((w) => w.seconds));
      const places = placesIn(rig);
      const seconds = own.reduce(
        (sum, s, i) => sum + s.seconds + places.walk(own[i - 1]?.deviceId ?? places.start, s.deviceId ?? places.start),
        0,
      );
      const firsts = ways.filter((w) => w.cost <= best * 1.001).map((w) => w.first);
      if (!firsts.includes(own[0]?.id ?? '')) told.push(`${rig.name}: ${own[0]?.id} not ${firsts.join(' | ')}`);
      if (seconds > 1.1 * quickest) told.push(`${rig.name}: ${seconds} s, best ${quickest} s`);
    }
    expect(mended).toBeGreaterThan(20);
    expect(told).toEqual([]);
  });
});
