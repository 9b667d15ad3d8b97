import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, findTypes, parseRig, type Rig, type SettingValue } from '#core/model/rig/index.ts';
import { lineMap } from '#core/output/map/index.ts';
import { removeDevice } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { check } from './index.ts';

const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const demos = [boathouse, quayTalk, skerryNet].map(read);

/** Some edit of a rig: a setting to one of its values, another length, a cable or a device taken out. */
function someEdit(rig: Rig, [kind, which, value]: readonly [number, number, number]): Edit | null {
  const cable = rig.cables[which % rig.cables.length];
  const device = rig.devices[which % rig.devices.length];
  if (kind === 0 && cable) return { kind: 'unplug', cableId: cable.id };
  if (kind === 1 && cable)
    return {
      kind: 'batch',
      edits: [
        { kind: 'unplug', cableId: cable.id },
        { kind: 'plug', cable: { ...cable, lengthM: value, known: value % 2 ? 'confirmed' : 'assumed' } },
      ],
    };
  if (kind === 2 && device) return removeDevice(rig, device.id);
  const specs = device ? findTypes(rig).get(device.typeId)!.settings : [];
  const spec = specs[value % Math.max(1, specs.length)];
  if (!device || !spec) return null;
  const values: SettingValue[] =
    spec.kind === 'mute'
      ? [true, false]
      : spec.kind === 'switch'
        ? spec.options.map((o) => o.value)
        : [spec.min, spec.max];
  const setting = {
    value: values[which % values.length]!,
    known: value % 3 ? ('confirmed' as const) : ('assumed' as const),
  };
  return { kind: 'set-setting', deviceId: device.id, settingId: spec.id, setting };
}

const aNumber = fc.nat(40);
const someEdits = fc.array(fc.tuple(fc.nat(3), aNumber, aNumber), { minLength: 1, maxLength: 6 });

describe('what is kept from one edit to the next', () => {
  it('never shows: findings and pairs are those of the same rig read anew', () => {
    let accepted = 0;
    fc.assert(
      fc.property(fc.constantFrom(...demos), someEdits, (start, edits) => {
        let rig = start;
        for (const choice of edits) {
          const edit = someEdit(rig, choice);
          const done = edit && applyEdit(rig, edit);
          if (!done?.ok) continue;
          accepted++;
          rig = done.rig;
          // Looked at after every edit, so that everything there is to keep is kept.
          check(rig);
        }
        const anew = read(rig);
        expect(check(rig)).toEqual(check(anew));
        const told = (r: Rig) =>
          evaluate(r).pairs.map((p) => [
            p.sourceId,
            p.listenerId,
            p.verdict,
            p.ways.map((w) => [w.levelDb, w.delay, w.deviceIds]),
          ]);
        expect(told(rig)).toEqual(told(anew));
      }),
      { numRuns: 60 },
    );
    expect(accepted).toBeGreaterThan(40);
  });
  it('draws the same map where nothing of what stands on it changed, and keeps the lines that did not', () => {
    for (const rig of demos) {
      const before = lineMap(rig, evaluate(rig));
      const renamed = { ...rig, name: 'another name' };
      const after = lineMap(renamed, evaluate(renamed), 'all', before);
      expect(after.drawing).toBe(before.drawing);
      expect(after.lines.every((l, i) => l === before.lines[i])).toBe(true);
      const [first] = rig.cables.filter((c) => c.medium === 'lead');
      const done = applyEdit(rig, { kind: 'unplug', cableId: first!.id });
      if (!done.ok) throw new Error(textOf(done.refusal.reason));
      const without = lineMap(done.rig, evaluate(done.rig), 'all', before);
      expect(without.drawing).not.toBe(before.drawing);
      expect(without.lines.filter((l) => before.lines.includes(l)).length).toBeGreaterThan(0);
    }
  });
});
