import { csvFormatRow } from 'd3-dsv';

/** Spreadsheets run cells that begin like this as formulas; full-width forms as well. */
const FORMULA = /^\s*[=+\-@\uff1d\uff0b\uff0d\uff20]/u;
const NUMBER = /^-?\d+(\.\d+)?(e[+-]?\d+)?$/i;
// biome-ignore lint/suspicious/noControlCharactersInRegex: no cell holds these; ends of lines it may
const CONTROLS = /[\u0000-\u0009\u000b\u000c\u000e-\u001f\u007f]/g;

/** What a cell says, as words and never as a formula: an apostrophe in front keeps it one (as spreadsheets have it). */
function cell(value: string | number): string {
  const text = String(value).replace(/\r\n?/g, '\n').replace(CONTROLS, ' ');
  return FORMULA.test(text) && !NUMBER.test(text) ? `'${text}` : text;
}

/** A table as RFC 4180 has it: lines end in CR LF, the last one too. */
export const csvOf = (rows: readonly (readonly (string | number)[])[]): string =>
  rows.map((row) => `${csvFormatRow(row.map(cell))}\r\n`).join('');
