import { type Text, textOf } from '#core/base/said/index.ts';
import { fitted, PAPERS, type Paper, page, wrapped, xml } from './page.ts';
import { say } from './sayings.ts';

/** A take to record: text for the clapperboard before it, and for the list after it. */
export interface ClapRow {
  readonly path: string;
  /** The delays as they are to stand, as someone reads them. */
  readonly setting: string;
}

const MARGIN_MM = 12;
const ROWS = 12;
const ROW_MM = 9;

/**
 * A sheet for takes without a slate on a screen: a board to write on and hold into the picture, how to clap so that it
 * can be read to a frame, and a list of the takes. Rows that are known are filled in.
 */
export function clapSheet(paper: Paper, rows: readonly ClapRow[] = []): string {
  const { widthMm, heightMm } = PAPERS[paper];
  const wide = widthMm - 2 * MARGIN_MM;
  const half = wide / 2;
  return page(
    widthMm,
    heightMm,
    [
      text(MARGIN_MM, 18, 6, say.clapAndSlateHold(), true),
      group(MARGIN_MM, 23, board(wide)),
      group(MARGIN_MM, 76, hands() + steps(30, say.handSteps())),
      group(MARGIN_MM + half + 3, 76, hinge() + steps(30, say.hingeSteps())),
      group(MARGIN_MM, 128, takes(wide, rows.slice(0, ROWS))),
      text(MARGIN_MM, heightMm - 10, 3, LAST_WORD),
    ].join(''),
  );
}

const LAST_WORD = say.nameEachFileAfter();
/** Letters of a line beside a drawing. */
const STEP_LETTERS = 36;

function text(x: number, y: number, size: number, says: Text, bold = false): string {
  return `<text x="${x}" y="${y}" font-size="${size}"${bold ? ' font-weight="640"' : ''}>${xml(says)}</text>`;
}
const group = (x: number, y: number, body: string): string => `<g transform="translate(${x} ${y})">${body}</g>`;
const line = (points: string, width = 0.6): string =>
  `<polyline points="${points}" fill="none" stroke="#222" stroke-width="${width}" stroke-linejoin="round"/>`;
const box = (x: number, y: number, w: number, h: number, stroke = 0.6): string =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="none" stroke="#222" stroke-width="${stroke}"/>`;

/** Large empty fields: read from across a room, wiped and written again behind a sheet of film. */
function board(wide: number): string {
  const third = wide / 3;
  const fields = [say.take(), say.delaySetMs(), say.slate()];
  return [
    box(0, 0, wide, 46, 1),
    ...fields.map((name, i) => text(i * third + 3, 6, 4, name)),
    line(`${third},0 ${third},28`),
    line(`${2 * third},0 ${2 * third},28`),
    line(`0,28 ${wide},28`),
    text(3, 34, 4, say.pathWhichSoundRecorded()),
  ].join('');
}

/** Two flat hands that meet, seen from the side. */
const hands = (): string =>
  [
    line('2,26 8,14 12,4 14,5 12,15 12,27'),
    line('26,26 20,14 16,4 14.4,5 16,15 16,27'),
    line('9,1 10.5,3.5'),
    line('14,-1 14,2'),
    line('19,1 17.5,3.5'),
  ].join('');

/** A slate whose stick is about to close. */
const hinge = (): string => [box(1, 11, 25, 17), line('1,11 3,7 27,-3 28,0.5 5,10'), line('1,16 26,16')].join('');

const steps = (x: number, says: Text): string =>
  wrapped(textOf(says), STEP_LETTERS)
    .map((line, i) => text(x, 3 + i * 5.4, 3.6, line))
    .join('');

/** The takes as they are made: what is known of them already, and room for the rest. */
function takes(wide: number, rows: readonly ClapRow[]): string {
  const columns = [0, 14, 14 + wide * 0.38, 14 + wide * 0.7] as const;
  const heads = [say.take(), say.path(), say.delaysSet(), say.firstClapAnythingOdd()];
  const body = Array.from({ length: ROWS }, (_, i) => {
    const y = 4 + (i + 1) * ROW_MM;
    const row = rows[i];
    const known = row
      ? fitted(row.path, {
          xMm: columns[1],
          yMm: y - 2.5,
          widthMm: columns[2] - columns[1] - 2,
          sizeMm: 3.4,
        }) + fitted(row.setting, { xMm: columns[2], yMm: y - 2.5, widthMm: columns[3] - columns[2] - 2, sizeMm: 3.4 })
      : '';
    return `${text(columns[0], y - 2.5, 4, String(i + 1))}${known}${line(`0,${y} ${wide},${y}`, 0.2)}`;
  });
  return [...heads.map((name, i) => text(columns[i]!, 1, 3.4, name)), line(`0,4 ${wide},4`), ...body].join('');
}
