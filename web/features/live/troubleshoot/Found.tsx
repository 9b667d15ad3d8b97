import { Button } from '@chakra-ui/react';
import { Link } from 'react-router';
import { type Entry, lookKeys, type Odds } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { sayOdds } from '#web/shared/faults/index.ts';
import { formatNumber, rich, StateMark, useKey } from '#web/shared/parts/index.ts';
import { applyStep, findingsOf, useAppDispatch } from '#web/shared/store/index.ts';
import { troubleshoot as say, textOf } from '#words/index.ts';

interface Props {
  readonly rigId: string;
  readonly rig: Rig;
  readonly culprit: Odds;
  readonly entries: readonly Entry[];
  readonly looks: number;
  readonly onWas: (faultId: string | null, was: string) => void;
  readonly onNot: (entry: Entry) => void;
}

const TOLD = 4;

/** What it most likely is, what mends it, and whether it was that. */
export function Found({ rigId, rig, culprit, entries, looks, onWas, onNot }: Props) {
  const dispatch = useAppDispatch();
  const fault = culprit.kind === 'fault' ? culprit.suspect.fault : null;
  const open = fault?.looks.find((l) => !entries.some((e) => e.kind === 'look' && e.key === lookKeys.look(l.id)));
  const was = () => onWas(fault?.id ?? null, sayOdds(culprit));
  const not = () => open && onNot({ kind: 'look', key: lookKeys.look(open.id), answer: 'well' });
  useKey('y', say.itWasThis(), was);
  useKey('n', say.itWasNotThis(), not, open !== undefined);
  return (
    <section className="trouble-found" aria-label={say.mostLikely()} data-testid="found">
      <p className="small quiet">{say.likelyAfterCheck({ share: formatNumber(100 * culprit.share), looks })}</p>
      <p className="run-says">
        <StateMark state="fix" /> {sayOdds(culprit)}
      </p>
      {fault ? <p>{textOf(fault.mend)}</p> : <Drawn rigId={rigId} rig={rig} entries={entries} />}
      <p className="row no-print">
        <Button variant="solid" onClick={was}>
          {rich(say.itWasThisY, {})}
        </Button>
        {open && <Button onClick={not}>{rich(say.itWasNotThisN, {})}</Button>}
        {fault?.edit && (
          <Button
            onClick={() => {
              if (dispatch(applyStep(fault.edit!, say.drawnAsIs({ says: textOf(fault.says) })))) was();
            }}
          >
            {say.keepItThatWay()}
          </Button>
        )}
      </p>
    </section>
  );
}

/** What the drawing has against it at the places of the complaints. */
function Drawn({ rigId, rig, entries }: { rigId: string; rig: Rig; entries: readonly Entry[] }) {
  const at = new Set(entries.flatMap((e) => (e.kind === 'complaint' ? [e.complaint.listenerId] : [])));
  const findings = findingsOf(rig).filter((f) => !f.dismissed);
  const own = findings.filter((f) => f.where.listenerId !== undefined && at.has(f.where.listenerId));
  const told = [...own, ...findings.filter((f) => f.where.listenerId === undefined)].slice(0, TOLD);
  return (
    <>
      <p>{say.nothingNeedsToBe()}</p>
      <ul>
        {told.map((f) => (
          <li key={f.id}>
            <StateMark state={f.severity} /> {textOf(f.says)}{' '}
            <Link to={`/rigs/${rigId}/${f.stage}`}>
              {say.fixItIn({ toUpperCase: f.stage[0]!.toUpperCase(), n1: f.stage.slice(1) })}
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}
