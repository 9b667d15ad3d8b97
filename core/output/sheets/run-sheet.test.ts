import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { budgetsOf, checksOf, orderDown, orderUp } from '#core/live/run/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { PAPERS, runSheet, runToIcs, runToMarkdown } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));

describe('the day to take along', () => {
  const steps = orderUp(rig);
  const checks = checksOf(rig, budgetsOf(rig));
  const down = orderDown(rig);
  const tick = { at: '2026-11-26T10:00:00.000Z', by: 'desk' };
  const dayOf = (ticks = {}) => ({ title: 'Relay', steps, checks, down, ticks, downTicks: {} });
  it('is task lists with reasons and cautions', () => {
    const text = runToMarkdown(
      dayOf({ [steps[0]!.id]: { ...tick, leftOut: 'broken' }, [checks[0]!.id]: { ...tick, amiss: true } }),
    );
    expect(text).toMatch(/^# Relay\n\n- \[x\] .*sheets\.skipped\(broken\)\n {2}/);
    expect(text).toContain('sheets.caution(');
    expect(text).toContain(`- [ ] ${textOf(checks[0]!.says)}sheets.failed`);
    expect(text.match(/- \[ \]/g)).toHaveLength(steps.length + checks.length + down.length - 1);
  });
  it.each(['a4', 'letter'] as const)('is one page of %s with a box for everything, and nothing beside it', (paper) => {
    const sheets = runSheet(dayOf({ [steps[0]!.id]: tick }), paper);
    expect(sheets).toHaveLength(1);
    const { widthMm, heightMm } = PAPERS[paper];
    expect(sheets[0]!.match(/<rect/g)).toHaveLength(steps.length + checks.length + down.length);
    for (const [, x, y] of sheets[0]!.matchAll(/<text x="([\d.]+)" y="([\d.]+)"/g)) {
      expect(Number(x)).toBeLessThan(widthMm - 30);
      expect(Number(y)).toBeLessThanOrEqual(heightMm - 9);
    }
    const many = { ...dayOf(), steps: Array.from({ length: 900 }, (_, i) => ({ ...steps[0]!, id: `s${i}` })) };
    // Nothing is left out: what one page can't hold legibly is on the next.
    const pages = runSheet(many, paper);
    expect(pages.length).toBeGreaterThan(1);
    const boxes = pages.reduce((sum, sheet) => sum + sheet.match(/<rect/g)!.length, 0);
    expect(boxes).toBe(900 + checks.length + down.length);
  });
  it('is in the calendar one part behind the other, in lines that calendars take', () => {
    const now = new Date('2026-11-26T10:07:00Z');
    const ics = runToIcs({
      ...dayOf(),
      name: 'Relay; night, one ü'.repeat(4),
      startsAt: new Date('2026-11-28T18:30:00Z'),
      hours: 6,
      now,
    });
    expect(ics.split('\r\n').every((l) => new Blob([l]).size <= 75)).toBe(true);
    const unfolded = ics.replace(/\r\n /g, '');
    const times = [...unfolded.matchAll(/DT(?:START|END):(\d{8}T\d{6}Z)/g)].map((m) => m[1]!);
    expect(times).toHaveLength(8);
    // Each begins when the one before it ends; the session lasts its six hours.
    for (let i = 1; i < 7; i += 2) expect(times[i]).toBe(times[i + 1]);
    // The session is when it was said to be, and what goes before is before it.
    expect([times[4], times[5]]).toEqual(['20261128T183000Z', '20261129T003000Z']);
    expect(unfolded).toContain('SUMMARY:Relay\\; night\\, one ü');
    expect(times[0]! < times[4]!).toBe(true);
  });
});
