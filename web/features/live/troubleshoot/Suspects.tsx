import { type Inquiry, THOUGHT } from '#core/live/troubleshoot/index.ts';
import { sayOdds } from '#web/shared/faults/index.ts';
import { formatNumber, rich, Term } from '#web/shared/parts/index.ts';
import { troubleshoot as say } from '#words/index.ts';

const MOST = 9;

interface Props {
  readonly inquiry: Inquiry;
  /** How often each was it at this desk before. */
  readonly before: ReadonlyMap<string, number>;
  readonly unheard: number;
}

/** Who is suspected, and how much. */
export function Suspects({ inquiry, before, unheard }: Props) {
  const shown = inquiry.odds.filter((o) => o.share >= THOUGHT).slice(0, MOST);
  const rest = inquiry.odds.filter((o) => !shown.includes(o));
  const restShare = rest.reduce((sum, o) => sum + o.share, 0);
  return (
    <section aria-label={say.suspects()}>
      <h2>
        <Term id="suspect">{say.suspects()}</Term>
      </h2>
      <ol className="trouble-suspects">
        {shown.map((o) => (
          <li key={o.kind === 'fault' ? o.suspect.fault.id : o.kind}>
            <span className="fact">{formatNumber(100 * o.share)}%</span>
            <span className="trouble-share" style={{ inlineSize: `${Math.max(1, 100 * o.share)}%` }} />
            <span>{sayOdds(o)}</span>
            {o.kind === 'fault' && before.has(o.suspect.fault.id) && (
              <span className="small watch">{say.itWasThisBefore({ id: times(before.get(o.suspect.fault.id)!) })}</span>
            )}
          </li>
        ))}
      </ol>
      <p className="small quiet">
        {rich(say.othersShare, { rest: rest.length, restShare: formatNumber(100 * restShare, 1), unheard })}
      </p>
    </section>
  );
}

const times = (n: number): string => (n === 1 ? say.once() : n === 2 ? say.twice() : say.times({ n }));
