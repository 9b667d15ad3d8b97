export { rigToDot } from './dot.ts';
export { EdlError, slipListToEdl } from './edl.ts';
export { guestSheet } from './guest-sheet.ts';
export { CsvError, type LeadsRead, leadsFromCsv, leadsToCsv, type RowReport } from './leads-csv.ts';
export { slipListToOtio } from './otio.ts';
export { labelSheets, mapSheet, numberedLeads, wiringSheets } from './sheets.ts';
export { type Item, shoppingList } from './shopping.ts';
export { type SlipItem, type SlipList, slipListToCsv } from './slip-list.ts';
export { PAPERS, type Paper } from './svg.ts';
