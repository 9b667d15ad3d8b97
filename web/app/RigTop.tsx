import { Button } from '@chakra-ui/react';
import { memo } from 'react';
import { useNavigate } from 'react-router';
import { momentName, type Rig } from '#core/model/rig/index.ts';
import { Standing, useConfirmed } from '#web/features/live/next/index.ts';
import { Choice, off, StateMark, Term, useKey } from '#web/shared/parts/index.ts';
import {
  lookedAt,
  redoStep,
  type SaveState,
  selectDesk,
  selectMomentId,
  undoStep,
  useAppDispatch,
  useAppSelector,
} from '#web/shared/store/index.ts';
import { common, frame } from '#words/index.ts';
import { Scales } from './Scales.tsx';
import type { Verdict } from './verdict.ts';

/** Whether what you see is what the server has. */
const SAVED: Record<SaveState, () => string> = {
  saved: frame.saved,
  unsaved: frame.saving,
  offline: frame.notSaved,
  waiting: frame.notSaved,
  conflict: frame.notSaved,
  refused: frame.notSaved,
};

/** The top line: the rig, its verdict and what that is based on; undo, redo, and the to-do list. */
export function RigTop({ rigId, rig, verdict }: { rigId: string; rig: Rig; verdict: Verdict }) {
  const navigate = useNavigate();
  const atTheDesk = `/rigs/${rigId}/desk`;
  const trouble = `/rigs/${rigId}/trouble`;
  const dispatch = useAppDispatch();
  const { history, save } = useAppSelector(selectDesk);
  const confirmed = useConfirmed();
  const undoable = history?.past.at(-1);
  const redoable = history?.future[0];
  useKey('mod+z', common.undo(), () => dispatch(undoStep()));
  useKey('mod+shift+z,mod+y', common.redo(), () => dispatch(redoStep()));
  useKey('t', frame.toDoListKey(), () => navigate(atTheDesk));
  useKey('!', frame.troubleshootKey(), () => navigate(trouble));
  return (
    <>
      <div className="frame-rig">
        <span className="small quiet">
          {frame.rig()}, <span className={save === 'saved' ? '' : 'fix'}>{SAVED[save]()}</span>
        </span>
        <span className="strong frame-rig-name" title={rig.name}>
          {rig.name}
        </span>
      </div>
      {rig.moments.length > 0 && <Moments rig={rig} />}
      <section className="frame-verdict" aria-label={frame.verdict()}>
        {verdict.stops > 0 && (
          <span className="stop">
            <StateMark state="stop" /> {frame.blockers({ count: verdict.stops })}
          </span>
        )}
        {verdict.fixes > 0 && (
          <span className="fix">
            <StateMark state="fix" /> {frame.toFix({ count: verdict.fixes })}
          </span>
        )}
        {verdict.stops + verdict.fixes === 0 && (
          <span className={`${verdict.state} frame-verdict-alone`}>
            <StateMark state={verdict.state} unconfirmed={!confirmed} />{' '}
            {verdict.state === 'good'
              ? rig.plan.length === 0
                ? frame.nothingYet()
                : confirmed
                  ? frame.matches()
                  : frame.matchesAsDrawn()
              : frame.warnings({ count: Math.max(verdict.watches, verdict.toDo) })}
          </span>
        )}
      </section>
      <Standing rigId={rigId} />
      <div className="frame-tools">
        <Back is="undo" step={undoable?.label} by={undoStep} />
        <span className="wide">
          <Back is="redo" step={redoable?.label} by={redoStep} />
        </span>
        <Ways trouble={trouble} fullScaleDbu={rig.session.fullScaleDbu} />
      </div>
      <span className="visually-hidden" aria-live="polite">
        {frame.announced({ fixes: verdict.stops + verdict.fixes, toDo: verdict.toDo })}
      </span>
    </>
  );
}

const NOTHING = { undo: frame.nothingToUndo, redo: frame.nothingToRedo };
const STEPS = { undo: frame.undoStep, redo: frame.redoStep };

interface BackProps {
  readonly is: 'undo' | 'redo';
  /** What is taken back, or done again; absent where there is nothing. */
  readonly step: string | undefined;
  readonly by: typeof undoStep;
}

const Back = memo(function Back({ is, step, by }: BackProps) {
  const dispatch = useAppDispatch();
  return (
    <Button
      title={step === undefined ? '' : STEPS[is]({ step })}
      {...off(step === undefined ? NOTHING[is]() : null)}
      onClick={() => dispatch(by())}
    >
      {common[is]()}
    </Button>
  );
});

interface WaysProps {
  readonly trouble: string;
  readonly fullScaleDbu: number;
}

const Ways = memo(function Ways({ trouble, fullScaleDbu }: WaysProps) {
  const navigate = useNavigate();
  return (
    <>
      <Button className="wrong" onClick={() => navigate(trouble)} title={frame.troubleshootKey()}>
        {frame.troubleshoot()} <kbd>!</kbd>
      </Button>
      <span className="wide">
        <Scales fullScaleDbu={fullScaleDbu} />
      </span>
    </>
  );
});

/** Which moment of the session is looked at. */
function Moments({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const momentId = useAppSelector(selectMomentId);
  const all = [null, ...rig.moments.map((m) => m.id)];
  const go = (by: number) => dispatch(lookedAt(all[(all.indexOf(momentId) + by + all.length) % all.length]!));
  useKey(']', frame.nextMoment(), () => go(1));
  useKey('[', frame.previousMoment(), () => go(-1));
  return (
    <div className="frame-rig">
      <span className="small quiet">
        <Term id="moment">{frame.moment()}</Term> <kbd>[</kbd> <kbd>]</kbd>
      </span>
      <Choice
        label={frame.moment()}
        value={momentId ?? ''}
        options={all.map((id) => [id ?? '', momentName(rig, id)])}
        onChange={(id) => dispatch(lookedAt(id === '' ? null : id))}
      />
    </div>
  );
}
