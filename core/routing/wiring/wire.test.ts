import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit, catalogue, type Edit, findTypes, parseRig, type Rig } from '#core/model/rig/index.ts';
import { readMention } from '#core/routing/grammar/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { check } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import {
  addDevice,
  effectOf,
  joinSockets,
  offersFor,
  readTyped,
  removeDevice,
  replaceDevice,
  type Socket,
  socketsOf,
} from './index.ts';

const applied = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(`${done.refusal.path}: ${done.refusal.reason}`);
  return done.rig;
};
const typeOf = (id: string) => catalogue.find((t) => t.id === id)!;
const socket = (rig: Rig, deviceId: string, id: string): Socket => socketsOf(rig, deviceId).find((s) => s.id === id)!;
const said = (rig: Rig, from: string, id: string) =>
  offersFor(rig, socket(rig, from, id)).map((o) => `${o.socket.deviceId}.${o.socket.id}`);
const empty = () => desk({}, []);

describe('joining two sockets', () => {
  const rig = desk(
    {
      x: 'mixer-usb-10',
      p: 'computer-desktop',
      h: 'headset-four-contact',
      l: 'computer-laptop',
      v: 'person',
      m: 'microphone-dynamic',
    },
    [],
  );
  it('takes every pair of channels, and comes back', () => {
    const cables = joinSockets(rig, socket(rig, 'x', 'usb'), socket(rig, 'p', 'usb-3'));
    expect(cables.map((c) => [c.from.portId, c.to.portId, c.map?.map((m) => m.to).join()])).toEqual([
      ['usb-main', 'usb-3', undefined],
      ['usb-send-2', 'usb-3', 'ch-3,ch-4'],
      ['usb-3-out', 'usb-return', undefined],
    ]);
    expect(cables.every((c) => c.medium === 'lead' && c.known === 'assumed')).toBe(true);
    expect(new Set(cables.map((c) => c.id)).size).toBe(3);
  });
  it('goes both ways in a headset jack, through air from a mouth, and not from a jack into air', () => {
    expect(joinSockets(rig, socket(rig, 'h', 'plug'), socket(rig, 'l', 'jack'))).toHaveLength(2);
    expect(joinSockets(rig, socket(rig, 'v', 'voice'), socket(rig, 'm', 'capsule'))[0]).toMatchObject({
      medium: 'air',
      lengthM: 0.15,
    });
    expect(joinSockets(rig, socket(rig, 'h', 'plug'), socket(rig, 'm', 'capsule'))).toEqual([]);
    expect(joinSockets(rig, socket(rig, 'v', 'voice'), socket(rig, 'v', 'ears'))).toEqual([]);
  });
});

describe('what can be plugged', () => {
  const rig = desk(
    {
      m: 'microphone-dynamic',
      a: 'phone',
      x: 'mixer-usb-10',
      i: 'interface-2',
      s: 'loudspeakers-passive',
      t: 'screen',
    },
    ['m.xlr > x.strip-1'],
  );
  it('is only what fits, the best first: level before plug, free before taken', () => {
    const forMicrophone = said(rig, 'm', 'xlr');
    expect(forMicrophone[0]).toMatch(/^(i\.in-1|x\.strip-2)$/);
    expect(forMicrophone.indexOf('x.strip-1')).toBeGreaterThan(forMicrophone.indexOf('x.strip-4'));
    expect(forMicrophone).not.toContain('t.hdmi');
    expect(said(rig, 'a', 'jack')[0]).toMatch(/^x\.strip-(5-6|7-8|9-10)$/);
  });
  it('is never anything that the checks stop for want of a plug', () => {
    for (const device of rig.devices)
      for (const from of socketsOf(rig, device.id))
        for (const offer of offersFor(rig, from)) {
          const joined = applied(rig, {
            kind: 'batch',
            edits: offer.cables.map((cable): Edit => ({ kind: 'plug', cable })),
          });
          expect(check(joined).filter((f) => f.rule === 'plug-none-fits')).toEqual([]);
        }
  });
  it('says beforehand which findings come and go', () => {
    const hum = desk({ a: 'game-console', t: 'screen-with-jack', x: 'mixer-usb-10' }, ['a.hdmi > t.hdmi']);
    const [cable] = joinSockets(hum, socket(hum, 't', 'jack'), socket(hum, 'x', 'strip-5-6'));
    const effect = effectOf(hum, { kind: 'plug', cable: cable! }, check(hum))!;
    expect(effect.come.map((f) => f.rule)).toContain('ground-hum-loop');
    expect(effectOf(hum, { kind: 'unplug', cableId: 'nothing' }, [])).toBeNull();
  });
});

