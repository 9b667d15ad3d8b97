import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, findTypes, type Rig, settingOf } from '#core/model/rig/index.ts';
import { desk } from './check.testkit.ts';
import { check, fixesOf, isBalanced, leadsOf } from './index.ts';

const TYPES = [
  'game-console',
  'game-console-old',
  'screen-with-jack',
  'television',
  'hdmi-splitter',
  'hdmi-extractor',
  'capture-usb-compressed',
  'computer-desktop',
  'computer-laptop',
  'mixer-usb-10',
  'mixer-analogue',
  'interface-2',
  'recorder-stereo',
  'loudspeakers-active',
  'loudspeakers-desk',
  'isolator-line',
  'phone',
  'optical-to-line',
];
const types = findTypes({ types: [] });
const SOCKETS = new Set(['jack', 'xlr', 'phono', 'hdmi', 'usb', 'combo']);
const ends = (typeId: string, direction: 'in' | 'out') =>
  types
    .get(typeId)!
    .ports.filter((p) => p.direction === direction && SOCKETS.has(p.connector.split('-')[0]!))
    .map((p) => p.id);

/** A handful of devices with cables between any of their sockets, whether they fit or not. */
const aDesk = (): fc.Arbitrary<Rig> =>
  fc.array(fc.constantFrom(...TYPES), { minLength: 2, maxLength: 7 }).chain((others) => {
    const chosen = ['mixer-usb-10', ...others];
    const outs = chosen.flatMap((t, i) => ends(t, 'out').map((p) => ({ i, place: `d${i}.${p}` })));
    const ins = chosen.flatMap((t, i) => ends(t, 'in').map((p) => ({ i, place: `d${i}.${p}` })));
    return fc.array(fc.tuple(fc.constantFrom(...outs), fc.constantFrom(...ins)), { maxLength: 14 }).map((leads) =>
      desk(
        Object.fromEntries(chosen.map((t, i) => [`d${i}`, t])),
        leads.filter(([a, b]) => a.i !== b.i).map(([a, b]) => `${a.place} > ${b.place}`),
      ),
    );
  });

/** Devices whose AC power plug has an ground, and which of them are on it now. */
const earthed = (rig: Rig): string[] =>
  rig.devices
    .filter((d) => {
      const { power, settings } = findTypes(rig).get(d.typeId)!;
      const supply = settings.find((s) => s.id === power?.supply);
      return power?.earthed && !(supply && settingOf(d, supply).value === 'battery');
    })
    .map((d) => d.id);

type Pair = readonly [string, string];

/** Every joint of metal by its two ends: screens, with the cable, and AC power earths. */
function metalOf(rig: Rig): { pair: Pair; cableId: string | null; hums: boolean }[] {
  const audio = ['microphone', 'line', 'headphone'];
  const leads = leadsOf(rig, findTypes(rig)).filter(
    (l) =>
      !l.twin &&
      !l.from.port.isolated &&
      !l.to.port.isolated &&
      ![l.from, l.to].some((e) => e.port.connector.startsWith('toslink')),
  );
  return [
    ...leads.map((l) => ({
      pair: [l.from.device.id, l.to.device.id] as const,
      cableId: l.cable.id,
      hums: audio.includes(l.from.port.level) && audio.includes(l.to.port.level) && !isBalanced(l),
    })),
    ...earthed(rig).map((id) => ({ pair: [id, 'earth'] as const, cableId: null, hums: false })),
  ];
}

/** Independent rings: joints less devices and more parts. The slow twin counts parts by spreading until nothing is added. */
function ringsIn(joints: readonly { readonly pair: Pair }[]): number {
  const boxes = new Set(joints.flatMap((j) => j.pair));
  let parts = 0;
  for (const left = new Set(boxes); left.size > 0; parts++) {
    let part = new Set([...left].slice(0, 1));
    for (;;) {
      const more = new Set(part);
      for (const {
        pair: [x, y],
      } of joints) {
        if (part.has(x)) more.add(y);
        if (part.has(y)) more.add(x);
      }
      if (more.size === part.size) break;
      part = more;
    }
    for (const id of part) left.delete(id);
  }
  return joints.length - boxes.size + parts;
}

