import { describe, expect, it } from 'vitest';
import type { Scan } from '#core/desk-tests/scan/index.ts';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import { applyEdit, type Edit, emptyRig, findTypes, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayDeskMixer } from '#demo/quay-desk.ts';
import { likenessOf } from './bind.ts';
import { scanOf } from './drawn.testkit.ts';
import {
  type Bindings,
  bindingsOf,
  computerOfScan,
  computersIn,
  explainScan,
  holdAgainst,
  scanFigures,
  undrawnDevices,
} from './index.ts';

const parsed = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const DESKS = [boathouse, clayHour, gliderCorner, mothNight, quayDeskMixer]
  .map(parsed)
  .flatMap((rig) => computersIn(rig).map((computerId) => ({ rig, computerId })));
const NOTHING: Bindings = { outputs: {}, inputs: {} };
const edited = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(done.refusal.path);
  return done.rig;
};
const glider = parsed(gliderCorner);
const kindsIn = (rig: Rig, scan: Scan, bindings: Bindings): string[] =>
  holdAgainst(rig, scan, bindings).paths.flatMap((p) =>
    p.differences.map((d) => `${p.outputId}>${p.inputId} ${d.kind}`),
  );

describe('devices by their names', () => {
  it('are known again on every desk, by the names that the drawing has for them', () => {
    for (const { rig, computerId } of DESKS) {
      const { scan, bindings } = scanOf(rig, computerId);
      expect(bindingsOf(rig, computerId, scan, NOTHING)).toEqual(bindings);
    }
  });
  it('are known by other spellings, and by what the system calls what is built in', () => {
    const [{ rig, computerId }] = DESKS.filter((d) => d.rig.name === 'Clay hour') as [(typeof DESKS)[number]];
    const { scan, bindings } = scanOf(rig, computerId);
    const spelled = {
      ...scan,
      outputs: scan.outputs.map((o, i) => ({
        ...o,
        name: i === 0 ? 'MIXER Digital Stereo (12ab:34cd)' : 'Built-in Audio Analog Stereo',
      })),
      inputs: scan.inputs.map((o, i) => ({
        ...o,
        name: ['mixer analog stereo', 'Webcam, over-the-wheel', 'Internal Microphone'][i]!,
      })),
    };
    expect(bindingsOf(rig, computerId, spelled, NOTHING)).toEqual(bindings);
  });
  it('are left open where two would do, and known by the other direction of the same device', () => {
    const { scan, bindings } = scanOf(glider, 'computer');
    const twice = { ...scan, outputs: [scan.outputs[0]!, { ...scan.outputs[0]!, id: 'again' }] };
    expect(bindingsOf(glider, 'computer', twice, NOTHING).outputs).toEqual({});
    const grouped = {
      ...scan,
      outputs: scan.outputs.map((o) => ({ ...o, groupId: o.name })),
      inputs: scan.inputs.map((i) => ({
        ...i,
        groupId: i.name,
        name: i.name === 'Chat cable' ? 'Monitor of it' : i.name,
      })),
    };
    expect(bindingsOf(glider, 'computer', grouped, NOTHING)).toEqual(bindings);
  });
  it('are what someone chose, while that is in the drawing', () => {
    const { scan, bindings } = scanOf(glider, 'computer');
    const [first, second] = scan.outputs.map((o) => o.id) as [string, string];
    const swapped = { ...NOTHING, outputs: { [first]: bindings.outputs[second]!, [second]: null } };
    expect(bindingsOf(glider, 'computer', scan, swapped).outputs).toEqual({ ...swapped.outputs });
    const gone = { ...NOTHING, outputs: { [first]: { deviceId: 'nowhere', portId: 'in' } } };
    expect(bindingsOf(glider, 'computer', scan, gone)).toEqual(bindings);
  });
  it('are not known by one word that any device of their kind has, nor by less where they could be two', () => {
    const { scan } = scanOf(glider, 'computer');
    const other = { ...scan, inputs: [{ ...scan.inputs[2]!, name: 'Webcam microphone' }] };
    expect(scan.inputs[2]!.name).toBe('Desk microphone');
    expect(bindingsOf(glider, 'computer', other, NOTHING).inputs).toEqual({});
    const two = {
      ...glider,
      devices: glider.devices.map((d) =>
        d.id === 'display'
          ? { ...d, name: 'Desk microphone left' }
          : d.id === 'microphone'
            ? { ...d, name: 'Desk microphone right' }
            : d,
      ),
    };
    expect(bindingsOf(two, 'computer', { ...scan, inputs: [scan.inputs[2]!] }, NOTHING).inputs).toEqual({});
  });
  it('tell which computer of several this is', () => {
    const relay = parsed(boathouse);
    for (const computerId of computersIn(relay))
      expect(computerOfScan(relay, scanOf(relay, computerId).scan)).toBe(computerId);
    expect(computerOfScan(emptyRig('x'), scanOf(relay, computersIn(relay)[0]!).scan)).toBeNull();
  });
  it('are alike by their words, whatever the order, the case and what any device is called', () => {
    expect(likenessOf('Chat cable', 'cable_chat')).toBe(1);
    expect(likenessOf('USB Audio Device', 'Mixer')).toBe(0);
    expect(likenessOf('USB audio', 'usb')).toBeCloseTo(2 / 3);
    expect(likenessOf('', '')).toBe(0);
    expect(likenessOf('Cable A', 'Cable B')).toBe(0);
    expect(likenessOf('Studio mixer', 'Mixer')).toBeCloseTo(2 / 3);
  });
});

