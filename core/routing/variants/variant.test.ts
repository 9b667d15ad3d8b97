import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, catalogue, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { removeDevice, replaceDevice } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { quayDeskMixer, quayDeskStraight } from '#demo/quay-desk.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { compareRigs, countByKind, failuresOf } from './index.ts';

const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const demos = [boathouse, quayTalk, gliderCorner].map(read);
const [relay, quay] = demos as [Rig, Rig, Rig];
const edited = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const heard = (rig: Rig) =>
  new Set(
    evaluate(rig)
      .pairs.filter((p) => p.want === 'must' && p.ways.length > 0)
      .map((p) => `${p.sourceId}>${p.listenerId}`),
  );

describe('what can fail', () => {
  it('takes along just what is not heard any more when it is taken out', () => {
    for (const rig of demos) {
      const before = heard(rig);
      const failures = failuresOf(rig, evaluate(rig));
      let told = 0;
      for (const { kind, deviceIds, cableIds, loses } of failures) {
        if (kind !== 'box' && kind !== 'program' && kind !== 'lead' && kind !== 'radio') continue;
        // Cables that go along in the same plugs are taken out with it.
        const cable = rig.cables.find((c) => c.id === cableIds[0]);
        if (cable && rig.cables.some((c) => c !== cable && c.to.deviceId === cable.from.deviceId)) continue;
        const after = heard(
          edited(rig, cable ? { kind: 'unplug', cableId: cable.id } : removeDevice(rig, deviceIds[0]!)),
        );
        expect([...before].filter((pair) => !after.has(pair))).toHaveLength(loses);
        if (loses > 0) told++;
      }
      expect(told).toBeGreaterThan(3);
    }
  });
  it('counts supplies and batteries with their boxes, and no people', () => {
    const failures = failuresOf(quay, evaluate(quay));
    const kinds = countByKind(failures);
    expect(kinds.supply).toBe(0);
    expect(kinds.battery).toBeGreaterThan(2);
    expect(failures.some((f) => f.name === 'Host' || f.name === 'Guest')).toBe(false);
    expect(Object.values(kinds).reduce((a, b) => a + b)).toBe(failures.length);
    expect(failures.map((f) => f.loses)).toEqual(failures.map((f) => f.loses).sort((a, b) => b - a));
  });
});

describe('two rigs side by side', () => {
  it('are alike where nothing differs', () => {
    for (const rig of demos) {
      const { figures, ...lists } = compareRigs(rig, read(rig));
      expect(figures[0]).toEqual(figures[1]);
      expect(lists).toEqual({ devices: [], leads: [], settings: [], findings: [] });
    }
  });
  it('tell what was replaced, what came out with it, and which findings go and come', () => {
    const better = catalogue.find((t) => t.id === 'hdmi-splitter-powered')!;
    const other = edited(relay, replaceDevice(relay, 'splitter', better)!.edit);
    const { devices, leads, findings, figures } = compareRigs(relay, other);
    expect(devices).toMatchObject([{ id: 'splitter', where: 'both' }]);
    expect(devices[0]!.says).toContain(better.name);
    expect(leads).toEqual([]);
    expect(findings.filter((f) => f.where === 'first').length).toBeGreaterThan(0);
    expect(figures[1].priceEur[1]).not.toBe(figures[0].priceEur[1]);
  });
  it('tell how clean the main voice is in each, and how near its peaks come to a ceiling', () => {
    const gain = (value: number): Rig =>
      edited(relay, {
        kind: 'set-setting',
        deviceId: 'mixer',
        settingId: 'strip-1-gain',
        setting: { value, known: 'confirmed' },
      });
    const [low, high] = compareRigs(gain(20), gain(50)).figures;
    // Gain that comes early lifts the voice over what makes noise later, and takes the room over its peaks.
    expect(high.leastSnrDb!).toBeGreaterThan(low.leastSnrDb! + 5);
    expect(high.leastRoomDb!).toBeLessThan(low.leastRoomDb!);
    const silent = { ...relay, plan: [] };
    expect(compareRigs(silent, silent).figures[0]).toMatchObject({ leastSnrDb: null, leastRoomDb: null });
  });
  it('is the same from the other side', () => {
    const without = edited(quay, removeDevice(quay, 'guest-radio'));
    const set = edited(without, {
      kind: 'set-setting',
      deviceId: 'camera',
      settingId: 'sound-from',
      setting: { value: 'own', known: 'confirmed' },
    });
    const [there, back] = [compareRigs(quay, set), compareRigs(set, quay)];
    const turned = (list: typeof there.devices) =>
      list.map((d) => ({ first: 'second', second: 'first', both: 'both' })[d.where] + d.id).sort();
    for (const list of ['devices', 'leads', 'settings', 'findings'] as const)
      expect(turned(back[list])).toEqual(there[list].map((d) => d.where + d.id).sort());
    expect(there.figures).toEqual([...back.figures].reverse());
    expect(there.settings.map((s) => s.says).join()).toMatch(/^variant\.settingFromTo\(Quay camera, /);
    expect(there.figures[1].heard).toBeLessThan(there.figures[0].heard);
  });
  it('lays a USB microphone straight in beside one through a mixer: what the mixer costs', () => {
    const [straight, mixer] = compareRigs(read(quayDeskStraight), read(quayDeskMixer)).figures;
    expect(mixer.leastSnrDb!).toBeLessThan(straight.leastSnrDb!);
    expect(straight.leastSnrDb! - mixer.leastSnrDb!).toBeLessThan(3);
    expect(mixer.boxes).toBe(straight.boxes + 1);
    expect(mixer.failures).toBeGreaterThan(straight.failures);
    expect(mixer.fixes).toBeGreaterThan(straight.fixes);
  });
});
