import { type Text, textOf } from '#core/base/said/index.ts';
import { fitted, PAPERS, type Paper, page, xml } from './page.ts';
import { say } from './sayings.ts';

/** One player of a tap test: the contents of its row. */
export interface TapRow {
  readonly source: string;
  /** As it is counted for people: from 1. */
  readonly tune: number;
  /** The device whose place its player takes. */
  readonly at: string;
}

const MARGIN_MM = 12;
const ROW_MM = 8.5;
const LINE_MM = 6;

const text = (x: number, y: number, size: number, says: Text, bold = false): string =>
  `<text x="${x}" y="${y}" font-size="${size}"${bold ? ' font-weight="640"' : ''}>${xml(says)}</text>`;
const rule = (y: number, wide: number): string =>
  `<path d="M${MARGIN_MM} ${y}h${wide}" stroke="#000" stroke-width="0.2"/>`;
const box = (x: number, y: number): string =>
  `<rect x="${x}" y="${y}" width="4" height="4" fill="none" stroke="#000" stroke-width="0.3"/>`;

const ORDER = [
  say.speakersLowHeadphonesOff(),
  say.everyRecorderStartsFirst(),
  say.tryEachPlayerWith(),
  say.pressPlayEverywhereWithin(),
  say.waitTwoMoreSeconds(),
];

/** A sheet for the desk: which file goes where, and what to press in which order. */
export function tapSheet(rows: readonly TapRow[], before: readonly string[], paper: Paper): string {
  const { widthMm, heightMm } = PAPERS[paper];
  const wide = widthMm - 2 * MARGIN_MM;
  const parts: string[] = [text(MARGIN_MM, 18, 6, say.tapTestEverySource(), true)];
  let y = 28;
  parts.push(text(MARGIN_MM, y, 4, say.beforeAnythingPlays(), true));
  for (const line of before) {
    y += LINE_MM;
    parts.push(box(MARGIN_MM, y - 3.4), fitted(line, { xMm: MARGIN_MM + 6, yMm: y, widthMm: wide - 6, sizeMm: 3.4 }));
  }
  y += 2 * LINE_MM;
  parts.push(text(MARGIN_MM, y, 4, say.whichFileGoesWhere(), true));
  y += 3;
  for (const { source, tune, at } of rows) {
    y += ROW_MM;
    parts.push(
      box(MARGIN_MM, y - 4),
      text(MARGIN_MM + 6, y, 5, String(tune), true),
      fitted(source, { xMm: MARGIN_MM + 16, yMm: y, widthMm: wide / 2 - 18, sizeMm: 3.8 }),
      fitted(say.instead({ at }), { xMm: MARGIN_MM + wide / 2, yMm: y, widthMm: wide / 2, sizeMm: 3.4 }),
      rule(y + 2.4, wide),
    );
  }
  y += 2 * LINE_MM;
  parts.push(text(MARGIN_MM, y, 4, say.inThisOrder(), true));
  ORDER.forEach((line, i) => {
    y += LINE_MM;
    parts.push(text(MARGIN_MM, y, 3.4, `${i + 1}  ${textOf(line)}`));
  });
  return page(widthMm, heightMm, parts.join(''));
}