describe('grounding', () => {
  it('finds as many rings as unbalanced leads close, over every lead, each by a lead that breaks it', () => {
    let [rings, several] = [0, 0];
    fc.assert(
      fc.property(aDesk(), (rig) => {
        const metal = metalOf(rig);
        const expected = ringsIn(metal) - ringsIn(metal.filter((j) => !j.hums));
        const found = check(rig).filter((f) => f.rule === 'ground-hum-loop');
        expect(found.length).toBe(expected);
        const closing = new Set(found.map((f) => f.where.cableIds[0]!));
        expect(closing.size).toBe(expected);
        // With those leads out no ring with an unbalanced lead is left; with one of them in again there is just one.
        const rest = metal.filter((j) => j.cableId === null || !closing.has(j.cableId));
        const quiet = ringsIn(rest);
        expect(quiet).toBe(ringsIn(rest.filter((j) => !j.hums)));
        for (const { where } of found) {
          const lead = metal.find((j) => j.cableId === where.cableIds[0])!;
          expect(lead.hums).toBe(true);
          expect(ringsIn([...rest, lead])).toBe(quiet + 1);
          // Whatever unbalanced lead of its ring is taken out instead: the ring is open as well.
          const ring = where.cableIds.slice(1);
          if (ring.length > 0) several++;
          for (const id of ring) expect(ringsIn([...rest.filter((j) => j.cableId !== id), lead])).toBe(quiet);
        }
        rings += expected;
      }),
      { numRuns: 300 },
    );
    expect(rings).toBeGreaterThan(50);
    expect(several).toBeGreaterThan(2);
  });
  it('never proposes to lift a mains earth, in any fix of any rule on any rig', () => {
    let offered = 0;
    fc.assert(
      fc.property(aDesk(), (rig) => {
        for (const finding of check(rig)) {
          for (const fix of fixesOf(rig, finding)) {
            offered++;
            const done = applyEdit(rig, fix.edit);
            if (!done.ok) throw new Error(`${finding.rule}, ${textOf(fix.label)}: ${done.refusal.reason}`);
            const still = new Set(earthed(done.rig));
            const onBattery = (id: string) =>
              done.rig.devices.find((d) => d.id === id)?.settings.supply?.value === 'battery';
            for (const id of earthed(rig)) expect(still.has(id) || onBattery(id), textOf(fix.label)).toBe(true);
            // Nor by another way: a device keeps its type, and with it its plug.
            for (const d of rig.devices) expect(done.rig.devices.find((x) => x.id === d.id)?.typeId).toBe(d.typeId);
          }
        }
      }),
      { numRuns: 250 },
    );
    expect(offered).toBeGreaterThan(50);
  });
  it('puts an isolator only where it may stand, and the hum is gone with it', () => {
    const boxes = { a: 'game-console', t: 'screen-with-jack', x: 'mixer-usb-10' };
    const line = desk(boxes, ['a.hdmi > t.hdmi', 't.jack > x.strip-5-6']);
    const hum = check(line).find((f) => f.rule === 'ground-hum-loop')!;
    const [fix] = fixesOf(line, hum);
    expect(fix!.label).toMatchObject({ code: 'check.isolate' });
    const done = applyEdit(line, fix!.edit);
    expect(done.ok && check(done.rig).filter((f) => f.rule.startsWith('ground'))).toEqual([]);
    const microphone = desk(boxes, ['a.hdmi > t.hdmi', 't.jack > x.strip-1']);
    const other = check(microphone).find((f) => f.rule === 'ground-hum-loop')!;
    expect(fixesOf(microphone, other)).toEqual([]);
  });
  it('is mended by a laptop on its battery', () => {
    const rig = desk({ p: 'computer-laptop', x: 'mixer-usb-10' }, ['p.jack > x.strip-5-6']);
    const hum = check(rig).find((f) => f.rule === 'ground-hum-loop')!;
    const fix = fixesOf(rig, hum).find((f) => textOf(f.label).startsWith('check.onBattery'))!;
    const done = applyEdit(rig, fix.edit);
    expect(done.ok && check(done.rig).some((f) => f.rule === 'ground-hum-loop')).toBe(false);
  });
});
