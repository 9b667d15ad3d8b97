import fc from 'fast-check';
import { boathouse } from '#demo/boathouse.ts';
import { type Edit, findTypes, type Rig, type SettingSpec } from './index.ts';

/** The Boathouse relay as a document that has just been read. */
export const demoJson = (): Record<string, unknown> => JSON.parse(JSON.stringify(boathouse));

const aValueFor = (spec: SettingSpec): fc.Arbitrary<number | boolean | string> => {
  switch (spec.kind) {
    case 'mute':
      return fc.boolean();
    case 'switch':
      return fc.constantFrom(...spec.options.map((o) => o.value), 'nowhere');
    default:
      // Mostly what the device can do, now and then what it cannot.
      return fc.oneof(
        {
          weight: 5,
          arbitrary: fc
            .integer({ min: 0, max: Math.floor((spec.max - spec.min) / spec.step) })
            .map((n) => spec.min + n * spec.step),
        },
        // JSON knows no minus nothing.
        { weight: 1, arbitrary: fc.double({ min: spec.min - 10, max: spec.max + 10, noNaN: true }).map((v) => v + 0) },
      );
  }
};

/** An edit that may or may not be accepted by the rig. */
export function anEdit(rig: Rig): fc.Arbitrary<Edit> {
  const types = findTypes(rig);
  const setting = fc
    .constantFrom(...rig.devices.filter((d) => types.get(d.typeId)!.settings.length > 0))
    .chain((device) =>
      fc.constantFrom(...types.get(device.typeId)!.settings).chain((spec) =>
        fc.option(aValueFor(spec), { nil: null, freq: 6 }).map(
          (value): Edit => ({
            kind: 'set-setting',
            deviceId: device.id,
            settingId: spec.id,
            setting: value === null ? null : { value, known: 'confirmed' },
          }),
        ),
      ),
    );
  const aDevice = fc.constantFrom(...rig.devices);
  const cable = fc.constantFrom(...rig.cables);
  const single = fc.oneof(
    { weight: 6, arbitrary: setting },
    fc.string({ minLength: 0, maxLength: 8 }).map((name): Edit => ({ kind: 'rename', name: `n${name}` })),
    cable.map((c): Edit => ({ kind: 'unplug', cableId: c.id })),
    cable.map((c): Edit => ({ kind: 'plug', cable: { ...c, id: `${c.id}-2` } })),
    cable.map((c): Edit => ({ kind: 'plug', cable: { ...c, id: 'backwards', from: c.to, to: c.from } })),
    aDevice.map((d): Edit => ({ kind: 'remove-device', deviceId: d.id })),
    aDevice.map((d): Edit => ({ kind: 'add-device', device: { ...d, id: `${d.id}-spare` } })),
    fc
      .constantFrom(...rig.plan)
      .map((c): Edit => ({ kind: 'set-plan', sourceId: c.sourceId, listenerId: c.listenerId, cell: null })),
    fc.tuple(fc.constantFrom(...rig.sources), fc.constantFrom(...rig.listeners)).map(
      ([s, l]): Edit => ({
        kind: 'set-plan',
        sourceId: s.id,
        listenerId: l.id,
        cell: { sourceId: s.id, listenerId: l.id, want: 'may' },
      }),
    ),
    fc
      .integer({ min: 0, max: 3 })
      .map(
        (n): Edit => ({ kind: 'dismiss', dismissal: { id: `rule:${n}`, reason: 'known', at: '2026-01-02T03:04:05Z' } }),
      ),
    fc.integer({ min: 0, max: 3 }).map((n): Edit => ({ kind: 'reinstate', findingId: `rule:${n}` })),
    fc.integer({ min: 0, max: 3 }).map(
      (n): Edit => ({
        kind: 'add-measurement',
        measurement: {
          kind: 'drift',
          id: `m${n}`,
          label: 'a take',
          takenAt: '2026-01-02T03:04:05Z',
          deviceId: 'mixer',
          againstDeviceId: 'camera',
          ppm: { mean: n, sd: 0.1, count: 3 },
        },
      }),
    ),
  );
  return fc.oneof(
    { weight: 4, arbitrary: single },
    fc.array(single, { maxLength: 4 }).map((edits): Edit => ({ kind: 'batch', edits })),
  );
}
