import { describe, expect, it } from 'vitest';
import { readTyped } from '#core/routing/wiring/index.ts';
import { leadsOf } from '#core/rules/index.ts';
import { applyEdit, emptyRig, endName, findDevice, findTypes, nameSocket, ownEndName, type Rig } from './index.ts';

const { rig } = readTyped(emptyRig('Desk'), 'capture card > desktop computer; usb headset > desktop computer', {});
const types = findTypes(rig);
const computer = rig.devices.find((d) => types.get(d.typeId)!.hosts)!;
const type = types.get(computer.typeId)!;
const software = type.ports.filter((p) => p.connector === 'software');
const names = (of: Rig) => software.map((p) => endName(of, types, { deviceId: computer.id, portId: p.id }));
const leadTo = (of: Rig, name: string) =>
  leadsOf(of, types).find((l) => [l.from, l.to].some((e) => e.device.name === name))!;
const hostEnd = (of: Rig, name: string) => {
  const { from, to } = leadTo(of, name);
  return from.device.id === computer.id ? from : to;
};

describe('what programs see of a socket', () => {
  it('is called by the socket and by what is plugged into it, both ways through', () => {
    const plugged = names(rig).filter((n) => n.includes(': '));
    expect(plugged.filter((n) => n.endsWith(': Capture card'))).toHaveLength(1);
    // In and out.
    const headset = plugged.filter((n) => n.endsWith(': USB headset'));
    expect(headset).toHaveLength(2);
    expect(new Set(headset).size).toBe(1);
    expect(headset[0]).toMatch(/^USB \d: USB headset$/);
  });
  it('is called as its type has it while nothing is plugged there', () => {
    const bare: Rig = { ...rig, cables: [] };
    expect(names(bare)).toEqual(software.map((p) => p.name));
  });
  it('follows the name that somebody gives the socket, in every list of leads, until it is taken back', () => {
    const end = hostEnd(rig, 'Capture card');
    const own = end.port.name;
    const named = applyEdit(rig, nameSocket(computer, type, end.port.id, '  front left '));
    expect(named.ok).toBe(true);
    const after = (named as { rig: Rig }).rig;
    expect(names(after).filter((n) => n === 'front left: Capture card')).toHaveLength(1);
    expect(hostEnd(after, 'Capture card').port.name).toBe('front left');
    // Others keep theirs.
    expect(names(after).filter((n) => n.endsWith(': USB headset'))).toHaveLength(2);
    const again = applyEdit(after, nameSocket(findDevice(after, computer.id)!, type, end.port.id, ''));
    expect((again as { rig: Rig }).rig).toEqual(rig);
    expect(hostEnd((again as { rig: Rig }).rig, 'Capture card').port.name).toBe(own);
  });
  it('is called as somebody named it there, before anything else', () => {
    const portId = software.find((p) =>
      endName(rig, types, { deviceId: computer.id, portId: p.id }).endsWith(': Capture card'),
    )!.id;
    const device = { ...computer, ends: { [portId]: { name: 'Console' } } };
    const after: Rig = { ...rig, devices: rig.devices.map((d) => (d.id === device.id ? device : d)) };
    expect(endName(after, types, { deviceId: computer.id, portId })).toBe('Console');
    expect(ownEndName(after, types, { deviceId: computer.id, portId })).toMatch(/: Capture card$/);
  });
});
