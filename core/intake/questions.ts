import type { Text } from '#core/base/said/index.ts';
import { say } from './sayings.ts';
/** What someone has to decide, with what is taken until they do. */
export interface Decision {
  readonly id: string;
  readonly asks: Text;
  readonly options: readonly { readonly id: string; readonly label: Text }[];
  readonly taken: string;
  /** Whether someone has answered. */
  readonly answered: boolean;
}

/** Answers by the question's id. */
export type Answers = ReadonlyMap<string, string>;

/** A question with what is taken: the answer where it is one of the options, else the first that is usual. */
export function decide(
  answers: Answers,
  { id, asks, options, usual }: Pick<Decision, 'id' | 'asks' | 'options'> & { usual?: string },
): Decision {
  const answer = answers.get(id);
  const answered = answer !== undefined && options.some((o) => o.id === answer);
  return { id, asks, options, answered, taken: answered ? answer : (usual ?? options[0]!.id) };
}

export const YES_NO = [
  { id: 'yes', label: say.yes() },
  { id: 'no', label: say.no() },
] as const;
