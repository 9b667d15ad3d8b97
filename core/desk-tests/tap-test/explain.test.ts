import { describe, expect, it } from 'vitest';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { expectedOf, explain, judge, playersOf, type TakeRead } from './index.ts';
import { readingsAt, rigWith } from './taptest.testkit.ts';

const relay: Rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const players = playersOf(relay);
const all = relay.listeners.map((l) => l.id);
const faults = faultsOf(relay, evaluate(relay));
const fault = faults.find((f) => f.id === 'set:capture-program.in-3-not-on-2:false')!;
const at = (listenerIds: readonly string[]): TakeRead[] =>
  readingsAt(rigWith(relay, fault), fault.dead, listenerIds, players, 5);
const apartOf = (rig: Rig, takes: readonly TakeRead[]): number => {
  const listenerIds = takes.map((t) => t.listenerId);
  return judge(rig, expectedOf(rig, evaluate(rig), listenerIds), takes, players).apart;
};

describe('an explanation', () => {
  const takes = at(all);
  const [first, ...others] = explain(relay, takes, players);
  it('comes first where it is the fault, says what it explains, and leaves nothing', () => {
    expect(first!.faults.map((f) => f.id)).toContain(fault.id);
    expect(first!.explains.some((e) => e.disagreement.kind === 'extra' && e.listenerId === 'track-2')).toBe(true);
    expect(first!.leaves).toEqual([]);
    expect(first!.breaks).toEqual([]);
  });
  it('has its share of three at most, the likeliest first', () => {
    expect(others.length).toBeLessThanOrEqual(2);
    const shares = [first!, ...others].map((e) => e.share);
    expect([...shares].sort((a, b) => b - a)).toEqual(shares);
    expect(shares.reduce((s, v) => s + v, 0)).toBeLessThanOrEqual(1 + 1e-9);
    expect(first!.share).toBeGreaterThan(0.9);
  });
  it('draws the desk as it is: the readings agree then', () => {
    const done = applyEdit(relay, first!.faults.find((f) => f.id === fault.id)!.edit!);
    expect(apartOf(relay, takes)).toBeGreaterThan(4);
    expect(done.ok && apartOf(done.rig, takes)).toBeLessThan(2);
  });
  it('tells of how far it is, to the end', () => {
    const shares: number[] = [];
    explain(relay, at(['track-2', 'stream']), players, (share) => shares.push(share));
    expect(shares.length).toBe(faults.length);
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });
  it('puts together what these takes do not tell apart, and more takes part it', () => {
    const few = explain(relay, at(['track-2']), players).find((e) => e.faults.some((f) => f.id === fault.id))!;
    expect(few.faults.length).toBeGreaterThanOrEqual(first!.faults.length);
    // Told together they are the likelier one first.
    const weights = few.faults.map((f) => f.weight);
    expect(weights[0]).toBe(Math.max(...weights));
  });
});
