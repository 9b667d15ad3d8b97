import '#words/core.ts';
import { Button, chakra } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { BlindTrial } from '#api/index.ts';
import {
  type Answer,
  answer,
  type Blind,
  beginBlind,
  blindResult,
  chanceOf,
  neededOf,
  roundsFor,
} from '#core/audio/blind-test/index.ts';
import type { SoundPair } from '#core/audio/mix/index.ts';
import { WorkLine } from '#web/shared/jobs/index.ts';
import { SwitchBar } from '#web/shared/listen/index.ts';
import {
  figures,
  formatDate,
  formatNumber,
  Head,
  NumberInput,
  rich,
  Table,
  Term,
  useKey,
} from '#web/shared/parts/index.ts';
import { recordEvent, useAppDispatch } from '#web/shared/store/index.ts';
import { readTreatment, type TakeAtHand, TakeGate, TakePage, useSound, useTakeNotes } from '#web/shared/take/index.ts';
import { common, blindTest as say } from '#words/index.ts';
import { sayResult, sayRounds } from './say.ts';

const SECONDS = 8;
const USUAL_ROUNDS = 12;
const MAX_SAID = 400;

/** Blind comparison of two takes, or of a take before and after processing. */
export function BlindTestScreen() {
  const [params] = useSearchParams();
  const treated = params.get('treated') === '1';
  return (
    <TakeGate title={say.blindTrial()} most={2} least={treated ? 1 : 2} asks={say.chooseTwoTakesIn()}>
      {([first, second], bench) => (
        <Trial
          key={`${first!.id} ${second?.id} ${treated}`}
          first={first!}
          second={treated ? null : second!}
          bench={bench}
        />
      )}
    </TakeGate>
  );
}

function Trial({ first, second, bench }: { first: TakeAtHand; second: TakeAtHand | null; bench: string }) {
  const dispatch = useAppDispatch();
  const ids = useMemo(() => [first.id, ...(second ? [second.id] : [])], [first.id, second]);
  const sound = useSound(ids);
  const { desk, run } = sound;
  const [pair, setPair] = useState<SoundPair | null>(null);
  const [trial, setTrial] = useState<Blind | null>(null);
  const kept = useTakeNotes(first.id, first.record);
  const treatment = useMemo(() => (second ? null : readTreatment([first.id])), [first.id, second]);
  const lacks = !second && !treatment;
  useEffect(() => {
    if (!desk || lacks) return;
    let gone = false;
    void run(say.findingSameWordsIn(), ({ api }) => api.pair(SECONDS, treatment)).then((found) => {
      if (!gone) setPair(found);
    });
    return () => {
      gone = true;
    };
  }, [desk, run, treatment, lacks]);
  const names = [first.name, second?.name ?? say.processed({ first: first.name })] as const;
  const settle = (next: Blind) => {
    setTrial(next);
    const { correct, chance, rounds } = blindResult(next);
    if (chance === null) return;
    const done: BlindTrial = { at: new Date().toISOString(), a: names[0], b: names[1], rounds, correct };
    const before = kept.notes ?? { flashes: [], claps: [], frameMs: null, speaksOf: null, unseen: true as const };
    kept.change({ ...before, blind: [...(before.blind ?? []), done] });
    // On Measure of a rig it goes into the log of the day as well.
    const says = say.blindTrialB({ n0: names[0], n1: names[1], next: sayResult(blindResult(next)) });
    dispatch(recordEvent({ kind: 'note', says: says.slice(0, MAX_SAID) }));
  };
  return (
    <TakePage title={<Term id="abx">{say.blindTrial()}</Term>} bench={bench}>
      <p>
        {say.is()} <span className="strong">{names[0]}</span>
        {say.bIs()} <span className="strong">{names[1]}</span>.
      </p>
      {lacks ? (
        <p className="watch">{rich(say.nothingIsSetFor, {}, bench.replace('/bench?', '/bench/try?'))}</p>
      ) : (
        <WorkLine
          task={sound.work.task}
          name={sound.work.task?.name}
          onStop={sound.work.stop}
          onAgain={sound.work.again}
        />
      )}
      {pair && (
        <p className="quiet">
          {say.sEachMatchedIn({
            SECONDS,
            apartLu: formatNumber(pair.apartLu, 2),
            like: pair.sameSound ? say.bothSaySameWords() : say.theyArentTakesOne(),
          })}
        </p>
      )}
      {pair && !trial && <Begin onBegin={(rounds) => setTrial(beginBlind(rounds, fairCoin))} />}
      {pair && trial && (
        <Rounds pair={pair} trial={trial} onAnswer={(is) => settle(answer(trial, is))} onAgain={() => setTrial(null)} />
      )}
      <Earlier trials={kept.notes?.blind ?? []} saying={kept.saying} />
    </TakePage>
  );
}

