import { describe, expect, it } from 'vitest';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import { findTypes, mayMeet, type PortRef, parseRig, placesOf, type Rig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { bestBetween, offersFor, socketsOf } from './index.ts';

const parsed = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const DEMOS = [boathouse, clayHour, gliderCorner, mothNight, quayTalk].map(parsed);

/** Someone here with a microphone and a console, someone there with a headset, a call between them, a device that is in nothing. */
const twoPlaces = (): Rig =>
  desk(
    {
      me: 'person',
      mic: 'microphone-usb',
      pc: 'computer-desktop',
      console: 'game-console',
      capture: 'capture-usb-compressed',
      call: 'call',
      guest: 'person',
      headset: 'headset-usb',
      spare: 'headset-usb',
    },
    [
      'me.voice > mic.capsule 0.15 air',
      'mic.usb > pc.usb-1',
      'console.hdmi > capture.hdmi',
      'capture.usb > pc.usb-2',
      'pc.from-usb-1 > call.near-microphone software',
      'guest.voice > headset.boom 0.03 air',
      'headset.usb-out > call.far-microphone software',
      'call.far-loudspeaker > headset.usb-in software',
      'headset.ears > guest.ears 0.01 air',
    ],
    { device: { call: { on: 'pc' } } },
  );

describe('the two places of a call', () => {
  it('are told apart by what hangs together without it', () => {
    const rig = twoPlaces();
    const place = placesOf(rig);
    const at = (deviceId: string, portId: string) => place({ deviceId, portId });
    for (const [device, port] of [
      ['me', 'voice'],
      ['pc', 'usb-3'],
      ['console', 'hdmi'],
      ['call', 'near-microphone'],
    ] as const)
      expect(at(device, port), device).toBe('here');
    for (const [device, port] of [
      ['guest', 'voice'],
      ['headset', 'boom'],
      ['call', 'far-microphone'],
    ] as const)
      expect(at(device, port), device).toEqual({ farOf: 'call' });
    expect(at('spare', 'boom')).toBeNull();
    // Someone over there records their own voice on a computer of their own.
    const recorded: Rig = {
      ...rig,
      devices: [
        ...rig.devices,
        { id: 'laptop', typeId: 'computer-laptop', name: 'laptop', settings: {} },
        { id: 'own', typeId: 'capture-program', name: 'own', settings: {}, on: 'laptop' },
      ],
      cables: [
        ...rig.cables,
        {
          id: 'over-there',
          from: { deviceId: 'headset', portId: 'usb-out' },
          to: { deviceId: 'own', portId: 'in-1' },
          medium: 'software',
          lengthM: 0,
          known: 'confirmed',
        },
      ],
    };
    expect(placesOf(recorded)({ deviceId: 'laptop', portId: 'usb-1' })).toEqual({ farOf: 'call' });
  });
  it('are joined by the call alone: nothing here is offered for there, nor the other way round; a box in neither for both', () => {
    const rig = twoPlaces();
    const types = findTypes(rig);
    const place = placesOf(rig);
    const end = (s: { deviceId: string; ports: readonly { id: string }[] }): PortRef => ({
      deviceId: s.deviceId,
      portId: s.ports[0]!.id,
    });
    let offered = 0;
    for (const device of rig.devices)
      for (const socket of socketsOf(rig, device.id, types))
        for (const { socket: to } of offersFor(rig, socket)) {
          offered++;
          expect(
            mayMeet(place(end(socket)), place(end(to))),
            `${device.id} ${socket.id} > ${to.deviceId} ${to.id}`,
          ).toBe(true);
        }
    expect(offered).toBeGreaterThan(20);
    const toCall = (from: string) => bestBetween(rig, from, 'call')?.cables.map((c) => c.to.portId) ?? [];
    expect(toCall('pc').some((id) => id.startsWith('far'))).toBe(false);
    expect(toCall('capture').some((id) => id.startsWith('far'))).toBe(false);
  });
  it('keep to themselves in every fault that is thought of', () => {
    for (const rig of [...DEMOS, twoPlaces()]) {
      const place = placesOf(rig);
      for (const { id, edit } of faultsOf(rig, evaluate(rig))) {
        const edits = edit?.kind === 'batch' ? edit.edits : edit ? [edit] : [];
        for (const e of edits)
          if (e.kind === 'plug') expect(mayMeet(place(e.cable.from), place(e.cable.to)), id).toBe(true);
      }
    }
  });
  it('are kept apart as they are drawn on every demo', () => {
    for (const rig of DEMOS) {
      const place = placesOf(rig);
      for (const cable of rig.cables) expect(mayMeet(place(cable.from), place(cable.to)), cable.id).toBe(true);
    }
  });
});
