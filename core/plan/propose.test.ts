import { describe, expect, it } from 'vitest';
import { applyEdit, parseRig, type Rig } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { OCCASIONS, rigFor } from '#core/wire/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { planEdit, proposePlan } from './index.ts';

const relay = parseRig(JSON.parse(JSON.stringify(boathouse)));
const wants = (rig: Rig) =>
  new Map(proposePlan(rig).map(({ cell }) => [`${cell.sourceId}>${cell.listenerId}`, cell.want]));

describe('a proposed plan', () => {
  it('keeps the own voice from a guest over a call, and lets one hear it that is at the desk', () => {
    const told = wants(relay);
    expect(told.get('ilse>ilse')).toBe('must-not');
    expect(told.get('couch-game>ilse')).toBe('must');
    expect([...told].filter(([pair]) => pair.endsWith('>stream')).every(([, want]) => want === 'must')).toBe(true);
  });
  it('says nothing of single tracks, and everything of streams and recorders', () => {
    const told = wants(relay);
    expect([...told.keys()].filter((p) => />track-/.test(p))).toEqual([]);
    expect([...told.keys()].filter((p) => p.endsWith('>backup'))).toHaveLength(relay.sources.length);
  });
  it('is a plan of the rig: applied in one step, undone in one, each want with a reason', () => {
    for (const occasion of OCCASIONS) {
      const rig: Rig = { ...rigFor(occasion), plan: [] };
      const proposed = proposePlan(rig);
      expect(proposed.length, occasion.name).toBeGreaterThan(0);
      expect(proposed.every((p) => p.why.length > 5)).toBe(true);
      const done = applyEdit(rig, planEdit(proposed));
      if (!done.ok) throw new Error(done.refusal.reason);
      expect(done.rig.plan).toHaveLength(proposed.length);
      expect(evaluate(done.rig).pairs.filter((p) => p.want !== null)).toHaveLength(proposed.length);
      expect(applyEdit(done.rig, done.inverse)).toMatchObject({ ok: true, rig });
    }
  });
  it('holds what each occasion is for', () => {
    for (const occasion of OCCASIONS) {
      const told = wants(rigFor(occasion));
      for (const must of occasion.must) {
        const [source, listener] = must.split(' > ') as [string, string];
        if (/-track-/.test(listener)) continue;
        expect(['must', 'may'], `${occasion.name}: ${must}`).toContain(told.get(`${source}>${listener}`));
      }
    }
  });
});
