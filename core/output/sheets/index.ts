export { type ClapRow, clapSheet } from './clap-sheet.ts';
export { guestSheet } from './guest-sheet.ts';
export { nextSheets } from './next-sheet.ts';
export { PAPERS, type Paper } from './page.ts';
export { labelSheets, mapSheet, wiringSheets } from './rig-sheets.ts';
export { runSheet, runToIcs, runToMarkdown } from './run-sheet.ts';
export { settingsSheets } from './settings-sheet.ts';
export { type TapRow, tapSheet } from './tap-sheet.ts';
