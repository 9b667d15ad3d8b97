import { plainLine } from './plain.ts';

/** Whatever would be read as a mark, a link or HTML (CommonMark 0.31). */
const MARKS = /[\\`*_[\]<>|~]/g;
/** An ampersand that begins a letter's name, and what begins a heading, a list or a rule where a line begins. */
const ENTITY = /&(?=#?\w+;)/g;
const LINE_BEGINS = /^(\s*)([#+\-=]|\d+(?=[.)]))/;

/** Words of a person in a document of ours: on one line, read as they are written. */
export const markdown = (text: string): string =>
  plainLine(text)
    .replace(MARKS, (mark) => `\\${mark}`)
    .replace(ENTITY, '\\&')
    .replace(LINE_BEGINS, (_, space: string, mark: string) =>
      /\d/.test(mark) ? `${space}${mark}` : `${space}\\${mark}`,
    )
    .replace(/^(\s*\d+)([.)])/, '$1\\$2');
