import { textOf } from '#core/base/said/index.ts';
import type { NextStep } from '#core/live/next/index.ts';
import type { Paper } from './page.ts';
import { type TickLine, tickSheets } from './tick-sheet.ts';

/** Steps on the way to ready, one place after the other. */
export interface WayOnPaper {
  readonly title: string;
  /** How long, and how many. */
  readonly lead: string;
  readonly stops: readonly { readonly place: string; readonly steps: readonly NextStep[] }[];
}

const COLUMNS = 2;

/** The way to ready on paper: one sheet, or as few as it takes. */
export const nextSheets = ({ title, lead, stops }: WayOnPaper, paper: Paper): string[] =>
  tickSheets(
    `${title}. ${lead}`,
    stops.flatMap(({ place, steps }): TickLine[] => [
      { text: place, head: true, done: false },
      ...steps.map((s) => ({ text: textOf(s.says), head: false, done: false })),
    ]),
    paper,
    COLUMNS,
  );
