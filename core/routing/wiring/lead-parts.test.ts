import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { check } from '#core/rules/index.ts';
import { offersFor, socketsOf } from './index.ts';

describe('a lead that is offered', () => {
  const rig = desk({ g: 'phone', i: 'interface-2', l: 'computer-laptop', m: 'lapel-wired' }, []);
  const offersFrom = (deviceId: string) => offersFor(rig, socketsOf(rig, deviceId).find((s) => s.connector !== 'air')!);
  const to = (deviceId: string, from: string) => offersFrom(from).find((o) => o.socket.deviceId === deviceId)!;
  it('names the parts that do what a plain one would not, and costs what they cost', () => {
    for (const offer of [to('i', 'g'), to('l', 'm')].filter(Boolean)) {
      expect(offer.cables[0]!.parts!.length).toBeGreaterThan(0);
      expect(offer.chain!.parts.map((p) => p.id)).toEqual(offer.cables[0]!.parts);
      expect(offer.chain!.cost).toBeGreaterThan(offer.chain!.price[0]);
    }
    expect(to('i', 'g').cables[0]!.parts).toBeDefined();
  });
  it('has no finding of its plugs once it is plugged', () => {
    const done = applyEdit(rig, { kind: 'plug', cable: to('i', 'g').cables[0]! });
    if (!done.ok) throw new Error(textOf(done.refusal.reason));
    expect(check(done.rig).filter((f) => /^plug-(stereo|nothing|one-side|balanced|parts)/.test(f.rule))).toEqual([]);
  });
});
