// biome-ignore lint/suspicious/noControlCharactersInRegex: RFC 5545 allows none of these in text
const CONTROLS = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g;

/** A value of type TEXT (RFC 5545, 3.3.11): ends of lines of any kind are written `\n`. */
export const icsText = (text: string): string =>
  text
    .replace(CONTROLS, '')
    .replace(/[\\;,]/g, (c) => `\\${c}`)
    .replace(/\r\n?|\n|\u2028|\u2029/g, '\\n');

const FOLD_BYTES = 75;

/** Length of a character in UTF-8, bytes. */
function bytesOf(letter: string): number {
  const code = letter.codePointAt(0)!;
  return code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
}

/** A content line, folded (RFC 5545, 3.1): none is longer than 75 bytes, what follows begins with a space, no letter is cut in two. */
export function icsLine(line: string): string {
  const out: string[] = [];
  let part = '';
  let bytes = 0;
  for (const letter of line) {
    const size = bytesOf(letter);
    if (bytes + size > FOLD_BYTES) {
      out.push(part);
      part = ' ';
      bytes = 1;
    }
    part += letter;
    bytes += size;
  }
  return `${[...out, part].join('\r\n')}\r\n`;
}
