import { message } from '../message.ts';

/** Players of test tunes and sync slates. */
export const players = {
  syncSlateAtFps: message('Sync slate {n1} at {rate} fps', { n1: 'text', rate: 'text' }),
};
