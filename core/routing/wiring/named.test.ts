import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, emptyRig, findTypes, type Rig, soundDeviceName, soundDevicesOf } from '#core/model/rig/index.ts';
import { addDevices, addNamed, boxesNamed, type NamedEnd, readTyped } from './index.ts';

const end = (kind: NamedEnd['kind'], label: string, groupId = label, deviceId = `${kind} ${label}`): NamedEnd => ({
  kind,
  label,
  groupId,
  deviceId,
});
const applied = (rig: Rig, edit: Parameters<typeof applyEdit>[1]): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};

describe('devices that a browser names', () => {
  it('are boxes by their groups, without the computer’s own and without roles; numbers fall off', () => {
    const boxes = boxesNamed([
      end('audioinput', 'Default', 'g1', 'default'),
      end('audioinput', 'Desk headset (1a2b:3c4d)', 'g1'),
      end('audiooutput', 'Desk headset', 'g1'),
      end('audioinput', 'Built-in microphone'),
      end('audioinput', '', 'g9'),
      end('videoinput', 'Game capture HDMI', 'g2'),
      end('audioinput', 'Game capture HDMI digital sound', 'g2'),
      end('videoinput', 'Lid picture'),
      end('audiooutput', 'Screen (HDMI)'),
      end('audioinput', 'Two-channel sound', 'g3'),
      end('audiooutput', 'Two-channel sound', 'g3'),
      end('audioinput', 'Broadcast mic'),
    ]);
    expect(boxes.map((b) => [b.name, b.typeId])).toEqual([
      ['Desk headset', 'headset-usb'],
      ['Game capture HDMI', 'capture-usb-compressed'],
      ['Lid picture', 'webcam'],
      ['Screen (HDMI)', 'screen-loudspeakers'],
      ['Two-channel sound', 'interface-2'],
      ['Broadcast mic', 'microphone-usb'],
    ]);
  });
  it('come to the desk under their names, plugged to the computer, each in a socket of its own', () => {
    const boxes = [
      { name: 'Broadcast mic', typeId: 'microphone-usb' },
      { name: 'Desk headset', typeId: 'headset-usb' },
      { name: 'Screen', typeId: 'screen-loudspeakers' },
    ];
    const rig = applied(emptyRig('x'), addNamed(emptyRig('x'), boxes));
    expect(rig.devices.map((d) => d.name).sort()).toEqual(['Broadcast mic', 'Computer', 'Desk headset', 'Screen']);
    const into = rig.cables.filter((c) => c.to.deviceId === 'computer').map((c) => c.to.portId);
    expect(new Set(into).size).toBe(2);
    expect(rig.cables.some((c) => c.from.deviceId === 'computer' && c.to.deviceId === 'screen')).toBe(true);
    // A second look at the same desk adds to the same computer.
    const more = applied(rig, addNamed(rig, [{ name: 'Lid picture', typeId: 'webcam' }]));
    expect(more.devices.filter((d) => d.typeId === 'computer-laptop')).toHaveLength(1);
  });
  it('are listed by the computer for what it named them for, whatever they seem to be', () => {
    const named: readonly [label: string, kinds: readonly NamedEnd['kind'][]][] = [
      ['Kitchen radio', ['audiooutput']],
      ['Two-channel sound', ['audioinput', 'audiooutput']],
      ['Broadcast mic', ['audioinput', 'audiooutput']],
      ['Studio mixer', ['audioinput', 'audiooutput']],
      ['Bluetooth earpiece', ['audioinput', 'audiooutput']],
      ['Game capture', ['audioinput', 'videoinput']],
      ['Screen (HDMI)', ['audiooutput']],
      ['Lid picture', ['audioinput', 'videoinput']],
    ];
    for (const [label, kinds] of named) {
      const boxes = boxesNamed(kinds.map((kind) => end(kind, label)));
      const rig = applied(emptyRig('x'), addNamed(emptyRig('x'), boxes));
      const types = findTypes(rig);
      for (const [kind, use] of [
        ['audiooutput', 'play'],
        ['audioinput', 'record'],
      ] as const) {
        const names = soundDevicesOf(rig, 'computer', use).map((ref) => soundDeviceName(rig, types, ref));
        if (kinds.includes(kind)) expect(names, label).toContain(label);
      }
    }
  });
});

describe('counts', () => {
  it('put so many of each kind on the desk, under names of their own, undone in one step', () => {
    const rig = emptyRig('x');
    const edit = addDevices(
      rig,
      new Map([
        ['person', 3],
        ['mixer-usb-10', 1],
        ['no-such-type', 2],
      ]),
    );
    const done = applyEdit(rig, edit);
    expect(done.ok && done.rig.devices.map((d) => d.name).sort()).toEqual(['Mixer', 'Person', 'Person 2', 'Person 3']);
    expect(done.ok && applyEdit(done.rig, done.inverse)).toMatchObject({ ok: true, rig });
  });
  it('are typed before the words: one to one where as many follow, each to each otherwise', () => {
    const rig = emptyRig('x');
    const typed = readTyped(
      rig,
      '3 person > 3 microphone dynamic > mixer digital ten; 2x usb microphone > computer desktop',
    );
    expect(typed.boxes.map((b) => b.count)).toEqual([3, 3, 1, 2, 1]);
    expect(typed.rig.devices).toHaveLength(10);
    const after = applied(rig, typed.edit!);
    const ends = (from: string) => after.cables.filter((c) => c.from.deviceId.startsWith(from)).map((c) => c.to);
    expect(ends('person').map((e) => e.deviceId)).toEqual([1, 2, 3].map((n) => `microphone-dynamic-${n}`));
    const strips = after.cables.filter((c) => c.to.deviceId === 'mixer-digital-ten').map((c) => c.to.portId);
    expect(strips.sort()).toEqual(['strip-1', 'strip-2', 'strip-3']);
  });
  it('mean the same boxes where the same is typed again', () => {
    const typed = readTyped(emptyRig('x'), '2 person > 2 microphone dynamic; 2 microphone dynamic > mixer digital ten');
    expect(typed.boxes.map((b) => `${b.count} ${b.word}`)).toEqual([
      '2 person',
      '2 microphone dynamic',
      '1 mixer digital ten',
    ]);
    expect(typed.rig.cables.filter((c) => c.medium === 'lead')).toHaveLength(2);
  });
});
