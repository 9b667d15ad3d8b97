import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { EdlError, type SlipList, slipListToCsv, slipListToEdl, slipListToOtio } from '#core/report/index.ts';
import { saveAs } from '#web/parts/index.ts';

/** A slip list to take along into an edit: exact as a table and as a timeline, by whole frames as an EDL. */
export function SlipExports({ list }: { list: SlipList }) {
  const [failed, setFailed] = useState<string | null>(null);
  const save = (ending: string, type: string, write: (list: SlipList) => string) => {
    try {
      setFailed(null);
      saveAs(`slip list.${ending}`, write(list), type);
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
      {failed && <span className="fix">{failed}</span>}
    </>
  );
}
