export { type Choice, changeOf, type Made, sayMade } from './builder.ts';
export {
  OCCASIONS,
  type Occasion,
  type OccasionAnswers,
  type OccasionAsk,
  rigFor,
  takenOf,
  wordsFor,
} from './occasions.ts';
export type { Answers, Decision } from './questions.ts';
export { type DeskOptions, type DeskRead, readDesk } from './read-desk.ts';
