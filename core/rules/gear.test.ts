import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { catalogue, type DeviceType } from '#core/model/rig/index.ts';
import { gearFaults, readGear } from './index.ts';

const typeOf = (id: string): DeviceType => structuredClone(catalogue.find((t) => t.id === id)!);
const changed = (id: string, change: (type: DeviceType) => void): DeviceType => {
  const type = typeOf(id);
  change(type);
  return type;
};
const says = (type: DeviceType) => gearFaults(type).map((f) => textOf(f.says));

describe('a device type', () => {
  it('of the catalogue is without fault, and comes back from JSON as it was', () => {
    for (const type of catalogue) {
      expect(gearFaults(type), type.id).toEqual([]);
      expect(readGear(JSON.stringify(type)), type.id).toEqual({ ok: true, type });
    }
  });
  it.each<[string, (t: DeviceType) => void, RegExp]>([
    ['a connector that nobody knows', (t) => void (t.ports[1]!.connector = 'teapot'), /teapot/],
    ['a port twice', (t) => void t.ports.push(t.ports[0]!), /duplicateSocket.*capsule/],
    ['a way into nothing', (t) => void (t.inside[0]!.to = 'nowhere.mono'), /rig\.noSuch\(channel, nowhere\.mono/],
    ['sound in air at a jack', (t) => void (t.inside[0]!.stages = []), /endsAs\(.*soundInAir, check\.volts/],
    [
      'a stage that cannot stand there',
      (t) => void t.inside[0]!.stages.unshift({ do: 'convert', to: 'digital', fullScaleDbu: [0, 0, 0] }),
      /stageMisplaced\(.*convert, check\.soundInAir/,
    ],
    ['prices the wrong way round', (t) => void (t.priceEur = [9, 3]), /lowerPrice/],
  ])('is refused with %s', (_, change, pattern) => {
    expect(says(changed('microphone-dynamic', change)).join(' ')).toMatch(pattern);
    expect(readGear(JSON.stringify(changed('microphone-dynamic', change))).ok).toBe(false);
  });
  it('cannot turn a picture into sound', () => {
    const type = changed('hdmi-splitter', (t) => void (t.inside[0]!.to = 'out-1.left'));
    expect(says(type).join(' ')).toMatch(/cannotBecome\(.*picture, sound/);
  });
  it('is never read from what is none, whatever it is', () => {
    expect(readGear('RIFF')).toMatchObject({
      ok: false,
      faults: [{ says: { code: expect.stringMatching(/exportedFromGear|notValid/i) } }],
    });
    fc.assert(
      fc.property(fc.json(), (text) => {
        expect(readGear(text).ok).toBe(false);
      }),
    );
  });
});
