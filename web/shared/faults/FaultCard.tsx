import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { At, Explanation } from '#core/desk-tests/tap-test/index.ts';
import { Details, formatNumber, StateMark } from '#web/shared/parts/index.ts';
import { tapTest as say, textOf } from '#words/index.ts';

/** Maximum number of faults listed that the readings can't distinguish. */
const ALIKE = 3;
const SHOWN = 3;

interface Props {
  readonly rigId: string;
  readonly explanation: Explanation;
  /** A disagreement in a sentence. */
  readonly sayAt: (at: At) => string;
  /** What one can do about it. */
  readonly children: ReactNode;
}

/** One thing at the desk that would explain readings: what it is, how likely, what it explains, leaves and contradicts. */
export function FaultCard({ rigId, explanation, sayAt, children }: Props) {
  const { faults, share, explains, leaves, breaks } = explanation;
  const [fault, ...alike] = faults;
  return (
    <li className="tap-explain">
      <p>
        <span className="strong">{textOf(fault!.says)}</span>{' '}
        <span className="quiet fact">{say.likely({ share: formatNumber(100 * share) })}</span>
      </p>
      <List what={say.explains()} state="good" says={explains.map(sayAt)} />
      <List what={say.leavesUnexplained()} state="watch" says={leaves.map(sayAt)} />
      <List what={say.contradicts()} state="fix" says={breaks.map(sayAt)} />
      {alike.length > 0 && (
        <Details summary={say.moreWouldLookSame({ alike: alike.length })}>
          <ul className="small">
            {alike.slice(0, ALIKE).map((f) => (
              <li key={f.id}>
                {textOf(f.says)}{' '}
                {f.looks[0] && <span className="quiet">{say.checkThis({ asks: textOf(f.looks[0].asks) })}</span>}
              </li>
            ))}
          </ul>
          <p className="small">
            <Link to={`/rigs/${rigId}/trouble`}>{say.checkByCheckIn()}</Link>
          </p>
        </Details>
      )}
      <p>{say.toFixIt({ mend: textOf(fault!.mend) })}</p>
      <p className="row">{children}</p>
    </li>
  );
}

interface ListProps {
  readonly what: string;
  readonly state: 'good' | 'watch' | 'fix';
  readonly says: readonly string[];
}

function List({ what, state, says }: ListProps) {
  if (says.length === 0) return null;
  return (
    <div className="tap-what">
      <span className={`small ${state}`}>
        <StateMark state={state} /> {what} {says.length}
      </span>
      <ul className="plain-list small">
        {says.slice(0, SHOWN).map((s) => (
          <li key={s}>{s}</li>
        ))}
        {says.length > SHOWN && <li className="quiet">{say.andMore({ SHOWN: says.length - SHOWN })}</li>}
      </ul>
    </div>
  );
}