describe('a device', () => {
  it('comes with its source and its listeners, each with a name and letter of its own', () => {
    let rig = empty();
    for (const id of [
      'game-console',
      'game-console',
      'person',
      'recorder-stereo',
      'capture-program',
      'headphones',
      'mixer-usb-10',
    ])
      rig = applied(rig, addDevice(rig, typeOf(id)).edit);
    expect(rig.devices.map((d) => d.name)).toContain('Game console 2');
    expect(rig.sources.map((s) => s.sound.portId).sort()).toEqual(['hdmi', 'hdmi', 'voice']);
    expect(new Set(rig.sources.map((s) => s.letter)).size).toBe(3);
    expect(rig.sources.find((s) => s.sound.portId === 'voice')).toMatchObject({
      picture: { portId: 'face' },
      level: [74, 77, 80],
    });
    expect(rig.listeners.map((l) => l.sound.portId).sort()).toEqual([
      'ears',
      'file',
      'stream',
      'track-1',
      'track-2',
      'track-3',
      'track-4',
      'track-5',
    ]);
  });
  it('runs on the one computer that there is, if it is a program', () => {
    const rig = applied(empty(), addDevice(empty(), typeOf('computer-laptop')).edit);
    expect(addDevice(rig, typeOf('call')).device.on).toBe(rig.devices[0]!.id);
    expect(addDevice(empty(), typeOf('call')).device.on).toBeUndefined();
  });
  it('of any type is added and taken out again, and the rig is as before', () => {
    const before = parseRig(JSON.parse(JSON.stringify(boathouse)));
    for (const type of catalogue) {
      const { edit, device } = addDevice(before, type);
      const rig = applied(before, edit);
      expect(applied(rig, removeDevice(rig, device.id)), type.id).toEqual(before);
    }
  });
  it('taken out takes along what hangs on it, and one undo brings all of it back', () => {
    const before = parseRig(JSON.parse(JSON.stringify(boathouse)));
    for (const device of before.devices) {
      const done = applyEdit(before, removeDevice(before, device.id));
      if (!done.ok) throw new Error(`${device.id}: ${done.refusal.reason}`);
      expect(done.rig.cables.some((c) => c.from.deviceId === device.id || c.to.deviceId === device.id)).toBe(false);
      const back = applyEdit(done.rig, done.inverse);
      expect(back.ok && back.rig, device.id).toEqual(before);
      evaluate(done.rig);
    }
  });
  it('is replaced by another type, keeping what fits', () => {
    const before = parseRig(JSON.parse(JSON.stringify(boathouse)));
    const { edit, lost } = replaceDevice(before, 'splitter', typeOf('hdmi-splitter-powered'))!;
    const rig = applied(before, edit);
    expect(lost).toEqual([]);
    expect(rig.cables.map((c) => c.id)).toEqual(before.cables.map((c) => c.id));
    expect(check(rig).some((f) => f.rule === 'picture-link-too-slow')).toBe(false);
    const none = replaceDevice(before, 'mixer', typeOf('interface-1'))!;
    expect(none.lost.length).toBeGreaterThan(0);
    expect(applied(before, none.edit).devices.find((d) => d.id === 'mixer')!.typeId).toBe('interface-1');
  });
  it('may be replaced by any other, whatever it is', () => {
    const before = parseRig(JSON.parse(JSON.stringify(boathouse)));
    fc.assert(
      fc.property(fc.constantFrom(...before.devices), fc.constantFrom(...catalogue), (device, type) => {
        const rig = applied(before, replaceDevice(before, device.id, type)!.edit);
        expect(findTypes(rig).get(rig.devices.find((d) => d.id === device.id)!.typeId)).toBe(type);
        evaluate(rig);
      }),
      { numRuns: 200 },
    );
  });
});