const fairCoin = (): 0 | 1 => (crypto.getRandomValues(new Uint8Array(1))[0]! & 1 ? 1 : 0);

/** How many rounds, settled before the first. */
function Begin({ onBegin }: { onBegin: (rounds: number) => void }) {
  const [rounds, setRounds] = useState(USUAL_ROUNDS);
  const [clear, faint] = [roundsFor(0.7), roundsFor(0.4)];
  useKey('p', say.startTrial(), () => onBegin(rounds));
  return (
    <>
      <chakra.p className="row" marginTop="10px">
        <label htmlFor="rounds">{say.rounds()}</label>
        <NumberInput
          id="rounds"
          label={say.rounds()}
          value={rounds}
          min={1}
          max={200}
          onValue={(n) => setRounds(Math.round(n ?? USUAL_ROUNDS))}
        />
        <Button variant="solid" onClick={() => onBegin(rounds)}>
          {rich(say.startP, {})}
        </Button>
      </chakra.p>
      <p>{sayRounds(rounds, neededOf(rounds))}</p>
      <p className="quiet">{say.toDetectDifferenceYou({ clear: clear ?? '?', faint: faint ?? '?' })}</p>
    </>
  );
}

interface RoundsProps {
  readonly pair: SoundPair;
  readonly trial: Blind;
  readonly onAnswer: (is: Answer) => void;
  readonly onAgain: () => void;
}

function Rounds({ pair, trial, onAnswer, onAgain }: RoundsProps) {
  const result = blindResult(trial);
  const over = result.answered === result.rounds;
  const { sampleRateHz } = pair;
  const x = trial.order[Math.min(result.answered, result.rounds - 1)]!;
  const sounds = useMemo(() => {
    const of = (side: Answer) => ({ channels: pair[side], sampleRateHz, gain: 1 });
    return [
      { name: 'A', loop: of('a') },
      { name: 'B', loop: of('b') },
      { name: 'X', loop: of(x) },
    ];
  }, [pair, sampleRateHz, x]);
  useKey('a', say.xIs(), () => onAnswer('a'), !over);
  useKey('b', say.xIsB(), () => onAnswer('b'), !over);
  if (over)
    return (
      <>
        <h2 data-testid="blind-result">{sayResult(result)}</h2>
        <p>
          <Button onClick={onAgain}>{say.anotherTrial()}</Button>
        </p>
      </>
    );
  return (
    <>
      <h2>{say.roundWhichTwoIs({ n1: result.answered + 1, rounds: result.rounds })}</h2>
      <SwitchBar sounds={sounds} says={say.listenAsOftenAs()} round={result.answered} />
      <chakra.p className="row" marginTop="14px">
        <Button variant="solid" onClick={() => onAnswer('a')}>
          {rich(say.xIsKeyed, {})}
        </Button>
        <Button variant="solid" onClick={() => onAnswer('b')}>
          {rich(say.xIsBB, {})}
        </Button>
        <span className="quiet">{say.youllSeeYourScore()}</span>
      </chakra.p>
    </>
  );
}

function Earlier({ trials, saying }: { trials: readonly BlindTrial[]; saying: string | null }) {
  if (trials.length === 0) return null;
  return (
    <>
      <h2>{say.earlierTrials()}</h2>
      {saying && <p className="watch">{saying}</p>}
      <Table tight>
        <Head columns={[common.when(), say.andB(), figures(say.correct()), figures(say.byGuessing())]} />
        <tbody>
          {trials.toReversed().map((t) => (
            <tr key={t.at}>
              <td className="quiet">{formatDate(t.at)}</td>
              <td>{say.and({ a: t.a, b: t.b })}</td>
              <td className="number">{say.values({ correct: t.correct, rounds: t.rounds })}</td>
              <td className="number">{formatNumber(100 * chanceOf(t.correct, t.rounds), 1)}%</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
