import { describe, expect, it } from 'vitest';
import { findDevice, parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { evaluate, throughBox } from './index.ts';

const relay = parseRig(JSON.parse(JSON.stringify(boathouse)));

/** A device alone, with one source at an input of it and a listener at an output. */
function alone(deviceId: string, inputId: string, outputId: string): Rig {
  const device = { ...findDevice(relay, deviceId)! };
  return {
    ...relay,
    devices: [device],
    cables: [],
    sources: [{ id: 's', name: 's', letter: 'S', hue: 1, sound: { deviceId, portId: inputId }, level: [0, 0, 0] }],
    listeners: [{ id: 'l', name: 'l', sound: { deviceId, portId: outputId } }],
    plan: [],
    measurements: [],
    tasks: [],
    dismissed: [],
  };
}

describe('what passes through a box', () => {
  it('is what an evaluation of the box alone says, for every input and output of the demo’s boxes', () => {
    let passed = 0;
    let shut = 0;
    for (const device of relay.devices) {
      const { inputs, outputs, at } = throughBox(relay, device.id);
      for (const input of inputs)
        for (const output of outputs) {
          const [way] = evaluate(alone(device.id, input.id, output.id)).pairs[0]!.ways;
          const passage = at(input.id, output.id);
          const told = `${device.id}: ${input.id} to ${output.id}`;
          expect(passage?.passes ?? false, told).toBe(way !== undefined);
          if (passage?.passes && way) {
            passed++;
            // Left and right of one place may meet in one channel: together they are louder than each alone.
            expect(way.levelDb.nominal - passage.gainDb, told).toBeGreaterThan(-0.01);
            expect(way.levelDb.nominal - passage.gainDb, told).toBeLessThan(6.1);
          } else if (passage) shut++;
        }
    }
    expect(passed).toBeGreaterThan(40);
    expect(shut).toBeGreaterThan(20);
  });
  it('is one way out for each member of an aggregate, in either order, on either clock, corrected or not', () => {
    for (const master of ['a', 'b'])
      for (const order of ['a-b', 'b-a'])
        for (const drift of ['on', 'off']) {
          const settings = { master, order, 'drift-correction': drift };
          const device = {
            id: 'joined',
            typeId: 'aggregate-device',
            name: 'joined',
            settings: Object.fromEntries(
              Object.entries(settings).map(([k, value]) => [k, { value, known: 'confirmed' as const }]),
            ),
          };
          const { at } = throughBox({ ...relay, devices: [device] }, 'joined');
          const first = order === 'a-b' ? 'a' : 'b';
          const passes = (member: string, out: string) => at(member, out)?.passes ?? false;
          for (const member of ['a', 'b']) {
            expect(passes(member, 'a-out')).toBe(member === first);
            expect(passes(member, 'b-out')).toBe(member !== first);
          }
        }
  });
  it('names the controls that shut it, and opening them lets it pass', () => {
    const { at } = throughBox(relay, 'mixer');
    const passage = at('strip-1', 'send-1-out')!;
    expect(passage).toMatchObject({ passes: false, doors: [{ settingId: 'strip-1-send-1' }] });
    expect(at('strip-1', 'main-out')).toMatchObject({ passes: true, sameScale: true });
    expect(at('strip-1', 'usb-return')).toBeNull();
    const mixer = findDevice(relay, 'mixer')!;
    const settings = { ...mixer.settings, 'strip-1-send-1': { value: -6, known: 'confirmed' as const } };
    const opened = { ...relay, devices: relay.devices.map((d) => (d === mixer ? { ...d, settings } : d)) };
    expect(throughBox(opened, 'mixer').at('strip-1', 'send-1-out')).toMatchObject({ passes: true });
  });
});
