export { type Answer, answer, type Blind, type BlindResult, beginBlind, blindResult } from './blind.ts';
export { chanceOf, neededOf, powerOf, roundsFor } from './chance.ts';
