import { describe, expect, it } from 'vitest';
import { DEMOS } from '#core/live/next/next.testkit.ts';
import { findTypes, isCall, isPerson, isProgram, type Rig } from '#core/model/rig/index.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { factsOf, groupsOf, lineMap, linesOf, usuallyFolded } from './index.ts';

const DESKS: Rig[] = [...DEMOS, ...[1, 2, 3, 4].map((seed) => randomDesk(seed, 24))];
const all = (rig: Rig): ReadonlySet<string> => new Set(groupsOf(rig).map((g) => g.id));

describe('what belongs together', () => {
  it('holds no device twice, and nothing that is not there', () => {
    for (const rig of DESKS) {
      const ids = groupsOf(rig).flatMap((g) => [g.id, ...g.memberIds]);
      expect(new Set(ids).size).toBe(ids.length);
      for (const id of ids) expect(rig.devices.some((d) => d.id === id)).toBe(true);
      for (const g of groupsOf(rig)) expect(g.memberIds.length).toBeGreaterThan(0);
    }
  });
  it('is a computer with all its programs, and the far side of a call behind who is there', () => {
    const [relay] = DEMOS as [Rig];
    const types = findTypes(relay);
    const group = (id: string) => groupsOf(relay).find((g) => g.id === id)!.memberIds;
    const programs = relay.devices.filter((d) => d.on === 'desk-computer' && isProgram(types.get(d.typeId)!));
    expect([...group('desk-computer')].sort()).toEqual(programs.map((d) => d.id).sort());
    expect(group('ilse')).toContain('ilse-headset');
    expect(group('ilse').some((id) => isCall(types.get(relay.devices.find((d) => d.id === id)!.typeId)!))).toBe(false);
    expect(group('wren')).toContain('wren-microphone');
    for (const g of groupsOf(relay))
      for (const id of g.memberIds)
        expect(isPerson(types.get(relay.devices.find((d) => d.id === id)!.typeId)!)).toBe(false);
  });
  it('is folded at first in a large rig, and in no small one', () => {
    const [relay] = DEMOS as [Rig];
    expect(usuallyFolded(relay)).toEqual(all(relay));
    const small = DEMOS.find((rig) => rig.devices.length < 10)!;
    expect(usuallyFolded(small).size).toBe(0);
  });
});

describe('a map with groups folded', () => {
  it('draws every device in one box, and no line within a box', () => {
    for (const rig of DESKS) {
      const map = lineMap(rig, evaluate(rig), 'all', undefined, all(rig));
      for (const line of map.lines) {
        expect(map.boxOf.get(line.from.deviceId)).toBe(line.fromBox);
        expect(map.boxOf.get(line.to.deviceId)).toBe(line.toBox);
        if (line.from.deviceId !== line.to.deviceId) expect(line.fromBox).not.toBe(line.toBox);
        expect(map.drawing.wires.has(line.id)).toBe(true);
      }
      const boxes = new Set(map.boxes.map((b) => b.deviceId));
      for (const id of map.boxOf.values()) expect(rig.devices.some((d) => d.id === id)).toBe(true);
      for (const group of groupsOf(rig)) for (const id of group.memberIds) expect(boxes.has(id)).toBe(false);
    }
  });
  it('has every line between boxes that the open map has, and loses none', () => {
    for (const rig of DESKS) {
      const evaluation = evaluate(rig);
      const folded = lineMap(rig, evaluation, 'all', undefined, all(rig));
      const seen = new Set(folded.lines.flatMap((l) => l.cableIds));
      for (const line of linesOf(rig, evaluation)) {
        const [a, b] = [folded.boxOf.get(line.from.deviceId), folded.boxOf.get(line.to.deviceId)];
        if (a !== b) for (const id of line.cableIds) expect(seen.has(id)).toBe(true);
      }
    }
  });
  it('says what a box holds, and who hears there, in a few lines', () => {
    const [relay] = DEMOS as [Rig];
    const map = lineMap(relay, evaluate(relay), 'all', undefined, all(relay));
    const computer = map.boxes.find((b) => b.deviceId === 'desk-computer')!;
    expect(computer.group).toBe('folded');
    expect(computer.holds).toContain('Streaming software');
    const facts = factsOf(computer);
    expect(facts.length).toBe(5);
    expect(facts.at(-1)).toEqual({ kind: 'more', of: String(computer.holds.length + computer.listenerIds.length - 4) });
    const open = lineMap(relay, evaluate(relay));
    expect(open.boxes.find((b) => b.deviceId === 'desk-computer')!.group).toBe('open');
    expect(open.boxes.find((b) => b.deviceId === 'mixer')!.group).toBeNull();
  });
});
