import { type Text, textOf } from '#core/base/said/index.ts';

/** Text escaped for XML; characters that XML forbids are left out. */
export const xml = (text: Text): string =>
  textOf(text)
    // biome-ignore lint/suspicious/noControlCharactersInRegex: XML 1.0 forbids these
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');

/** Sheets of paper, upright, in mm. */
export const PAPERS = { a4: { widthMm: 210, heightMm: 297 }, letter: { widthMm: 215.9, heightMm: 279.4 } } as const;
export type Paper = keyof typeof PAPERS;

/** A page of this size in millimeters; user units are millimeters too. */
export const page = (widthMm: number, heightMm: number, body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}" font-family="Sofia Sans, sans-serif">${body}</svg>\n`;

/** Text truncated to this many characters, with an ellipsis. */
export const short = (says: Text, characters: number): string => {
  const text = textOf(says);
  return text.length > characters ? `${text.slice(0, characters - 1)}…` : text;
};

/** Text wrapped between words into lines of at most this many characters; longer words are broken. */
export function wrapped(text: string, letters: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(' ').flatMap((w) => w.match(new RegExp(`.{1,${letters}}`, 'gu')) ?? [])) {
    if (line !== '' && line.length + 1 + word.length > letters) {
      lines.push(line);
      line = word;
    } else line = line === '' ? word : `${line} ${word}`;
  }
  return [...lines, line];
}
