export { rigToDot } from './dot.ts';
export { guestSheet } from './guest-sheet.ts';
export { CsvError, type LeadsRead, leadsFromCsv, leadsToCsv, type RowReport } from './leads-csv.ts';
export { labelSheets, mapSheet, numberedLeads, wiringSheets } from './sheets.ts';
export { type Item, shoppingList } from './shopping.ts';
export { PAPERS, type Paper } from './svg.ts';
