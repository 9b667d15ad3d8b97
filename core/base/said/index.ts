export {
  keyOf,
  listOf,
  quoted,
  type Said,
  SaidError,
  type SaidValue,
  type Sayers,
  type Saying,
  sayersOf,
  speakWith,
  type Text,
  textOf,
} from './said.ts';
