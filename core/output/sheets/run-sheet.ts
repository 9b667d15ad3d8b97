import { type Text, textOf } from '#core/base/said/index.ts';
import { icsLine, icsText, markdown } from '#core/base/text/index.ts';
import { CAUTIONS, type DayCheck, type Step, type Ticks } from '#core/live/run/index.ts';
import { PAPERS, type Paper, page, short, wrapped, xml } from './page.ts';
import { say } from './sayings.ts';

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

const MARGIN_MM = 9;
const COLUMNS = 3;
const GAP_MM = 4;
const HEAD_MM = 10;
const FOOT_MM = 6;
/** Lines shrink until all fit on the page, down to what is readable at arm's length; the rest is counted. */
const LARGEST_MM = 3.4;
const SMALLEST_MM = 1.9;
/** A letter is about so wide against its height in this face. */
const LETTER = 0.5;

interface Line {
  readonly text: string;
  readonly head: boolean;
  readonly done: boolean;
}

/** The day on one sheet of paper: everything with a device to tick, in columns, as large as it goes. */
export function runSheet({ title, steps, checks, down, ticks, downTicks }: RunDay, paper: Paper): string[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const lines: Line[] = [
    { text: textOf(say.steps()), head: true, done: false },
    ...steps.map((s) => ({ text: textOf(s.says), head: false, done: Boolean(ticks[s.id]) })),
    { text: textOf(say.checks()), head: true, done: false },
    ...checks.map((c) => ({ text: textOf(c.says), head: false, done: Boolean(ticks[c.id] && !ticks[c.id]!.amiss) })),
    { text: textOf(say.shutDown()), head: true, done: false },
    ...down.map((s) => ({ text: textOf(s.says), head: false, done: Boolean(downTicks[s.id]) })),
  ];
  const column = (widthMm - 2 * MARGIN_MM - (COLUMNS - 1) * GAP_MM) / COLUMNS;
  const room = heightMm - 2 * MARGIN_MM - HEAD_MM - FOOT_MM;
  let size = LARGEST_MM;
  let rows = rowsAt(lines, column, size);
  while (rows.length * size * 1.25 > COLUMNS * room && size > SMALLEST_MM) {
    size -= 0.1;
    rows = rowsAt(lines, column, size);
  }
  const perColumn = Math.floor(room / (size * 1.25));
  const shown = rows.slice(0, perColumn * COLUMNS);
  const body = shown.map((row, i) => {
    const x = MARGIN_MM + Math.floor(i / perColumn) * (column + GAP_MM);
    const y = MARGIN_MM + HEAD_MM + ((i % perColumn) + 1) * size * 1.25;
    if (row.head) return `<text x="${x}" y="${y}" font-size="${size}" font-weight="640">${xml(row.text)}</text>`;
    const box = row.first
      ? `<rect x="${x}" y="${y - size * 0.8}" width="${size * 0.8}" height="${size * 0.8}" fill="${row.done ? '#444' : 'none'}" stroke="#444" stroke-width="0.2"/>`
      : '';
    return `${box}<text x="${x + size * 1.3}" y="${y}" font-size="${size}">${xml(row.text)}</text>`;
  });
  const rest = rows.length - shown.length;
  const foot = [say.footOfRun(), ...(rest > 0 ? [say.restOnScreen({ rest })] : [])].map(textOf).join(' ');
  return [
    page(
      widthMm,
      heightMm,
      `<text x="${MARGIN_MM}" y="${MARGIN_MM + 4.5}" font-size="4.6" font-weight="640">${xml(short(title, 90))}</text>${body.join('')}<text x="${MARGIN_MM}" y="${heightMm - MARGIN_MM}" font-size="2.6">${xml(foot)}</text>`,
    ),
  ];
}

interface Row extends Line {
  /** The first row of its line: it bears the device. */
  readonly first: boolean;
}

/** Lines broken into rows that a column takes at a size of type. */
function rowsAt(lines: readonly Line[], columnMm: number, sizeMm: number): Row[] {
  const letters = Math.max(12, Math.floor((columnMm - sizeMm * 1.3) / (sizeMm * LETTER)));
  return lines.flatMap((line) =>
    wrapped(line.text, letters).map((text, i): Row => ({ ...line, text, first: i === 0 })),
  );
}

export interface Calendar extends RunDay {
  readonly name: string;
  /** How long the session lasts. */
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
export function runToIcs({ name, steps, checks, down, hours, now }: Calendar): string {
  const before = steps.length * STEP_MIN + checks.length * CHECK_MIN;
  const startMs = Math.ceil((now.getTime() + before * MIN_MS) / (HOUR_MIN * MIN_MS)) * HOUR_MIN * MIN_MS;
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
