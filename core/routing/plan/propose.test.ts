import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { OCCASIONS, rigFor } from '#core/intake/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { planEdit, proposePlan, STARTS, startPlan } from './index.ts';

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
      expect(proposed.length, textOf(occasion.name)).toBeGreaterThan(0);
      expect(proposed.every((p) => textOf(p.why).length > 5)).toBe(true);
      const done = applyEdit(rig, planEdit(proposed));
      if (!done.ok) throw new Error(textOf(done.refusal.reason));
      expect(done.rig.plan).toHaveLength(proposed.length);
      expect(evaluate(done.rig).pairs.filter((p) => p.want !== null)).toHaveLength(proposed.length);
      expect(applyEdit(done.rig, done.inverse)).toMatchObject({ ok: true, rig });
    }
  });
});

describe('starting plans', () => {
  const start = (id: string) => STARTS.find((s) => s.id === id)!;
  const skerry = parseRig(JSON.parse(JSON.stringify(skerryNet)));
  const told = (rig: Rig, id: string) =>
    new Map(startPlan(rig, start(id)).map(({ cell }) => [`${cell.sourceId}>${cell.listenerId}`, cell]));

  it('balance a stream as one begins, against a voice that is there', () => {
    const plan = told(relay, 'two-players');
    expect(
      ['couch-game', 'jingles', 'ilse', 'couch', 'wren'].map((s) => plan.get(`${s}>stream`)?.underVoiceDb),
    ).toEqual([10, 18, 2, 0, undefined]);
    const mute = { ...relay, sources: relay.sources.filter((s) => s.id === 'couch-game') };
    expect(startPlan(mute, start('two-players')).some((p) => 'underVoiceDb' in p.cell)).toBe(false);
  });
  it('keep a radio station off the air until somebody keys it', () => {
    const plan = told(skerry, 'radio');
    expect(plan.get('operator>boat-a')!.want).toBe('must-not');
    expect(plan.get('boat-a>operator')!.want).toBe('must');
    expect(plan.has('boat-a>boat-a')).toBe(false);
  });
  it('give voices tracks of their own, and music the time of the voice', () => {
    const apart = startPlan(relay, start('interview')).filter((p) => p.cell.ownTrack);
    expect(apart.map((p) => `${p.cell.sourceId}>${p.cell.listenerId}`)).toEqual([
      'wren>track-1',
      'couch>track-2',
      'ilse>track-3',
    ]);
    expect(told(relay, 'class').get('jingles>ilse')).toMatchObject({ want: 'must', inTimeWith: 'wren' });
  });
  it('replace what is planned, in one step that can be undone', () => {
    for (const one of STARTS) {
      const proposed = startPlan(relay, one);
      const done = applyEdit(relay, planEdit(proposed, relay));
      if (!done.ok) throw new Error(`${one.name}: ${done.refusal.reason}`);
      expect(done.rig.plan).toHaveLength(proposed.length);
      expect(applyEdit(done.rig, done.inverse)).toMatchObject({ ok: true, rig: relay });
    }
  });
});
