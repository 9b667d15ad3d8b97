import { describe, expect, it } from 'vitest';
import { findTypes, type PortRef, type Rig } from '#core/model/rig/index.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { check } from './index.ts';

// A desk that is changed so that one knows what has to become of every answer.

const DESKS = casesOf(60, 2000);
const SEEDS = Array.from({ length: DESKS }, (_, i) => 1000 + i);
const desks = SEEDS.map((seed) => randomDesk(seed, 3 + ((seed * 7) % 28)));

/** What every listener hears, way by way, in figures. */
const heard = ({ pairs }: Evaluation) =>
  new Map(
    pairs.map((p) => [
      `${p.sourceId}>${p.listenerId}`,
      {
        word: p.verdict.word,
        ways: p.ways.map((w) => [w.levelDb, w.delay.value, w.conversions, w.sides]),
        noiseDb: p.ways.map((w) => w.noiseDb),
      },
    ]),
  );

/** A second desk beside the first, box by device, with nothing between them. */
function beside(rig: Rig): Rig {
  const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value).replaceAll(IDS, '$1$2-too"')) as T;
  const two = <K extends 'devices' | 'cables' | 'sources' | 'listeners' | 'plan'>(key: K): Rig[K] =>
    [...rig[key], ...copy(rig[key])] as unknown as Rig[K];
  return {
    ...rig,
    devices: two('devices'),
    cables: two('cables'),
    sources: two('sources'),
    listeners: two('listeners'),
    plan: two('plan'),
  };
}
/** Ids that name a thing of the rig and not of a type. */
const IDS = /("(?:id|deviceId|sourceId|listenerId|on|fedBy|inTimeWith)":)("[^"]+)"/g;

describe('A desk', () => {
  it('is not changed by another one beside it, which is as it is', () => {
    for (const rig of desks) {
      const one = heard(evaluate(rig));
      const two = heard(evaluate(beside(rig)));
      for (const [pair, is] of two) {
        const [source, listener] = pair.split('>') as [string, string];
        const own = [source, listener].map((id) => id.endsWith('-too'));
        const like = one.get([source, listener].map((id) => id.replace(/-too$/, '')).join('>'))!;
        expect(is, `${rig.name}: ${pair}`).toEqual(
          own[0] === own[1] ? like : { word: 'not-heard', ways: [], noiseDb: [] },
        );
      }
      const rules = (r: Rig) => check(r).map((f) => `${f.rule} ${f.severity}`);
      const ofDesk = (rule: string) => !ONCE.some((r) => rule.startsWith(r));
      const single = rules(rig).filter(ofDesk);
      expect(rules(beside(rig)).filter(ofDesk).sort()).toEqual([...single, ...single].sort());
    }
  });
  it('gives left for right and right for left where a lead is crossed, and nothing else', () => {
    let crossed = 0;
    for (const rig of desks) {
      const types = findTypes(rig);
      const sides = (ref: PortRef) =>
        types
          .get(rig.devices.find((d) => d.id === ref.deviceId)!.typeId)!
          .ports.find((p) => p.id === ref.portId)!
          .channels.filter((c) => c.carries === 'sound')
          .map((c) => c.id)
          .join();
      const before = evaluate(rig);
      for (const cable of rig.cables) {
        if (cable.medium !== 'software' || sides(cable.from) !== 'left,right' || sides(cable.to) !== 'left,right')
          continue;
        // Alone at its end: what else comes there stays as it is.
        if (
          rig.cables.some((c) => c !== cable && c.to.deviceId === cable.to.deviceId && c.to.portId === cable.to.portId)
        )
          continue;
        const pictures = ['picture'].flatMap((id) => {
          const has = (ref: PortRef) =>
            types
              .get(rig.devices.find((d) => d.id === ref.deviceId)!.typeId)!
              .ports.find((p) => p.id === ref.portId)!
              .channels.some((c) => c.id === id);
          return has(cable.from) && has(cable.to) ? [{ from: id, to: id }] : [];
        });
        const map = [{ from: 'left', to: 'right' }, { from: 'right', to: 'left' }, ...pictures];
        const straight = cable.map ?? [{ from: 'left', to: 'left' }, { from: 'right', to: 'right' }, ...pictures];
        if (!isStraight(straight)) continue;
        const after = evaluate({ ...rig, cables: rig.cables.map((c) => (c === cable ? { ...c, map } : c)) });
        const at = (e: Evaluation, node: number) =>
          e.arrivals[node]!.map((a) => [a.sourceIndex, a.levelDb, a.delayMs, a.polarity]).sort();
        const nodeOf = (channelId: string) =>
          before.graph.nodesOf(cable.to).find((n) => before.graph.nodes[n]!.channelId === channelId)!;
        const [left, right] = [nodeOf('left'), nodeOf('right')];
        if (before.loops.length > 0) continue;
        expect(at(after, left), `${rig.name}: ${cable.id}`).toEqual(at(before, right));
        expect(at(after, right), `${rig.name}: ${cable.id}`).toEqual(at(before, left));
        crossed++;
      }
    }
    expect(crossed).toBeGreaterThan(DESKS / 10);
  });
  it('loses by a box that goes to another computer what the box brought, and nothing else', () => {
    let moved = 0;
    for (const rig of desks) {
      const types = findTypes(rig);
      const hosts = new Map(
        rig.devices.filter((d) => types.get(d.typeId)!.hosts).map((d) => [d.id, { ...d, id: `${d.id}-other` }]),
      );
      for (const cable of rig.cables) {
        const other = hosts.get(cable.to.deviceId) ?? hosts.get(cable.from.deviceId);
        if (!other || cable.medium !== 'lead') continue;
        const to = (ref: PortRef): PortRef =>
          `${ref.deviceId}-other` === other.id ? { ...ref, deviceId: other.id } : ref;
        const away: Rig = {
          ...rig,
          devices: [...rig.devices, other],
          cables: rig.cables.map((c) => (c === cable ? { ...c, from: to(c.from), to: to(c.to) } : c)),
        };
        const out: Rig = { ...rig, cables: rig.cables.filter((c) => c !== cable) };
        expect(unheardNoise(evaluate(away)), `${rig.name}: ${cable.id}`).toEqual(unheardNoise(evaluate(out)));
        moved++;
      }
    }
    expect(moved).toBeGreaterThan(DESKS / 5);
  });
});

/** Findings about all devices in one room together; and which computer a program runs on is clear where there is one. */
const ONCE: readonly string[] = ['radio-crowded', 'program-without-computer'];

/** Without the noise: any computer has some of its own. */
const unheardNoise = (evaluation: Evaluation) =>
  [...heard(evaluation)].map(([pair, { word, ways }]) => [pair, word, ways]);

const isStraight = (map: readonly { readonly from: string; readonly to: string }[]): boolean =>
  map.every((m) => m.from === m.to);
