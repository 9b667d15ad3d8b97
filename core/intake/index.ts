export { type Choice, changeOf, type Made, sayMade } from './builder.ts';
export {
  OCCASIONS,
  type Occasion,
  type OccasionAnswers,
  rigFor,
  takenOf,
  wordsFor,
} from './occasions.ts';
export type { Decision } from './questions.ts';
export { type DeskOptions, type DeskRead, readDesk } from './read-desk.ts';
