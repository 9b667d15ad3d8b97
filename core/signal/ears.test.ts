import { describe, expect, it } from 'vitest';
import { parseRig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { evaluate, levelAtEars, listeningTime } from './index.ts';

describe('listening', () => {
  it('may last as the standards say, and half as long for 3 dB more', () => {
    expect(listeningTime(85).hoursADay).toBe(8);
    expect(listeningTime(88).hoursADay).toBe(4);
    expect(listeningTime(100).hoursADay).toBeCloseTo(0.25, 12);
    expect(listeningTime(80).hoursAWeek).toBe(40);
    expect(listeningTime(83).hoursAWeek).toBe(20);
    // A day has no more hours than it has.
    expect(listeningTime(40)).toEqual({ hoursADay: 24, hoursAWeek: 168 });
  });
  it('is at the level of all that sounds there together, where it is a sound in air', () => {
    const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
    const evaluation = evaluate(rig);
    const players = levelAtEars(rig, evaluation, 'players')!;
    const ways = evaluation.pairs.filter((p) => p.listenerId === 'players').flatMap((p) => p.ways);
    const loudest = Math.max(...ways.map((w) => w.levelDb.nominal));
    expect(players.nominal).toBeGreaterThanOrEqual(loudest);
    expect(players.nominal).toBeLessThan(loudest + 10 * Math.log10(ways.length) + 1e-9);
    expect(players.low).toBeLessThanOrEqual(players.nominal);
    expect(levelAtEars(rig, evaluation, 'stream')).toBeNull();
    expect(levelAtEars(rig, evaluation, 'nobody')).toBeNull();
  });
});
