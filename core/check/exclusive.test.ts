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
    expect(fixesOf(rig, finding!).map((f) => f.label)).toEqual([expect.stringMatching(/^s, Input: /)]);
    expect(off(switched('a', false))).toEqual([]);
  });
});
