import '@fontsource-variable/sofia-sans';
import './app/tokens.css';
import './app/sheet.css';
import { chooseLanguage } from './shared/parts/language.ts';

// Tables of words are made when their module is loaded: the language is chosen before any of them is.
chooseLanguage();
await import('./start.tsx');
