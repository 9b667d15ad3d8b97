import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { Space } from '#api/index.ts';
import { formatBytes } from '#web/shared/parts/index.ts';
import { frame } from '#words/index.ts';

/** A disk with less than this is what keeps a save from being made. */
const LITTLE_BYTES = 200_000_000;
const SHOWN = 3;

/** Where the disk is full: what takes most of it, and where to delete that. Nothing where there is room. */
export function RoomMaker() {
  const [space, setSpace] = useState<Space | null>(null);
  useEffect(() => {
    let gone = false;
    fetch('/api/space')
      .then(async (response) => Space.parse(await response.json()))
      .then(
        (found) => !gone && setSpace(found),
        () => undefined,
      );
    return () => {
      gone = true;
    };
  }, []);
  if (!space || space.freeBytes > LITTLE_BYTES) return null;
  const largest = space.largest
    .slice(0, SHOWN)
    .map((t) => `${t.name}, ${formatBytes(t.bytes)}`)
    .join('; ');
  return (
    <span>
      {frame.space({
        free: formatBytes(space.freeBytes),
        takes: formatBytes(space.takesBytes),
        largest: largest && ` (${largest})`,
        copies: formatBytes(space.copiesBytes),
        database: formatBytes(space.databaseBytes),
      })}{' '}
      <Link to="/bench">{frame.deleteTakes()}</Link>.
    </span>
  );
}
