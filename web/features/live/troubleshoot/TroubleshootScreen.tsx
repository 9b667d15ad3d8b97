import { Button } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { faultsBefore } from '#core/live/run/index.ts';
import {
  type Entry,
  inquire,
  type Lineup,
  likelyComplaints,
  lookBook,
  nextOf,
  sayComplaint,
  toldOf,
} from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener, findSource } from '#core/model/rig/index.ts';
import { useLineup } from '#web/shared/faults/index.ts';
import { WorkLine } from '#web/shared/jobs/index.ts';
import { LineButton, off, Page, rich, StateMark, sentence, Term, useKey } from '#web/shared/parts/index.ts';
import { recordEvent, selectRig, selectSessions, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, frame, troubleshoot as say, textOf } from '#words/index.ts';
import { Complain } from './Complain.tsx';
import { keepEntries, readEntries } from './entries.ts';
import { Found } from './Found.tsx';
import { NextLook } from './NextLook.tsx';
import { Suspects } from './Suspects.tsx';

/** Something is wrong: what it can be on this rig, and where to look first. */
export function TroubleshootScreen() {
  const rig = useAppSelector(selectRig);
  const { rigId } = useParams();
  return rig && rigId ? <Trouble key={rigId} rigId={rigId} rig={rig} /> : null;
}

function Trouble({ rigId, rig }: { rigId: string; rig: Rig }) {
  const { result: lineup, work } = useLineup(rig);
  const [entries, setEntries] = useState<readonly Entry[]>(() => readEntries(rigId));
  const put = (next: readonly Entry[]) => {
    setEntries(next);
    keepEntries(rigId, next);
  };
  const isThere = (e: Entry) =>
    !('listenerId' in e || 'complaint' in e) ||
    rig.listeners.some((l) => l.id === ('complaint' in e ? e.complaint.listenerId : e.listenerId));
  const live = entries.filter(isThere);
  useKey('backspace', say.undoLastAnswer(), () => put(entries.slice(0, -1)), entries.length > 0);
  return (
    <Page
      title={<Term id="trouble">{frame.troubleshoot()}</Term>}
      actions={
        <Button {...off(entries.length === 0 ? say.nothingEntered() : null)} onClick={() => put([])}>
          {say.startOver()}
        </Button>
      }
    >
      {rig.listeners.length === 0 || rig.sources.length === 0 ? (
        <p className="quiet">{rich(say.addSourcesAndDestinations, {}, `/rigs/${rigId}/plan`)}</p>
      ) : (
        <>
          <Complain rig={rig} first={live.length === 0} onEntry={(e) => put([...entries, e])} />
          <WorkLine task={work.task} onStop={work.stop} onAgain={work.again} />
          {lineup && live.length === 0 && <LikelyHere rig={rig} lineup={lineup} onEntry={(e) => put([e])} />}
          {lineup && live.length > 0 && (
            <Search rigId={rigId} rig={rig} lineup={lineup} entries={live} onEntries={put} />
          )}
        </>
      )}
    </Page>
  );
}

