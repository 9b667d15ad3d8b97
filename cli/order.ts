import { CAUTIONS, type Occasion, orderDown, orderUp, type Step } from '#core/live/run/index.ts';
import { cli as say, textOf } from '#words/index.ts';
import type { Command } from './command.ts';
import { UsageError } from './edges.ts';
import { readRig } from './rig-file.ts';

const WAYS = ['first', 'standing', 'down'];

/** What to plug and switch on in which order, with reasons; for a first time, for a desk that stands, since another rig, or down. */
export const order: Command = async ([path], { values }) => {
  const { for: way = 'first', since } = values;
  if (!WAYS.includes(way)) throw new UsageError(say.isOne({ option: '--for', names: WAYS.join(', ') }));
  const rig = await readRig(path!);
  const occasion: Occasion =
    since !== undefined
      ? { kind: 'since', last: await readRig(since) }
      : way === 'standing'
        ? { kind: 'standing' }
        : { kind: 'first' };
  const steps = way === 'down' ? orderDown(rig) : orderUp(rig, occasion);
  return { json: { rig: rig.name, steps: steps.map(spoken) }, text: steps.map(sayStep).join('\n') };
};

function sayStep({ says, why, cautions }: Step, i: number): string {
  return [`${i + 1}. ${textOf(says)}`, `   ${textOf(why)}`, ...cautions.map((c) => `   ! ${textOf(CAUTIONS[c])}`)].join(
    '\n',
  );
}

/** A step with its sentences, and with the code that they come from. */
const spoken = (step: Step) => ({
  ...step,
  code: step.says.code,
  params: structuredClone(step.says.params),
  says: textOf(step.says),
  why: textOf(step.why),
});
