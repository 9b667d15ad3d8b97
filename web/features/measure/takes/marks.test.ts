import { describe, expect, it } from 'vitest';
import type { TakeNotes } from '#api/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { type LaneData, wavePath } from '#web/shared/charts/index.ts';
import { guessPair, notesFrom, offsetOfNotes } from '#web/shared/take/index.ts';
import { look } from '#web/shared/take/look.testkit.ts';
import type { TakeLook } from '#web/shared/workers/index.ts';
import { demoRig } from '#web/web.testkit.tsx';
import { restingTake } from './bench.testkit.ts';
import { guessClock, settingsThatFollow } from './follows.ts';
import { lanesOf, pairLines, readLaneKey } from './lanes-of.ts';
import { addMark, moveMark, notesAfter, notesWithClicks, removeMark, toggleMark } from './marks.ts';

describe('marks on the bench', () => {
  const notes = notesFrom(look());
  it('come from what was found, the weak ones left out', () => {
    expect(notes.claps.map((c) => c.used)).toEqual([true, false, true]);
    expect(notes.frameMs).toBe(20);
    expect(offsetOfNotes(notes)).toMatchObject({ offsetMs: 65, count: 2 });
  });
  it('are moved, added, removed and left out, and the offset follows', () => {
    expect(offsetOfNotes(moveMark(notes, 'claps', 2, 3070))!.offsetMs).toBe(67);
    expect(moveMark(notes, 'claps', 0, -5).claps[0]).toEqual({ atMs: 0, used: true, byHand: true });
    expect(addMark(notes, 'flashes', 500).flashes.map((f) => f.atMs)).toEqual([500, 1000, 3000]);
    expect(offsetOfNotes(removeMark(notes, 'flashes', 0))!.count).toBe(1);
    const without = toggleMark(toggleMark(notes, 'flashes', 0), 'flashes', 1);
    expect(offsetOfNotes(without)).toBeNull();
    expect(toggleMark(without, 'flashes', 0).flashes[0]!.used).toBe(true);
  });
  it('outlive another look: only flashes where nothing had been looked at come in', () => {
    const piece = (fromMs: number, toMs: number) => ({
      timesMs: Float64Array.from([fromMs, toMs]),
      mean: new Float32Array(2),
    });
    const flash = (atMs: number) => ({ atMs, frame: atMs / 20, strength: 90, cell: 3 });
    const seen = (pieces: [number, number][], flashes: number[]): TakeLook => ({
      ...look(),
      picture: { ...look().picture!, pieces: pieces.map(([a, b]) => piece(a, b)), flashes: flashes.map(flash) },
    });
    const first = seen([[500, 1500]], [1000, 1200]);
    const kept = removeMark(moveMark(notesAfter(null, first, null), 'claps', 0, 1070), 'flashes', 1);
    const whole = seen(
      [
        [0, 500],
        [500, 1500],
        [1500, 5000],
      ],
      [1000, 1200, 3000],
    );
    const merged = notesAfter(kept, whole, first);
    // 1200 had been seen and was removed by hand: it stays removed.
    expect(merged.flashes.map((f) => f.atMs)).toEqual([1000, 3000]);
    expect(merged.claps[0]).toEqual({ atMs: 1070, used: true, byHand: true });
    // After a reload there is no look before: what is kept is what counts.
    expect(notesAfter(kept, first, null)).toEqual(kept);
  });
  it('are drawn from coarser peaks the further away one is, and look the same', () => {
    const bins = 200_000;
    const high = Float32Array.from({ length: bins }, (_, i) => (i === 77_777 ? 0.9 : 0.2 + 0.1 * Math.sin(i / 3000)));
    const peaks = { framesPerBin: 48, sampleRateHz: 48_000, low: high.map((v) => -v), high };
    const seen = look();
    const take = restingTake('long', { look: { ...seen, picture: null, sound: { ...seen.sound!, peaks } } });
    const [lane] = lanesOf([take], [0]);
    expect(lane!.peaks!.map((p) => p.low.length)).toEqual([200_000, 12_500, 782]);
    expect(lane!.reach).toBeCloseTo(0.9, 6);
    const far = { startMs: 0, msPerPx: 250 };
    const tall = (from: NonNullable<LaneData['peaks']>) => {
      const path = wavePath({ ...lane!, peaks: from }, far, 800);
      const points = [...path.matchAll(/([\d.]+),([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);
      return points.reduce((best, p) => (p[1]! < best[1]! ? p : best));
    };
    expect(tall(lane!.peaks!)[0]).toBeCloseTo(tall(lane!.peaks!.slice(0, 1))[0]!, -0.5);
    expect(tall(lane!.peaks!)[1]).toBe(tall(lane!.peaks!.slice(0, 1))[1]);
  });
  it('stand on lanes, a take’s picture above its sound, the second take shifted', () => {
    const lanes = lanesOf([restingTake('a'), restingTake('b')], [0, -125]);
    expect(lanes.map((l) => [readLaneKey(l.key).takeId, l.kind, l.shiftMs])).toEqual([
      ['a', 'picture', 0],
      ['a', 'sound', 0],
      ['b', 'picture', -125],
      ['b', 'sound', -125],
    ]);
    expect(lanes[1]!.marks).toHaveLength(3);
    expect(lanes[0]!.note).toBe('640 × 360, 50 fps');
    const lines = pairLines([restingTake('a')], [10]);
    expect(lines.map((l) => [l.fromMs, l.toMs, l.offsetMs])).toEqual([
      [1010, 1074, 64],
      [3010, 3076, 66],
    ]);
  });
  it('are found as at first where only something else was noted of the take', () => {
    const blind = [{ at: '2026-11-26T00:00:00.000Z', a: 'a', b: 'b', rounds: 5, correct: 5 }];
    const noted: TakeNotes = { flashes: [], claps: [], frameMs: null, speaksOf: null, unseen: true, blind };
    expect(notesAfter(noted, look(), null)).toEqual({ ...notesFrom(look()), blind });
  });
});

describe('from a take to the rig', () => {
  const rig = demoRig();
  const readable = evaluate(rig).pairs.filter((p) => p.ways[0]?.offset);
  it('the take’s name suggests what it speaks of', () => {
    expect(guessPair('couch clap.mp4', rig, readable)).toEqual({ sourceId: 'couch', listenerId: 'stream' });
    expect(guessPair('Wren, first try.mov', rig, readable).sourceId).toBe('wren');
    expect(guessPair('0001.mp4', rig, readable).listenerId).toBe('stream');
  });
  it('the take’s name suggests whose clock it went by', () => {
    const clocks = ['mixer', 'backup-recorder', 'camera'];
    const evaluation = evaluate(rig);
    expect(guessClock('relay talk, backup recorder.wav', rig, evaluation, clocks)).toBe('backup-recorder');
    expect(guessClock('Mixer 2026-11-25.wav', rig, evaluation, clocks)).toBe('mixer');
    expect(clocks).toContain(guessClock('relay talk, track 4.wav', rig, evaluation, clocks));
    expect(guessClock('0001.wav', rig, evaluation, clocks)).toBe('');
  });
  it('the settings that follow are those on its own way', () => {
    const measurement = {
      kind: 'delay' as const,
      id: 'm',
      label: 'x',
      takenAt: '2026-11-25T00:00:00Z',
      sourceId: 'couch',
      listenerId: 'stream',
      terms: [
        { figure: 'camera.sound', sign: 1 as const },
        { figure: 'camera-capture.sound', sign: 1 as const },
        { figure: 'camera.picture', sign: -1 as const },
        { figure: 'camera-capture.picture', sign: -1 as const },
      ],
      ms: { mean: 70, sd: 2, count: 4 },
      offsetMs: 70,
    };
    const follows = settingsThatFollow(rig, { kind: 'add-measurement', measurement }, 'couch', 'stream');
    expect(follows).toEqual([{ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 74 }]);
    expect(settingsThatFollow(rig, { kind: 'unplug', cableId: 'not-there' }, 'couch', 'stream')).toEqual([]);
  });
});

describe('a menu’s clicks', () => {
  it('become the marks, each change that has its click, the rest left out', () => {
    const before = notesFrom(look());
    const notes = notesWithClicks({ ...before, speaksOf: null }, [
      { changeMs: 1000, clickMs: 1120 },
      { changeMs: 2000, clickMs: null },
      { changeMs: 3000, clickMs: 3118 },
    ]);
    expect(notes.flashes.map((m) => m.atMs)).toEqual([1000, 3000]);
    expect(notes.claps.map((m) => m.atMs)).toEqual([1120, 3118]);
    expect(offsetOfNotes(notes)).toMatchObject({ offsetMs: 119, count: 2 });
    expect(notes.frameMs).toBe(before.frameMs);
  });
});
