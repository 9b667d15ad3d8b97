import { useMemo } from 'react';
import { Link } from 'react-router';
import { parseRig, type Rig } from '#core/rig/index.ts';
import type { Session } from '#core/run/index.ts';
import { compareRigs } from '#core/variant/index.ts';
import { formatDate, StateMark } from '#web/parts/index.ts';

const TOLD = 12;

/** What stands otherwise than when it last went well. */
export function SinceGood({ rigId, rig, good }: { rigId: string; rig: Rig; good: Session | null }) {
  const last = useMemo(() => {
    try {
      return good?.rig ? parseRig(good.rig) : null;
    } catch {
      return null;
    }
  }, [good]);
  const differences = useMemo(() => {
    if (!last) return [];
    const { devices, leads, settings } = compareRigs(last, rig);
    return [...devices, ...leads, ...settings];
  }, [last, rig]);
  if (!good)
    return <p className="quiet">No session has gone well yet: the next one that does is what is held against.</p>;
  if (!last) return <p className="quiet">The rig of the last good session was not kept.</p>;
  return (
    <section aria-label="Since it was good">
      <h2>Since it last went well, {formatDate(good.endedAt ?? good.beganAt)}</h2>
      {differences.length === 0 ? (
        <p className="good">
          <StateMark state="good" /> The rig is drawn as it was then.
        </p>
      ) : (
        <>
          <ul>
            {differences.slice(0, TOLD).map((d) => (
              <li key={`${d.where} ${d.id}`}>
                {d.where === 'first' ? 'Then, and no more: ' : d.where === 'second' ? 'New: ' : ''}
                {d.says}
              </li>
            ))}
          </ul>
          {differences.length > TOLD && <p className="quiet">And {differences.length - TOLD} more.</p>}
          <p>
            <Link to={`/rigs/${rigId}/run?way=since`}>The order of only what has changed</Link>
          </p>
        </>
      )}
    </section>
  );
}
