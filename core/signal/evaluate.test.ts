import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import {
  addTasks,
  applyEdit,
  type Edit,
  type Measurement,
  markDone,
  parseRig,
  type Rig,
} from '#core/model/rig/index.ts';
import { airMs, width } from '#core/model/units/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import {
  delayMeasurements,
  delaySettingsFor,
  difference,
  type Evaluation,
  evaluate,
  settle,
  TOLERANCES,
  uncertain,
} from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const before = evaluate(rig);
const pair = (e: Evaluation, sourceId: string, listenerId: string) =>
  e.pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!;
const apply = (r: Rig, edit: Edit): Rig => {
  const done = applyEdit(r, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const set = (r: Rig, deviceId: string, settingId: string, value: number | boolean | string) =>
  apply(r, markDone(r, [{ deviceId, settingId, value }]));

describe('the Boathouse relay', () => {
  it('is read the same however often, and changes nothing that it reads', () => {
    const text = JSON.stringify(rig);
    expect(evaluate(rig).pairs).toEqual(before.pairs);
    expect(JSON.stringify(rig)).toBe(text);
  });
  it('hears the couch game twice in the stream: through the capture device, and through extractor and mixer', () => {
    const { ways, verdict } = pair(before, 'couch-game', 'stream');
    expect(ways[0]!.deviceIds).toEqual(['console', 'splitter', 'console-capture', 'desk-computer', 'capture-program']);
    expect(ways[1]!.deviceIds).toContain('extractor');
    expect(verdict).toMatchObject({ state: 'fix', word: 'twice' });
    expect(verdict.apart!.value.nominal).toBeCloseTo(-31, 0);
    expect(ways[0]!.sides).toEqual(['left', 'right']);
  });
  it('knows how far two ways lie apart by what is on one of them only, and by what was measured of the two together', () => {
    const { ways, verdict } = pair(before, 'couch-game', 'stream');
    const [first, second] = ways;
    const both = new Set(first!.soundTerms.map((t) => t.key));
    expect(second!.soundTerms.some((t) => both.has(t.key))).toBe(true);
    expect(width(second!.afterFirst!.value)).toBeLessThan(width(second!.delay.value) + width(first!.delay.value));
    const open = uncertain(difference(second!.soundTerms, first!.soundTerms));
    const exact = second!.afterFirst!.value.nominal - open.reduce((ms, t) => ms + t.count * t.term.ms.nominal, 0);
    const measured = evaluate({
      ...rig,
      measurements: [
        {
          kind: 'delay',
          id: 'tap',
          label: 'tap',
          takenAt: '2026-11-25T10:00:00Z',
          sourceId: 'couch-game',
          listenerId: 'stream',
          terms: open.map((t) => ({ figure: t.term.key, sign: t.count as 1 | -1 })),
          ms: { mean: 0.4 - exact, sd: 0.05, count: 1 },
          offsetMs: 0.4,
        },
      ],
    });
    const now = pair(measured, 'couch-game', 'stream');
    expect(now.ways[1]!.afterFirst).toMatchObject({ kind: 'measured' });
    expect(now.ways[1]!.afterFirst!.value.nominal).toBeCloseTo(0.4, 6);
    // So near together they are one sound: what is drawn as typical would have had it an echo.
    expect(verdict.word).toBe('twice');
    expect(now.verdict.word).not.toBe('twice');
  });
  it('lets Ilse hear herself, and says that she was not to', () => {
    expect(pair(before, 'ilse', 'ilse').verdict).toMatchObject({ state: 'fix', word: 'unwanted' });
    const mended = evaluate(set(rig, 'mixer', 'strip-9-10-send-2', -90));
    // With the send down she still comes back, by way of the room: speakers, air, Wren's microphone.
    expect(pair(mended, 'ilse', 'ilse').ways[0]!.deviceIds).toEqual(
      expect.arrayContaining(['loudspeakers', 'wren-microphone']),
    );
    const muted = evaluate(set(set(rig, 'mixer', 'strip-9-10-send-2', -90), 'mixer', 'strip-9-10-send-1', -90));
    expect(pair(muted, 'ilse', 'ilse').verdict.word).toBe('not-heard');
  });
  it('brings the couch late by 1.5 m of air and two devices, against the same camera and capture', () => {
    const { ways } = pair(before, 'couch', 'stream');
    const { offset, offsetTerms } = ways[0]!;
    expect(offset!.value.nominal).toBeCloseTo(airMs(1.5) + 50 + 60 - 50 - 150, 6);
    // By hand: the camera sends both within a frame, and the capture device's picture comes 10 to 180 ms after its sound.
    expect(offset!.value.low).toBeCloseTo(airMs(1.5) - 1000 / 60 - 180, 6);
    expect(offset!.value.high).toBeCloseTo(airMs(1.5) + 1000 / 60 - 10, 6);
    expect(offsetTerms.filter((t) => t.count < 0).map((t) => t.term.key)).toEqual(
      expect.arrayContaining(['camera.picture', 'camera-capture.picture']),
    );
    expect(ways[1]!.deviceIds).toContain('wren-microphone');
  });
  it('cancels what sound and picture share: a splitter’s own delay widens nothing', () => {
    const { ways, picture } = pair(before, 'couch-game', 'track-2');
    expect(ways[0]!.soundTerms.some((t) => t.key === 'splitter.through')).toBe(true);
    expect(picture!.terms.some((t) => t.key === 'splitter.through')).toBe(true);
    expect(ways[0]!.offsetTerms.some((t) => t.term.key === 'splitter.through')).toBe(false);
    expect(width(ways[0]!.offset!.value)).toBeCloseTo(180 - 10, 6);
  });
  it('keeps the jingles in time with the picture of Wren, as the plan says', () => {
    expect(pair(before, 'jingles', 'stream').picture!.sourceId).toBe('wren');
    expect(pair(before, 'jingles', 'track-1').verdict.word).toBe('no-picture');
  });
  it('misses what the plan wants once its lead is pulled', () => {
    const pulled = evaluate(apply(rig, { kind: 'unplug', cableId: 'phone-line' }));
    expect(pair(pulled, 'jingles', 'stream').verdict).toMatchObject({ state: 'stop', word: 'missing' });
  });
  it('reads the noise and the headroom at every tap', () => {
    const [way] = pair(before, 'wren', 'stream').ways;
    expect(way!.noiseDb).toBeLessThan(-60);
    expect(way!.headroomDb).toBeGreaterThan(10);
    expect(way!.conversions).toBe(1);
    expect(before.dropped).toBe(0);
  });
});

describe('delay settings', () => {
  it('move sound later, and picture later the other way, by exactly as much', () => {
    const offset = (r: Rig) => pair(evaluate(r), 'couch', 'stream').ways[0]!.offset!.value.nominal;
    const now = offset(rig);
    expect(offset(set(rig, 'capture-program', 'in-2-sound-delay', 30))).toBeCloseTo(now + 30, 9);
    expect(offset(set(rig, 'capture-program', 'in-2-picture-delay', 64))).toBeCloseTo(now - 64, 9);
  });
  it('say on whom they act and who else waits', () => {
    const settings = delaySettingsFor(rig, before, 'stream');
    const strip = settings.find((s) => s.spec.id === 'strip-1-delay')!;
    expect(strip.delaysSound).toEqual(['wren']);
    expect(strip.alsoListeners).toEqual(expect.arrayContaining(['ilse', 'players', 'backup']));
    const picture = settings.find((s) => s.spec.id === 'in-2-picture-delay')!;
    // The camera shows Wren and the couch, and the jingles keep time with Wren.
    expect([...picture.delaysPicture].sort()).toEqual(['couch', 'jingles', 'wren']);
    expect(settings.some((s) => s.spec.id === 'strip-2-delay')).toBe(false);
  });
});

describe('verdicts in time', () => {
  const level = (r: Rig, id: string) => pair(evaluate(r), 'couch', id).verdict;
  it('follow the tolerance that is chosen', () => {
    const early = set(rig, 'capture-program', 'in-2-sound-delay', 60);
    expect(level(early, 'track-3')).toMatchObject({ word: 'perhaps-either', state: 'watch' });
    const broadcast = apply(early, { kind: 'set-session', session: { ...early.session, toleranceId: 'atsc-is191' } });
    expect(level(broadcast, 'track-3')).toMatchObject({ word: 'perhaps-early', state: 'watch' });
    expect(TOLERANCES.every((t) => t.earlyMs < 0 && t.lateMs > 0)).toBe(true);
  });
  it('do not call right what nobody has done yet', () => {
    const measured = apply(rig, { kind: 'add-measurement', measurement: couchMeasured(64) });
    expect(level(measured, 'track-3')).toMatchObject({ word: 'late', state: 'fix' });
    const change = { deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 64 };
    const drawn = apply(measured, addTasks(measured, [change], '2026-11-25T10:00:00Z'));
    expect(level(drawn, 'track-3')).toMatchObject({ word: 'once-done', state: 'watch' });
    expect(level(apply(measured, markDone(measured, [change])), 'track-3')).toMatchObject({
      word: 'in-time',
      state: 'good',
    });
  });
});

const couchTerms: (Measurement & { kind: 'delay' })['terms'] = [
  { figure: 'camera.sound', sign: 1 },
  { figure: 'camera-capture.sound', sign: 1 },
  { figure: 'camera.picture', sign: -1 },
  { figure: 'camera-capture.picture', sign: -1 },
];
function couchMeasured(mean: number, takenAt = '2026-11-25T10:00:00Z', id = 'm1'): Measurement & { kind: 'delay' } {
  return {
    kind: 'delay',
    id,
    label: 'couch clap',
    takenAt,
    sourceId: 'couch',
    listenerId: 'track-3',
    terms: couchTerms,
    ms: { mean, sd: 2, count: 4 },
    offsetMs: mean,
  };
}

describe('measured figures', () => {
  const terms = uncertain(pair(before, 'couch', 'stream').ways[0]!.offsetTerms);
  it('replace exactly the figures that they speak of, together', () => {
    const figure = settle(delayMeasurements([couchMeasured(64)]), 'offset', terms);
    expect(figure).toMatchObject({ kind: 'measured', value: { low: 60, nominal: 64, high: 68 } });
    expect(figure.terms).toHaveLength(1);
    expect(figure.terms[0]!.terms).toHaveLength(4);
  });
  it('serve every path that shares all of them, and no other', () => {
    const measured = evaluate(apply(rig, { kind: 'add-measurement', measurement: couchMeasured(64) }));
    expect(pair(measured, 'couch', 'stream').ways[0]!.offset!.kind).toBe('measured');
    expect(pair(measured, 'wren', 'stream').ways[0]!.offset!.kind).toBe('typical');
    expect(pair(measured, 'wren', 'stream').ways[0]!.offset!.value).toEqual(
      pair(before, 'wren', 'stream').ways[0]!.offset!.value,
    );
  });
  it('count the other way for the opposite difference', () => {
    const turned = difference(
      pair(before, 'couch', 'stream').picture!.terms,
      pair(before, 'couch', 'stream').ways[0]!.soundTerms,
    );
    expect(settle(delayMeasurements([couchMeasured(64)]), 'turned', uncertain(turned)).value).toEqual({
      low: -68,
      nominal: -64,
      high: -60,
    });
  });
  it('yield to a newer one', () => {
    const all = delayMeasurements([couchMeasured(64), couchMeasured(70, '2026-11-26T10:00:00Z', 'm2')]);
    expect(settle(all, 'offset', terms).value.nominal).toBe(70);
  });
  it('have no say once the way is another', () => {
    const rewired = apply(rig, {
      kind: 'batch',
      edits: [
        { kind: 'add-measurement', measurement: couchMeasured(64) },
        { kind: 'unplug', cableId: 'camera-hdmi' },
        {
          kind: 'plug',
          cable: {
            id: 'camera-other',
            from: { deviceId: 'camera', portId: 'hdmi' },
            to: { deviceId: 'splitter', portId: 'in' },
            medium: 'lead',
            lengthM: 2,
            known: 'confirmed',
          },
        },
      ],
    });
    expect(pair(evaluate(rewired), 'couch', 'stream').ways[0]!.offset!.kind).toBe('typical');
  });
});
