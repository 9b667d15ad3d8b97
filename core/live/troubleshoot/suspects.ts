import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { type Effects, effectsOf } from './effects.ts';
import { answerOf, type Fault, faultsOf } from './faults/index.ts';
import { keys, type Raw, type Readings, readingsOf, readRaw, usualAnswer } from './readings.ts';

/** A fault with all that it would change: only what differs from the rig as drawn is kept. */
export interface Suspect {
  readonly fault: Fault;
  readonly changes: Readings;
}

/** A rig with everything that may be wrong with it, each run in the model. Plain data: it crosses to a worker and back. */
export interface Lineup {
  /** Observations of the rig as drawn. */
  readonly drawn: Readings;
  readonly suspects: readonly Suspect[];
  /** Faults that change nothing that anyone could hear or see here. */
  readonly unheard: number;
}

/**
 * Runs every fault of a rig through the model. `onDone` gets the fraction done, 0 to 1. Takes about 10 ms a
 * fault: for a worker.
 */
export function lineUp(rig: Rig, onDone: (share: number) => void = () => undefined): Lineup {
  const drawn = evaluate(rig);
  const effects = effectsOf(rig, drawn);
  const rawDrawn = readRaw(rig, drawn, { deadBoxes: new Set(), effects, marks: [] });
  const readings = readingsOf(rawDrawn, rawDrawn);
  const faults = faultsOf(rig, drawn);
  let unheard = 0;
  const suspects = faults.flatMap((fault, i): Suspect[] => {
    const raw = runFault(rig, drawn, effects, fault);
    onDone((i + 1) / faults.length);
    const changes = raw && changesOf(readingsOf(raw, rawDrawn), readings);
    if (!changes || !heardBySomebody(changes)) {
      unheard++;
      return [];
    }
    for (const look of fault.looks) changes.set(keys.look(look.id), [answerOf(fault)]);
    return [{ fault, changes }];
  });
  return { drawn: readings, suspects, unheard };
}

/** The rig as it sounds with one fault; null where the fault cannot be. */
function runFault(rig: Rig, drawn: Evaluation, effects: Effects, fault: Fault): Raw | null {
  const disturbed = { deadBoxes: new Set(fault.dead), marks: fault.marks };
  if (!fault.edit) return readRaw(rig, drawn, { ...disturbed, effects });
  const done = applyEdit(rig, fault.edit);
  if (!done.ok) return null;
  const evaluation = evaluate(done.rig);
  return readRaw(done.rig, evaluation, { ...disturbed, effects: effectsOf(done.rig, evaluation) });
}

function changesOf(now: Readings, drawn: Readings): Map<string, readonly string[]> {
  const changes = new Map<string, readonly string[]>();
  for (const key of new Set([...now.keys(), ...drawn.keys()])) {
    const [a, b] = [now.get(key) ?? [usualAnswer(key)], drawn.get(key) ?? [usualAnswer(key)]];
    if (a.length !== b.length || a.some((word, i) => word !== b[i])) changes.set(key, a);
  }
  return changes;
}

const AT_LISTENERS = new Set(['hear', 'time', 'twice', 'picture', 'flag']);
const heardBySomebody = (changes: Readings): boolean =>
  [...changes.keys()].some((key) => AT_LISTENERS.has(key.slice(0, key.indexOf('|'))));
