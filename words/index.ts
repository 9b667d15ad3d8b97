export { common } from './en/common.ts';
export { frame } from './en/frame.ts';
export { plan } from './en/plan.ts';
export { rigs } from './en/rigs.ts';
export {
  type Language,
  type Message,
  message,
  type Params,
  type Spec,
  sayWith,
  speak,
  TAGS,
  type Tag,
} from './message.ts';
