import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, catalogue, type Device, endName, findTypes, parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { offersFor, replaceDevice, socketsOf } from './index.ts';

const relay = parseRig(JSON.parse(JSON.stringify(boathouse)));
const applied = (rig: Rig, edit: Parameters<typeof applyEdit>[1]): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const withEnds = (ends: Device['ends']): Rig => {
  const device = relay.devices.find((d) => d.id === 'desk-computer')!;
  return applied(relay, { kind: 'set-device', device: { ...device, ends } });
};
const inOf = (rig: Rig) => socketsOf(rig, 'capture-program').find((s) => s.id === 'in-5')!;
const offered = (rig: Rig) =>
  offersFor(rig, inOf(rig))
    .filter((o) => o.socket.deviceId === 'desk-computer')
    .map((o) => o.socket.id);

describe('the sound devices of a computer', () => {
  it('are called as somebody has named them, wherever they are told', () => {
    const rig = withEnds({ 'from-usb-1': { name: 'Console in' } });
    const at = { deviceId: 'desk-computer', portId: 'from-usb-1' };
    expect(endName(rig, findTypes(rig), at)).toBe('Console in');
    expect(endName(relay, findTypes(relay), at)).not.toBe('Console in');
    expect(socketsOf(rig, 'desk-computer').some((s) => s.name === 'Console in')).toBe(true);
  });
  it('are not offered where they are hidden, and first where they are preferred', () => {
    expect(offered(relay)).toContain('from-usb-2');
    expect(offered(withEnds({ 'from-usb-2': { hidden: true } }))).not.toContain('from-usb-2');
    expect(offered(withEnds({ 'from-usb-3': { preferred: true } }))[0]).toBe('from-usb-3');
  });
  it('point to ends that are there, and go with them', () => {
    const device = relay.devices.find((d) => d.id === 'desk-computer')!;
    expect(
      applyEdit(relay, { kind: 'set-device', device: { ...device, ends: { nowhere: { hidden: true } } } }).ok,
    ).toBe(false);
    const rig = withEnds({ 'from-usb-1': { name: 'Console in' }, 'from-usb-4': { hidden: true } });
    for (const type of catalogue) {
      const replaced = replaceDevice(rig, 'desk-computer', type);
      if (replaced) applied(rig, replaced.edit);
    }
  });
});
