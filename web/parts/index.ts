export { Choice } from './Choice.tsx';
export { FigureRow, Why } from './FigureRow.tsx';
export { Frame, type NavEntry } from './Frame.tsx';
export * from './format.ts';
export { type KeyHint, KeysProvider, useKey, useKeyHint, useKeyHints } from './keys.tsx';
export { hueOf, SourceLetter } from './SourceLetter.tsx';
export { StateMark } from './StateMark.tsx';
export { Term } from './Term.tsx';
export { type Count, count } from './words.ts';
