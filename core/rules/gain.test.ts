import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { desk } from './check.testkit.ts';
import { check, fixesOf } from './index.ts';

const relay = parseRig(JSON.parse(JSON.stringify(boathouse)));
const turned = (value: number): Rig => {
  const edit = {
    kind: 'set-setting' as const,
    deviceId: 'mixer',
    settingId: 'strip-1-gain',
    setting: { value, known: 'confirmed' as const },
  };
  const done = applyEdit(relay, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
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
    const [finding, ...others] = clips(hot).filter(
      (f) => f.where.sourceId === 'wren' && textOf(f.says).includes('converter'),
    );
    expect(others).toEqual([]);
    expect(finding).toMatchObject({ stage: 'level', severity: 'fix', where: { deviceIds: ['mixer'] } });
    expect(finding!.says.code).toBe('check.clipsAt');
    // Turned down, the voice would be heard twice at its own ears, as loud once as the other time: a want breaks by that.
    expect(fixesOf(hot, finding!)).toEqual([]);
  });
  it('is mended by what is offered: enough before the stage, never after it', () => {
    const quiet = desk(
      { v: 'person', m: 'microphone-dynamic', x: 'mixer-usb-10', r: 'recorder-stereo' },
      ['v.voice > m.capsule 0.15 air', 'm.xlr > x.strip-1', 'x.main-out > r.line'],
      {
        set: { 'x.strip-1-gain': 60, 'x.strip-1-fader': 0, 'x.main-level': 0 },
        sources: ['v: v.voice'],
        listeners: ['r: r.file'],
        plan: ['v > r'],
      },
    );
    const loud: Rig = { ...quiet, sources: quiet.sources.map((s) => ({ ...s, level: [110, 114, 118] })) };
    const [finding] = clips(loud);
    const fixes = fixesOf(loud, finding!);
    expect(fixes.map((f) => f.label)).toMatchObject([{ params: { setting: 'Channel 1, gain' } }]);
    const done = applyEdit(loud, fixes[0]!.edit);
    if (!done.ok) throw new Error(textOf(done.refusal.reason));
    expect(clips(done.rig).map((f) => f.id)).not.toContain(finding!.id);
  });
});