describe('a scan of a desk that is as drawn', () => {
  it('agrees with the drawing, whatever the desk', () => {
    for (const { rig, computerId } of DESKS) {
      const { scan, bindings } = scanOf(rig, computerId);
      expect(kindsIn(rig, scan, bindings)).toEqual([]);
      expect(explainScan(rig, scan, bindings)).toEqual([]);
    }
  });
  it('agrees all the same where browsers’ own delays are off, and what is too quiet is not missed', () => {
    const { scan, bindings } = scanOf(glider, 'computer');
    const off = { ...scan, links: scan.links.map((l) => ({ ...l, delayMs: l.delayMs + 15 })) };
    expect(kindsIn(glider, off, bindings)).toEqual([]);
    const deaf = { ...scan, links: [], inputs: scan.inputs.map((i) => ({ ...i, seesFromDb: 0 })) };
    expect(kindsIn(glider, deaf, bindings)).toEqual([]);
  });
});

describe('a scan of a desk that is otherwise', () => {
  it('has each fault that it shows explained: the fault itself is among what would look the same, and first', () => {
    let shown = 0;
    for (const { rig, computerId } of DESKS) {
      const { scan, bindings } = scanOf(rig, computerId);
      const seen = holdAgainst(rig, scan, bindings).rig;
      for (const fault of faultsOf(seen, evaluate(seen))) {
        const done = fault.edit && applyEdit(rig, fault.edit);
        if (!done?.ok) continue;
        const now = scanOf(done.rig, computerId).scan;
        // A device that is no longer plugged in is no longer listed either.
        if (now.outputs.length !== scan.outputs.length || now.inputs.length !== scan.inputs.length) continue;
        if (kindsIn(rig, now, bindings).length === 0) continue;
        shown++;
        const [first] = explainScan(rig, now, bindings);
        expect(first?.faults.map((f) => f.id)).toContain(fault.id);
        expect(first!.leaves).toEqual([]);
      }
    }
    expect(shown).toBeGreaterThan(8);
  });
  it('has a link that is not drawn found, and drawing it makes them agree', () => {
    const { scan, bindings } = scanOf(glider, 'computer');
    const at = (what: 'outputs' | 'inputs', name: string) =>
      bindings[what][scan[what].find((d) => d.name === name)!.id]!;
    const loop: Edit = {
      kind: 'plug',
      cable: {
        id: 'truth',
        medium: 'air',
        from: { deviceId: 'display', portId: 'ears' },
        to: { deviceId: 'microphone', portId: 'capsule' },
        lengthM: 0.5,
        known: 'confirmed',
      },
    };
    const truth = edited(glider, loop);
    const now = scanOf(truth, 'computer').scan;
    const found = kindsIn(glider, now, bindings);
    expect(found.length).toBeGreaterThan(0);
    expect(found.every((f) => f.endsWith('extra'))).toBe(true);
    const [first] = explainScan(glider, now, bindings);
    expect(first!.faults[0]!.kind).toBe('not-drawn');
    expect(kindsIn(edited(glider, first!.faults[0]!.edit!), now, bindings)).toEqual([]);
    expect(at('outputs', 'Chat cable').deviceId).toBe('chat-cable');
  });
  it('has an input that is monitored through an output found', () => {
    for (const { rig, computerId } of DESKS) {
      const { bindings } = scanOf(rig, computerId);
      for (const from of Object.values(bindings.inputs))
        for (const to of Object.values(bindings.outputs)) {
          const truth = edited(rig, {
            kind: 'plug',
            cable: { id: 'truth', medium: 'software', from: from!, to: to!, lengthM: 0, known: 'confirmed' },
          });
          const now = scanOf(truth, computerId).scan;
          if (kindsIn(rig, now, bindings).length === 0) continue;
          const [first] = explainScan(rig, now, bindings);
          expect(first!.faults.map((f) => f.kind)).toContain('monitored');
        }
    }
  });
  it('says of levels, polarity, delays and second arrivals how far they are from the drawing', () => {
    const { scan, bindings } = scanOf(glider, 'computer');
    const [link] = scan.links as [Scan['links'][number]];
    const with_ = (more: Partial<Scan['links'][number]>) =>
      kindsIn(glider, { ...scan, links: [{ ...link, ...more }] }, bindings);
    const path = `${link.outputId}>${link.inputId}`;
    expect(with_({ levelDb: link.levelDb - 12 })).toEqual([`${path} level`]);
    expect(with_({ delayMs: link.delayMs + 120 })).toEqual([`${path} late`]);
    expect(with_({ again: [{ afterMs: 120, underDb: 8 }] })).toEqual([`${path} twice`]);
    expect(kindsIn(glider, { ...scan, links: [] }, bindings)).toEqual([`${path} missing`]);
    // A narrow band is typical of gear, and told on the card alone.
    expect(with_({ highHz: 3000 })).toEqual([]);
  });
});

