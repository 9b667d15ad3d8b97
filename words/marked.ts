import {
  isLiteralElement,
  isPluralElement,
  isSelectElement,
  isTagElement,
  type MessageFormatElement,
  parse,
} from '@formatjs/icu-messageformat-parser';
import { printAST } from '@formatjs/icu-messageformat-parser/printer.js';

const ACCENTED: Record<string, string> = {
  a: 'åå',
  e: 'éé',
  i: 'îî',
  o: 'öö',
  u: 'üü',
  A: 'Å',
  E: 'É',
  I: 'Î',
  O: 'Ö',
  U: 'Ü',
};
export const MARK = { begin: '⟦', end: '⟧' } as const;

/**
 * A made-up language to look at pages in: longer by about two fifths, with accents, and each message between marks. What
 * is shown without them does not come from here; what is cut has too little room.
 */
export function markedText(icu: string): string {
  return `${MARK.begin}${printAST(parse(icu).map(marked))}${MARK.end}`;
}

function marked(element: MessageFormatElement): MessageFormatElement {
  if (isLiteralElement(element))
    return { ...element, value: element.value.replace(/[aeiouAEIOU]/g, (c) => ACCENTED[c]!) };
  // A key is what is printed on it, in every language.
  if (isTagElement(element) && element.value === 'kbd') return element;
  if (isTagElement(element)) return { ...element, children: element.children.map(marked) };
  if (isPluralElement(element) || isSelectElement(element)) {
    const options = Object.entries(element.options).map(([key, one]) => [
      key,
      { ...one, value: one.value.map(marked) },
    ]);
    return { ...element, options: Object.fromEntries(options) } as MessageFormatElement;
  }
  return element;
}
