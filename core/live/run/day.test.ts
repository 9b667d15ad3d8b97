import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededNormal } from '#core/audio/samples/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { coldShare } from './budgets.ts';
import {
  answeredBy,
  budgetsOf,
  checksOf,
  controlChart,
  DayEvent,
  faultsBefore,
  lastGood,
  markersIn,
  markersToCsv,
  markersToVtt,
  openSession,
  readinessOf,
  sessionsOf,
  type Ticks,
} from './index.ts';

const parsed = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const relay = parsed(boathouse);
const SESSION = '22222222-2222-4222-8222-222222222222';
const time = (s: number) => new Date(Date.UTC(2026, 10, 20, 18, 0, s)).toISOString();
let made = 0;
const uuid = () => `33333333-3333-4333-8333-${String(++made).padStart(12, '0')}`;
type Body<T> = T extends DayEvent ? Omit<T, 'id' | 'at' | 'sessionId' | 'by'> : never;
const event = (atS: number, body: Body<DayEvent>, sessionId = SESSION): DayEvent =>
  DayEvent.parse({ id: uuid(), at: time(atS), sessionId, by: 'desk', ...body });

const day = (): DayEvent[] => [
  event(0, { kind: 'begin', name: 'Relay, first night' }),
  event(1, { kind: 'tick', list: 'first', itemId: 'a' }),
  event(2, { kind: 'tick', list: 'first', itemId: 'b', leftOut: 'not there' }),
  event(3, { kind: 'untick', list: 'first', itemId: 'a' }),
  event(10, { kind: 'mark', says: 'lap record' }),
  event(20, { kind: 'pause', on: true }),
  event(25, { kind: 'pause', on: true }),
  event(50, { kind: 'pause', on: false }),
  event(60, { kind: 'mark', says: 'Ilse joins' }),
  event(61, { kind: 'gauge', key: 'free:desk-computer', value: 120 }),
  event(62, { kind: 'mute', deviceId: 'mixer', settingId: 'strip-1-mute', muted: true }),
  event(70, { kind: 'trouble', complaint: 'Wren is not heard', faultId: 'lead-out:wren-xlr', was: 'a plug', looks: 3 }),
  event(90, { kind: 'end', good: true, says: 'well', rig: null }),
];

describe('a day', () => {
  it('is read from what happened on it', () => {
    const [session] = sessionsOf(day());
    expect(session).toMatchObject({ name: 'Relay, first night', good: true, endedAt: time(90), beganAt: time(0) });
    expect(session!.ticks.first).toEqual({ b: { at: time(2), by: 'desk', leftOut: 'not there' } });
    expect(session!.breaks).toEqual([{ from: time(20), to: time(50) }]);
    expect(session!.markers.map((m) => m.says)).toEqual(['lap record', 'Ilse joins']);
    expect(session!.mutes).toEqual({ 'mixer.strip-1-mute': true });
    expect(session!.gauges).toEqual({ 'free:desk-computer': 120 });
    expect(faultsBefore([session!])).toEqual(new Map([['lead-out:wren-xlr', 1]]));
    expect(openSession([session!])).toBeNull();
    expect(lastGood([session!])).toBe(session);
  });
  it('has what a phone told until a window took it, whichever clock was ahead', () => {
    const task = event(5, { kind: 'task', taskId: 'mixer.gain' });
    const answer = event(6, { kind: 'answer', questionId: 'lead:a', answerKey: 'as-drawn' });
    const again = event(9, { kind: 'answer', questionId: 'lead:a', answerKey: '[]' });
    const taken = event(2, { kind: 'taken', eventId: answer.id });
    const [session] = sessionsOf([task, again, taken, answer]);
    expect(session!.untaken).toEqual([task, again]);
    expect(session!.tasks).toEqual({ 'mixer.gain': task.at });
    expect(session!.answers).toEqual({ 'lead:a': again });
  });
  it('is the same in whatever order and however often one hears of it', () => {
    const events = day();
    const truth = sessionsOf(events);
    fc.assert(
      fc.property(fc.shuffledSubarray(events, { minLength: events.length }), fc.subarray(events), (order, again) => {
        expect(sessionsOf([...order, ...again])).toEqual(truth);
      }),
    );
  });
  it('has two screens agree on a tick that both made, and on one that one of them took back', () => {
    const both = [
      event(0, { kind: 'begin', name: '' }),
      { ...event(5, { kind: 'tick', list: 'first', itemId: 'a' }), by: 'phone' },
      event(6, { kind: 'tick', list: 'first', itemId: 'a' }),
    ];
    expect(Object.keys(sessionsOf(both)[0]!.ticks.first)).toEqual(['a']);
    const back = [...both, { ...event(7, { kind: 'untick', list: 'first', itemId: 'a' }), by: 'phone' }];
    expect(sessionsOf(back)[0]!.ticks.first).toEqual({});
    expect(openSession(sessionsOf(both))).not.toBeNull();
  });
  it('gives its markers as a table and as chapters of a recording', () => {
    const [session] = sessionsOf(day());
    const csv = markersToCsv(session!, time(5));
    expect(csv.split('\r\n')).toHaveLength(6);
    expect(csv).toContain('00:00:05.000,5000,lap record');
    const vtt = markersToVtt(session!, time(5), time(90));
    expect(vtt.startsWith('WEBVTT\n\n1\n00:00:00.000 --> 00:00:05.000\nRelay, first night\n')).toBe(true);
    expect(vtt).toContain('00:00:05.000 --> 00:00:15.000\nlap record');
    expect(vtt).toContain('00:00:55.000 --> 00:01:25.000\nIlse joins');
    expect(markersIn(session!, time(15))).toEqual([
      { atMs: 5000, says: 'run.breakStarts' },
      { atMs: 35_000, says: 'run.breakEnds' },
      { atMs: 45_000, says: 'Ilse joins' },
    ]);
    const arrows = sessionsOf([event(0, { kind: 'mark', says: 'a --> b\nc' })]);
    expect(markersToVtt(arrows[0]!, time(0), time(9))).toContain('\na → b c\n');
  });
});

