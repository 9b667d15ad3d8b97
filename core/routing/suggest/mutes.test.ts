import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, findTypes, markDone, parseRig, type Rig, settingOf } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { allMutes, mutesFor, mutesOn } from './index.ts';

const demos = [boathouse, skerryNet].map((r) => parseRig(JSON.parse(JSON.stringify(r))));
const heard = (rig: Rig) =>
  new Set(
    evaluate(rig)
      .pairs.filter((p) => p.ways.length > 0)
      .map((p) => `${p.sourceId}>${p.listenerId}`),
  );
const pressed = (rig: Rig, deviceId: string, settingId: string, value: boolean): Rig => {
  const done = applyEdit(rig, markDone(rig, [{ deviceId, settingId, value }]));
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
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

describe('the mute for exactly these', () => {
  const relay = demos[0]!;
  const before = evaluate(relay);
  const all = [...allMutes(relay, before)].filter((m) => m !== null);
  it('is among all mutes, and pressing it takes just them', () => {
    expect(all.length).toBeGreaterThan(6);
    for (const mute of all) {
      const [choice] = mutesFor(relay, before, all, mute.takes);
      expect(choice, `${mute.deviceId}.${mute.settingId}`).toMatchObject({ more: [], less: [] });
      const changes = choice!.mutes.map(({ deviceId, settingId }) => {
        const device = relay.devices.find((d) => d.id === deviceId)!;
        const spec = findTypes(relay)
          .get(device.typeId)!
          .settings.find((s) => s.id === settingId)!;
        return { deviceId, settingId, value: !settingOf(device, spec).value };
      });
      const done = applyEdit(relay, markDone(relay, changes));
      if (!done.ok) throw new Error(textOf(done.refusal.reason));
      const after = evaluate(done.rig).pairs;
      const gone = before.pairs.filter((p, i) => p.ways.length > 0 && after[i]!.ways.length === 0);
      expect(gone.map((p) => `${p.sourceId}>${p.listenerId}`).sort()).toEqual(
        mute.takes.map((t) => `${t.sourceId}>${t.listenerId}`).sort(),
      );
    }
  });
  it('says what comes along, or is left, where there is none such', () => {
    const choices = mutesFor(relay, before, all, [{ sourceId: 'couch-game', listenerId: 'backup' }]);
    expect(choices.length).toBeGreaterThan(0);
    expect(choices[0]!.more.length + choices[0]!.less.length).toBeGreaterThan(0);
    expect(mutesFor(relay, before, all, [{ sourceId: 'jingles', listenerId: 'room' }])).toEqual([]);
  });
});
