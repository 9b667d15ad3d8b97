import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { markersIn } from '#core/live/run/index.ts';
import { EdlError, type SlipList, slipListToCsv, slipListToEdl, slipListToOtio } from '#core/output/exchange/index.ts';
import { Choice, formatDate, NumberInput, saveAs } from '#web/shared/parts/index.ts';
import { selectSessions, useAppSelector } from '#web/shared/store/index.ts';
import { take as say } from '#words/index.ts';

/** A slip list for an editing app: exact as a table and as a timeline, in whole frames as an EDL. */
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
      saveAs(say.slipListFile({ ending }), write(withMarkers), type);
    } catch (error) {
      if (!(error instanceof EdlError)) throw error;
      setFailed(error.message);
    }
  };
  return (
    <>
      <Button onClick={() => save('csv', 'text/csv', slipListToCsv)}>{say.tableCsv()}</Button>
      <Button onClick={() => save('otio', 'application/json', slipListToOtio)}>{say.timelineOtio()}</Button>
      <Button onClick={() => save('edl', 'text/plain', slipListToEdl)}>{say.edl()}</Button>
      {marked.length > 0 && (
        <Choice
          label={say.sessionMarkers()}
          value={sessionId}
          onChange={setSessionId}
          options={[
            ['', say.withoutMarkers()],
            ...marked.map(
              (s) => [s.id, say.markers({ session: s.name || say.session(), beganAt: formatDate(s.beganAt) })] as const,
            ),
          ]}
        />
      )}
      {session && (
        <span>
          {say.recordedFrom()}{' '}
          <NumberInput
            label={say.startFirstRecordingAfter()}
            value={beganS}
            min={-86_400}
            max={86_400}
            onValue={(v) => setBeganS(v ?? 0)}
          />{' '}
          {say.sAfterItsStart()}
        </span>
      )}
      {failed && <span className="fix">{failed}</span>}
    </>
  );
}
