import { describe, expect, it } from 'vitest';
import { applyEdit, parseRig, type Rig } from '#core/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { check, fixesOf } from './index.ts';

const relay = parseRig(JSON.parse(JSON.stringify(boathouse)));
const turned = (value: number): Rig => {
  const edit = {
    kind: 'set-setting' as const,
    deviceId: 'mixer',
    settingId: 'strip-1-gain',
    setting: { value, known: 'seen' as const },
  };
  const done = applyEdit(relay, edit);
  if (!done.ok) throw new Error(done.refusal.reason);
  return done.rig;
};
const clips = (rig: Rig) => check(rig).filter((f) => f.rule === 'gain-clips');

describe('a stage that clips', () => {
  it('is said once, whoever hears it, and not while there is room', () => {
    expect(clips(relay)).toEqual([]);
    expect(clips(turned(60)).length).toBeLessThanOrEqual(1);
    const hot = {
      ...turned(60),
      sources: turned(60).sources.map((s) =>
        s.id === 'wren' ? { ...s, level: [100, 104, 108] as [number, number, number] } : s,
      ),
    };
    const [finding, ...others] = clips(hot).filter((f) => f.where.sourceId === 'wren' && f.says.includes('converter'));
    expect(others).toEqual([]);
    expect(finding).toMatchObject({ stage: 'level', severity: 'fix', where: { deviceIds: ['mixer'] } });
    expect(finding!.says).toContain('Turn down before it');
    // What is offered mends it: enough before the stage, never after it.
    const fixes = fixesOf(hot, finding!);
    expect(fixes.map((f) => f.label)).toEqual([expect.stringContaining('Strip 1, gain')]);
    const done = applyEdit(hot, fixes[0]!.edit);
    if (!done.ok) throw new Error(done.refusal.reason);
    expect(clips(done.rig).map((f) => f.id)).not.toContain(finding!.id);
  });
});
