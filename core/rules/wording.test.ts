import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { MUCH_WRONG } from './family-cases.testkit.ts';
import { check, fixesOf } from './index.ts';

const RIGS: readonly Rig[] = [
  ...[boathouse, gliderCorner, quayTalk, skerryNet].map((r) => parseRig(JSON.parse(JSON.stringify(r)))),
  MUCH_WRONG,
];

describe('every finding', () => {
  const all = RIGS.flatMap((rig) => check(rig).map((finding) => ({ rig, finding })));
  it('has figures that name their source, and nothing undefined in what it says', () => {
    expect(all.length).toBeGreaterThan(40);
    for (const { finding } of all) {
      expect(textOf(finding.says), finding.id).not.toMatch(/undefined|NaN|\[object|null|Infinity/);
      expect(finding.why.length, finding.id).toBeGreaterThan(0);
      for (const { says, source } of finding.why) {
        expect(textOf(says), finding.id).not.toMatch(/undefined|NaN/);
        expect(textOf(source), finding.id).not.toBe('');
      }
    }
  });
  it('points at boxes and leads that there are', () => {
    for (const { rig, finding } of all) {
      for (const id of finding.where.deviceIds)
        expect(
          rig.devices.some((d) => d.id === id),
          `${finding.id}: ${id}`,
        ).toBe(true);
      for (const id of finding.where.cableIds)
        expect(
          rig.cables.some((c) => c.id === id),
          `${finding.id}: ${id}`,
        ).toBe(true);
      const { setting } = finding.where;
      if (setting) expect(rig.devices.some((d) => d.id === setting.deviceId)).toBe(true);
    }
  });
  it('that rests on a lead nobody has looked at is a question', () => {
    const assumed = RIGS.at(-1)!;
    const onLeads = check(assumed).filter(
      (f) => f.where.cableIds.length === 1 && /^(length|level|ground-hum|plug-insert)/.test(f.rule),
    );
    expect(onLeads.length).toBeGreaterThan(3);
    for (const f of onLeads) expect(f.asks?.code, f.id).toMatch(/^check\.(howLongIs|isThereCable|isItValue|isSetTo)/);
  });
  it('has an id of its own, the same for the same rig', () => {
    for (const rig of RIGS) {
      const ids = check(rig).map((f) => f.id);
      expect(new Set(ids).size).toBe(ids.length);
      expect(check(structuredClone(rig)).map((f) => f.id)).toEqual(ids);
    }
  });
  it('has only fixes that can be applied, and taken back in one step', () => {
    let tried = 0;
    for (const { rig, finding } of all) {
      for (const fix of fixesOf(rig, finding)) {
        tried++;
        const done = applyEdit(rig, fix.edit);
        if (!done.ok) throw new Error(`${finding.id}, ${textOf(fix.label)}: ${done.refusal.reason}`);
        const back = applyEdit(done.rig, done.inverse);
        expect(back.ok && back.rig, textOf(fix.label)).toEqual(rig);
        expect(textOf(fix.label)).not.toMatch(/undefined/);
      }
    }
    expect(tried).toBeGreaterThan(10);
  });
});
