import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import {
  type Explanation,
  type Guess,
  type Judged,
  judgeGuess,
  sayDisagreement,
} from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { FaultCard } from '#web/shared/faults/index.ts';
import { isUnderWay, useWork, WorkLine } from '#web/shared/jobs/index.ts';
import { rich, StateMark, useKey } from '#web/shared/parts/index.ts';
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

function One({ rigId, rig, tap, explanation, onAgain }: OneProps) {
  const dispatch = useAppDispatch();
  const { faults } = explanation;
  const [fault] = faults;
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
    <FaultCard
      rigId={rigId}
      explanation={explanation}
      sayAt={(a) => textOf(sayDisagreement(rig, { ...a, underDb: null, time: null, read: null }, a.disagreement))}
    >
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
    </FaultCard>
  );
}
