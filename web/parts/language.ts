import { speak } from '#words/index.ts';

/** Kept in a browser by whoever looks at pages in the made-up language: text without marks does not come from words/. */
const LANGUAGE_KEY = 'mellow-language';

/** English, in the number format of this browser; or the made-up language, where it was chosen here. */
export async function chooseLanguage(): Promise<void> {
  const numberLocale = navigator.language;
  if (localStorage.getItem(LANGUAGE_KEY) !== 'marked') return speak({ numberLocale });
  const { markedText } = await import('#words/marked.ts');
  speak({ numberLocale, textOf: ({ icu }) => markedText(icu) });
}
