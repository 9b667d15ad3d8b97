import { describe, expect, it } from 'vitest';
import { budgetsOf, checksOf, orderDown, orderUp } from '#core/live/run/index.ts';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import { findTypes, parseRig, type Rig } from '#core/model/rig/index.ts';
import { renamed } from '#core/model/rig/renamed.testkit.ts';
import { evaluate, rolesOf } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayDeskMixer, quayDeskStraight } from '#demo/quay-desk.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { CASES } from './family-cases.testkit.ts';
import { check, fixesOf } from './index.ts';

const read = (rig: Rig): Rig => parseRig({ ...JSON.parse(JSON.stringify(rig)), measurements: [] });
const DEMOS = [boathouse, quayDeskStraight, quayDeskMixer, quayTalk, gliderCorner, skerryNet, clayHour, mothNight].map(
  read,
);
const CASE_RIGS = CASES.flatMap(([name, trigger, near]) => [
  [`${name}, found`, trigger] as const,
  [`${name}, near`, near] as const,
]);

const findings = (rig: Rig) =>
  check(rig)
    .map((f) => `${f.rule} ${f.severity} ${f.where.deviceIds} ${f.where.cableIds} fixes ${fixesOf(rig, f).length}`)
    .sort();
const heard = (rig: Rig) =>
  evaluate(rig).pairs.map((p) => [
    p.sourceId,
    p.listenerId,
    p.ways.map((w) => [w.deviceIds, w.levelDb, w.delay.value, w.conversions, w.band.highHz]),
  ]);
const faults = (rig: Rig) => faultsOf(rig, evaluate(rig)).map((f) => [f.kind, f.weight, f.dead, f.looks.length]);
const roles = (rig: Rig) => {
  const of = rolesOf(rig);
  return [...rig.sources.map((s) => of.source(s)), ...rig.listeners.map((l) => of.listener(l))];
};

describe('whatever a thing is called', () => {
  it('bears names that say nothing', () => {
    const [first] = renamed(DEMOS[0]!).types;
    expect(first).toMatchObject({ id: 't0000', family: 'shelf' });
    expect(findTypes(renamed(DEMOS[0]!)).get('t0000')!.ports[0]!.name).toMatch(/^End p\d+$/);
  });
  it.each(DEMOS.map((rig) => [rig.name, rig] as const))('%s is judged the same', (_, rig) => {
    const other = renamed(rig);
    expect(heard(other)).toEqual(heard(rig));
    expect(roles(other)).toEqual(roles(rig));
    expect(findings(other)).toEqual(findings(rig));
    expect(checksOf(other, budgetsOf(other)).map((c) => c.kind)).toEqual(
      checksOf(rig, budgetsOf(rig)).map((c) => c.kind),
    );
    expect(faults(other)).toEqual(faults(rig));
    for (const order of [orderUp, orderDown])
      expect(order(other).map((s) => [s.kind, s.deviceIds])).toEqual(order(rig).map((s) => [s.kind, s.deviceIds]));
  });
  it.each(CASE_RIGS)('%s is found, or not, the same', (_, rig) => {
    const plain = read(rig);
    expect(findings(renamed(plain))).toEqual(findings(plain));
  });
});
