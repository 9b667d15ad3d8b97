import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit, catalogue, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import {
  connectionsOf,
  lostBy,
  offersFor,
  pulledBy,
  removeConnection,
  removeDevice,
  replaceDevice,
  sayEnd,
  socketsOf,
} from './index.ts';

const DEMOS: Rig[] = [boathouse, clayHour, gliderCorner, mothNight, skerryNet].map((rig) =>
  parseRig(JSON.parse(JSON.stringify(rig))),
);
const applied = (rig: Rig, edit: Edit) => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(`${done.refusal.path}: ${done.refusal.reason}`);
  return done;
};
const ids = (list: readonly { id: string }[]) => list.map((x) => x.id).sort();

describe('connections', () => {
  it('are every cable of a rig, each once; those of a device are what hangs on it', () => {
    for (const rig of DEMOS) {
      const all = connectionsOf(rig);
      expect(ids(all.flatMap((c) => c.cables))).toEqual(ids(rig.cables));
      for (const { id } of rig.devices)
        expect(ids(connectionsOf(rig, id).flatMap((c) => c.cables))).toEqual(
          ids(rig.cables.filter((c) => c.from.deviceId === id || c.to.deviceId === id)),
        );
    }
    const usb = desk({ x: 'mixer-usb-10', p: 'computer-desktop' }, [
      'x.usb-main > p.usb-1',
      'p.usb-1-out > x.usb-return',
    ]);
    expect(connectionsOf(usb)).toMatchObject([{ both: true, medium: 'lead', cables: [{}, {}] }]);
    expect(sayEnd(usb, usb.cables[0]!.from)).toBe('x, USB 1 and 2, main');
  });
  it('go out alone: exactly their cables, and what was to be done at them; one undo brings all of it back', () => {
    for (const rig of DEMOS)
      for (const connection of connectionsOf(rig)) {
        const { rig: after, inverse } = applied(rig, removeConnection(rig, connection));
        const gone = new Set(connection.cables.map((c) => c.id));
        expect(after.cables).toEqual(rig.cables.filter((c) => !gone.has(c.id)));
        expect(after.tasks.some((t) => 'cableId' in t && gone.has(t.cableId))).toBe(false);
        expect({ ...after, cables: [], tasks: [] }).toEqual({ ...rig, cables: [], tasks: [] });
        expect(applied(after, inverse).rig).toEqual(rig);
      }
  });
  it('are missed by whoever must hear what comes by them, and by nobody else', () => {
    const [relay] = DEMOS as [Rig];
    const before = evaluate(relay);
    for (const connection of connectionsOf(relay)) {
      const edit = removeConnection(relay, connection);
      const after = evaluate(applied(relay, edit).rig).pairs;
      const missed = before.pairs.filter(
        (p, i) => p.want === 'must' && p.ways.length > 0 && after[i]!.ways.length === 0,
      );
      expect(lostBy(relay, before, edit)).toEqual(missed.map(({ sourceId, listenerId }) => ({ sourceId, listenerId })));
    }
  });
});

describe('plugging anew', () => {
  it('moves a lead and never doubles it: each socket holds what was plugged last', () => {
    const rig = fc.constantFrom(...DEMOS);
    fc.assert(
      fc.property(rig, fc.nat(), fc.nat(), (now, from, to) => {
        const sockets = now.devices.flatMap((d) => socketsOf(now, d.id));
        const start = sockets[from % sockets.length]!;
        const offers = offersFor(now, start).filter((o) => o.cables[0]!.medium === 'lead');
        if (offers.length === 0) return;
        const { cables, socket } = offers[to % offers.length]!;
        const pulled = pulledBy(now, cables);
        const edit: Edit = {
          kind: 'batch',
          edits: [
            ...pulled.map(({ cableId }): Edit => ({ kind: 'unplug', cableId })),
            ...cables.map((cable): Edit => ({ kind: 'plug', cable })),
          ],
        };
        const after = applied(now, edit).rig;
        expect(after.cables).toHaveLength(now.cables.length - pulled.length + cables.length);
        for (const { deviceId, id } of [start, socket]) {
          const there = socketsOf(after, deviceId).find((s) => s.id === id)!;
          const leads = after.cables.filter((c) => there.cableIds.includes(c.id) && c.medium === 'lead');
          expect(ids(leads)).toEqual(ids(cables));
        }
        // Once more, and nothing is there twice.
        const again = pulledBy(after, cables);
        expect(again.map((c) => c.cableId).sort()).toEqual(ids(cables));
      }),
      { numRuns: 120 },
    );
  });
});

describe('what is taken out or replaced', () => {
  it('leaves nothing behind: no end, want, task, moment or setting speaks of it any more', () => {
    for (const rig of DEMOS)
      for (const device of rig.devices) {
        const { rig: after, inverse } = applied(rig, removeDevice(rig, device.id));
        expect(after.devices).toHaveLength(rig.devices.length - 1);
        expect(after.cables).toHaveLength(
          rig.cables.filter((c) => c.from.deviceId !== device.id && c.to.deviceId !== device.id).length,
        );
        const { measurements: _taken, ...said } = after;
        expect(JSON.stringify(said)).not.toMatch(new RegExp(`"(?:deviceId|on|fedBy)":"${device.id}"`));
        expect(parseRig(JSON.parse(JSON.stringify(after)))).toEqual(after);
        expect(applied(after, inverse).rig).toEqual(rig);
      }
  });
  it('keeps every setting that the new type has, and tells the others', () => {
    for (const rig of DEMOS)
      for (const device of rig.devices) {
        const own = catalogue.find((t) => t.id === device.typeId);
        if (!own) continue;
        const same = replaceDevice(rig, device.id, own)!;
        expect({ lost: same.lost, settings: same.lostSettings }).toEqual({ lost: [], settings: [] });
        expect(applied(rig, same.edit).rig.devices.find((d) => d.id === device.id)!.settings).toEqual(device.settings);
      }
    const set = { 'i.gain-1': 40, 'i.gain-2': 20, 'i.phantom': 'on', 'i.direct': -12 };
    const rig = desk({ i: 'interface-2', m: 'microphone-condenser' }, ['m.xlr > i.in-1'], { set });
    const larger = replaceDevice(rig, 'i', catalogue.find((t) => t.id === 'interface-4')!)!;
    expect(larger.lostSettings).toEqual([]);
    const one = replaceDevice(rig, 'i', catalogue.find((t) => t.id === 'interface-1')!)!;
    expect(one.lostSettings.map((s) => s.id)).toEqual(['gain-2']);
    const kept = applied(rig, one.edit).rig.devices.find((d) => d.id === 'i')!.settings;
    expect(Object.keys(kept).sort()).toEqual(['direct', 'gain-1', 'phantom']);
  });
});
