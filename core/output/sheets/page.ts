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

/** The average width of a letter of the sheets' type, in its size; bold and capitals are taken into account. */
export const LETTER_EM = 0.54;
/** Lines one below another, in the size of their type. */
const LINE_EM = 1.15;
const STEP_MM = 0.1;
/** Smaller than this is not printed legibly; what needs it is a name of hundreds of letters. */
const SMALLEST_MM = 1.2;

interface Place {
  /** Its left end, middle or right end. */
  readonly xMm: number;
  /** The baseline of its first line where it is on one line. */
  readonly yMm: number;
  readonly widthMm: number;
  /** For all its lines; one line where it is not given. */
  readonly heightMm?: number;
  readonly sizeMm: number;
  readonly weight?: number;
  readonly anchor?: 'middle' | 'end';
}

/** Text in the largest size up to the one that is wanted in which all of it is in its place: nothing is cut. */
export function layOut(
  text: string,
  { widthMm, heightMm, sizeMm }: Pick<Place, 'widthMm' | 'heightMm' | 'sizeMm'>,
): { readonly sizeMm: number; readonly lines: readonly string[] } {
  const room = heightMm ?? sizeMm * LINE_EM;
  const at = (size: number) => wrapped(text, Math.max(1, Math.floor(widthMm / (size * LETTER_EM))));
  let size = sizeMm;
  let lines = at(size);
  while (lines.length * size * LINE_EM > room + 1e-9 && size > SMALLEST_MM) {
    size = Math.max(SMALLEST_MM, size - STEP_MM);
    lines = at(size);
  }
  return { sizeMm: size, lines };
}

/** Text fitted into its place, as SVG. */
export function fitted(says: Text, place: Place): string {
  const { sizeMm, lines } = layOut(textOf(says), place);
  const { xMm, yMm, weight, anchor } = place;
  // A first line that is smaller begins where the large one would.
  const top = yMm - 0.9 * (place.sizeMm - sizeMm);
  const attributes = `font-size="${Number(sizeMm.toFixed(2))}"${weight ? ` font-weight="${weight}"` : ''}${anchor ? ` text-anchor="${anchor}"` : ''}`;
  return lines
    .map(
      (line, i) =>
        `<text x="${xMm}" y="${Number((lines.length === 1 ? yMm : top + i * sizeMm * LINE_EM).toFixed(2))}" ${attributes}>${xml(line)}</text>`,
    )
    .join('');
}
