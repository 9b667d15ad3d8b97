import { describe, expect, it } from 'vitest';
import { desk } from './check.testkit.ts';
import { check, fixesOf } from './index.ts';

/** Two consoles at one switch, on to a screen; the switch at one of its inputs. */
const switched = (input: 'a' | 'b', both: boolean) =>
  desk(
    { one: 'game-console', two: 'game-console', s: 'hdmi-switch', t: 'screen' },
    ['one.hdmi > s.in-a', ...(both ? ['two.hdmi > s.in-b'] : []), 's.out > t.hdmi'],
    { set: { 's.input': input } },
  );
const off = (rig: ReturnType<typeof desk>) => check(rig).filter((f) => f.rule === 'exclusive-switched-off');

describe('a switch', () => {
  it('that has chosen one of two things that are plugged is no fault', () => {
    expect(off(switched('a', true))).toEqual([]);
    expect(off(switched('b', true))).toEqual([]);
  });
  it('that has chosen an empty input is one, and set to the other it is mended', () => {
    const rig = switched('b', false);
    const [finding, ...more] = off(rig);
    expect(more).toEqual([]);
    expect(finding).toMatchObject({ severity: 'fix', where: { setting: { deviceId: 's', settingId: 'input' } } });
    expect(fixesOf(rig, finding!).map((f) => f.label)).toMatchObject([{ params: { device: 's', setting: 'Input' } }]);
    expect(off(switched('a', false))).toEqual([]);
  });
  it('that is turned in another moment is no fault there or here; one that is never turned is told once', () => {
    const rig = switched('b', false);
    const turned = {
      ...rig,
      moments: [{ id: 'game', name: 'Game', settings: [{ deviceId: 's', settingId: 'input', value: 'a' }], plan: [] }],
    };
    expect(off(turned)).toEqual([]);
    const other = { ...rig, moments: [{ id: 'game', name: 'Game', settings: [], plan: [] }] };
    expect(off(other)).toHaveLength(1);
  });
});

describe('two ends of which one works at a time', () => {
  const recorder = (moment: { settingId: string; value: string | boolean } | null) => {
    const rig = desk({ r: 'recorder-handheld', p: 'computer-desktop' }, ['r.usb > p.usb-1'], {
      listeners: ['file: r.file'],
    });
    const settings = moment ? [{ deviceId: 'r', ...moment }] : [];
    return check({ ...rig, moments: [{ id: 'later', name: 'Later', settings, plan: [] }] }).filter((f) =>
      f.rule.startsWith('exclusive-'),
    );
  };
  it('are right where a moment turns from one to the other, and only then', () => {
    expect(recorder({ settingId: 'use', value: 'interface' })).toEqual([]);
    // What else is pressed in a moment parts them not.
    expect(recorder({ settingId: 'own-mute', value: true }).map((f) => f.rule)).toContain('exclusive-ends');
    expect(recorder(null).map((f) => f.rule)).toContain('exclusive-ends');
  });
});
