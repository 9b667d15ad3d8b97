import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { formatBytes, formatDate, StateMark } from '#web/shared/parts/index.ts';
import { removeEntry, selectUnreadable, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, log as say } from '#words/index.ts';

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
    <section aria-label={say.entriesThatCantBe()}>
      <h2>{say.entriesThatCantBe()}</h2>
      <p className="quiet">{say.theyAreDamagedOr()}</p>
      {failed && (
        <p className="fix" role="alert">
          {failed}
        </p>
      )}
      <ul className="plain">
        {entries.map(({ seq, at, bytes }) => (
          <li key={seq} className="row">
            <StateMark state="watch" /> {Number.isNaN(Date.parse(at)) ? say.noDate() : formatDate(at)},{' '}
            {formatBytes(bytes)}
            <Button onClick={() => void remove(seq)}>{common.remove()}</Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
