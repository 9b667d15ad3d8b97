import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { type Entry, SYMPTOMS, type SymptomId } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener, findSource } from '#core/model/rig/index.ts';
import { ALARM_WORDS, complaintOf, seenBy, useWatchers } from '#web/features/live/watch/index.ts';
import { Choice, StateMark, useKey } from '#web/shared/parts/index.ts';
import { common, troubleshoot as say, textOf } from '#words/index.ts';

const WORKS = 'works';
const all = () => SYMPTOMS.map((s) => [s.id, textOf(s.says)] as const);

/** What is wrong, where: the first complaint; then more of them, and what still works. */
export function Complain({ rig, first, onEntry }: { rig: Rig; first: boolean; onEntry: (entry: Entry) => void }) {
  const [listenerId, setListenerId] = useState(rig.listeners[0]!.id);
  const [sourceId, setSourceId] = useState(rig.sources[0]!.id);
  const [what, setWhat] = useState<string>('no-sound');
  const seen = seenBy(useWatchers()).filter((s) => rig.listeners.some((l) => l.id === s.watcher.listenerId));
  const listener = findListener(rig, listenerId) ?? rig.listeners[0]!;
  const source = findSource(rig, sourceId) ?? rig.sources[0]!;
  const ofAll = SYMPTOMS.find((s) => s.id === what)?.of === 'all';
  const tell = () =>
    onEntry(
      what === WORKS
        ? { kind: 'works', listenerId: listener.id, sourceId: source.id }
        : {
            kind: 'complaint',
            complaint: {
              symptomId: what as SymptomId,
              listenerId: listener.id,
              sourceId: ofAll ? null : source.id,
            },
          },
    );
  useKey('d', say.worksStep(), tell);
  return (
    <section className="trouble-complain" aria-label={say.whatsWrong()}>
      <div className="row">
        <span>{first ? say.at() : say.andAt()}</span>
        <Choice
          label={common.destination()}
          value={listener.id}
          onChange={setListenerId}
          options={rig.listeners.map((l) => [l.id, l.name] as const)}
        />
        {!ofAll && (
          <Choice
            label={common.source()}
            value={source.id}
            onChange={setSourceId}
            options={rig.sources.map((s) => [s.id, s.name] as const)}
          />
        )}
        <Choice
          label={say.symptom()}
          value={what}
          onChange={setWhat}
          options={first ? all() : [...all(), [WORKS, say.worksAsItShould()]]}
        />
        <Button variant={first ? 'solid' : 'outline'} onClick={tell}>
          {first ? say.reportProblem() : say.worksStep()} <kbd>d</kbd>
        </Button>
      </div>
      {first &&
        seen.flatMap((s) => {
          const complaint = complaintOf(s, source.id);
          return complaint ? (
            <p key={`${s.watcher.id} ${s.id}`} className="row">
              <StateMark state="fix" />{' '}
              {say.watchSaw({
                name: findListener(rig, s.watcher.listenerId)?.name ?? '',
                toLowerCase: ALARM_WORDS[s.id].toLowerCase(),
                says: s.says,
              })}
              <Button onClick={() => onEntry({ kind: 'complaint', complaint })}>{say.yesThatsIt()}</Button>
            </p>
          ) : (
            []
          );
        })}
      {first && <p className="quiet">{say.pickOneThingYou()}</p>}
    </section>
  );
}
