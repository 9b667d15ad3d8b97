import { describe, expect, it } from 'vitest';
import { catalogue } from '#core/model/rig/index.ts';
import { positionsOf } from './SettingFields.tsx';
import { groupWays, newWay, numbersOf, stageChoices, ungroupWays, withNumber } from './ways.ts';

describe('ways by fields', () => {
  it('lose nothing of any type: grouped and parted again they are the same ways', () => {
    const sorted = (ways: (typeof catalogue)[number]['inside']) => ways.map((w) => JSON.stringify(w)).sort();
    for (const type of catalogue) {
      const groups = groupWays(type.inside);
      expect(sorted(ungroupWays(groups)), type.id).toEqual(sorted(type.inside));
      expect(groups.length).toBeLessThanOrEqual(type.inside.length);
    }
  });
  it('go like to like, one to all', () => {
    const splitter = catalogue.find((t) => t.id === 'hdmi-splitter')!;
    expect(newWay(splitter, 'in', 'out-1').channels).toEqual([
      ['left', 'left'],
      ['right', 'right'],
      ['picture', 'picture'],
    ]);
    const microphone = catalogue.find((t) => t.id === 'microphone-usb')!;
    expect(newWay(microphone, 'capsule', 'jack').channels.map(([, to]) => to)).toEqual(['left', 'right']);
  });
  it('offer every setting and figure, and change any number of a stage and nothing else', () => {
    for (const type of catalogue.slice(0, 40)) {
      const choices = stageChoices(type);
      expect(choices.filter((c) => 'setting' in c.stage).length).toBeGreaterThanOrEqual(type.settings.length);
      for (const { stage, says } of choices) {
        expect(says).not.toMatch(/undefined/);
        numbersOf(stage).forEach(([name, value], i) => {
          const changed = withNumber(stage, i, value + 1);
          expect(changed.do).toBe(stage.do);
          expect(numbersOf(changed).map(([, v]) => v)).toEqual(
            numbersOf(stage).map(([n, v]) => (n === name ? v + 1 : v)),
          );
        });
      }
    }
  });
  it('name positions of a switch, twice the same apart', () => {
    expect(positionsOf('USB, jack, USB,, ÄÖ').map((p) => p.value)).toEqual(['usb', 'jack', 'usb-2', 'position']);
  });
});
