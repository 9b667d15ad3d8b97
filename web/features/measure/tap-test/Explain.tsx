import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  type At,
  type Explanation,
  type Guess,
  type Judged,
  judgeGuess,
  sayDisagreement,
} from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { isUnderWay, useWork, WorkLine } from '#web/shared/jobs/index.ts';
import { Details, formatNumber, rich, StateMark, useKey } from '#web/shared/parts/index.ts';
import { applyStep, useAppDispatch } from '#web/shared/store/index.ts';
import { explainTap } from '#web/shared/workers/index.ts';
import { tapTest as say, textOf } from '#words/index.ts';
import type { Tap } from './useTap.ts';

interface Props {
  readonly rigId: string;
  readonly rig: Rig;
  readonly tap: Tap;
  readonly judged: Judged;
  readonly onAgain: () => void;
}

/** Which one thing at the desk would make the drawing agree with what was read: every fault tried, the best three shown. */
export function Explain({ rigId, rig, tap, judged, onAgain }: Props) {
  const [last, setLast] = useState<{ readonly of: Judged; readonly found: readonly Explanation[] } | null>(null);
  const { task, run, drop } = useWork();
  // What was found speaks of this rig and these takes only.
  const found = last?.of === judged ? last.found : null;
  const begin = async () => {
    const explained = await run({
      name: say.tryingOneFaultAfter(),
      start: (heard) => explainTap(rig, tap.read, tap.players, heard),
    });
    if (explained) setLast({ of: judged, found: explained });
  };
  useKey('e', say.findWhatExplainsReadings(), () => void begin(), !isUnderWay(task));
  return (
    <section aria-label={say.whatExplainsIt()}>
      <h2>{say.whatExplainsIt()}</h2>
      {!isUnderWay(task) && !found && (
        <p className="row">
          <Button variant="solid" onClick={() => void begin()}>
            {rich(say.findWhatExplainsIt, {})}
          </Button>
          <span className="quiet small">{say.triesEveryPossibleFault()}</span>
        </p>
      )}
      <WorkLine task={task} name={say.tryingOneFaultAfter()} onStop={drop} />
      {found &&
        (found.length === 0 ? (
          <p>
            <StateMark state="watch" /> {rich(say.noSingleFaultExplains, {}, `/rigs/${rigId}/trouble`)}
          </p>
        ) : (
          <ol className="tap-explains">
            {found.map((e) => (
              <One key={e.faults[0]!.id} rig={rig} tap={tap} rigId={rigId} explanation={e} onAgain={onAgain} />
            ))}
          </ol>
        ))}
    </section>
  );
}

interface OneProps {
  readonly rigId: string;
  readonly rig: Rig;
  readonly tap: Tap;
  readonly explanation: Explanation;
  readonly onAgain: () => void;
}

const GUESSES = {
  'could-be': say.itCouldBeRecord(),
  'cannot-be': say.itsNotThisOne(),
} as const;

/** Maximum number of faults listed that the takes can't distinguish. */
const ALIKE = 3;

function One({ rigId, rig, tap, explanation, onAgain }: OneProps) {
  const dispatch = useAppDispatch();
  const { faults, share, explains, leaves, breaks } = explanation;
  const [fault, ...alike] = faults;
  const { desk, drill } = tap.kept;
  const drilling = drill?.over === null;
  const isHere = faults.some((f) => f.id === desk.faultId);
  const [guessed, setGuessed] = useState<Guess | null>(null);
  const hidden = faults.find((f) => f.id === desk.faultId) ?? fault!;
  const over = drilling
    ? {
        ...drill,
        over: {
          how: 'found' as const,
          wrong: drill.wrong,
          takes: tap.read.length,
          was: textOf(hidden.says),
          mend: textOf(hidden.mend),
        },
      }
    : drill;
  /** The stand-ins' desk has it no longer, or has it in the drawing now. */
  const known = () =>
    tap.change({ desk: { ...desk, faultId: isHere ? null : desk.faultId }, ...(isHere ? { drill: over } : {}) });
  const draw = () => {
    if (dispatch(applyStep(fault!.edit!, say.drawingUpdated({ says: textOf(fault!.says) })))) known();
  };
  const mended = () => {
    known();
    tap.change({ takes: [] });
    onAgain();
  };
  const guess = () => {
    const guess = judgeGuess(explanation, desk.faultId);
    setGuessed(guess);
    if (guess === 'found') known();
    if (guess === 'cannot-be') tap.change({ drill: { ...drill!, wrong: drill!.wrong + 1 } });
  };
  return (
    <li className="tap-explain">
      <p>
        <span className="strong">{textOf(fault!.says)}</span>{' '}
        <span className="quiet fact">{say.likely({ share: formatNumber(100 * share) })}</span>
      </p>
      <List what={say.explains()} state="good" rig={rig} list={explains} />
      <List what={say.leavesUnexplained()} state="watch" rig={rig} list={leaves} />
      <List what={say.contradicts()} state="fix" rig={rig} list={breaks} />
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
      <p className="row">
        {drilling ? (
          <>
            <Button size="sm" onClick={guess} disabled={guessed === 'cannot-be'}>
              {say.thatsCause()}
            </Button>
            {guessed && guessed !== 'found' && (
              <span role="status" className="small">
                {GUESSES[guessed]}
              </span>
            )}
          </>
        ) : (
          <>
            <Button size="sm" onClick={mended}>
              {say.fixedAtDeskTest()}
            </Button>
            {fault!.edit && (
              <Button size="sm" onClick={draw}>
                {say.updateDrawingToMatch()}
              </Button>
            )}
          </>
        )}
      </p>
    </li>
  );
}

interface ListProps {
  readonly what: string;
  readonly state: 'good' | 'watch' | 'fix';
  readonly rig: Rig;
  readonly list: readonly At[];
}

const SHOWN = 3;

function List({ what, state, rig, list }: ListProps) {
  if (list.length === 0) return null;
  const says = list.map((a) => sayDisagreement(rig, { ...a, underDb: null, time: null, read: null }, a.disagreement));
  return (
    <div className="tap-what">
      <span className={`small ${state}`}>
        <StateMark state={state} /> {what} {list.length}
      </span>
      <ul className="plain-list small">
        {says.slice(0, SHOWN).map((s) => (
          <li key={textOf(s)}>{textOf(s)}</li>
        ))}
        {says.length > SHOWN && <li className="quiet">{say.andMore({ SHOWN: says.length - SHOWN })}</li>}
      </ul>
    </div>
  );
}
