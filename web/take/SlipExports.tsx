import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { EdlError, type SlipList, slipListToCsv, slipListToEdl, slipListToOtio } from '#core/report/index.ts';
import { markersIn } from '#core/run/index.ts';
import { Choice, formatDate, NumberInput, saveAs } from '#web/parts/index.ts';
import { selectSessions, useAppSelector } from '#web/store/index.ts';

/** A slip list to take along into an edit: exact as a table and as a timeline, by whole frames as an EDL. */
export function SlipExports({ list }: { list: SlipList }) {
  const [failed, setFailed] = useState<string | null>(null);
  const [sessionId, setSessionId] = useState('');
  const [beganS, setBeganS] = useState(0);
  const marked = useAppSelector(selectSessions).filter((s) => s.markers.length > 0);
  const session = marked.find((s) => s.id === sessionId);
  const withMarkers: SlipList = session
    ? { ...list, markers: markersIn(session, new Date(Date.parse(session.beganAt) + 1000 * beganS).toISOString()) }
    : list;
  const save = (ending: string, type: string, write: (list: SlipList) => string) => {
    try {
      setFailed(null);
      saveAs(`slip list.${ending}`, write(withMarkers), type);
    } catch (error) {
      if (!(error instanceof EdlError)) throw error;
      setFailed(error.message);
    }
  };
  return (
    <>
      <Button onClick={() => save('csv', 'text/csv', slipListToCsv)}>Table, CSV</Button>
      <Button onClick={() => save('otio', 'application/json', slipListToOtio)}>Timeline, OTIO</Button>
      <Button onClick={() => save('edl', 'text/plain', slipListToEdl)}>EDL</Button>
      {marked.length > 0 && (
        <Choice
          label="Markers of the day"
          value={sessionId}
          onChange={setSessionId}
          options={[
            ['', 'without markers'],
            ...marked.map((s) => [s.id, `markers of ${s.name || 'the session'}, ${formatDate(s.beganAt)}`] as const),
          ]}
        />
      )}
      {session && (
        <span>
          recorded from{' '}
          <NumberInput
            label="The first recording began so many seconds after the session"
            value={beganS}
            min={-86_400}
            max={86_400}
            onValue={(v) => setBeganS(v ?? 0)}
          />{' '}
          s after its beginning
        </span>
      )}
      {failed && <span className="fix">{failed}</span>}
    </>
  );
}
