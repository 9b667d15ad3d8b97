import { describe, expect, it } from 'vitest';
import { alreadySo, applyEdit, findTypes, parseRig, type Rig } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { mutesOn } from './index.ts';

const demos = [boathouse, skerryNet].map((r) => parseRig(JSON.parse(JSON.stringify(r))));
const heard = (rig: Rig) =>
  new Set(
    evaluate(rig)
      .pairs.filter((p) => p.ways.length > 0)
      .map((p) => `${p.sourceId}>${p.listenerId}`),
  );
const pressed = (rig: Rig, deviceId: string, settingId: string, value: boolean): Rig => {
  const done = applyEdit(rig, alreadySo(rig, [{ deviceId, settingId, value }]));
  if (!done.ok) throw new Error(done.refusal.reason);
  return done.rig;
};

describe('mutes on a way', () => {
  it('are all that silence the pair, with just what else they take: as pressing each of the rig has it', () => {
    let found = 0;
    for (const rig of demos) {
      const evaluation = evaluate(rig);
      const before = heard(rig);
      const lost = rig.devices.flatMap((device) =>
        findTypes(rig)
          .get(device.typeId)!
          .settings.filter((s) => s.kind === 'mute')
          .map((spec) => {
            const now = (device.settings[spec.id]?.value ?? spec.default) as boolean;
            const after = heard(pressed(rig, device.id, spec.id, !now));
            return { key: `${device.id}.${spec.id}`, takes: [...before].filter((p) => !after.has(p)).sort() };
          }),
      );
      for (const pair of evaluation.pairs.filter((p) => p.ways.length > 0).slice(0, 12)) {
        const name = `${pair.sourceId}>${pair.listenerId}`;
        const told = mutesOn(rig, evaluation, pair).map((m) => ({
          key: `${m.deviceId}.${m.settingId}`,
          takes: m.takes.map((t) => `${t.sourceId}>${t.listenerId}`).sort(),
        }));
        for (const mute of told) expect(lost).toContainEqual(mute);
        const silencing = lost.filter((m) => m.takes.includes(name));
        expect(
          told
            .filter((m) => m.takes.includes(name))
            .map((m) => m.key)
            .sort(),
        ).toEqual(silencing.map((m) => m.key).sort());
        const sizes = told.filter((m) => m.takes.includes(name)).map((m) => m.takes.length);
        expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
        found += silencing.length;
      }
    }
    expect(found).toBeGreaterThan(10);
  });
  it('are none where nothing is heard', () => {
    const [rig] = demos as [Rig];
    const silent = evaluate(rig).pairs.find((p) => p.ways.length === 0)!;
    expect(mutesOn(rig, evaluate(rig), silent)).toEqual([]);
  });
});