describe('what a scan adds to the rig', () => {
  it('is a delay, where the drawing knows it less well than a browser, of a path that agrees', () => {
    const { scan, bindings } = scanOf(glider, 'computer');
    let n = 0;
    const [figure, ...others] = scanFigures(glider, scan, holdAgainst(glider, scan, bindings), () => `m-${n++}`);
    expect(others).toEqual([]);
    const measured = edited(glider, figure!.edit);
    expect(measured.measurements).toMatchObject([
      { kind: 'delay', terms: [{ figure: 'chat-cable.through', sign: 1 }], ms: { mean: 10, count: 1 } },
    ]);
    const [m] = measured.measurements;
    if (m?.kind !== 'delay') throw new Error('no delay');
    expect(m.ms.sd).toBeGreaterThan(5);
    expect(glider.sources.some((s) => s.id === m.sourceId)).toBe(true);
    expect(glider.listeners.some((l) => l.id === m.listenerId)).toBe(true);
    // Taken in once, it is not offered again.
    expect(scanFigures(measured, scan, holdAgainst(measured, scan, bindings), () => 'again')).toEqual([]);
  });
  it('is no device that may be drawn already, nor the other direction of one that is', () => {
    const { scan, bindings } = scanOf(glider, 'computer');
    const [cable] = scan.outputs;
    const twice = { ...scan, outputs: [cable!, { ...cable!, id: 'again' }] };
    const open = bindingsOf(glider, 'computer', twice, NOTHING);
    expect(undrawnDevices(glider, 'computer', twice, open)).toBeNull();
    const monitor = { ...scan.inputs[0]!, id: 'monitor', name: 'Monitor of it', groupId: 'g' };
    const grouped = { ...scan, outputs: [{ ...cable!, groupId: 'g' }], inputs: [...scan.inputs, monitor] };
    expect(undrawnDevices(glider, 'computer', grouped, bindings)).toBeNull();
    // Someone who says that it is none of them has it added.
    const none = { ...bindings, inputs: { ...bindings.inputs, monitor: null } };
    expect(undrawnDevices(glider, 'computer', grouped, none)!.names).toEqual(['Monitor of it']);
  });
  it('is a rig from nothing: devices that the browser names, then what was found between them', () => {
    const scan: Scan = {
      at: '2026-12-01T18:00:00.000Z',
      outputs: [{ id: 'a', name: 'Studio mixer', groupId: 'g', sampleRateHz: 48_000, playedDbfs: -42 }],
      inputs: [
        {
          id: 'b',
          name: 'Studio mixer',
          groupId: 'g',
          sampleRateHz: 48_000,
          channels: 2,
          seesFromDb: -40,
          silent: false,
          processing: [],
        },
      ],
      links: [],
    };
    const empty = emptyRig('From nothing');
    const undrawn = undrawnDevices(empty, null, scan, NOTHING)!;
    expect(undrawn.names).toEqual(['Studio mixer']);
    const rig = edited(empty, undrawn.edit);
    const computerId = computerOfScan(rig, scan)!;
    const bindings = bindingsOf(rig, computerId, scan, NOTHING);
    expect(Object.keys(bindings.outputs)).toEqual(['a']);
    expect(Object.keys(bindings.inputs)).toEqual(['b']);
    expect(undrawnDevices(rig, computerId, scan, bindings)).toBeNull();
    // Unplugged, it is plugged in again, and not added twice.
    const cables = rig.cables.filter((c) => c.medium === 'lead');
    const apart = edited(rig, { kind: 'batch', edits: cables.map((c): Edit => ({ kind: 'unplug', cableId: c.id })) });
    const again = edited(apart, undrawnDevices(apart, computerId, scan, NOTHING)!.edit);
    expect(again.devices.length).toBe(rig.devices.length);
    expect(findTypes(again).size).toBe(findTypes(rig).size);
    expect(Object.keys(bindingsOf(again, computerId, scan, NOTHING).outputs)).toEqual(['a']);
  });
});