describe('budgets', () => {
  const of = (rig: Rig, gauges = {}) => new Map(budgetsOf(rig, gauges).map((b) => [b.id, b]));
  it('reckon a disk from its tracks, and say when nobody has told what is free', () => {
    const untold = of(relay).get('disk:backup-recorder')!;
    // Two channels, 48 kHz, 24 bit: 1.0368 GB an hour, six hours.
    expect(untold.says).toMatchObject({
      params: { n1: '6.2', hours: 6, is: { code: 'run.freeSpaceNotEntered' }, RF64: { params: { n1: '4.1' } } },
    });
    expect(untold).toMatchObject({ share: null, lastsHours: null, state: 'watch' });
    const told = of(relay, { 'free:backup-recorder': 16 }).get('disk:backup-recorder')!;
    expect(told.lastsHours).toBeCloseTo((16 * 0.8) / 1.0368, 6);
    expect(told.state).toBe('good');
    expect(of(relay, { 'free:backup-recorder': 7 }).get('disk:backup-recorder')!.state).toBe('fix');
  });
  it('reckon a battery by its charge, its health and the cold', () => {
    const warm = of(relay).get('battery:phone')!;
    const worn = of(relay, { 'health:phone': 70, 'charge:phone': 90, celsius: 0 }).get('battery:phone')!;
    expect(worn.lastsHours!).toBeCloseTo(warm.lastsHours! * 0.7 * 0.9 * 0.8, 9);
    expect(warm.state).toBe('good');
    expect(worn.state).toBe('fix');
    expect(coldShare(-40)).toBe(0.5);
    expect(coldShare(10)).toBeCloseTo(0.9, 12);
    expect(coldShare(35)).toBe(1);
  });
  it('hold the line against what goes out, and count sockets and outlets', () => {
    const line = of(relay, { 'line-mbits': 10 }).get('upstream')!;
    expect(line.share).toBeCloseTo(9 / 7, 6);
    expect(line.state).toBe('fix');
    expect(of(relay).get('sockets:desk-computer')).toMatchObject({
      says: { code: 'run.takenOf', params: { taken: 4, all: 4, spare: { code: 'run.noneToSpare' } } },
      state: 'watch',
    });
    expect(of(relay).get('outlets:couch-strip')!.share).toBeCloseTo(2 / 6, 9);
  });
});

