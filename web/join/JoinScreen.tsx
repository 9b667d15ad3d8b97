import { Button } from '@chakra-ui/react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { type Joined, stretchOfJoined } from '#core/measure/index.ts';
import { rate } from '#core/units/index.ts';
import { TimelineChart, useWidth } from '#web/charts/index.ts';
import { count, formatClock, formatNumber, formatSigned, StateMark, Term } from '#web/parts/index.ts';
import { selectRig, useAppSelector } from '#web/store/index.ts';
import { CorrectedWav, SlipExports, sourceOf, type TakeAtHand, TakeGate, TakePage } from '#web/take/index.ts';
import { type Job, type JoinedTakes, joinAll } from '#web/workers/index.ts';
import { slipsOfGroup } from './slips.ts';

const MOST_TAKES = 16;

/** Takes of several recorders, in any order, laid on one timeline by what they hold. */
export function JoinScreen() {
  return (
    <TakeGate title="Joined takes" most={MOST_TAKES} least={2} asks="Pick two takes or more in Measure.">
      {(takes, bench) => <Joining key={takes.map((t) => t.id).join(' ')} takes={takes} bench={bench} />}
    </TakeGate>
  );
}

const WORK: Record<string, string> = { decoding: 'Opening', joining: 'Holding them against each other' };

function Joining({ takes, bench }: { takes: readonly TakeAtHand[]; bench: string }) {
  const [joined, setJoined] = useState<JoinedTakes | null>(null);
  const [progress, setProgress] = useState<{ what: string; done: number } | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const job = useRef<Job<JoinedTakes> | null>(null);
  const ids = takes.map((t) => t.id).join(' ');
  const start = useCallback(() => {
    setFailed(null);
    setProgress({ what: 'decoding', done: 0 });
    const mine = joinAll(ids.split(' ').map(sourceOf), setProgress);
    job.current = mine;
    mine.result
      .then(setJoined, (error: unknown) => setFailed(error instanceof Error ? error.message : String(error)))
      .finally(() => setProgress(null));
  }, [ids]);
  useEffect(() => {
    start();
    return () => job.current?.stop();
  }, [start]);
  const stop = () => {
    job.current?.stop();
    setProgress(null);
    setFailed('Stopped. Nothing was changed.');
  };
  const names = takes.map((t) => t.name);
  return (
    <TakePage title="Joined takes" bench={bench.split('?')[0]!}>
      <p className="quiet">
        {count(takes.length, 'take')}, laid by what they hold. Takes that share no moment lie right by way of others.
      </p>
      {progress && (
        <p className="row" role="status">
          <progress value={progress.done} max={1} aria-label="Joined" style={{ width: 160 }} />
          <span className="quiet">
            {WORK[progress.what] ?? progress.what}, {formatNumber(100 * progress.done)} %
          </span>
          <Button onClick={stop}>Stop</Button>
        </p>
      )}
      {failed && (
        <p className="row" role="alert">
          <span className="fix">{failed}</span>
          <Button onClick={start}>Join them again</Button>
        </p>
      )}
      {joined?.groups
        .filter((g) => g.takes.length > 1)
        .map((group) => (
          <Group
            key={group.takes.map((t) => t.index).join(' ')}
            group={group}
            joined={joined}
            takes={takes}
            names={names}
          />
        ))}
      {joined && <Alone groups={joined.groups} names={names} />}
    </TakePage>
  );
}

const SIXTY = rate(60);
/** Pairs that contradict each other by more are said. */
const AGREES_MS = 5;

function Group({
  group,
  joined: { facts },
  takes,
  names,
}: {
  group: Joined;
  joined: JoinedTakes;
  takes: readonly TakeAtHand[];
  names: readonly string[];
}) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const { rigId } = useParams();
  const rig = useAppSelector(selectRig);
  const list = slipsOfGroup(group, facts, names, (rigId && rig?.session.frameRate) || SIXTY);
  const first = names[group.takes[0]!.index]!;
  return (
    <section aria-label={`With ${first}`}>
      <div className="spread">
        <h2>{count(group.takes.length, 'take')} of one session</h2>
        <span className="row" style={{ marginTop: 16 }}>
          <SlipExports list={list} />
        </span>
      </div>
      <div ref={ref}>
        <TimelineChart
          widthPx={width}
          label={`Timeline of ${group.takes.length} takes`}
          takes={group.takes.map(({ index, startMs }) => {
            const { durationMs, peaks } = facts[index]!;
            return {
              key: takes[index]!.id,
              name: names[index]!,
              startMs,
              durationMs,
              peaks: { binMs: (1000 * peaks.framesPerBin) / peaks.sampleRateHz, low: peaks.low, high: peaks.high },
            };
          })}
        />
      </div>
      {group.contradictsMs > AGREES_MS && (
        <p className="watch">
          <StateMark state="watch" /> Two ways round lead to places {formatNumber(group.contradictsMs, 1)} ms apart: a
          buffer may have been lost in one of them. Compare them two at a time in Measure.
        </p>
      )}
      <table className="table tight" data-testid="joined">
        <thead>
          <tr>
            <th>Take</th>
            <th className="number">Begins after the first, ms</th>
            <th className="number">Length</th>
            <th className="number">
              <Term id="drift">Runs longer</Term>, ppm
            </th>
            <th>
              Held against, <Term id="confidence">confidence</Term>
            </th>
            <th>
              <span className="visually-hidden">What to do with it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {group.takes.map((t, i) => (
            <tr key={t.index}>
              <td>{names[t.index]}</td>
              <td className="number strong">{formatNumber(t.startMs, 2)}</td>
              <td className="number">{formatClock(facts[t.index]!.durationMs)}</td>
              <td className="number">
                {i === 0 ? 'reference' : t.longerPpm === null ? 'too short to tell' : formatSigned(t.longerPpm, 1)}
              </td>
              <td className="quiet">
                {t.against === null ? '' : `${names[t.against]}, ${formatNumber(100 * t.confidence)} %`}
                {t.against !== null && (
                  <>
                    {' '}
                    <Link
                      to={`${rigId ? `/rigs/${rigId}` : ''}/bench?takes=${takes[t.against]!.id},${takes[t.index]!.id}`}
                    >
                      Look closer
                    </Link>
                  </>
                )}
              </td>
              <td className="number">
                <CorrectedWav takeId={takes[t.index]!.id} name={list.items[i]!.name} stretches={[stretchOfJoined(t)]} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Alone({ groups, names }: { groups: readonly Joined[]; names: readonly string[] }) {
  const alone = groups.filter((g) => g.takes.length === 1).map((g) => names[g.takes[0]!.index]!);
  if (alone.length === 0) return null;
  return (
    <p className="watch" style={{ marginTop: 12 }}>
      <StateMark state="watch" /> {alone.join(', ')} {alone.length === 1 ? 'holds' : 'hold'} nothing that another of
      these takes holds.
    </p>
  );
}
