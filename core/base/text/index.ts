export { csvOf } from './csv.ts';
export { icsLine, icsText } from './ics.ts';
export { markdown } from './markdown.ts';
export { plainLine } from './plain.ts';