describe('checks', () => {
  it.each([boathouse, clayHour, gliderCorner, mothNight, quayTalk, skerryNet])(
    'of every demo are told in words, each once',
    (demo) => {
      const rig = parsed(demo);
      const checks = checksOf(rig, budgetsOf(rig));
      expect(checks.length).toBeGreaterThan(3);
      expect(new Set(checks.map((c) => c.id)).size).toBe(checks.length);
      for (const c of checks) expect(`${c.says} ${c.why}`).not.toMatch(/undefined|NaN|Infinity/);
      // Every listener that must hear something is asked.
      for (const cell of rig.plan.filter((c) => c.want === 'must'))
        expect(checks.map((c) => c.id)).toContain(`hears:${cell.listenerId}`);
    },
  );
  it('let one begin when all that must be is well or left out, and not when one is amiss', () => {
    const checks = checksOf(relay, budgetsOf(relay));
    const none = readinessOf(checks, {});
    expect(none.go).toBe(false);
    expect(none.open.length).toBe(checks.filter((c) => c.must).length);
    const well: Ticks = Object.fromEntries(
      checks.filter((c) => c.must).map((c) => [c.id, { at: time(1), by: 'desk' }]),
    );
    expect(readinessOf(checks, well)).toMatchObject({ go: true, open: [], amiss: [] });
    const [first] = checks.filter((c) => c.must);
    const amiss = { ...well, [first!.id]: { at: time(2), by: 'desk', amiss: true as const } };
    expect(readinessOf(checks, amiss)).toMatchObject({ go: false, amiss: [first] });
    const left = { ...well, [first!.id]: { at: time(2), by: 'desk', leftOut: 'no time' } };
    expect(readinessOf(checks, left)).toMatchObject({ go: true, leftOut: [first] });
  });
  it('are answered by what was measured since', () => {
    const measured: Rig = {
      ...relay,
      measurements: [
        {
          kind: 'level',
          id: 'm',
          label: 'Wren in the stream',
          takenAt: time(50),
          sourceId: 'wren',
          listenerId: 'stream',
          db: { mean: -20, sd: 1, count: 3 },
          means: 'wren',
        },
      ],
    };
    const checks = checksOf(measured, []);
    expect(answeredBy(measured, checks, time(10))).toEqual(
      new Map([['take:stream', 'run.measuredBy(Wren in the stream)']]),
    );
    expect(answeredBy(measured, checks, time(60)).size).toBe(0);
  });
});

describe('the control chart', () => {
  const SESSIONS = 50;
  const points = (seed: number, shiftSd: number, count: number) => {
    const normal = seededNormal(seed);
    return Array.from({ length: count }, (_, i) => ({
      at: time(i),
      value: 30 + 1.5 * (normal() + (i >= 20 ? shiftSd : 0)),
    }));
  };
  const firstMoved = (seed: number, shiftSd: number) =>
    controlChart(points(seed, shiftSd, 20 + SESSIONS))!.points.findIndex((p) => p.moved);
  it('gives a false alarm in fewer than one of two hundred sessions', () => {
    let [alarms, sessions] = [0, 0];
    for (let seed = 1; seed <= 800; seed++) {
      const at = firstMoved(seed, 0);
      alarms += at < 0 ? 0 : 1;
      sessions += at < 0 ? SESSIONS : at - 19;
    }
    expect(sessions / alarms).toBeGreaterThan(200);
  });
  it('finds a shift of two standard deviations within ten sessions in 95 of a hundred', () => {
    const runs = Array.from({ length: 400 }, (_, i) => firstMoved(i + 1, i % 2 === 0 ? 2 : -2));
    expect(runs.filter((at) => at >= 20 && at < 30).length / runs.length).toBeGreaterThan(0.95);
  });
  it('says that a short baseline is provisional, and nothing of fewer than five points', () => {
    expect(controlChart(points(1, 0, 4))).toBeNull();
    expect(controlChart(points(1, 0, 12))!.provisional).toBe(true);
    expect(controlChart(points(1, 0, 21))!.provisional).toBe(false);
    let alarms = 0;
    for (let seed = 1; seed <= 100; seed++)
      for (let n = 6; n < 20; n++) alarms += controlChart(points(seed, 0, n))!.points.at(-1)!.moved ? 1 : 0;
    expect((100 * 14) / Math.max(1, alarms)).toBeGreaterThan(200);
  });
  it('says which way, and bears figures that do not vary at all', () => {
    const level = (value: (i: number) => number) =>
      Array.from({ length: 30 }, (_, i) => ({ at: time(i), value: value(i) }));
    expect(controlChart(level(() => 0))!.points.every((p) => p.moved === null)).toBe(true);
    expect(controlChart(level((i) => (i < 22 ? 30 : 33)))!.points.find((p) => p.moved)!.moved).toBe('up');
    expect(controlChart(level((i) => (i < 22 ? 30 : 27)))!.points.find((p) => p.moved)!.moved).toBe('down');
  });
});
