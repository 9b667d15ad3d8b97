import { speakIn } from '#words/index.ts';

/** Set in a browser to view pages in the marked language: text without marks does not come from words/. */
const LANGUAGE_KEY = 'mellow-language';

// English, in the number format of this browser; or the made-up language, where it was chosen here.
speakIn({
  language: localStorage.getItem(LANGUAGE_KEY) === 'marked' ? 'marked' : 'en',
  numberLocale: navigator.language,
});
