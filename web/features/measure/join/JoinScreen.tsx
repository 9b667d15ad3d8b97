import { chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { type Joined, stretchOfJoined } from '#core/audio/measure/index.ts';
import { rate } from '#core/model/units/index.ts';
import { TimelineChart, useWidth } from '#web/shared/charts/index.ts';
import { useWork, WorkLine } from '#web/shared/jobs/index.ts';
import {
  figures,
  formatClock,
  formatNumber,
  formatSigned,
  Head,
  hidden,
  plain,
  rich,
  StateMark,
  Table,
} from '#web/shared/parts/index.ts';
import { selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { CorrectedWav, SlipExports, sourceOf, type TakeAtHand, TakeGate, TakePage } from '#web/shared/take/index.ts';
import { type JoinedTakes, joinAll, type Progress } from '#web/shared/workers/index.ts';
import { common, join as say } from '#words/index.ts';
import { slipsOfGroup } from './slips.ts';

const MAX_TAKES = 16;

/** Takes of several recorders, in any order, aligned on one timeline by their content. */
export function JoinScreen() {
  return (
    <TakeGate title={say.syncedTakes()} most={MAX_TAKES} least={2} asks={say.selectTwoTakesOr()}>
      {(takes, bench) => <Joining key={takes.map((t) => t.id).join(' ')} takes={takes} bench={bench} />}
    </TakeGate>
  );
}

function Joining({ takes, bench }: { takes: readonly TakeAtHand[]; bench: string }) {
  const [joined, setJoined] = useState<JoinedTakes | null>(null);
  const { task, run, stop, again } = useWork();
  const ids = takes.map((t) => t.id).join(' ');
  useEffect(() => {
    const start = (heard: (p: Progress) => void) => joinAll(ids.split(' ').map(sourceOf), heard);
    void run({ name: say.syncedTakes(), start }).then((found) => found && setJoined(found));
  }, [ids, run]);
  const names = takes.map((t) => t.name);
  return (
    <TakePage title={say.syncedTakes()} bench={bench.split('?')[0]!}>
      <p className="quiet">{say.takeAlignedByContent({ take: takes.length })}</p>
      <WorkLine task={task} onStop={stop} onAgain={again} />
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
    <section aria-label={say.with({ first })}>
      <div className="spread">
        <h2>{say.takeOneSession({ take: group.takes.length })}</h2>
        <chakra.span className="row" marginTop="16px">
          <SlipExports list={list} />
        </chakra.span>
      </div>
      <div ref={ref}>
        <TimelineChart
          widthPx={width}
          label={say.timelineTakes({ takes: group.takes.length })}
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
          <StateMark state="watch" />{' '}
          {say.twoChainsMatchesDisagree({ contradictsMs: formatNumber(group.contradictsMs, 1) })}
        </p>
      )}
      <Table tight data-testid="joined">
        <Head
          columns={[
            say.take(),
            figures(say.startsAfterFirstMs()),
            figures(say.length()),
            figures(rich(say.runsLonger, {})),
            plain(rich(say.comparedWithConfidence, {})),
            hidden(common.actions()),
          ]}
        />
        <tbody>
          {group.takes.map((t, i) => (
            <tr key={t.index}>
              <td>{names[t.index]}</td>
              <td className="number strong">{formatNumber(t.startMs, 2)}</td>
              <td className="number">{formatClock(facts[t.index]!.durationMs)}</td>
              <td className="number">
                {i === 0 ? say.reference() : t.longerPpm === null ? say.tooShortToSay() : formatSigned(t.longerPpm, 1)}
              </td>
              <td className="quiet">
                {t.against === null ? '' : `${names[t.against]}, ${formatNumber(100 * t.confidence)}%`}
                {t.against !== null && (
                  <>
                    {' '}
                    <Link
                      to={`${rigId ? `/rigs/${rigId}` : ''}/bench?takes=${takes[t.against]!.id},${takes[t.index]!.id}`}
                    >
                      {say.compareClosely()}
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
      </Table>
    </section>
  );
}

function Alone({ groups, names }: { groups: readonly Joined[]; names: readonly string[] }) {
  const alone = groups.filter((g) => g.takes.length === 1).map((g) => names[g.takes[0]!.index]!);
  if (alone.length === 0) return null;
  return (
    <chakra.p className="watch" marginTop="12px">
      <StateMark state="watch" /> {say.nothingInCommonWith({ join: alone.join(', ') })}
    </chakra.p>
  );
}
