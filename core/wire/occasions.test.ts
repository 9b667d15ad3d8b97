import { describe, expect, it } from 'vitest';
import { check } from '#core/check/index.ts';
import { emptyRig } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { OCCASIONS, rigFor } from './occasions.ts';
import { readTyped } from './typed.ts';

describe('desks to start from', () => {
  for (const occasion of OCCASIONS) {
    it(`${occasion.name}: words are understood, leads fit, and who must hear does`, () => {
      const typed = readTyped(emptyRig('x'), occasion.way);
      expect(typed.boxes.filter((b) => b.type === null)).toEqual([]);
      expect(typed.leads.filter((l) => l.offer === null)).toEqual([]);
      const rig = rigFor(occasion);
      expect(rig.plan.length).toBe(occasion.must.length);
      const { pairs } = evaluate(rig);
      expect(pairs.filter((p) => p.want === 'must' && p.ways.length === 0)).toEqual([]);
      // Nothing that would not work is claimed of a desk that nobody has looked at.
      expect(check(rig).filter((f) => f.severity === 'stop' && !f.asks)).toEqual([]);
      expect(
        [...rig.cables, ...rig.devices.flatMap((d) => Object.values(d.settings))].map((x) => x.known),
      ).not.toContain('seen');
    });
  }
});
