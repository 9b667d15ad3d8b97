import { Button, chakra, Input } from '@chakra-ui/react';
import { useMemo, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { lastGood, type Session, seriesOf } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { seriesToCsv, sessionsToCsv } from '#core/output/exchange/index.ts';
import { settingsSheets } from '#core/output/sheets/index.ts';
import { off, Page, printSheets, rich, saveAs, Term, useKey } from '#web/shared/parts/index.ts';
import {
  archiveUrl,
  recordEvent,
  selectRig,
  selectSessions,
  useAppDispatch,
  useAppSelector,
} from '#web/shared/store/index.ts';
import { common, log as say } from '#words/index.ts';
import { Figures } from './Figures.tsx';
import { SameAsLast } from './SameAsLast.tsx';
import { SessionRow } from './SessionRow.tsx';
import { SinceGood } from './SinceGood.tsx';
import { matches } from './search.ts';
import { Unreadable } from './Unreadable.tsx';

/** The log: sessions with what was done, wrong and mended; figures over time, and which have moved by more than chance. */
export function LogScreen() {
  const rig = useAppSelector(selectRig);
  return rig ? <Log rig={rig} /> : null;
}

function Log({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const { rigId } = useParams();
  const sessions = useAppSelector(selectSessions);
  const series = useMemo(() => seriesOf(sessions), [sessions]);
  const [search, setSearch] = useState('');
  const [note, setNote] = useState('');
  const finder = useRef<HTMLInputElement>(null);
  useKey('f', say.searchLog(), () => finder.current?.focus());
  const found = sessions.filter((s) => matches(s, search));
  return (
    <Page
      title={<Term id="log">{say.log()}</Term>}
      actions={
        <span className="row no-print">
          <Button onClick={() => saveAs(`${rig.name}, log.json`, logJson(rig, sessions), 'application/json')}>
            JSON
          </Button>
          <Button onClick={() => saveAs(`${rig.name}, sessions.csv`, sessionsToCsv(sessions), 'text/csv')}>
            {say.sessionsCsv()}
          </Button>
          <Button onClick={() => saveAs(`${rig.name}, figures.csv`, seriesToCsv(series), 'text/csv')}>
            {say.figuresCsv()}
          </Button>
          <Button onClick={() => window.print()}>{common.print()}</Button>
          <Button onClick={() => printSheets(settingsSheets(rig, 'a4'), 'a4', false)}>{say.settingsSheet()}</Button>
          <Button asChild>
            <a href={archiveUrl(rigId ?? '', false)} download>
              {say.archiveZip()}
            </a>
          </Button>
        </span>
      }
    >
      {sessions.length === 0 ? (
        <p className="quiet">{rich(say.noSessionsYetStart, {}, `/rigs/${rigId}/run`)}</p>
      ) : (
        <SinceGood rigId={rigId ?? ''} rig={rig} good={lastGood(sessions)} />
      )}
      <p className="quiet small no-print">
        {rich(say.archiveHolds, {})}{' '}
        <a href={archiveUrl(rigId ?? '', true)} download>
          {say.includeAllTakesIn()}
        </a>{' '}
        {say.importEverythingOnAnother()}
      </p>
      <Unreadable />
      <SameAsLast rig={rig} sessions={sessions} />
      <Figures series={series} />
      {sessions.length > 0 && (
        <section aria-label={say.sessions()}>
          <div className="spread">
            <h2>{say.sessions()}</h2>
            <Input
              ref={finder}
              aria-label={say.searchLog()}
              placeholder={say.searchF()}
              width="220px"
              value={search}
              onChange={(e) => setSearch(e.target.value)}
            />
          </div>
          <p className="quiet small" role="status">
            {search.trim() === ''
              ? say.inTotal({ sessions: sessions.length })
              : say.match({ found: found.length, sessions: sessions.length })}
          </p>
          <ol className="log-list">
            {found.map((s) => (
              <SessionRow key={s.id} session={s} />
            ))}
          </ol>
        </section>
      )}
      <chakra.form
        className="row no-print"
        marginTop="14px"
        onSubmit={(e) => {
          e.preventDefault();
          dispatch(recordEvent({ kind: 'note', says: note.trim() }));
          setNote('');
        }}
      >
        <Input
          aria-label={say.noteForLog()}
          placeholder={say.noteForLog()}
          width="420px"
          maxLength={400}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button type="submit" {...off(note.trim() === '' ? common.typeNoteFirst() : null)}>
          {say.saveNote()}
        </Button>
      </chakra.form>
    </Page>
  );
}

const logJson = (rig: Rig, sessions: readonly Session[]): string =>
  JSON.stringify({ rig: rig.name, sessions }, null, 2);
