import { describe, expect, it } from 'vitest';
import { boathouse } from '#demo/boathouse.ts';
import {
  catalogue,
  type DeviceType,
  emptyRig,
  parseDeviceType,
  parseRig,
  parseRigText,
  RIG_VERSION,
  RigError,
  type RigErrorCode,
} from './index.ts';
import { demoJson } from './rig.testkit.ts';

type Json = Record<string, never> & { [key: string]: never };
const refusal = (json: unknown): RigError => {
  try {
    parseRig(json);
  } catch (error) {
    if (error instanceof RigError) return error;
    throw error;
  }
  throw new Error('It was accepted.');
};
const changed = (change: (rig: typeof boathouse) => void): unknown => {
  const json = demoJson() as unknown as typeof boathouse;
  change(json);
  return json;
};

const mixerAt = boathouse.devices.findIndex((d) => d.id === 'mixer');

describe('a rig document', () => {
  it('is read as it was written, and equal rigs are equal JSON', () => {
    const rig = parseRig(demoJson());
    expect(parseRigText(JSON.stringify(rig))).toEqual(rig);
    const shuffled = parseRig(changed((r) => void r.devices.reverse()));
    expect(JSON.stringify(shuffled)).toBe(JSON.stringify(rig));
  });
  it('may begin with a byte order mark', () => {
    expect(parseRigText(`\uFEFF${JSON.stringify(boathouse)}`).name).toBe('Boathouse relay');
  });
  it.each<[string, (rig: typeof boathouse) => void, RigErrorCode, string]>([
    ['an id twice', (r) => void r.devices.push(r.devices[0]!), 'duplicate-id', 'devices/1/id'],
    [
      'a cable to a device that is not there',
      (r) => void (r.cables[0]!.to = { deviceId: 'nowhere', portId: 'in' }),
      'unknown-reference',
      'cables/0/to',
    ],
    [
      'a cable to a socket that is not there',
      (r) => void (r.cables[0]!.to.portId = 'nowhere'),
      'unknown-reference',
      'cables/0/to',
    ],
    [
      'a cable the wrong way round',
      (r) => void Object.assign(r.cables[7]!, { from: r.cables[7]!.to, to: r.cables[7]!.from }),
      'wrong-direction',
      'cables/7/from',
    ],
    [
      'a type that nobody knows',
      (r) => void (r.devices[2]!.typeId = 'teapot'),
      'unknown-reference',
      'devices/2/typeId',
    ],
    [
      'a setting that the device has not',
      (r) => void (r.devices[0]!.settings.tea = { value: 1, known: 'confirmed' }),
      'unknown-reference',
      'devices/0/settings/tea',
    ],
    [
      'a delay beyond the device',
      (r) =>
        void (r.devices.find((d) => d.id === 'mixer')!.settings['strip-1-delay'] = { value: 501, known: 'confirmed' }),
      'setting-value',
      'devices/MIXER/settings/strip-1-delay',
    ],
    [
      'a delay between two steps',
      (r) =>
        void (r.devices.find((d) => d.id === 'mixer')!.settings['strip-1-delay'] = { value: 1.5, known: 'confirmed' }),
      'setting-value',
      'devices/MIXER/settings/strip-1-delay',
    ],
    [
      'a source that leaves by an input',
      (r) => void (r.sources[0]!.sound = { deviceId: 'splitter', portId: 'in' }),
      'wrong-direction',
      'sources/0/sound',
    ],
    [
      'a plan for a listener that is not there',
      (r) => void (r.plan[0]!.listenerId = 'nobody'),
      'unknown-reference',
      'plan/1/listenerId',
    ],
    ['a pair planned twice', (r) => void r.plan.push({ ...r.plan[0]! }), 'duplicate-id', 'plan/2'],
    ['a range out of order', (r) => void (r.sources[0]!.level = [3, 2, 1]), 'shape', 'sources/0/level'],
    ['a length that is none', (r) => void (r.cables[0]!.lengthM = Number.NaN), 'shape', 'cables/0/lengthM'],
    ['a field that nobody knows', (r) => void Object.assign(r, { colour: 'red' }), 'shape', ''],
    [
      'a task for nothing',
      (r) =>
        void r.tasks.push({
          id: 'a.b',
          deviceId: 'nowhere',
          settingId: 'b',
          before: { value: 1, known: 'confirmed' },
          openedAt: '2026-01-01T00:00:00Z',
        }),
      'unknown-reference',
      'tasks/0/deviceId',
    ],
  ])('is refused with %s, by place and reason', (_, change, code, path) => {
    const error = refusal(changed(change));
    expect(error).toMatchObject({ code, path: path.replace('MIXER', String(mixerAt)) });
    expect(error.said).toMatchObject({ code: expect.stringMatching(/^rig\./) });
  });
  it('is refused when it is hostile', () => {
    const polluted = JSON.parse('{"schemaVersion":1,"devices":[{"__proto__":{"evil":1}}]}');
    expect(refusal(polluted)).toMatchObject({ code: 'forbidden-key', path: 'devices/0' });
    expect(({} as Json).evil).toBeUndefined();
    expect(refusal(JSON.parse('{"constructor":{}}')).code).toBe('forbidden-key');
    let deep: unknown = 1;
    for (let i = 0; i < 10_000; i++) deep = [deep];
    expect(refusal({ schemaVersion: 1, types: deep }).code).toBe('too-deep');
  });
  it('is refused when it is no rig, or one from the future', () => {
    expect(refusal({ name: 'a shopping list' }).code).toBe('not-a-rig');
    expect(refusal([1, 2]).code).toBe('not-a-rig');
    expect(refusal(null).code).toBe('not-a-rig');
    expect(refusal({ ...demoJson(), schemaVersion: 99 })).toMatchObject({
      code: 'newer-version',
      path: 'schemaVersion',
    });
    expect(() => parseRigText('RIFF....')).toThrow('rig.notValidJsonChoose');
  });
});

