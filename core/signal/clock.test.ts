import { describe, expect, it } from 'vitest';
import { parseRig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clockDrifts } from './index.ts';

describe('measured clocks', () => {
  const rig = parseRig({
    ...JSON.parse(JSON.stringify(boathouse)),
    measurements: [
      {
        kind: 'drift',
        id: 'm1',
        label: 'relay talk',
        takenAt: '2026-11-25T10:00:00Z',
        deviceId: 'mixer',
        againstDeviceId: 'backup-recorder',
        ppm: { mean: -31, sd: 0.05, count: 9 },
      },
    ],
  });
  it('are told from both sides, the sign with them', () => {
    const [own] = clockDrifts(rig, 'mixer');
    expect(own).toMatchObject({ label: { params: { device: 'Backup recorder' } }, kind: 'measured', unit: 'ppm' });
    expect(own!.value.nominal).toBe(-31);
    const [other] = clockDrifts(rig, 'backup-recorder');
    expect(other!.label).toMatchObject({ params: { device: expect.stringMatching(/[Mm]ixer/) } });
    expect(other!.value).toEqual({ low: 30.9, nominal: 31, high: 31.1 });
    expect(clockDrifts(rig, 'camera')).toEqual([]);
  });
});
