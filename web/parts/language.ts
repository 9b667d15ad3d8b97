import { speakIn } from '#words/index.ts';

/** Kept in a browser by whoever looks at pages in the made-up language: text without marks does not come from words/. */
const LANGUAGE_KEY = 'mellow-language';

/** English, in the number format of this browser; or the made-up language, where it was chosen here. */
export const chooseLanguage = (): void =>
  speakIn({
    language: localStorage.getItem(LANGUAGE_KEY) === 'marked' ? 'marked' : 'en',
    numberLocale: navigator.language,
  });
