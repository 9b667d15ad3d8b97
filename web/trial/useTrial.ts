import { useMemo, useState } from 'react';
import { alreadySo, changesOf, type Rig, type SettingChange, type Trial, toDoAtDesk, tryOn } from '#core/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { count, useKey } from '#web/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/store/index.ts';

export interface Trying {
  readonly trial: Trial;
  readonly changes: readonly SettingChange[];
  /** The rig with what is tried, and what is heard then. */
  readonly tried: Rig;
  readonly shown: Evaluation;
  readonly put: (key: string, value: number) => void;
  readonly propose: (changes: readonly SettingChange[]) => void;
  readonly carryOut: (verb: 'to-do' | 'so') => void;
  readonly drop: () => void;
}

/**
 * Settings that are tried before they are decided: what is heard follows at once, and nothing is kept until one says
 * that it is to be done, or is so already. Takes the keys d, s and Escape.
 * @param noun  what the settings are called where they are counted: 'delay setting'
 */
export function useTrial(rig: Rig, evaluation: Evaluation, noun: string): Trying {
  const dispatch = useAppDispatch();
  const [trial, setTrial] = useState<Trial>({});
  const tried = useMemo(() => tryOn(rig, trial), [rig, trial]);
  const shown = useMemo(() => (tried === rig ? evaluation : evaluate(tried)), [tried, rig, evaluation]);
  const changes = changesOf(rig, trial);
  const drop = () => setTrial({});
  const carryOut = (verb: 'to-do' | 'so') => {
    if (changes.length === 0) return;
    const edit = verb === 'so' ? alreadySo(rig, changes) : toDoAtDesk(rig, changes, new Date().toISOString());
    const says = `${count(changes.length, noun)} ${verb === 'so' ? 'as they are' : 'to do at the desk'}`;
    if (dispatch(applyHere(edit, says))) drop();
  };
  useKey('d', 'To do at the desk, what is proposed', () => carryOut('to-do'));
  useKey('s', 'It is so already, what is proposed', () => carryOut('so'));
  useKey('escape', 'Drop what is proposed', drop, changes.length > 0);
  return {
    trial,
    changes,
    tried,
    shown,
    put: (key, value) => setTrial((all) => ({ ...all, [key]: value })),
    propose: (found) =>
      setTrial(Object.fromEntries(found.map((c) => [`${c.deviceId}.${c.settingId}`, Number(c.value)]))),
    carryOut,
    drop,
  };
}
