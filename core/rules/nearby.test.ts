import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import { findTypes, type Rig, type SettingValue } from '#core/model/rig/index.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';

/** Everything that an evaluation says, without the objects that it is made of. */
function told({ graph, arrivals, pictures, noiseDb, pairs, loops, dropped }: Evaluation) {
  const at = (lists: Evaluation['arrivals']) =>
    lists.map((list) =>
      list.map((a) => [a.sourceIndex, a.levelLowDb, a.levelDb, a.levelHighDb, a.delayMs, a.polarity, a.headroomDb]),
    );
  return {
    ends: graph.edges.map((_, e) => [graph.from[e], graph.to[e]]),
    into: graph.nodes.map((_, n) => [...graph.into.subarray(graph.firstInto[n], graph.firstInto[n + 1])]),
    shut: graph.shut,
    disabled: graph.disabled,
    noiseDb: [...noiseDb],
    sound: at(arrivals),
    picture: at(pictures),
    loops,
    dropped,
    pairs: pairs.map(({ ways, ...pair }) => ({ ...pair, ways: ways.map(({ arrival: _, ...way }) => way) })),
  };
}

/** A rig of which nothing is known. */
const anew = (rig: Rig): Rig => structuredClone(rig);

/** One setting turned by chance. */
function turned(rig: Rig, random: () => number): Rig {
  const types = findTypes(rig);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const device = pick(rig.devices.filter((d) => types.get(d.typeId)!.settings.length > 0));
  if (!device) return rig;
  const spec = pick(types.get(device.typeId)!.settings);
  const value: SettingValue =
    spec.kind === 'mute'
      ? random() < 0.5
      : spec.kind === 'switch'
        ? pick(spec.options).value
        : random() < 0.3
          ? spec.min
          : spec.min + Math.floor((random() * (spec.max - spec.min)) / spec.step) * spec.step;
  const settings = { ...device.settings, [spec.id]: { value, known: 'confirmed' as const } };
  return { ...rig, devices: rig.devices.map((d) => (d === device ? { ...d, settings } : d)) };
}

describe('A rig that differs by a few settings from one that was looked at', () => {
  it('is told as if nothing were known of it, on random desks, setting after setting', () => {
    for (let seed = 1; seed <= casesOf(20, 200); seed++) {
      const random = seededRandom(seed * 31);
      let rig = anew(randomDesk(seed, 3 + ((seed * 7) % 28)));
      const first = evaluate(rig);
      for (let n = 0; n < 12; n++) {
        rig = turned(rig, random);
        if (n % 3 === 0) rig = turned(rig, random);
        const whole = told(evaluate(anew(rig)));
        expect(told(evaluate(rig)), `desk ${seed}, turn ${n}`).toEqual(whole);
        expect(told(evaluate({ ...rig, devices: [...rig.devices] }, first)), `desk ${seed}, turn ${n}`).toEqual(whole);
      }
    }
  });
});