/** What a type of version 1 had: its shelf, and nothing that says what it is. */
const ofVersion1 = ({ nature: _n, hosts: _h, shows: _s, together: _t, ...type }: DeviceType) => ({
  ...type,
  ports: type.ports.map(({ does: _d, soundDevice: _o, usb: _u, ...port }) => port),
  settings: type.settings.map(({ purpose: _p, group: _g, ...setting }) => setting),
});

describe('a document of version 1', () => {
  it.each(catalogue.map((t) => [t.id, t] as const))('learns what its copy of %s is', (_, type) => {
    const rig = parseRig({ ...emptyRig('Old'), schemaVersion: 1, types: [{ ...ofVersion1(type), id: 'own' }] });
    expect(rig.schemaVersion).toBe(RIG_VERSION);
    // Its figures are its owner's: what the built-in ones do together is not laid on them.
    const { together: _t, ...rest } = type;
    expect(rig.types[0]).toEqual({ ...rest, id: 'own' });
  });
  it('learns of a person that nobody copied that it is one', () => {
    const [person] = catalogue.filter((t) => t.nature === 'person').map(ofVersion1);
    const own = { ...person!, id: 'own', ports: person!.ports.slice(0, 1) };
    expect(parseRig({ ...emptyRig('Old'), schemaVersion: 1, types: [own] }).types[0]).toMatchObject({
      nature: 'person',
    });
  });
});

describe('a device type of one’s own', () => {
  const type = () => structuredClone(parseRig({ ...demoJson() }).types[0] ?? splitter());
  const splitter = () => ({
    id: 'my-splitter',
    name: 'My splitter',
    family: 'hdmi',
    summary: 'From a copy.',
    ports: [
      {
        id: 'in',
        name: 'in',
        direction: 'in' as const,
        connector: 'hdmi',
        level: 'digital' as const,
        channels: [{ id: 'left', carries: 'sound' as const }],
      },
      {
        id: 'out',
        name: 'out',
        direction: 'out' as const,
        connector: 'hdmi',
        level: 'digital' as const,
        channels: [{ id: 'left', carries: 'sound' as const }],
      },
    ],
    settings: [],
    figures: {},
    inside: [{ from: 'in.left', to: 'out.left', stages: [] as unknown[] }],
  });
  it('is used like a built-in one', () => {
    const rig = parseRig(
      changed(
        (r) =>
          void Object.assign(r, {
            types: [splitter()],
            devices: [...r.devices, { id: 'mine', typeId: 'my-splitter', name: 'Mine', settings: {} }],
          }),
      ),
    );
    expect(rig.devices.some((d) => d.typeId === 'my-splitter')).toBe(true);
    expect(parseDeviceType(type())).toMatchObject({ id: 'my-splitter' });
  });
  it('is refused when it points outside itself', () => {
    const broken = splitter();
    broken.inside[0]!.stages = [{ do: 'latency', figure: 'nowhere' }];
    expect(refusal(changed((r) => void Object.assign(r, { types: [broken] })))).toMatchObject({
      code: 'unknown-reference',
      path: 'types/0/inside/0/stages/0',
    });
    const elsewhere = splitter();
    elsewhere.inside[0]!.to = 'out.right';
    expect(refusal(changed((r) => void Object.assign(r, { types: [elsewhere] }))).path).toBe('types/0/inside/0');
    expect(() => parseDeviceType({ ...splitter(), id: 'My splitter' })).toThrow(RigError);
  });
});
