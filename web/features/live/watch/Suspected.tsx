import { useMemo } from 'react';
import { type Inquiry, inquire, type Lineup, THOUGHT } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { lineupOf, sayOdds, useLineup } from '#web/shared/faults/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { watch as say, textOf } from '#words/index.ts';
import { complaintsIn, type Seen } from './alarms.ts';

const SHOWN = 3;

/** What all alarms together are most likely from; null until every fault was run once. */
function useInquiry(rig: Rig, lineup: Lineup | undefined, seen: readonly Seen[]): Inquiry | null {
  // How long an alarm lasts changes nothing: only which there are.
  const complaints = JSON.stringify(complaintsIn(rig, seen));
  return useMemo(() => {
    const entries = (JSON.parse(complaints) as ReturnType<typeof complaintsIn>).map((complaint) => ({
      kind: 'complaint' as const,
      complaint,
    }));
    return lineup && entries.length > 0 ? inquire(rig, lineup, entries) : null;
  }, [rig, lineup, complaints]);
}

interface Props {
  readonly rig: Rig;
  readonly seen: readonly Seen[];
}

/** Beside an alarm, on every view: where to look first. Runs the faults. */
export function FirstLook({ rig, seen }: Props) {
  const inquiry = useInquiry(rig, useLineup(rig).result, seen);
  return inquiry?.next ? <span>{say.checkFirst({ asks: textOf(inquiry.next.asks) })}</span> : null;
}

/** What the alarms of all inputs together are most likely from, and the one look that tells most of it apart; once the faults were run. */
export function Suspected({ rig, seen }: Props) {
  const inquiry = useInquiry(rig, lineupOf(rig), seen);
  if (!inquiry) return null;
  const likely = inquiry.odds.filter((o) => o.share >= THOUGHT).slice(0, SHOWN);
  return (
    <section aria-label={say.mostLikely()}>
      <p className="strong">{say.mostLikely()}</p>
      <ol className="plain-list">
        {likely.map((odds) => (
          <li key={sayOdds(odds)}>
            <span className="fact">{say.share({ share: formatNumber(100 * odds.share) })}</span> {sayOdds(odds)}
          </li>
        ))}
      </ol>
      {inquiry.next && (
        <p>
          <span className="strong">{say.checkFirst({ asks: textOf(inquiry.next.asks) })}</span>{' '}
          <span className="quiet small">
            {say.checkCosts({ seconds: Math.round(inquiry.next.look.seconds), left: leftBy(inquiry) })}
          </span>
        </p>
      )}
    </section>
  );
}

/** Suspects that the most telling answer would leave at most. */
const leftBy = ({ next }: Inquiry): number => Math.max(1, ...(next?.outcomes ?? []).map((o) => o.left));
