import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { Space } from '#api/index.ts';
import { formatBytes } from '#web/parts/index.ts';

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
  return (
    <span>
      {formatBytes(space.freeBytes)} free. Most is taken by takes, {formatBytes(space.takesBytes)}
      {space.largest.length > 0 &&
        ` (${space.largest
          .slice(0, SHOWN)
          .map((t) => `${t.name}, ${formatBytes(t.bytes)}`)
          .join('; ')})`}
      , copies, {formatBytes(space.copiesBytes)}, and the database, {formatBytes(space.databaseBytes)}.{' '}
      <Link to="/bench">Delete takes on the bench</Link>.
    </span>
  );
}
