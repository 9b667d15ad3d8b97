import { Button } from '@chakra-ui/react';
import { memo } from 'react';
import { Link, useNavigate } from 'react-router';
import { momentName, type Rig } from '#core/rig/index.ts';
import { Choice, count, formatDate, StateMark, Term, useKey } from '#web/parts/index.ts';
import {
  lookedAt,
  redoStep,
  type SaveState,
  selectDesk,
  selectMomentId,
  undoStep,
  useAppDispatch,
  useAppSelector,
} from '#web/store/index.ts';
import { Scales } from './Scales.tsx';
import type { Verdict } from './verdict.ts';

/** Whether what you see is what the server has. */
const SAVED: Record<SaveState, string> = {
  saved: 'saved',
  unsaved: 'saving…',
  offline: 'not saved',
  waiting: 'not saved',
  conflict: 'not saved',
  refused: 'not saved',
};

/** The top line: which rig, how it stands, on what that rests; undo, redo, and the list of what is to be done. */
export function RigTop({ rigId, rig, verdict }: { rigId: string; rig: Rig; verdict: Verdict }) {
  const navigate = useNavigate();
  const atTheDesk = `/rigs/${rigId}/desk`;
  const trouble = `/rigs/${rigId}/trouble`;
  const dispatch = useAppDispatch();
  const { history, save } = useAppSelector(selectDesk);
  const undoable = history?.past.at(-1);
  const redoable = history?.future[0];
  useKey('mod+z', 'Undo', () => dispatch(undoStep()));
  useKey('mod+shift+z,mod+y', 'Redo', () => dispatch(redoStep()));
  useKey('t', 'At the desk: what is asked and to do', () => navigate(atTheDesk));
  useKey('!', 'Something is wrong: find what it is', () => navigate(trouble));
  return (
    <>
      <div className="frame-rig">
        <span className="small quiet">
          Rig, <span className={save === 'saved' ? '' : 'fix'}>{SAVED[save]}</span>
        </span>
        <span className="strong">{rig.name}</span>
      </div>
      {rig.moments.length > 0 && <Moments rig={rig} />}
      <section className="frame-verdict" aria-label="Verdict">
        {verdict.stops > 0 && (
          <span className="stop">
            <StateMark state="stop" /> {verdict.stops === 1 ? '1 stops it' : `${verdict.stops} stop it`}
          </span>
        )}
        {verdict.fixes > 0 && (
          <span className="fix">
            <StateMark state="fix" /> {verdict.fixes} to fix
          </span>
        )}
        {verdict.stops + verdict.fixes === 0 && (
          <span className={verdict.state}>
            <StateMark state={verdict.state} />{' '}
            {verdict.state === 'good' ? 'All as wanted' : `${Math.max(verdict.watches, verdict.toDo)} to watch`}
          </span>
        )}
      </section>
      <div className="frame-rests">
        <Link to={atTheDesk}>
          {verdict.questions + verdict.toDo === 0
            ? 'nothing asked, nothing to do'
            : `${verdict.questions} asked, ${verdict.toDo} to do`}
        </Link>
        <br />
        <Term id="as-drawn">as drawn</Term>,{' '}
        <Link to={`/rigs/${rigId}/measured`}>
          {verdict.measuredAt ? `measured in part ${formatDate(verdict.measuredAt)}` : 'nothing measured yet'}
        </Link>
      </div>
      <div className="frame-tools">
        <Back label="Undo" step={undoable?.label} by={undoStep} />
        <Back label="Redo" step={redoable?.label} by={redoStep} />
        <Ways atTheDesk={atTheDesk} trouble={trouble} fullScaleDbu={rig.session.fullScaleDbu} />
      </div>
      <span className="visually-hidden" aria-live="polite">
        {count(verdict.fixes, 'pair')} to fix, {count(verdict.toDo, 'thing')} to do at the desk
      </span>
    </>
  );
}

interface BackProps {
  readonly label: 'Undo' | 'Redo';
  /** What is taken back, or done again; absent where there is nothing. */
  readonly step: string | undefined;
  readonly by: typeof undoStep;
}

const Back = memo(function Back({ label, step, by }: BackProps) {
  const dispatch = useAppDispatch();
  return (
    <Button
      disabled={step === undefined}
      onClick={() => dispatch(by())}
      title={step === undefined ? `Nothing to ${label.toLowerCase()}` : `${label}: ${step}`}
    >
      {label}
    </Button>
  );
});

interface WaysProps {
  readonly atTheDesk: string;
  readonly trouble: string;
  readonly fullScaleDbu: number;
}

const Ways = memo(function Ways({ atTheDesk, trouble, fullScaleDbu }: WaysProps) {
  const navigate = useNavigate();
  return (
    <>
      <Button className="wrong" onClick={() => navigate(trouble)} title="Something is wrong: find what it is">
        Wrong? <kbd>!</kbd>
      </Button>
      <Scales fullScaleDbu={fullScaleDbu} />
      <Button onClick={() => navigate(atTheDesk)}>
        At the desk <kbd>t</kbd>
      </Button>
    </>
  );
});

/** Which moment of the session is looked at. */
function Moments({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const momentId = useAppSelector(selectMomentId);
  const all = [null, ...rig.moments.map((m) => m.id)];
  const go = (by: number) => dispatch(lookedAt(all[(all.indexOf(momentId) + by + all.length) % all.length]!));
  useKey(']', 'Next moment', () => go(1));
  useKey('[', 'Moment before', () => go(-1));
  return (
    <div className="frame-rig">
      <span className="small quiet">
        <Term id="moment">Moment</Term> <kbd>[</kbd> <kbd>]</kbd>
      </span>
      <Choice
        label="Moment"
        value={momentId ?? ''}
        options={all.map((id) => [id ?? '', momentName(rig, id)])}
        onChange={(id) => dispatch(lookedAt(id === '' ? null : id))}
      />
    </div>
  );
}
