import type { Decision, DeskRead } from '#core/intake/index.ts';
import type { DeviceType } from '#core/model/rig/index.ts';
import { ownKey } from '#core/routing/grammar/index.ts';
import type { TypedBox } from '#core/routing/wiring/index.ts';
import { firstDesk as say, textOf } from '#words/index.ts';

/** A choice of a step, by its key: the first is taken unless someone says otherwise. */
interface Option {
  readonly id: string;
  readonly label: string;
}
/** Something to be settled before a desk is made, or left as it is taken. */
export interface Step {
  readonly id: string;
  readonly kind: 'unknown' | 'doubtful' | 'decision';
  readonly asks: string;
  /** Words that it is about, as typed. */
  readonly words: string;
  readonly options: readonly Option[];
  readonly taken: string | null;
  readonly answered: boolean;
}

/** Number of answers that have a key. */
export const MAX_KEYS = 9;
export const OTHER = 'something-else';
const MAX_CHOICES = 4;

const optionsOf = (types: readonly DeviceType[]): Option[] => [
  ...types.slice(0, MAX_CHOICES).map((t) => ({ id: t.id, label: t.name })),
  { id: OTHER, label: say.somethingElse() },
];

function stepOf(box: TypedBox, id: string): Step | null {
  const { word, type, others, left } = box;
  const base = { id, words: word, answered: false };
  if (!type)
    return { ...base, kind: 'unknown', asks: say.whatIsItOf({ word }), options: optionsOf(others), taken: null };
  if (others.length === 0 && left.length === 0) return null;
  const asks = left.length > 0 ? say.isntInItsName({ word, join: left.join(' ') }) : say.whichIsIt({ word });
  return { ...base, kind: 'doubtful', asks, options: optionsOf([type, ...others]), taken: type.id };
}

/** What is not known, what is doubtful, and what only a person can decide; in this order. */
export function stepsOf({ typed, decisions }: DeskRead): Step[] {
  const seen = new Set<string>();
  const boxes = typed.boxes.flatMap((box) => {
    const id = `word:${ownKey(box.word)}`;
    if (box.known || seen.has(id)) return [];
    seen.add(id);
    return stepOf(box, id) ?? [];
  });
  const rank = (s: Step) => (s.kind === 'unknown' ? 0 : 1);
  return [...boxes.sort((a, b) => rank(a) - rank(b)), ...decisions.map(decisionStep)];
}

const decisionStep = ({ id, asks, options, taken, answered }: Decision): Step => ({
  id,
  kind: 'decision',
  asks: textOf(asks),
  words: '',
  options: options.map((o) => ({ id: o.id, label: textOf(o.label) })),
  taken,
  answered,
});
