export {
  type Kind,
  listOf,
  type ParamsOf,
  type Said,
  type SaidValue,
  type Sayer,
  type Sayers,
  type Saying,
  sayersOf,
  speakWith,
  type Text,
  textOf,
} from './said.ts';
