import { Button, chakra, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { carryOut, findDevice, findTypes, markDone, type Rig, type Verb } from '#core/model/rig/index.ts';
import { type Answer, askedBy, type Finding, type Question, type TriedFix } from '#core/rules/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { BoxFace, formatDate, off, StateMark, sentence, TwoVerbs, useKey } from '#web/shared/parts/index.ts';
import { applyStep, selectRig, useAppDispatch, useAppStore } from '#web/shared/store/index.ts';
import { common, wire as say, textOf } from '#words/index.ts';
import { type AskFixes, useTriedFixes } from './fixes.ts';

interface Props {
  readonly rig: Rig;
  readonly finding: Finding;
  readonly askFixes: AskFixes;
  /** A question was answered: on to the next. */
  readonly onAnswered: () => void;
  readonly onClose: () => void;
}

/** One finding: what it rests on, where it is, and what would mend it, tried before it is done. */
export function FindingCard({ rig, finding, askFixes, onAnswered, onClose }: Props) {
  const dispatch = useAppDispatch();
  const { fixes: tried, failed } = useTriedFixes(askFixes, rig, finding);
  const fixes = tried ?? [];
  const store = useAppStore();
  const choose = (fix: TriedFix, verb: Verb) => {
    // A second press, while the page still follows the first.
    if (selectRig(store.getState()) !== rig) return;
    const edit = carryOut(rig, { ...fix, momentId: finding.momentId }, verb, new Date().toISOString());
    dispatch(applyStep(edit, textOf(fix.label), 'fix'));
  };
  const [question] = askedBy(rig, [finding]);
  const answer = (given: Answer | undefined) => {
    if (!given) return;
    const label = say.confirmedStep({ what: textOf(finding.asks!), answer: textOf(given.label) }).slice(0, 200);
    if (dispatch(applyStep(markDone(rig, given.changes), label))) onAnswered();
  };
  const asDrawn = question?.answers.find((a) => a.asDrawn);
  useKey('y', say.yesThatsRight(), () => answer(asDrawn), asDrawn !== undefined);
  return (
    <aside className="card" aria-label={common.issue()}>
      <div className="card-head">
        <h2 className={finding.severity}>
          <StateMark state={finding.severity} /> {finding.asks ? say.toCheck() : SEVERITY[finding.severity]}
        </h2>
        <Button size="sm" onClick={onClose} aria-label={say.closePanel()} title={say.closePanel()}>
          ×
        </Button>
      </div>
      <chakra.p marginTop="6px">{textOf(finding.asks ?? finding.says)}</chakra.p>
      {finding.asks && (
        <>
          <chakra.p className="quiet" marginTop="8px">
            {say.ifSo({ says: textOf(finding.says) })}
          </chakra.p>
          {question && (
            <div className="answers">
              {question.answers.map((given) => (
                <Button key={textOf(given.label)} onClick={() => answer(given)}>
                  {sentence(textOf(given.label))} {given.asDrawn && <kbd>y</kbd>}
                </Button>
              ))}
            </div>
          )}
          {question?.portId && <p className="quiet small">{say.ifLengthIsDifferent()}</p>}
        </>
      )}
      {question && <WhereToLook rig={rig} question={question} />}
      {finding.dismissed && (
        <chakra.p marginTop="8px">
          {say.ignoredSince({ at: formatDate(finding.dismissed.at), reason: finding.dismissed.reason })}{' '}
          <Button
            onClick={() =>
              dispatch(applyStep({ kind: 'reinstate', findingId: finding.id }, say.stoppedIgnoringIssue()))
            }
          >
            {say.stopIgnoring()}
          </Button>
        </chakra.p>
      )}
      {finding.why.length > 0 && (
        <>
          <h2>{common.basedOn()}</h2>
          <ul>
            {finding.why.map((reason) => (
              <li key={textOf(reason.says)}>
                {textOf(reason.says)} <span className="quiet small">({textOf(reason.source)})</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {finding.where.deviceIds.length > 0 && (
        <>
          <h2>{common.signalPath()}</h2>
          <p className="quiet">{finding.where.deviceIds.map((id) => deviceName(rig, id)).join(' → ')}</p>
        </>
      )}
      {tried === null && <p className="small quiet">{say.lookingForFixes()}</p>}
      {failed && (
        <p className="small" role="alert">
          {failed}
        </p>
      )}
      {fixes.length > 0 && <h2>{common.fixes()}</h2>}
      {fixes.map((fix, i) => (
        <chakra.div key={textOf(fix.label)} marginTop="10px">
          <p>{textOf(fix.label)}</p>
          <p className="small quiet">
            {fix.gone > 0 ? say.fewerIssues({ finding: fix.gone }) : say.doesntClearIssueBut()}
            {fix.come.length === 0
              ? say.noNewIssues()
              : say.thenIssues({ join: fix.come.map((f) => textOf(f.says)).join(' ') })}
          </p>
          <chakra.p className="row" marginTop="4px">
            <TwoVerbs
              of={textOf(fix.label)}
              isKeyed={i === 0 && asDrawn === undefined}
              onVerb={(verb) => choose(fix, verb)}
            />
          </chakra.p>
        </chakra.div>
      ))}
      {!finding.dismissed && (
        <IgnoreIssue
          onIgnore={(reason) =>
            dispatch(
              applyStep(
                { kind: 'dismiss', dismissal: { id: finding.id, reason, at: new Date().toISOString() } },
                say.ignored({ reason }),
              ),
            )
          }
        />
      )}
    </aside>
  );
}

/** The device that the question is about, with the socket or control to look at. */
function WhereToLook({ rig, question }: { rig: Rig; question: Question }) {
  const type = findTypes(rig).get(findDevice(rig, question.deviceId)?.typeId ?? '');
  return type ? <BoxFace type={type} settingId={question.settingId} portId={question.portId} /> : null;
}

/** Someone will live with it, and says why: it is kept, and counts no more. */
function IgnoreIssue({ onIgnore }: { onIgnore: (reason: string) => void }) {
  const [reason, setReason] = useState('');
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim() !== '') onIgnore(reason.trim());
      }}
    >
      <chakra.h2 marginTop="24px">{say.ignoreThisIssue()}</chakra.h2>
      <chakra.p className="row" marginTop="6px">
        <Input
          aria-label={say.reasonForIgnoringIt()}
          placeholder={say.reasonForIgnoringIt()}
          maxLength={120}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
        <Button type="submit" {...off(reason.trim() === '' ? common.typeReasonFirst() : null)}>
          {common.ignore()}
        </Button>
      </chakra.p>
    </form>
  );
}

const SEVERITY = { stop: say.wontWorkOrCould(), fix: say.toFix(), watch: say.warning() } as const;
