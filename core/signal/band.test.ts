import { describe, expect, it } from 'vitest';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { evaluate } from './index.ts';

const relay: Rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const pair = { sourceId: 'wren', listenerId: 'stream' } as const;
const wayIn = (rig: Rig) =>
  evaluate(rig).pairs.find((p) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId)!.ways[0]!;
const drawn = wayIn(relay);

type Band = Extract<Rig['measurements'][number], { kind: 'band' }>;
const measured = (more: Partial<Band>): Rig => ({
  ...relay,
  measurements: [
    {
      kind: 'band',
      id: 'b-1',
      label: 'tap',
      takenAt: '2026-11-01T10:00:00.000Z',
      ...pair,
      deviceIds: [...drawn.deviceIds],
      lowHz: [180, 200, 260],
      highHz: [2900, 3300, 3700],
      ...more,
    },
  ],
});

describe('the band of a way', () => {
  it('is what its boxes pass by their types, until it is measured', () => {
    expect(drawn.band).toMatchObject({
      lowHz: drawn.arrival.lowHz,
      highHz: drawn.arrival.highHz,
      kind: 'typical',
    });
    expect(wayIn(measured({})).band).toMatchObject({
      lowHz: 200,
      highHz: 3300,
      kind: 'measured',
      source: {
        params: {
          items: [
            { params: { low: 180, high: 260 } },
            { params: { low: 2900, high: 3700 } },
            { params: { label: 'tap' } },
          ],
        },
      },
    });
  });
  it('is that of the newest take', () => {
    const rig = measured({});
    const newer: Band = { ...(rig.measurements[0] as Band), id: 'b-2', takenAt: '2026-11-20T10:00:00.000Z' };
    const both = { ...rig, measurements: [...rig.measurements, { ...newer, highHz: [5000, 6000, 7000] as const }] };
    expect(wayIn(parseRig(JSON.parse(JSON.stringify(both)))).band.highHz).toBe(6000);
  });
  it('stays as it is drawn at an end that was not told, and where a tune does not go', () => {
    expect(wayIn(measured({ lowHz: null, highHz: null })).band).toMatchObject({
      lowHz: drawn.band.lowHz,
      highHz: drawn.band.highHz,
    });
    const open = wayIn(measured({ lowHz: 'beyond', highHz: 'beyond' })).band;
    expect(open.lowHz).toBeLessThanOrEqual(80);
    expect(open.highHz).toBeGreaterThanOrEqual(14_000);
  });
  it('is another one by other boxes, at another listener, and of another source', () => {
    const elsewhere = [
      measured({ deviceIds: drawn.deviceIds.slice(1) }),
      measured({ listenerId: 'couch-ears' }),
      measured({ sourceId: 'couch' }),
    ];
    for (const rig of elsewhere) expect(wayIn(rig).band).toEqual(drawn.band);
  });
  it('leaves the way what it is: nothing of its level, delay or trace follows', () => {
    const { band: _a, ...rest } = wayIn(measured({}));
    const { band: _b, ...before } = drawn;
    expect(rest.levelDb).toEqual(before.levelDb);
    expect(rest.delay).toEqual(before.delay);
    expect(rest.arrival.highHz).toBe(before.arrival.highHz);
  });
});
