import { type Text, textOf } from '#core/base/said/index.ts';
import { icsLine, icsText, markdown } from '#core/base/text/index.ts';
import { CAUTIONS, type DayCheck, type Step, type Ticks } from '#core/live/run/index.ts';
import type { Paper } from './page.ts';
import { say } from './sayings.ts';
import { type TickLine, tickSheets } from './tick-sheet.ts';

/** A run sheet to take along: steps, checks, shutdown; with ticks so far. */
export interface RunDay {
  readonly title: string;
  readonly steps: readonly Step[];
  readonly checks: readonly DayCheck[];
  readonly down: readonly Step[];
  /** Of the steps and the checks, and of the way down. */
  readonly ticks: Ticks;
  readonly downTicks: Ticks;
}

/** As task lists (Markdown): reasons and cautions under each step. */
export function runToMarkdown({ title, steps, checks, down, ticks, downTicks }: RunDay): string {
  const line = (id: string, says: Text, of = ticks) => {
    const tick = of[id];
    const said = tick?.leftOut ? say.skipped({ why: markdown(tick.leftOut) }) : tick?.amiss ? say.failed() : '';
    return `- [${tick && !tick.amiss ? 'x' : ' '}] ${markdown(textOf(says))}${said}`;
  };
  const list = (all: readonly Step[], of = ticks) =>
    all
      .map((s) =>
        [
          line(s.id, s.says, of),
          `  ${markdown(textOf(s.why))}`,
          ...s.cautions.map((c) => `  ${textOf(say.caution({ caution: CAUTIONS[c] }))}`),
        ].join('\n'),
      )
      .join('\n');
  const looked = checks.map((c) => `${line(c.id, c.says)}\n  ${markdown(textOf(c.why))}`).join('\n');
  return `# ${markdown(title)}\n\n${list(steps)}\n\n## ${textOf(say.checks())}\n\n${looked}\n\n## ${textOf(say.shutDown())}\n\n${list(down, downTicks)}\n`;
}

const COLUMNS = 3;

/** The day on one sheet of paper, or as few as it takes: everything with a device to tick, in columns, as large as it goes. */
export function runSheet({ title, steps, checks, down, ticks, downTicks }: RunDay, paper: Paper): string[] {
  const lines: TickLine[] = [
    { text: textOf(say.steps()), head: true, done: false },
    ...steps.map((s) => ({ text: textOf(s.says), head: false, done: Boolean(ticks[s.id]) })),
    { text: textOf(say.checks()), head: true, done: false },
    ...checks.map((c) => ({ text: textOf(c.says), head: false, done: Boolean(ticks[c.id] && !ticks[c.id]!.amiss) })),
    { text: textOf(say.shutDown()), head: true, done: false },
    ...down.map((s) => ({ text: textOf(s.says), head: false, done: Boolean(downTicks[s.id]) })),
  ];
  return tickSheets(title, lines, paper, COLUMNS);
}

export interface Calendar extends RunDay {
  readonly name: string;
  /** When the session starts. */
  readonly startsAt: Date;
  /** How long it lasts. */
  readonly hours: number;
  readonly now: Date;
}

/** How long a step, and a check, take (typical). */
const STEP_MIN = 1;
const CHECK_MIN = 1;
const MIN_MS = 60_000;
const HOUR_MIN = 60;

/**
 * The day in a calendar (RFC 5545): set-up, checks, session and way down one behind the other; the session begins at the
 * next full hour that leaves time for what comes before.
 */
export function runToIcs({ name, steps, checks, down, startsAt, hours, now }: Calendar): string {
  const before = steps.length * STEP_MIN + checks.length * CHECK_MIN;
  const startMs = startsAt.getTime();
  const parts = [
    { says: say.setUp(), fromMin: -before, min: steps.length * STEP_MIN, list: steps.map((s) => s.says) },
    {
      says: say.checks2(),
      fromMin: -checks.length * CHECK_MIN,
      min: checks.length * CHECK_MIN,
      list: checks.map((c) => c.says),
    },
    { says: say.session(), fromMin: 0, min: hours * HOUR_MIN, list: [] },
    { says: say.shutDown2(), fromMin: hours * HOUR_MIN, min: down.length * STEP_MIN, list: down.map((s) => s.says) },
  ];
  const at = (min: number) => stamp(new Date(startMs + min * MIN_MS));
  const events = parts
    .filter((p) => p.min > 0)
    .flatMap((p, i) => [
      'BEGIN:VEVENT',
      `UID:${startMs}-${i}@mellow-tap`,
      `DTSTAMP:${stamp(now)}`,
      `DTSTART:${at(p.fromMin)}`,
      `DTEND:${at(p.fromMin + p.min)}`,
      `SUMMARY:${icsText(`${name}: ${textOf(p.says)}`)}`,
      ...(p.list.length > 0 ? [`DESCRIPTION:${icsText(p.list.map(textOf).join('\n'))}`] : []),
      'END:VEVENT',
    ]);
  const lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Mellow Tap//Run//EN', ...events, 'END:VCALENDAR'];
  return lines.map(icsLine).join('');
}

const stamp = (date: Date): string => `${date.toISOString().slice(0, 19).replace(/[-:]/g, '')}Z`;
