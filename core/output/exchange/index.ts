export { rigToDot } from './dot.ts';
export { EdlError, slipListToEdl } from './edl.ts';
export { CsvError, leadsFromCsv, leadsToCsv, type RowReport } from './leads-csv.ts';
export { seriesToCsv, sessionsToCsv } from './log-csv.ts';
export { slipListToOtio } from './otio.ts';
export { type SlipItem, type SlipList, slipListToCsv } from './slip-list.ts';
