import { describe, expect, it } from 'vitest';
import { catalogue, findTypes, type Rig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { joinSockets, mediumOf, offersFor, type Socket, socketsOf, usualLength } from './index.ts';

const socket = (rig: Rig, deviceId: string, id: string): Socket => socketsOf(rig, deviceId).find((s) => s.id === id)!;
const all = desk(Object.fromEntries(catalogue.map((t) => [t.id, t.id])), []);

describe('sockets', () => {
  it('hold every end of a box once, and nothing that is not plugged', () => {
    for (const type of catalogue) {
      const sockets = socketsOf(all, type.id);
      const ends = sockets.flatMap((s) => s.ports.map((p) => p.id));
      const pluggable = type.ports.filter((p) => p.connector !== 'inside' && p.connector !== 'file').map((p) => p.id);
      expect([...ends].sort(), type.id).toEqual([...pluggable].sort());
      for (const s of sockets) expect(new Set(s.ports.map((p) => p.connector)).size, `${type.id}, ${s.id}`).toBe(1);
    }
  });
  it('know what is plugged there', () => {
    const rig = desk({ a: 'game-console', s: 'hdmi-splitter' }, ['a.hdmi > s.in']);
    expect(socket(rig, 'a', 'hdmi').cableIds).toEqual(['c0']);
    expect(socket(rig, 's', 'out-1').cableIds).toEqual([]);
    expect(socketsOf(rig, 'nobody')).toEqual([]);
  });
  it('are joined by a lead, through air, by radio, by sight or within a computer, and by nothing else', () => {
    const medium = (a: [string, string], b: [string, string]) => mediumOf(socket(all, ...a), socket(all, ...b));
    expect(medium(['game-console', 'hdmi'], ['screen', 'hdmi'])).toBe('lead');
    expect(medium(['person', 'voice'], ['microphone-dynamic', 'capsule'])).toBe('air');
    expect(medium(['person', 'face'], ['webcam', 'lens'])).toBe('light');
    expect(medium(['radio-pack', 'radio'], ['radio-base', 'radio'])).toBe('radio');
    expect(medium(['phone-usb-c', 'bluetooth'], ['headset-bluetooth', 'bluetooth'])).toBe('radio');
    expect(medium(['music-player', 'sound'], ['virtual-cable', 'in'])).toBe('software');
    expect(medium(['phone-usb-c', 'bluetooth'], ['radio-base', 'radio'])).toBeNull();
    expect(medium(['person', 'voice'], ['phone', 'jack'])).toBeNull();
  });
  it('have a usual distance: at the mouth, at the ear, across the room', () => {
    const usual = (deviceId: string, id: string) => {
      const s = socket(all, deviceId, id);
      return usualLength(mediumOf(s, s)!, s);
    };
    expect(usual('person', 'voice')).toBe(0.15);
    expect(usual('headphones', 'ears')).toBe(0.01);
    expect(usual('loudspeakers-active', 'front')).toBe(2);
    expect(usual('microphone-dynamic', 'xlr')).toBe(5);
    expect(usual('game-console', 'hdmi')).toBe(2);
    expect(usual('music-player', 'sound')).toBe(0);
  });
});

describe('what joins two sockets', () => {
  it('runs from outputs to inputs, between channels that both have', () => {
    const types = findTypes(all);
    let joined = 0;
    for (const from of ['computer-desktop', 'mixer-usb-10', 'head-worn-display', 'monitor-recorder', 'call']) {
      for (const s of socketsOf(all, from)) {
        for (const offer of offersFor(all, s)) {
          for (const cable of offer.cables) {
            joined++;
            const port = (ref: typeof cable.from) => types.get(ref.deviceId)!.ports.find((p) => p.id === ref.portId)!;
            const [out, into] = [port(cable.from), port(cable.to)];
            expect([out.direction, into.direction]).toEqual(['out', 'in']);
            expect(out.channels.some((c) => into.channels.some((d) => d.carries === c.carries))).toBe(true);
            for (const pair of cable.map ?? []) {
              expect(out.channels.some((c) => c.id === pair.from)).toBe(true);
              expect(into.channels.some((c) => c.id === pair.to)).toBe(true);
            }
          }
        }
      }
    }
    expect(joined).toBeGreaterThan(500);
  });
  it('gives a second pair the channels after the first, and no more than there are', () => {
    const rig = desk({ x: 'mixer-usb-10', m: 'recorder-stereo' }, []);
    // A cable that no shop has is not offered.
    expect(offersFor(rig, socket(rig, 'x', 'usb'))).toEqual([]);
    const eight = desk({ i: 'interface-8', c: 'computer-laptop' }, []);
    const cables = joinSockets(eight, socket(eight, 'i', 'usb'), socket(eight, 'c', 'usb-2'));
    expect(cables.map((c) => [c.from.portId, c.to.portId])).toEqual([
      ['usb', 'usb-2'],
      ['usb-2-out', 'usb-in'],
    ]);
  });
  it('has ids that are free, however often it is done', () => {
    const rig = desk({ a: 'phone', b: 'recorder-stereo' }, []);
    const [first] = joinSockets(rig, socket(rig, 'a', 'jack'), socket(rig, 'b', 'line'));
    const again = joinSockets({ ...rig, cables: [first!] }, socket(rig, 'a', 'jack'), socket(rig, 'b', 'line'));
    expect([first!.id, again[0]!.id]).toEqual(['a-b', 'a-b-2']);
  });
});
