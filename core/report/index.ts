export { rigToDot } from './dot.ts';
export { CsvError, type LeadsRead, leadsFromCsv, leadsToCsv, type RowReport } from './leads-csv.ts';
export { type Item, shoppingList } from './shopping.ts';
