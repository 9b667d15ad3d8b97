import { describe, expect, it } from 'vitest';
import type { SettingTask } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import type { ReceivedPath } from './heard.ts';
import { TOLERANCES, toleranceOf } from './tolerance.ts';
import { judge } from './verdict.ts';

const tolerance = toleranceOf('ebu-r37');

const offset = (low: number, nominal: number, high: number): Figure => ({
  label: 'offset',
  value: { low, nominal, high },
  unit: 'ms',
  kind: 'typical',
  source: 'a test',
  terms: [],
});
/** A way that arrives with `levelDb`; the verdict looks at nothing else of it. */
const way = (levelDb: number, figure: Figure | null = offset(-5, 0, 5)): ReceivedPath =>
  ({ arrival: { levelDb }, scale: 'dbfs', offset: figure, afterFirst: null }) as unknown as ReceivedPath;
const copy = (ms: number, levelDb: number): ReceivedPath => ({ ...way(levelDb), afterFirst: offset(ms, ms, ms) });
const task: SettingTask = {
  id: 'mixer.strip-1-delay',
  deviceId: 'mixer',
  settingId: 'strip-1-delay',
  before: { value: 0, known: 'confirmed' },
  openedAt: '2026-11-25T10:00:00Z',
};
const say = (
  ways: readonly ReceivedPath[],
  want: 'must' | 'may' | 'must-not' | null = 'must',
  openTasks: readonly SettingTask[] = [],
) => judge({ want, ways, tolerance, openTasks });

describe('the verdict on one source at one listener', () => {
  it.each([
    [offset(-10, 5, 40), 'good', 'in-time'],
    [offset(-39, 60, 60), 'good', 'in-time'],
    [offset(60.1, 65, 70), 'fix', 'late'],
    [offset(-90, -60, -40.1), 'fix', 'early'],
    [offset(50, 60.1, 70), 'watch', 'perhaps-late'],
    [offset(-90, -40.1, 0), 'watch', 'perhaps-early'],
    [offset(-397, 218, 905), 'watch', 'perhaps-late'],
    [offset(-10, 5, 61), 'watch', 'perhaps-late'],
    [offset(-41, 5, 10), 'watch', 'perhaps-early'],
    [offset(-282, 0, 121), 'watch', 'perhaps-either'],
  ] as const)('of %j is %s, %s', (figure, state, word) => {
    expect(say([way(-20, figure)])).toMatchObject({ state, word, offsetMs: figure.value.nominal });
  });
  it('asks for what the plan wants and does not arrive, and minds what it does not want', () => {
    expect(say([])).toMatchObject({ state: 'stop', word: 'missing' });
    expect(say([], 'may')).toMatchObject({ state: 'none', word: 'not-heard' });
    expect(say([], 'must-not').state).toBe('none');
    expect(say([way(-60)], 'must-not')).toMatchObject({ state: 'fix', word: 'unwanted' });
    expect(say([way(-80)], 'must-not')).toMatchObject({ state: 'none', word: 'not-heard' });
    expect(say([way(-20, null)], 'must')).toMatchObject({ state: 'none', word: 'no-picture', offsetMs: null });
  });
  it('never calls right what rests on a proposal that nobody has ticked, and calls wrong what stays wrong with it', () => {
    expect(say([way(-20)], 'must', [task])).toMatchObject({ state: 'watch', word: 'once-done', openTasks: [task] });
    expect(say([way(-20, offset(70, 80, 90))], 'must', [task])).toMatchObject({ state: 'fix', word: 'late' });
  });
  it.each([
    // [apart ms, down dB, twice]
    [0.5, 0, false],
    [20, 3, true],
    [20, 9.9, true],
    [20, 10, false],
    [60, 12, true],
    [60, 19.9, true],
    [60, 20, false],
  ])('hears a copy %s ms away and %s dB down twice: %s', (apart, down, twice) => {
    const verdict = say([way(-20), copy(apart, -20 - down)]);
    expect(verdict.word === 'twice').toBe(twice);
    expect(verdict.apart?.value.nominal ?? null).toBe(twice ? apart : null);
    // Earlier or later makes no difference.
    expect(say([way(-20), copy(-apart, -20 - down)]).word === 'twice').toBe(twice);
  });
  it('looks at every copy, not only the second loudest', () => {
    expect(say([way(-20), copy(0.2, -22), copy(80, -30)])).toMatchObject({
      word: 'twice',
      apart: { value: { nominal: 80 } },
    });
  });
});

describe('tolerances', () => {
  it('are asymmetric where a standard says so: sound may be later than it may be early', () => {
    for (const t of TOLERANCES) {
      expect(t.earlyMs).toBeLessThan(0);
      expect(t.lateMs).toBeGreaterThanOrEqual(-t.earlyMs);
      expect(t.source).not.toBe('');
      expect(toleranceOf(t.id)).toBe(t);
    }
  });
});
