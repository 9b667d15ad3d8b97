import { textOf } from '#core/base/said/index.ts';
import { fitted, PAPERS, type Paper, page, wrapped, xml } from './page.ts';
import { say } from './sayings.ts';

const MARGIN_MM = 9;
const GAP_MM = 4;
const HEAD_MM = 10;
const FOOT_MM = 6;
/** Lines shrink until all fit on the page, down to what is readable at arm's length; the rest is on further pages. */
const LARGEST_MM = 3.4;
const SMALLEST_MM = 1.9;
/** A letter is about so wide against its height in this face. */
const LETTER = 0.5;

/** A line with a box to tick, or a heading. */
export interface TickLine {
  readonly text: string;
  readonly head: boolean;
  readonly done: boolean;
}

/** Lines on paper, each with a box to tick, in columns, as large as it goes: one sheet, or more where even that is too small. */
export function tickSheets(title: string, lines: readonly TickLine[], paper: Paper, columns: number): string[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const column = (widthMm - 2 * MARGIN_MM - (columns - 1) * GAP_MM) / columns;
  const room = heightMm - 2 * MARGIN_MM - HEAD_MM - FOOT_MM;
  let size = LARGEST_MM;
  let rows = rowsAt(lines, column, size);
  while (rows.length * size * 1.25 > columns * room && size > SMALLEST_MM) {
    size -= 0.1;
    rows = rowsAt(lines, column, size);
  }
  const perColumn = Math.floor(room / (size * 1.25));
  const perPage = perColumn * columns;
  const pages = Array.from({ length: Math.max(1, Math.ceil(rows.length / perPage)) }, (_, n) =>
    rows.slice(n * perPage, (n + 1) * perPage),
  );
  const draw = (row: Row, i: number): string => {
    const x = MARGIN_MM + Math.floor(i / perColumn) * (column + GAP_MM);
    const y = MARGIN_MM + HEAD_MM + ((i % perColumn) + 1) * size * 1.25;
    if (row.head) return `<text x="${x}" y="${y}" font-size="${size}" font-weight="640">${xml(row.text)}</text>`;
    const box = row.first
      ? `<rect x="${x}" y="${y - size * 0.8}" width="${size * 0.8}" height="${size * 0.8}" fill="${row.done ? '#444' : 'none'}" stroke="#444" stroke-width="0.2"/>`
      : '';
    return `${box}<text x="${x + size * 1.3}" y="${y}" font-size="${size}">${xml(row.text)}</text>`;
  };
  return pages.map((shown, n) => {
    const foot = [say.footOfRun(), ...(pages.length > 1 ? [say.sheetOf({ sheet: n + 1, sheets: pages.length })] : [])];
    return page(
      widthMm,
      heightMm,
      `${fitted(title, { xMm: MARGIN_MM, yMm: MARGIN_MM + 4.5, widthMm: widthMm - 2 * MARGIN_MM, sizeMm: 4.6, weight: 640 })}${shown.map(draw).join('')}<text x="${MARGIN_MM}" y="${heightMm - MARGIN_MM}" font-size="2.6">${xml(foot.map(textOf).join(' '))}</text>`,
    );
  });
}

interface Row extends TickLine {
  /** The first row of its line: it bears the device. */
  readonly first: boolean;
}

/** Lines broken into rows that a column takes at a size of type. */
function rowsAt(lines: readonly TickLine[], columnMm: number, sizeMm: number): Row[] {
  const letters = Math.max(12, Math.floor((columnMm - sizeMm * 1.3) / (sizeMm * LETTER)));
  return lines.flatMap((line) =>
    wrapped(line.text, letters).map((text, i): Row => ({ ...line, text, first: i === 0 })),
  );
}
