export * from './decibels.ts';
export * from './figure.ts';
export * from './interval.ts';
export * from './scales.ts';
export * from './time.ts';
export * from './timecode.ts';
