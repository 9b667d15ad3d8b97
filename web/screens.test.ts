import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate } from '#core/signal/index.ts';
import { rate } from '#core/units/index.ts';
import type { TakeLook } from '#web/workers/index.ts';
import { guessPair, settingsThatFollow } from './bench/follows.ts';
import { lanesOf, pairLines, readLaneKey } from './bench/lanes-of.ts';
import { addMark, moveMark, notesFrom, offsetOfNotes, removeMark, toggleMark } from './bench/marks.ts';
import type { BenchTake } from './bench/useTake.ts';
import {
  decimalsFor,
  formatBytes,
  formatClock,
  formatNumber,
  formatOffset,
  formatSigned,
  formatSpread,
} from './parts/format.ts';
import { changesOf, heldTo, tryOn } from './sync/trial.ts';
import { demoRig } from './web.testkit.tsx';

describe('numbers on the screen', () => {
  it('have a proper minus, and no minus at nothing', () => {
    expect(formatNumber(-18.5, 1)).toBe('−18.5');
    expect(formatNumber(-0.04, 1)).toBe('0.0');
    expect(formatSigned(64)).toBe('+64');
    expect(formatSigned(0.2)).toBe('0');
    expect(formatOffset(-171.4)).toBe('171 ms early');
    expect(formatOffset(63.96, 1)).toBe('64.0 ms late');
    expect(formatOffset(0.3)).toBe('0 ms');
  });
  it('have as many digits as their spread deserves', () => {
    expect([12, 0.4, 0.05, 0.001].map(decimalsFor)).toEqual([0, 1, 2, 3]);
    const figure = { label: '', unit: 'ms' as const, source: '', terms: [] };
    expect(formatSpread({ ...figure, kind: 'typical', value: { low: -5, nominal: 0, high: 7 } })).toBe('−5 to 7');
    expect(
      formatSpread({
        ...figure,
        kind: 'measured',
        value: { low: 60, nominal: 64, high: 68 },
        spread: { sd: 2, count: 4 },
      }),
    ).toBe('±4.0');
    expect(formatSpread({ ...figure, kind: 'set', value: { low: 1, nominal: 1, high: 1 } })).toBe('');
  });
  it('tell time and size', () => {
    expect(formatClock(61_500)).toBe('01:02');
    expect(formatClock(61_534, 2)).toBe('01:01.53');
    expect(formatBytes(209_443)).toBe('209 kB');
    expect(formatBytes(3_400_000_000)).toBe('3.4 GB');
  });
});

describe('what is tried in Sync', () => {
  const rig = demoRig();
  it('changes the rig only where it differs and the device can', () => {
    expect(tryOn(rig, {})).toBe(rig);
    expect(tryOn(rig, { 'mixer.strip-1-delay': 0 })).toBe(rig);
    expect(changesOf(rig, { 'mixer.strip-1-delay': 501, 'mixer.nowhere': 3, 'nobody.x': 1 })).toEqual([]);
    const tried = tryOn(rig, { 'mixer.strip-1-delay': 171 });
    expect(tried.devices.find((d) => d.id === 'mixer')!.settings['strip-1-delay']).toEqual({
      value: 171,
      known: 'assumed',
    });
  });
  it('is held to the nearest step within the range', () => {
    fc.assert(
      fc.property(fc.double({ min: -1000, max: 2000, noNaN: true }), (value) => {
        const held = heldTo({ min: 0, max: 500, step: 0.5 }, value);
        expect(held).toBeGreaterThanOrEqual(0);
        expect(held).toBeLessThanOrEqual(500);
        expect(Number.isInteger(held * 2)).toBe(true);
        if (value >= 0 && value <= 500) expect(Math.abs(held - value)).toBeLessThanOrEqual(0.25 + 1e-9);
      }),
    );
    expect(heldTo({ min: 0, max: 10, step: 3 }, 99)).toBe(9);
  });
});

const look = (): TakeLook => ({
  durationMs: 5000,
  sound: {
    sampleRateHz: 48000,
    channels: 2,
    peaks: { framesPerBin: 48, sampleRateHz: 48000, low: new Float32Array(5000), high: new Float32Array(5000) },
    claps: [
      { atMs: 1064, strength: 55 },
      { atMs: 2000, strength: 30 },
      { atMs: 3066, strength: 52 },
    ],
  },
  picture: {
    width: 640,
    height: 360,
    frameRate: rate(50),
    pieces: [],
    flashes: [
      { atMs: 1000, frame: 50, strength: 90, cell: 3 },
      { atMs: 3000, frame: 150, strength: 90, cell: 3 },
    ],
  },
  notices: [],
});

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
  const take = (id: string): BenchTake => ({
    id,
    name: `${id}.mp4`,
    look: look(),
    notes,
    progress: null,
    failed: null,
    change: () => undefined,
    stop: () => undefined,
    lookAgain: () => undefined,
    saying: null,
    conflict: null,
  });
  it('stand on lanes, a take’s picture above its sound, the second take shifted', () => {
    const lanes = lanesOf([take('a'), take('b')], [0, -125]);
    expect(lanes.map((l) => [readLaneKey(l.key).takeId, l.kind, l.shiftMs])).toEqual([
      ['a', 'picture', 0],
      ['a', 'sound', 0],
      ['b', 'picture', -125],
      ['b', 'sound', -125],
    ]);
    expect(lanes[1]!.marks).toHaveLength(3);
    expect(lanes[0]!.note).toBe('640 × 360, 50 frames a second');
    const lines = pairLines([take('a')], [10]);
    expect(lines.map((l) => [l.fromMs, l.toMs, l.offsetMs])).toEqual([
      [1010, 1074, 64],
      [3010, 3076, 66],
    ]);
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
