import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { formatBytes, formatDate, StateMark } from '#web/parts/index.ts';
import { removeEntry, selectUnreadable, useAppDispatch, useAppSelector } from '#web/store/index.ts';

/** Entries of the journal that can't be read: they spoil nothing else, and you can remove them. Nothing where there are none. */
export function Unreadable() {
  const dispatch = useAppDispatch();
  const entries = useAppSelector(selectUnreadable);
  const [failed, setFailed] = useState<string | null>(null);
  if (entries.length === 0) return null;
  const remove = async (seq: number) => {
    try {
      await dispatch(removeEntry(seq));
      setFailed(null);
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <section aria-label="Entries that can’t be read">
      <h2>Entries that can’t be read</h2>
      <p className="quiet">They are damaged, or from a newer Mellow Tap. Everything else in the log is complete.</p>
      {failed && (
        <p className="fix" role="alert">
          {failed}
        </p>
      )}
      <ul className="plain">
        {entries.map(({ seq, at, bytes }) => (
          <li key={seq} className="row">
            <StateMark state="watch" /> {Number.isNaN(Date.parse(at)) ? 'No date' : formatDate(at)},{' '}
            {formatBytes(bytes)}
            <Button onClick={() => void remove(seq)}>Remove</Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
