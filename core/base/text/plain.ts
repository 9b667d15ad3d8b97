// biome-ignore lint/suspicious/noControlCharactersInRegex: these are what has to go
const CONTROLS = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]+/gu;
/** Marks that turn the direction of what follows: a name that bears them can say something else than it shows. */
const DIRECTIONS = /[\u200e\u200f\u202a-\u202e\u2066-\u2069]/gu;
/** Halves of letters that no encoding can write. */
const HALVES = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** Text on one line, without what is no letter: ends of lines and other controls become a space. */
export const plainLine = (text: string): string =>
  text.replace(CONTROLS, ' ').replace(DIRECTIONS, '').replace(HALVES, '\ufffd');
