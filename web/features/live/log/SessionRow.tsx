import type { Session } from '#core/live/run/index.ts';
import type { State } from '#core/signal/index.ts';
import { Details, formatDate, formatNumber, formatSpan, StateMark } from '#web/shared/parts/index.ts';
import { log as say } from '#words/index.ts';

const stateOf = ({ good }: Session): State => (good === null ? 'none' : good ? 'good' : 'watch');

/** One session: how it went in a line; opened, all that happened. */
export function SessionRow({ session: s }: { session: Session }) {
  const ticks = Object.values(s.ticks).flatMap((list) => Object.entries(list));
  const left = ticks.filter(([, t]) => t.leftOut !== undefined);
  const amiss = ticks.filter(([, t]) => t.amiss);
  const lasted = s.endedAt === null ? null : Date.parse(s.endedAt) - Date.parse(s.beganAt);
  return (
    <li>
      <Details
        summary={
          <>
            <span className="fact">{formatDate(s.beganAt)}</span> <StateMark state={stateOf(s)} />{' '}
            <span className="strong">{s.name || say.session()}</span>{' '}
            <span className="quiet">
              {lasted === null ? say.inProgress() : `${formatSpan(lasted)}`}
              {s.troubles.length > 0 && `, ${say.problems({ count: s.troubles.length })}`}
              {s.figures.length > 0 && `, ${say.figures({ count: s.figures.length })}`}
              {s.says && `: ${s.says}`}
            </span>
          </>
        }
      >
        <ul className="log-facts">
          {s.troubles.map((t) => (
            <li key={t.id}>
              <StateMark state="fix" /> {say.cause({ complaint: t.complaint, was: t.was })}{' '}
              <span className="quiet">({say.looksTaken({ count: t.looks })})</span>
            </li>
          ))}
          {amiss.map(([id, t]) => (
            <li key={`amiss ${id}`}>
              <StateMark state="fix" /> {say.failedWhenChecked({ id: sayItem(id) })}{' '}
              <span className="quiet">({t.by})</span>
            </li>
          ))}
          {left.map(([id, t]) => (
            <li key={`left ${id}`}>
              <StateMark state="watch" /> {say.skipped({ id: sayItem(id), leftOut: t.leftOut ?? '' })}
            </li>
          ))}
          {s.figures.map((f) => (
            <li key={f.id}>
              {f.label}:{' '}
              <span className="fact">
                {formatNumber(f.value, 1)} {f.unit}
              </span>{' '}
              <span className="quiet">{say.readings({ sd: formatNumber(f.sd, 1), count: f.count })}</span>
            </li>
          ))}
          {s.markers.map((m) => (
            <li key={m.id}>
              <span className="fact">{formatSpan(Date.parse(m.at) - Date.parse(s.beganAt))}</span>{' '}
              {m.says || say.marker()}
            </li>
          ))}
          {s.notes.map((n) => (
            <li key={n.id}>{n.says}</li>
          ))}
          <li className="quiet">
            {say.stepsAndChecksDone({
              amiss: ticks.length - left.length - amiss.length,
              break: s.breaks.length > 0 ? say.breaks({ count: s.breaks.length }) : '',
            })}
          </li>
        </ul>
      </Details>
    </li>
  );
}

/** What an item was, by its id: 'plug:wren-xlr' is 'plug wren xlr'. */
const sayItem = (id: string): string => id.replace(/[:._-]+/g, ' ');
