import { describe, expect, it } from 'vitest';
import type { Treatment } from '#core/audio/process/index.ts';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, catalogue, markDone, parseRig, refuseValue } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { treatingPlaces, treatmentAt } from './index.ts';

const rig = parseRig({
  ...JSON.parse(JSON.stringify(boathouse)),
  devices: [
    ...JSON.parse(JSON.stringify(boathouse.devices)),
    { id: 'voice-filter', typeId: 'program-filter', name: 'Voice filter', settings: {} },
  ],
});
const treatment: Treatment = {
  lowCut: { hz: 85 },
  gate: null,
  presence: { hz: 2520, gainDb: 2.5, q: 0.9 },
  deEss: { hz: 5000, thresholdDbfs: -36, rangeDb: 6 },
  compressor: { thresholdDbfs: -22.5, ratio: 3.2, kneeDb: 6, attackMs: 8, releaseMs: 150 },
  makeupDb: 4,
  limiter: { ceilingDbtp: -1, releaseMs: 80 },
};

describe('a treatment on the boxes that have it', () => {
  it('finds every place: a program as one, a mixer strip by strip', () => {
    const names = treatingPlaces(rig).map((p) => p.name);
    expect(names).toContain('Voice filter');
    expect(names).toContain('Mixer, Channel 1');
    expect(names).toContain('Mixer, Channel 4');
    expect(names.some((n) => n.startsWith('Mixer, Strips'))).toBe(false);
  });
  it('is set in the device’s own steps, turned off where it is left out, and says what was wanted and what is missing', () => {
    const place = treatingPlaces(rig).find((p) => p.name === 'Voice filter')!;
    const { settings, lacks } = treatmentAt(rig, place, treatment);
    const of = (id: string) => settings.find((s) => s.settingId === id);
    expect(of('low-cut')).toMatchObject({ value: 85, wanted: null });
    expect(of('gate-threshold')).toMatchObject({ value: -90 });
    expect(of('gate-range')).toBeUndefined();
    expect(of('compressor-ratio')).toMatchObject({ value: 3, wanted: 3.2 });
    expect(of('presence-middle')).toMatchObject({ value: 2500, wanted: 2520 });
    expect(of('make-up')).toMatchObject({ now: 0, value: 4 });
    expect(lacks).toMatchObject([{ code: 'reconcile.stepDeEss' }]);
    const strip = treatmentAt(rig, treatingPlaces(rig).find((p) => p.name === 'Mixer, Channel 1')!, treatment);
    expect(strip.settings.map((s) => [s.settingId, s.value])).toEqual([['strip-1-low-cut', 80]]);
    expect(strip.lacks.map(textOf)).toContain('reconcile.stepCompressor');
    for (const s of settings) expect(refuseValue(s.spec, s.value)).toBeUndefined();
    expect(applyEdit(rig, markDone(rig, settings))).toMatchObject({ ok: true });
  });
  it('comes to a value that the device takes, for every type of the catalogue', () => {
    for (const type of catalogue)
      for (const spec of type.settings)
        if (spec.kind === 'value' && spec.off !== undefined)
          expect(refuseValue(spec, spec.off), type.id).toBeUndefined();
  });
});
