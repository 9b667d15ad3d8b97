import { describe, expect, it } from 'vitest';
import { FAULT_IDS } from '#core/audio/measure/index.ts';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, findDevice, findTypes, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { placesOf } from '../index.ts';

const demos = [boathouse, clayHour, gliderCorner, mothNight, quayTalk, skerryNet].map((r) =>
  parseRig(JSON.parse(JSON.stringify(r))),
);
const [relay] = demos as [Rig];
const edited = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const places = (rig: Rig, listenerId: string, id: (typeof FAULT_IDS)[number], delayMs?: number) =>
  placesOf(rig, evaluate(rig), listenerId, { id, ...(delayMs === undefined ? {} : { delayMs }) });

describe('places that could have made a fault', () => {
  it('are few, ranked, told with a reason, and have a tap that is there', () => {
    let told = 0;
    for (const rig of demos) {
      const types = findTypes(rig);
      for (const listener of rig.listeners)
        for (const id of FAULT_IDS) {
          const found = places(rig, listener.id, id);
          expect(found.length).toBeLessThanOrEqual(4);
          expect(new Set(found.map((p) => p.where)).size).toBe(found.length);
          const weights = found.map((p) => p.weight);
          expect(weights).toEqual([...weights].sort((a, b) => b - a));
          for (const { where, why, tap, weight } of found) {
            expect(weight).toBeGreaterThan(0);
            expect(weight).toBeLessThanOrEqual(1);
            expect(`${where} ${why}`).not.toMatch(/undefined|NaN/);
            const type = types.get(findDevice(rig, tap.deviceId)!.typeId)!;
            expect(type.ports.map((p) => p.id)).toContain(tap.portId);
            told++;
          }
        }
    }
    expect(told).toBeGreaterThan(200);
  });
  it('of hiss are those that make the noise, by their share of it', () => {
    const found = places(relay, 'backup', 'hiss');
    expect(found.reduce((sum, p) => sum + p.weight, 0)).toBeLessThanOrEqual(1.000001);
    const gain = (value: number): Edit => ({
      kind: 'set-setting',
      deviceId: 'mixer',
      settingId: 'strip-4-gain',
      setting: { value, known: 'confirmed' },
    });
    // An unused strip all the way up makes itself the first of them.
    const loud = edited(relay, gain(60));
    const share = (rig: Rig) => places(rig, 'backup', 'hiss').find((p) => p.where === 'Mixer, Channel 4')?.weight ?? 0;
    expect(share(loud)).toBeGreaterThan(share(relay));
  });
  it('of hum begin with the ring of earths that the rig has', () => {
    const [first] = places(relay, 'stream', 'hum-50');
    expect(first).toBeDefined();
    expect(first!.weight).toBeGreaterThan(0.4);
  });
  it('of an echo are the second ways, those first whose delay fits', () => {
    const evaluation = evaluate(relay);
    const pair = evaluation.pairs.find((p) => p.ways.length > 1)!;
    const apart = Math.abs(pair.ways[1]!.delay.value.nominal - pair.ways[0]!.delay.value.nominal);
    const [first] = places(relay, pair.listenerId, 'echo', apart);
    expect(first!.why).toMatchObject({ code: 'trouble.itReachesOverSecond' });
    expect(first!.weight).toBeGreaterThan(0.6);
    const far = places(relay, pair.listenerId, 'echo', apart + 400).find((p) => p.where === first!.where);
    expect(far?.weight ?? 0).toBeLessThan(first!.weight);
  });
  it('of clipping are the stages with the least room', () => {
    const hot: Rig = {
      ...relay,
      sources: relay.sources.map((s) => (s.id === 'wren' ? { ...s, level: [98, 102, 106] } : s)),
    };
    const [first] = places(hot, 'backup', 'clipping');
    expect(textOf(first!.where)).toContain('signal.converter');
    expect(first!.why).toMatchObject({ code: 'trouble.typicalPeaksAreDb' });
  });
  it('of silence is the door that shuts the way', () => {
    const muted = edited(relay, {
      kind: 'set-setting',
      deviceId: 'mixer',
      settingId: 'strip-1-mute',
      setting: { value: true, known: 'confirmed' },
    });
    expect(places(muted, 'backup', 'silent')[0]).toMatchObject({ where: 'Mixer, Channel 1, mute' });
  });
});
