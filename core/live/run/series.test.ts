import { describe, expect, it } from 'vitest';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { DayEvent, type DayFigure, figuresSince, seriesOf, sessionsOf } from './index.ts';

const relay: Rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const at = (day: number) => new Date(Date.UTC(2026, 9, day, 18)).toISOString();
const spread = (mean: number, sd = 0.2) => ({ mean, sd, count: 3 });
const pair = { sourceId: 'wren', listenerId: 'stream' } as const;

const measured = (day: number, ms: number): Rig['measurements'] => [
  {
    kind: 'delay',
    id: `delay-${day}`,
    label: 'clap',
    takenAt: at(day),
    ...pair,
    terms: [
      { figure: 'camera-capture.latency', sign: 1 },
      { figure: 'sound-system.latency', sign: -1 },
    ],
    ms: spread(ms),
    offsetMs: ms,
  },
  {
    kind: 'offset',
    id: `offset-${day}`,
    label: 'slate',
    takenAt: at(day),
    ...pair,
    settings: [{ setting: 'capture-program.in-1-delay', value: 40 }],
    ms: spread(12),
    leftOut: false,
  },
  {
    kind: 'drift',
    id: `drift-${day}`,
    label: 'clocks',
    takenAt: at(day),
    deviceId: 'desk-computer',
    againstDeviceId: 'backup-recorder',
    ppm: spread(14),
  },
  { kind: 'level', id: `level-${day}`, label: 'level', takenAt: at(day), ...pair, db: spread(-21), means: 'wren' },
  {
    kind: 'noise',
    id: `noise-${day}`,
    label: 'noise',
    takenAt: at(day),
    listenerId: 'stream',
    db: spread(-64),
    expectedDb: null,
  },
];
const rigWith = (...lists: Rig['measurements'][]): Rig => ({ ...relay, measurements: lists.flat() });

describe('what was measured since a time', () => {
  it('is a figure of that day, in its own unit, named by what it is of', () => {
    const figures = figuresSince(rigWith(measured(3, 80)), at(2));
    expect(figures.map((f) => f.unit)).toEqual(['ms', 'ms', 'ppm', 'dB', 'dB']);
    const [delay, offset, drift, level, noise] = figures;
    expect(delay!.label).toBe('run.delayOf(run.at(Wren, voice, Stream))');
    expect(offset!.label).toContain('capture-program.in-1-delay=40');
    expect(drift!.label).toMatch(/^run\.driftOf/);
    expect(level).toMatchObject({
      label: 'run.levelOf(run.at(Wren, voice, Stream))',
      value: -21,
      sd: 0.2,
      count: 3,
    });
    expect(noise!.label).toBe('run.noiseOf(Stream)');
  });
  it('is two figures where it is a band, one for each end that was told', () => {
    const band: Rig['measurements'][number] = {
      kind: 'band',
      id: 'band-3',
      label: 'tap',
      takenAt: at(3),
      ...pair,
      deviceIds: ['sound-system'],
      lowHz: [180, 200, 260],
      highHz: [2900, 3300, 3700],
    };
    expect(figuresSince(rigWith([band]), at(2)).map((f) => [f.label, f.value, f.sd, f.unit])).toEqual([
      ['run.bandEnd(run.at(Wren, voice, Stream), low)', 200, 20, 'Hz'],
      ['run.bandEnd(run.at(Wren, voice, Stream), high)', 3300, 200, 'Hz'],
    ]);
    const open: Rig['measurements'][number] = { ...band, lowHz: 'beyond', highHz: null };
    expect(figuresSince(rigWith([open]), at(2))).toEqual([]);
  });
  it('leaves out what is older', () => {
    const rig = rigWith(measured(3, 80), measured(9, 81));
    expect(figuresSince(rig, at(9)).map((f) => f.measurementId)).toContain('delay-9');
    expect(figuresSince(rig, at(9))).toHaveLength(5);
    expect(figuresSince(rig, at(10))).toEqual([]);
  });
  it('has one key for the same thing, whatever order its parts came in, and another once settings differ', () => {
    const turned = measured(3, 80).flatMap((m) =>
      m.kind === 'delay' ? [m, { ...m, id: 'turned', terms: [...m.terms].reverse() }] : [],
    );
    const [a, b] = figuresSince(rigWith(turned), at(1));
    expect(a!.key).toBe(b!.key);
    const offsets = [40, 60].map((value, i) => ({
      ...measured(3, 80)[1]!,
      id: `o-${i}`,
      settings: [{ setting: 'capture-program.in-1-delay', value }],
    })) as Rig['measurements'];
    const keys = figuresSince(rigWith(offsets), at(1)).map((f) => f.key);
    expect(keys[0]).not.toBe(keys[1]);
  });
});

let n = 0;
const uuid = () => `66666666-6666-4666-8666-${String(++n).padStart(12, '0')}`;
const session = (day: number, figures: readonly DayFigure[]): DayEvent[] => {
  const sessionId = uuid();
  const base = () => ({ id: uuid(), sessionId, by: 'desk', at: at(day) });
  return [
    DayEvent.parse({ ...base(), kind: 'begin', name: `night ${day}` }),
    ...figures.map((f) => DayEvent.parse({ ...f, ...base() })),
  ];
};
const nights = (values: readonly number[]) =>
  sessionsOf(values.flatMap((ms, day) => session(day + 1, figuresSince(rigWith(measured(day + 1, ms)), at(day + 1)))));

describe('figures day by day', () => {
  const steady = [80.1, 79.8, 80.3, 80, 79.9, 80.2, 79.7, 80.1, 80, 79.9];
  it('are one line each, oldest first, each point with its own spread', () => {
    const series = seriesOf(nights([80, 81, 79]));
    expect(series).toHaveLength(5);
    const delay = series.find((s) => s.label.startsWith('run.delayOf'))!;
    expect(delay.points.map((p) => p.value)).toEqual([80, 81, 79]);
    expect(delay.points.every((p) => p.sd === 0.2 && p.count === 3)).toBe(true);
    expect(delay.chart).toBeNull();
    expect(delay.moved).toBeNull();
  });
  it('have those first that have moved by more than chance', () => {
    const [first, ...others] = seriesOf(nights([...steady, 92]));
    expect(first!.label).toContain('delay');
    expect(first!.moved).toBe('up');
    expect(others.every((s) => s.moved === null)).toBe(true);
    expect(seriesOf(nights(steady)).every((s) => s.moved === null)).toBe(true);
  });
  it('count a measurement once that was told on two days', () => {
    const figures = figuresSince(rigWith(measured(1, 80)), at(1));
    const series = seriesOf(sessionsOf([...session(1, figures), ...session(2, figures)]));
    expect(series.every((s) => s.points.length === 1)).toBe(true);
  });
});
