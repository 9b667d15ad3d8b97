import { Button } from '@chakra-ui/react';
import { useEffect, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
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
} from '#core/blind/index.ts';
import type { SoundPair } from '#core/mix/index.ts';
import { SwitchBar } from '#web/listen/index.ts';
import { formatDate, formatNumber, NumberInput, Term, useKey } from '#web/parts/index.ts';
import { tellDay, useAppDispatch } from '#web/store/index.ts';
import {
  readTreatment,
  type TakeAtHand,
  TakeGate,
  TakePage,
  useSound,
  useTakeNotes,
  Working,
} from '#web/take/index.ts';
import { sayResult, sayRounds } from './say.ts';

const SECONDS = 8;
const USUAL_ROUNDS = 12;
const MOST_SAID = 400;

/** Two takes, or a take as it is and treated, told apart blind. */
export function BlindScreen() {
  const [params] = useSearchParams();
  const treated = params.get('treated') === '1';
  return (
    <TakeGate
      title="Blind trial"
      most={2}
      least={treated ? 1 : 2}
      asks="Choose two takes in Measure, or try settings on one and compare it with itself."
    >
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
    void run('finding the same words in both', ({ api }) => api.pair(SECONDS, treatment)).then((found) => {
      if (!gone) setPair(found);
    });
    return () => {
      gone = true;
    };
  }, [desk, run, treatment, lacks]);
  const names = [first.name, second?.name ?? `${first.name}, treated`] as const;
  const settle = (next: Blind) => {
    setTrial(next);
    const { correct, chance, rounds } = blindResult(next);
    if (chance === null) return;
    const done: BlindTrial = { at: new Date().toISOString(), a: names[0], b: names[1], rounds, correct };
    const before = kept.notes ?? { flashes: [], claps: [], frameMs: null, speaksOf: null, unseen: true as const };
    kept.change({ ...before, blind: [...(before.blind ?? []), done] });
    // On the bench of a rig it goes into the log of the day as well.
    const says = `Blind trial, A ${names[0]}, B ${names[1]}: ${sayResult(blindResult(next))}`;
    dispatch(tellDay({ kind: 'note', says: says.slice(0, MOST_SAID) }));
  };
  return (
    <TakePage title={<Term id="abx">Blind trial</Term>} bench={bench}>
      <p>
        A is <span className="strong">{names[0]}</span>, B is <span className="strong">{names[1]}</span>.
      </p>
      {lacks ? (
        <p className="watch">
          Nothing was set for this take yet.{' '}
          <Link to={bench.replace('/bench?', '/bench/try?')}>Try settings on it</Link> first.
        </p>
      ) : (
        <Working sound={sound} />
      )}
      {pair && (
        <p className="quiet">
          {SECONDS} s of each, brought to the same loudness ({formatNumber(pair.apartLu, 2)} LU apart).{' '}
          {pair.sameSound
            ? 'Both say the same words at the same time.'
            : 'They are not takes of one sound: other words may give them away, whatever they sound like.'}
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
  useKey('p', 'Begin the trial', () => onBegin(rounds));
  return (
    <>
      <p className="row" style={{ marginTop: 10 }}>
        <label htmlFor="rounds">Rounds</label>
        <NumberInput
          id="rounds"
          label="Rounds"
          value={rounds}
          min={1}
          max={200}
          onValue={(n) => setRounds(Math.round(n ?? USUAL_ROUNDS))}
        />
        <Button variant="solid" onClick={() => onBegin(rounds)}>
          Begin <kbd>p</kbd>
        </Button>
      </p>
      <p>{sayRounds(rounds, neededOf(rounds))}</p>
      <p className="quiet">
        To find a difference that is heard seven times of ten, {clear} rounds are needed; four times of ten, {faint} (in
        four of five trials). How many is settled now: who stops when it looks well deceives himself.
      </p>
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
  useKey('a', 'X is A', () => onAnswer('a'), !over);
  useKey('b', 'X is B', () => onAnswer('b'), !over);
  if (over)
    return (
      <>
        <h2 data-testid="blind-result">{sayResult(result)}</h2>
        <p>
          <Button onClick={onAgain}>Another trial</Button>
        </p>
      </>
    );
  return (
    <>
      <h2>
        Round {result.answered + 1} of {result.rounds}: which of the two is X?
      </h2>
      <SwitchBar sounds={sounds} says="Listen as often as you like." round={result.answered} />
      <p className="row" style={{ marginTop: 14 }}>
        <Button variant="solid" onClick={() => onAnswer('a')}>
          X is A <kbd>a</kbd>
        </Button>
        <Button variant="solid" onClick={() => onAnswer('b')}>
          X is B <kbd>b</kbd>
        </Button>
        <span className="quiet">Whether it was right is told when all are answered.</span>
      </p>
    </>
  );
}

function Earlier({ trials, saying }: { trials: readonly BlindTrial[]; saying: string | null }) {
  if (trials.length === 0) return null;
  return (
    <>
      <h2>Trials so far</h2>
      {saying && <p className="watch">{saying}</p>}
      <table className="table tight">
        <thead>
          <tr>
            <th>When</th>
            <th>A and B</th>
            <th className="number">Right</th>
            <th className="number">By guessing</th>
          </tr>
        </thead>
        <tbody>
          {trials.toReversed().map((t) => (
            <tr key={t.at}>
              <td className="quiet">{formatDate(t.at)}</td>
              <td>
                {t.a} and {t.b}
              </td>
              <td className="number">
                {t.correct} of {t.rounds}
              </td>
              <td className="number">{formatNumber(100 * chanceOf(t.correct, t.rounds), 1)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
