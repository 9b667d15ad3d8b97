import { describe, expect, it } from 'vitest';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate, talkerEchoLossDb } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { ownVoiceAt, returnWays } from './index.ts';

const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const way = (rig: Rig, id: string) => returnWays(rig).find((w) => w.id === id)!;

describe('the ways to a guest return', () => {
  it('are four, each with what it costs; nothing where a box for it is there', () => {
    const relay = read(boathouse);
    expect(returnWays(relay)).toHaveLength(4);
    expect(way(relay, 'send')).toMatchObject({ boxes: ['Mixer'], priceEur: [0, 0] });
    expect(way(relay, 'cable')).toMatchObject({ boxes: [], conversions: 0, addsMs: [5, 40] });
    const bare = returnWays(read(quayTalk));
    expect(bare.every((w) => w.boxes.length === 0)).toBe(true);
    for (const w of bare.filter((b) => b.id !== 'cable')) {
      expect(w.priceEur[1]).toBeGreaterThan(w.priceEur[0]);
      expect(w.conversions).toBeGreaterThan(0);
      expect(w.addsMs[1]).toBeGreaterThanOrEqual(w.addsMs[0]);
    }
  });
});

describe('the own voice coming back', () => {
  it('is told with how late, how loud, and how loud a talker bears', () => {
    const clay = read(clayHour);
    const own = ownVoiceAt(clay, evaluate(clay), 'pupil', 'pupil')!;
    expect(own.afterMs).toBeGreaterThan(300);
    expect(own.downDb).toBeLessThan(own.wantedDb);
    expect(own.wantedDb).toBeCloseTo(talkerEchoLossDb(own.afterMs), 9);
    expect(ownVoiceAt(clay, evaluate(clay), 'pupil', null)).toBeNull();
  });
  it('is judged by the curve of ITU-T G.131: 25 dB at 20 ms there and back, 40 at 100, 47 at 200, 55 at 600', () => {
    for (const [ms, db] of [
      [20, 25],
      [50, 33],
      [100, 40],
      [200, 47],
      [400, 52],
      [600, 55],
    ])
      expect(Math.abs(talkerEchoLossDb(ms!) - db!)).toBeLessThan(0.6);
    expect(talkerEchoLossDb(3)).toBe(0);
  });
});