describe('a typed line', () => {
  it.each([
    ['console', 'game-console'],
    ['splitter', 'hdmi-splitter'],
    ['capture', 'capture-usb-compressed'],
    ['computer', 'computer-desktop'],
    ['laptop', 'computer-laptop'],
    ['usb mic', 'microphone-usb'],
    ['mic', 'microphone-dynamic'],
    ['condenser mic', 'microphone-condenser'],
    ['lapel', 'lapel-wired'],
    ['tv', 'television'],
    ['mixer', 'mixer-usb-send'],
    ['recorder', 'recorder-stereo'],
    ['camera', 'camera-hdmi'],
    ['webcam', 'webcam'],
    ['headphones', 'headphones'],
    ['call', 'call'],
    ['person', 'person'],
    ['teapot', undefined],
    ['', undefined],
  ])('takes %s for %s', (words, id) => {
    expect(readMention(words, findTypes({ types: [] })).type?.id).toBe(id);
  });
  it('is boxes and leads: the same words are the same box, and what is on the desk is meant', () => {
    const typed = readTyped(empty(), 'console > splitter > capture > computer; mic > mixer > computer; splitter > tv');
    expect(typed.boxes.map((b) => b.type?.id)).toEqual([
      'game-console',
      'hdmi-splitter',
      'capture-usb-compressed',
      'computer-desktop',
      'microphone-dynamic',
      'mixer-usb-send',
      'television',
    ]);
    const rig = applied(empty(), typed.edit!);
    expect(rig.devices).toHaveLength(7);
    expect(typed.leads.every((l) => l.offer)).toBe(true);
    expect(check(rig).filter((f) => f.severity === 'stop' && f.asks === null)).toEqual([]);
    expect(rig.cables.every((c) => c.known === 'assumed')).toBe(true);
    const more = readTyped(rig, 'Mixer > loudspeakers');
    expect(more.boxes.map((b) => b.known)).toEqual([true, false]);
    expect(applied(rig, more.edit!).devices).toHaveLength(8);
  });
  it('puts a program on the computer that it is named with, and one there where there is none', () => {
    const typed = readTyped(empty(), 'console > capture > computer > capture program');
    const on = (rig: Rig, typeId: string) => rig.devices.find((d) => d.typeId === typeId)?.on;
    expect(on(applied(empty(), typed.edit!), 'capture-program')).toBe('computer');
    const alone = readTyped(empty(), 'usb headset > call');
    expect(alone.added).toHaveLength(1);
    expect(on(alone.rig, 'call')).toBe(alone.added[0]);
    expect(alone.uses).toEqual([{ programId: 'call', deviceId: 'usb-headset' }]);
  });
  it('leaves out what is not understood, tells it, and never crashes', () => {
    const typed = readTyped(empty(), 'console > teapot');
    expect(typed.boxes).toMatchObject([{ known: false }, { type: null, left: ['teapot'] }]);
    expect(typed.rig.devices.map((d) => d.name)).toEqual(['Console']);
    expect(typed.waiting).toEqual(['console']);
    expect(readTyped(empty(), 'teapot > kettle').edit).toBeNull();
    expect(readTyped(empty(), ' ; > ').edit).toBeNull();
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('console', 'mixer', '>', ';', 'tv', 'x', 'usb mic', 'call'), { maxLength: 14 }),
        (words) => {
          const { edit } = readTyped(empty(), words.join(' '));
          if (edit) evaluate(applied(empty(), edit));
        },
      ),
      { numRuns: 60 },
    );
  });
});
