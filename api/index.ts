export * from './wire.ts';
