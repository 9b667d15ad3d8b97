import { Button, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { type Answer, askedBy, type Finding, type Question } from '#core/check/index.ts';
import {
  alreadySo,
  atMoment,
  type Edit,
  editInMoment,
  findDevice,
  findTypes,
  type Rig,
  toDoAtDesk,
} from '#core/rig/index.ts';
import { deviceName, type Evaluation } from '#core/signal/index.ts';
import { BoxFace, count, formatDate, StateMark, useKey } from '#web/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/store/index.ts';
import { type TriedFix, useTriedFixes } from './fixes.ts';

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly finding: Finding;
  readonly findings: readonly Finding[];
  /** A question was answered: on to the next. */
  readonly onAnswered: () => void;
}

/** One finding: what it rests on, where it is, and what would mend it, tried before it is done. */
export function FindingCard({ rig, evaluation, finding, findings, onAnswered }: Props) {
  const dispatch = useAppDispatch();
  const tried = useTriedFixes(rig, evaluation, finding, findings);
  const fixes = tried ?? [];
  const carryOut = (fix: TriedFix, verb: 'to-do' | 'so') => {
    const brought = fix.first?.kind === 'add-device' ? fix.first.device.id : undefined;
    const there = atMoment(rig, finding.momentId);
    const done =
      verb === 'so' ? alreadySo(there, fix.changes) : toDoAtDesk(there, fix.changes, new Date().toISOString(), brought);
    const edit: Edit = { kind: 'batch', edits: [...(fix.first ? [fix.first] : []), done] };
    dispatch(applyStep(editInMoment(rig, finding.momentId, edit), fix.label, 'fix'));
  };
  const [question] = askedBy(rig, [finding]);
  const answer = (given: Answer | undefined) => {
    if (!given) return;
    const label = `Looked at: ${finding.asks} ${given.label}`.slice(0, 200);
    if (dispatch(applyStep(alreadySo(rig, given.changes), label))) onAnswered();
  };
  useKey(
    'd',
    'To do at the desk: the first that mends it',
    () => fixes[0] && carryOut(fixes[0], 'to-do'),
    fixes.length > 0,
  );
  const asDrawn = question?.answers.find((a) => a.asDrawn);
  useKey('y', 'Yes, it is as assumed', () => answer(asDrawn), asDrawn !== undefined);
  return (
    <aside className="card" aria-label="Finding">
      <h2 className={finding.severity}>
        <StateMark state={finding.severity} /> {finding.asks ? 'Asked' : SEVERITY[finding.severity]}
      </h2>
      <p style={{ marginTop: 6 }}>{finding.asks ?? finding.says}</p>
      {finding.asks && (
        <>
          <p className="quiet" style={{ marginTop: 8 }}>
            If it is so: {finding.says}
          </p>
          {question && (
            <div className="answers">
              {question.answers.map((given) => (
                <Button key={given.label} onClick={() => answer(given)}>
                  {given.label} {given.asDrawn && <kbd>y</kbd>}
                </Button>
              ))}
            </div>
          )}
          {question?.portId && <p className="quiet small">Another length is written into the table.</p>}
        </>
      )}
      {question && <WhereToLook rig={rig} question={question} />}
      {finding.aside && (
        <p style={{ marginTop: 8 }}>
          Put aside on {formatDate(finding.aside.at)}: {finding.aside.reason}{' '}
          <Button onClick={() => dispatch(applyStep({ kind: 'take-up', findingId: finding.id }, 'Taken up again'))}>
            Take it up again
          </Button>
        </p>
      )}
      {finding.why.length > 0 && (
        <>
          <h2>It rests on</h2>
          <ul>
            {finding.why.map((reason) => (
              <li key={reason.says}>
                {reason.says} <span className="quiet small">({reason.source})</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {finding.where.deviceIds.length > 0 && (
        <>
          <h2>By this way</h2>
          <p className="quiet">{finding.where.deviceIds.map((id) => deviceName(rig, id)).join(' → ')}</p>
        </>
      )}
      {tried === null && <p className="small quiet">Trying what mends it…</p>}
      {fixes.length > 0 && <h2>What mends it</h2>}
      {fixes.map((fix, i) => (
        <div key={fix.label} style={{ marginTop: 10 }}>
          <p>{fix.label}</p>
          <p className="small quiet">
            {fix.gone > 0 ? `${count(fix.gone, 'finding')} fewer` : 'The finding stays, but weaker'}
            {fix.come.length === 0 ? ', none comes.' : `; then: ${fix.come.map((f) => f.says).join(' ')}`}
          </p>
          <p className="row" style={{ marginTop: 4 }}>
            <Button variant={i === 0 ? 'solid' : 'outline'} onClick={() => carryOut(fix, 'to-do')}>
              To do at the desk {i === 0 && <kbd>d</kbd>}
            </Button>
            <Button onClick={() => carryOut(fix, 'so')}>It is so already</Button>
          </p>
        </div>
      ))}
      {!finding.aside && (
        <PutAside
          onPutAside={(reason) =>
            dispatch(
              applyStep(
                { kind: 'put-aside', aside: { id: finding.id, reason, at: new Date().toISOString() } },
                `Put aside: ${reason}`,
              ),
            )
          }
        />
      )}
    </aside>
  );
}

/** The box that the question is about, with the socket or control to look at. */
function WhereToLook({ rig, question }: { rig: Rig; question: Question }) {
  const type = findTypes(rig).get(findDevice(rig, question.deviceId)?.typeId ?? '');
  return type ? <BoxFace type={type} settingId={question.settingId} portId={question.portId} /> : null;
}

/** Somebody will live with it, and says why: it is kept, and counts no more. */
function PutAside({ onPutAside }: { onPutAside: (reason: string) => void }) {
  const [reason, setReason] = useState('');
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim() !== '') onPutAside(reason.trim());
      }}
    >
      <h2 style={{ marginTop: 24 }}>Let it be</h2>
      <p className="row" style={{ marginTop: 6 }}>
        <Input
          aria-label="Why it may stay"
          placeholder="Why it may stay"
          maxLength={120}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
        <Button type="submit" disabled={reason.trim() === ''}>
          Put aside
        </Button>
      </p>
    </form>
  );
}

const SEVERITY = { stop: 'It will not work, or can harm', fix: 'To fix', watch: 'To watch' } as const;