/** What this rig is most likely to give cause for: one press, and the search begins. */
function LikelyHere({ rig, lineup, onEntry }: { rig: Rig; lineup: Lineup; onEntry: (entry: Entry) => void }) {
  const likely = useMemo(() => likelyComplaints(rig, lineup), [rig, lineup]);
  if (likely.length === 0) return null;
  return (
    <section aria-label={say.mostCommonProblemsOn()}>
      <h2>{say.mostCommonProblemsOn()}</h2>
      <ul className="plain-list">
        {likely.map(({ complaint, share }) => (
          <li key={`${complaint.symptomId} ${complaint.sourceId}`} className="row">
            <Button onClick={() => onEntry({ kind: 'complaint', complaint })}>
              {textOf(sayComplaint(rig, complaint))}
            </Button>
            <span className="quiet fact">{say.whatCanGoWrong({ share: Math.round(100 * share) })}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface SearchProps {
  readonly rigId: string;
  readonly rig: Rig;
  readonly lineup: Lineup;
  readonly entries: readonly Entry[];
  readonly onEntries: (entries: readonly Entry[]) => void;
}

function Search({ rigId, rig, lineup, entries, onEntries }: SearchProps) {
  const dispatch = useAppDispatch();
  const sessions = useAppSelector(selectSessions);
  const before = useMemo(() => faultsBefore(sessions), [sessions]);
  const known = useMemo(() => usable(lineup, entries), [lineup, entries]);
  const inquiry = useMemo(() => inquire(rig, lineup, known, before), [rig, lineup, known, before]);
  const [chosen, setChosen] = useState<string | null>(null);
  const book = useMemo(() => lookBook(rig, lineup), [rig, lineup]);
  const other = inquiry.others.find((o) => o.key === chosen);
  const told = known.flatMap((e) => toldOf(rig, lineup, e));
  const next = other ? nextOf(lineup, book, other, told, before) : inquiry.next;
  const add = (entry: Entry) => {
    setChosen(null);
    onEntries([...entries, entry]);
  };
  const looks = known.filter((e) => e.kind === 'look').length;
  const first = entries.find((e) => e.kind === 'complaint');
  const close = (faultId: string | null, was: string) => {
    dispatch(
      recordEvent({
        kind: 'trouble',
        complaint: textOf(first?.kind === 'complaint' ? sayComplaint(rig, first.complaint) : ''),
        faultId,
        was: was.slice(0, 400),
        looks,
      }),
    );
    onEntries([]);
  };
  return (
    <div className="trouble">
      <div>
        <Told rig={rig} book={book} entries={entries} onEntries={onEntries} />
        {inquiry.culprit && (
          <Found
            rigId={rigId}
            rig={rig}
            culprit={inquiry.culprit}
            entries={known}
            looks={looks}
            onWas={close}
            onNot={add}
          />
        )}
        {next && (
          <NextLook
            key={next.look.key}
            next={next}
            after={inquiry.culprit !== null}
            onAnswer={(answer) => add({ kind: 'look', key: next.look.key, answer })}
            onSkip={() => add({ kind: 'skipped', key: next.look.key })}
          />
        )}
        {!next && !inquiry.culprit && (
          <p className="run-step">
            <StateMark state="watch" /> {rich(say.nothingLeftToCheck, {}, `/rigs/${rigId}/bench`)}
          </p>
        )}
        {inquiry.others.length > 0 && (
          <section aria-label={say.otherChecks()}>
            <h2>{say.orCheckSomethingElse()}</h2>
            <ul className="plain-list">
              {inquiry.others.map((o) => (
                <li key={o.key}>
                  <LineButton onClick={() => setChosen(o.key)}>
                    {textOf(book.say(o.key).asks)}{' '}
                    <span className="quiet fact">{say.aboutS({ seconds: Math.round(o.seconds) })}</span>
                  </LineButton>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      <Suspects inquiry={inquiry} before={before} unheard={lineup.unheard} />
    </div>
  );
}

/** Looks at what is no longer there, since the rig was changed, are left out. */
const usable = ({ suspects, drawn }: Lineup, entries: readonly Entry[]): readonly Entry[] =>
  entries.filter(
    (e) =>
      (e.kind !== 'look' && e.kind !== 'skipped') || drawn.has(e.key) || suspects.some((s) => s.changes.has(e.key)),
  );

interface ToldProps {
  readonly rig: Rig;
  readonly book: ReturnType<typeof lookBook>;
  readonly entries: readonly Entry[];
  readonly onEntries: (entries: readonly Entry[]) => void;
}

/** Reports and answers so far; each can be undone. */
function Told({ rig, book, entries, onEntries }: ToldProps) {
  const told = (e: Entry): string => {
    switch (e.kind) {
      case 'complaint':
        return textOf(sayComplaint(rig, e.complaint));
      case 'works':
        return say.atWorksAsIt({
          name: findListener(rig, e.listenerId)?.name ?? '',
          name2: findSource(rig, e.sourceId)?.name ?? '',
        });
      case 'look':
        return `${textOf(book.say(e.key).asks)} ${sentence(textOf(book.sayAnswer(e.key, e.answer)))}.`;
      case 'skipped':
        return say.dontKnowOf({ asks: textOf(book.say(e.key).asks) });
    }
  };
  return (
    <ul className="plain-list trouble-told" aria-label={say.yourAnswers()}>
      {entries.map((e, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the same report may occur twice
        <li key={i}>
          <span className={e.kind === 'complaint' ? 'strong' : 'quiet'}>{told(e)}</span>
          <Button
            variant="plain"
            size="xs"
            aria-label={say.undo({ e: told(e) })}
            onClick={() => onEntries(entries.filter((o) => o !== e))}
          >
            {common.undo()}
          </Button>
        </li>
      ))}
    </ul>
  );
}
