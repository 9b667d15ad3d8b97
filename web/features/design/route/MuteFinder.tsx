import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import {
  addTasks,
  findDevice,
  findSetting,
  findTypes,
  markDone,
  type Rig,
  settingKey,
  settingOf,
  type Verb,
} from '#core/model/rig/index.ts';
import { allMutes, type MuteChoice, type MuteSeen, mutesFor } from '#core/routing/suggest/index.ts';
import { deviceName, type Evaluation } from '#core/signal/index.ts';
import { Choice, rich, TwoVerbs } from '#web/shared/parts/index.ts';
import { applyHere, useAppDispatch } from '#web/shared/store/index.ts';
import { route as say } from '#words/index.ts';

export interface PairName {
  readonly sourceId: string;
  readonly listenerId: string;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  /** Pairs that a mute is looked for. */
  readonly marked: readonly PairName[];
  readonly onClear: () => void;
}

/** Every mute and who loses what by it; and the mute that takes exactly what is marked. */
export function MuteFinder({ rig, evaluation, marked, onClear }: Props) {
  const asked = useAllMutes(rig, evaluation);
  const all = asked?.mutes;
  const [chosen, setChosen] = useState('');
  const choices = useMemo(
    () => (asked && marked.length > 0 ? mutesFor(asked.rig, asked.evaluation, asked.mutes, marked) : []),
    [asked, marked],
  );
  if (!asked || !all) return <p className="small quiet">{say.tryingEveryMute()}</p>;
  if (all.length === 0) return null;
  const key = (m: { deviceId: string; settingId: string }) => settingKey(m.deviceId, m.settingId);
  const mute = all.find((m) => key(m) === chosen) ?? all[0]!;
  return (
    <section aria-label={say.mutes()} className="insides">
      <div className="spread">
        <h2>{say.whatEachMuteDoes()}</h2>
        <Choice
          label={say.mute()}
          value={key(mute)}
          options={all.map((m) => [key(m), sayMute(asked.rig, m)])}
          onChange={setChosen}
        />
      </div>
      <ul>
        {bySource(asked.rig, mute.takes).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <h2>{say.muteForExactlyThese()}</h2>
      {marked.length === 0 ? (
        <p className="quiet">{rich(say.markCellsWithE, {})}</p>
      ) : (
        <>
          <p>
            {bySource(rig, marked).join('; ')}. <Button onClick={onClear}>{say.clearMarks()}</Button>
          </p>
          {choices.length === 0 && <p className="fix">{say.noMuteAffectsAny()}</p>}
          {choices.map((choice) => (
            <Found key={choice.mutes.map(key).join()} rig={asked.rig} choice={choice} />
          ))}
        </>
      )}
    </section>
  );
}

interface Tried {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly mutes: readonly MuteSeen[];
}

/** Every mute, pressed once to know it: one after another, so that the page is never held up; null until all are. */
function useAllMutes(rig: Rig, evaluation: Evaluation): Tried | null {
  const [tried, setTried] = useState<Tried | null>(null);
  useEffect(() => {
    let gone = false;
    const mutes: MuteSeen[] = [];
    const each = allMutes(rig, evaluation);
    const next = () => {
      if (gone) return;
      const { value, done } = each.next();
      if (value) mutes.push(value);
      if (done) setTried({ rig, evaluation, mutes });
      else setTimeout(next);
    };
    setTimeout(next);
    return () => {
      gone = true;
    };
  }, [rig, evaluation]);
  return tried;
}

function Found({ rig, choice }: { rig: Rig; choice: MuteChoice }) {
  const dispatch = useAppDispatch();
  const { mutes, more, less } = choice;
  const names = mutes.map((m) => sayMute(rig, m)).join(say.andAlso());
  const press = (verb: Verb) => {
    const types = findTypes(rig);
    const changes = mutes.map(({ deviceId, settingId }) => {
      const spec = findSetting(rig, types, deviceId, settingId)!;
      return { deviceId, settingId, value: !settingOf(findDevice(rig, deviceId)!, spec).value };
    });
    const edit = verb === 'done' ? markDone(rig, changes) : addTasks(rig, changes, new Date().toISOString());
    dispatch(applyHere(edit, say.mutedStep({ names })));
  };
  return (
    <chakra.p className="row" marginTop="6px">
      <span>
        {names}{' '}
        <span className={more.length + less.length === 0 ? 'good' : 'quiet'}>
          {more.length + less.length === 0 && say.silencesExactlyThese()}
          {less.length > 0 && say.leavesOpen({ join: bySource(rig, less).join('; ') })}
          {less.length > 0 && more.length > 0 && '; '}
          {more.length > 0 && say.alsoSilencesMore({ pair: more.length, join: bySource(rig, more).join('; ') })}
        </span>
      </span>
      <TwoVerbs of={names} onVerb={press} />
    </chakra.p>
  );
}

const sayMute = (rig: Rig, { deviceId, settingId }: { deviceId: string; settingId: string }): string =>
  `${deviceName(rig, deviceId)}, ${findSetting(rig, findTypes(rig), deviceId, settingId)?.name ?? settingId}`;

/** 'Wren, voice from Stream, Backup recorder' */
function bySource(rig: Rig, pairs: readonly PairName[]): string[] {
  return rig.sources.flatMap((source) => {
    const from = rig.listeners.filter((l) => pairs.some((p) => p.sourceId === source.id && p.listenerId === l.id));
    return from.length > 0 ? [say.at({ source: source.name, join: from.map((l) => l.name).join(', ') })] : [];
  });
}
