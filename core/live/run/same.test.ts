import { describe, expect, it } from 'vitest';
import { DayEvent, figuresOfPrint, type Print, printBefore, sameAs, seriesOf, sessionsOf } from './index.ts';

const usual: Print = { lufs: -20, noiseDbfs: -62, humDbfs: null, toneHz: 900, sidesDb: 0.2 };

describe('same as last time?', () => {
  it('says so within what the same person varies by', () => {
    const again = sameAs({ lufs: -21.5, noiseDbfs: -59, humDbfs: null, toneHz: 980, sidesDb: -0.6 }, usual);
    expect(again.every((d) => d.state === 'good' && d.says === '')).toBe(true);
  });
  it('has what differs most first, with what it may come from', () => {
    const [first, second, third] = sameAs({ ...usual, lufs: -26, humDbfs: -45, toneHz: 1300 }, usual);
    expect(first).toMatchObject({ id: 'humDbfs', before: null, now: -45, state: 'fix' });
    expect(first!.says).toMatchObject({ code: 'run.groundLoopOrCable' });
    expect(second).toMatchObject({ id: 'lufs', state: 'watch', says: { code: 'run.fartherAwayOrTurned' } });
    expect(third).toMatchObject({ id: 'toneHz', state: 'watch' });
    expect(third!.says).toMatchObject({ code: 'run.thinnerOffAxisLow' });
    expect(sameAs(usual, { ...usual, humDbfs: -45 })[0]).toMatchObject({
      id: 'humDbfs',
      says: { code: 'run.loopIsOpen' },
    });
  });
  it('is held against the last that went well, and is charted like any figure', () => {
    let n = 0;
    const uuid = () => `55555555-5555-4555-8555-${String(++n).padStart(12, '0')}`;
    const session = (day: number, good: boolean, print: Print): DayEvent[] => {
      const sessionId = uuid();
      const base = () => ({ id: uuid(), sessionId, by: 'desk', at: new Date(Date.UTC(2026, 10, day)).toISOString() });
      return [
        ...figuresOfPrint('stream', 'Stream', print, sessionId).map((f) => DayEvent.parse({ ...f, ...base() })),
        DayEvent.parse({ ...base(), kind: 'end', good, says: '', rig: null }),
      ];
    };
    const sessions = sessionsOf([
      ...session(1, true, { ...usual, lufs: -19 }),
      ...session(2, true, usual),
      ...session(3, false, { ...usual, lufs: -40 }),
    ]);
    expect(printBefore(sessions, 'stream')).toEqual(usual);
    expect(printBefore(sessions, 'backup')).toBeNull();
    const series = seriesOf(sessions);
    // No hum, no figure of it.
    expect(series).toHaveLength(4);
    expect(
      series
        .find((s) => s.label.startsWith('run.bySentence(Stream') && s.key.endsWith(':lufs'))!
        .points.map((p) => p.value),
    ).toEqual([-19, -20, -40]);
  });
});
