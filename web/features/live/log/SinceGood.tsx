import { useMemo } from 'react';
import { Link } from 'react-router';
import type { Session } from '#core/live/run/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { compareRigs } from '#core/routing/variants/index.ts';
import { formatDate, StateMark } from '#web/shared/parts/index.ts';
import { log as say, textOf } from '#words/index.ts';

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
  if (!good) return <p className="quiet">{say.noGoodSessionYet()}</p>;
  if (!last) return <p className="quiet">{say.rigLastGoodSession()}</p>;
  return (
    <section aria-label={say.sinceLastGoodSession()}>
      <h2>{say.sinceLastGoodSessionWith({ beganAt: formatDate(good.endedAt ?? good.beganAt) })}</h2>
      {differences.length === 0 ? (
        <p className="good">
          <StateMark state="good" /> {say.drawingIsSameAs()}
        </p>
      ) : (
        <>
          <ul>
            {differences.slice(0, TOLD).map((d) => (
              <li key={`${d.where} ${d.id}`}>
                {d.where === 'first' ? say.thenNotNow() : d.where === 'second' ? say.new() : ''}
                {textOf(d.says)}
              </li>
            ))}
          </ul>
          {differences.length > TOLD && <p className="quiet">{say.andMore({ TOLD: differences.length - TOLD })}</p>}
          <p>
            <Link to={`/rigs/${rigId}/run?way=since`}>{say.setupStepsForChanges()}</Link>
          </p>
        </>
      )}
    </section>
  );
}
