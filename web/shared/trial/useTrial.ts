import { useMemo, useState } from 'react';
import {
  addTasks,
  changesOf,
  markDone,
  type Rig,
  type SettingChange,
  settingKey,
  type Trial,
  tryOn,
  type Verb,
} from '#core/model/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { useKey } from '#web/shared/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/shared/store/index.ts';
import { common } from '#words/index.ts';

export interface Trying {
  readonly trial: Trial;
  readonly changes: readonly SettingChange[];
  /** The rig with what is tried, and what is heard then. */
  readonly tried: Rig;
  readonly shown: Evaluation;
  readonly put: (key: string, value: number) => void;
  readonly propose: (changes: readonly SettingChange[]) => void;
  readonly carryOut: (verb: Verb) => void;
  readonly drop: () => void;
}

/**
 * Settings that are tried before they are decided: what is heard follows at once, and nothing is kept until one says
 * already done, or a to-do. Handles the key Escape.
 */
export function useTrial(rig: Rig, evaluation: Evaluation): Trying {
  const dispatch = useAppDispatch();
  const [trial, setTrial] = useState<Trial>({});
  const tried = useMemo(() => tryOn(rig, trial), [rig, trial]);
  const shown = useMemo(() => (tried === rig ? evaluation : evaluate(tried)), [tried, rig, evaluation]);
  const changes = changesOf(rig, trial);
  const drop = () => setTrial({});
  const carryOut = (verb: Verb) => {
    if (changes.length === 0) return;
    const edit = verb === 'done' ? markDone(rig, changes) : addTasks(rig, changes, new Date().toISOString());
    const what = common.settings({ count: changes.length });
    const says = verb === 'done' ? common.alreadyDoneStep({ what }) : common.addToDoStep({ what });
    if (dispatch(applyHere(edit, says))) drop();
  };
  useKey('escape', common.discardSuggestion(), drop, changes.length > 0);
  return {
    trial,
    changes,
    tried,
    shown,
    put: (key, value) => setTrial((all) => ({ ...all, [key]: value })),
    propose: (found) =>
      setTrial(Object.fromEntries(found.map((c) => [settingKey(c.deviceId, c.settingId), Number(c.value)]))),
    carryOut,
    drop,
  };
}
