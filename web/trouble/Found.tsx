import { Button } from '@chakra-ui/react';
import { Link } from 'react-router';
import type { Rig } from '#core/rig/index.ts';
import { type Entry, lookKeys, type Odds } from '#core/trouble/index.ts';
import { formatNumber, StateMark, useKey } from '#web/parts/index.ts';
import { applyStep, findingsOf, useAppDispatch } from '#web/store/index.ts';
import { sayOdds } from './Suspects.tsx';

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
  useKey('y', 'It was this', was);
  useKey('n', 'It was not this', not, open !== undefined);
  return (
    <section className="trouble-found" aria-label="Most likely" data-testid="found">
      <p className="small quiet">
        {formatNumber(100 * culprit.share)} % of the odds, after {looks} {looks === 1 ? 'look' : 'looks'}
      </p>
      <p className="run-says">
        <StateMark state="fix" /> {sayOdds(culprit)}
      </p>
      {fault ? <p>{fault.mend}</p> : <Drawn rigId={rigId} rig={rig} entries={entries} />}
      <p className="row no-print">
        <Button variant="solid" onClick={was}>
          It was this <kbd>y</kbd>
        </Button>
        {open && (
          <Button onClick={not}>
            It was not this <kbd>n</kbd>
          </Button>
        )}
        {fault?.edit && (
          <Button
            onClick={() => {
              if (dispatch(applyStep(fault.edit!, `Drawn as it is at the desk: ${fault.says}`))) was();
            }}
          >
            It is to stay so: draw it so
          </Button>
        )}
      </p>
    </section>
  );
}

/** What the drawing has against it at the places of the complaints. */
function Drawn({ rigId, rig, entries }: { rigId: string; rig: Rig; entries: readonly Entry[] }) {
  const at = new Set(entries.flatMap((e) => (e.kind === 'complaint' ? [e.complaint.listenerId] : [])));
  const findings = findingsOf(rig).filter((f) => !f.aside);
  const own = findings.filter((f) => f.where.listenerId !== undefined && at.has(f.where.listenerId));
  const told = [...own, ...findings.filter((f) => f.where.listenerId === undefined)].slice(0, TOLD);
  return (
    <>
      <p>Nothing has to be out of order at the desk for this: it is so by what is drawn.</p>
      <ul>
        {told.map((f) => (
          <li key={f.id}>
            <StateMark state={f.severity} /> {f.says}{' '}
            <Link to={`/rigs/${rigId}/${f.stage}`}>
              Mend it in {f.stage[0]!.toUpperCase()}
              {f.stage.slice(1)}
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}
