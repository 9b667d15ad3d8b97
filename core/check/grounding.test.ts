import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit, findTypes, type Rig, settingOf } from '#core/rig/index.ts';
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

/** A handful of boxes with leads between any of their sockets, whether they fit or not. */
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

/** Boxes whose mains plug has an earth, and which of them are on it now. */
const earthed = (rig: Rig): string[] =>
  rig.devices
    .filter((d) => {
      const { power, settings } = findTypes(rig).get(d.typeId)!;
      const supply = settings.find((s) => s.id === power?.supply);
      return power?.earthed && !(supply && settingOf(d, supply).value === 'battery');
    })
    .map((d) => d.id);

/** The slow twin: spread from one end of the lead over every screen and earth but those between just these two boxes. */
function ringed(rig: Rig): Set<string> {
  const leads = leadsOf(rig, findTypes(rig));
  const metal = leads.filter(
    (l) =>
      !l.from.port.isolated &&
      !l.to.port.isolated &&
      ![l.from, l.to].some((e) => e.port.connector.startsWith('toslink')),
  );
  const joints: [string, string][] = [
    ...metal.map((l): [string, string] => [l.from.device.id, l.to.device.id]),
    ...earthed(rig).map((id): [string, string] => [id, 'earth']),
  ];
  const audio = ['microphone', 'line', 'headphone'];
  const pairs = metal
    .filter((l) => audio.includes(l.from.port.level) && audio.includes(l.to.port.level) && !isBalanced(l))
    .map((l): [string, string] => [l.from.device.id, l.to.device.id]);
  return new Set(
    pairs
      .filter(([a, b]) => {
        const others = joints.filter(([x, y]) => !((x === a && y === b) || (x === b && y === a)));
        let reached = new Set([a]);
        for (;;) {
          const more = new Set(reached);
          for (const [x, y] of others) {
            if (reached.has(x)) more.add(y);
            if (reached.has(y)) more.add(x);
          }
          if (more.size === reached.size) return reached.has(b);
          reached = more;
        }
      })
      .map((pair) => [...pair].sort().join(' ')),
  );
}

describe('grounding', () => {
  it('finds every ring of earths that holds an unbalanced lead, and no other; several leads of one pair count once', () => {
    let rings = 0;
    fc.assert(
      fc.property(aDesk(), (rig) => {
        const expected = ringed(rig);
        rings += expected.size;
        const loops = check(rig).filter((f) => f.rule === 'ground-hum-loop');
        const pairs = loops.map((f) => {
          const c = rig.cables.find((x) => x.id === f.where.cableIds[0])!;
          return [c.from.deviceId, c.to.deviceId].sort().join(' ');
        });
        expect(new Set(pairs)).toEqual(expected);
        expect(pairs.length).toBe(expected.size);
      }),
      { numRuns: 300 },
    );
    expect(rings).toBeGreaterThan(50);
  });
  it('never proposes to lift a mains earth, in any fix of any rule on any rig', () => {
    let offered = 0;
    fc.assert(
      fc.property(aDesk(), (rig) => {
        for (const finding of check(rig)) {
          expect(finding.says.replace('Never lift a mains earth.', '')).not.toMatch(
            /lift\w* (a|the|its) (mains )?earth/i,
          );
          for (const fix of fixesOf(rig, finding)) {
            offered++;
            expect(fix.label).not.toMatch(/earth/i);
            const done = applyEdit(rig, fix.edit);
            if (!done.ok) throw new Error(`${finding.rule}, ${fix.label}: ${done.refusal.reason}`);
            const still = new Set(earthed(done.rig));
            const onBattery = (id: string) =>
              done.rig.devices.find((d) => d.id === id)?.settings.supply?.value === 'battery';
            for (const id of earthed(rig)) expect(still.has(id) || onBattery(id), fix.label).toBe(true);
            // Nor by another way: a box keeps its type, and with it its plug.
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
    expect(fix!.label).toMatch(/^Put a line isolator/);
    const done = applyEdit(line, fix!.edit);
    expect(done.ok && check(done.rig).filter((f) => f.rule.startsWith('ground'))).toEqual([]);
    const microphone = desk(boxes, ['a.hdmi > t.hdmi', 't.jack > x.strip-1']);
    const other = check(microphone).find((f) => f.rule === 'ground-hum-loop')!;
    expect(fixesOf(microphone, other)).toEqual([]);
  });
  it('is mended by a laptop on its battery', () => {
    const rig = desk({ p: 'computer-laptop', x: 'mixer-usb-10' }, ['p.jack > x.strip-5-6']);
    const hum = check(rig).find((f) => f.rule === 'ground-hum-loop')!;
    const fix = fixesOf(rig, hum).find((f) => /battery/.test(f.label))!;
    const done = applyEdit(rig, fix.edit);
    expect(done.ok && check(done.rig).some((f) => f.rule === 'ground-hum-loop')).toBe(false);
  });
});
