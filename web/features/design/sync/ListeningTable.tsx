import { type ListeningDelay, listeningDelays } from '#core/desk-tests/sync-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn, sourceIn } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import {
  figures,
  formatNumber,
  formatSpread,
  Head,
  SourceLetter,
  StateMark,
  Table,
  Term,
  Why,
} from '#web/shared/parts/index.ts';
import { sync as say, textOf } from '#words/index.ts';

const WHAT: Record<ListeningDelay['kind'], string> = {
  play: say.playsByWhatThey(),
  'own-voice': say.hearsTheirOwnVoice(),
  conversation: say.talksWith(),
  together: say.hearsMusicAndVoice(),
};

/** What people hear while it goes on, each delay against its limit. */
export function ListeningTable({ rig, evaluation }: { rig: Rig; evaluation: Evaluation }) {
  const delays = listeningDelays(rig, evaluation);
  if (delays.length === 0) return null;
  return (
    <section aria-label={say.liveMonitoringDelay()}>
      <h2>
        <Term id="listening-delay">{say.liveMonitoringDelay()}</Term>
      </h2>
      <Table tight data-testid="listening">
        <Head columns={[say.who(), say.what(), figures(say.delayMs()), figures(say.goodUpToToo()), say.resultHead()]} />
        <tbody>
          {delays.map((d) => (
            <tr key={`${d.kind} ${d.listenerId} ${d.sourceIds.join(' ')}`}>
              <td>{listenerIn(rig, d.listenerId).name}</td>
              <td>
                {WHAT[d.kind]}{' '}
                {d.sourceIds.map((id) => (
                  <SourceLetter key={id} source={sourceIn(rig, id)} />
                ))}{' '}
                {d.kind === 'together'
                  ? say.afterOther({ n0: nameOf(rig, d.sourceIds[0]!), n1: nameOf(rig, d.sourceIds[1]!) })
                  : nameOf(rig, d.sourceIds[0]!)}
              </td>
              <td className="number strong">
                <Why figure={d.delay}>{formatNumber(Math.abs(d.delay.value.nominal))}</Why>
                <div className="quiet small">{formatSpread(d.delay)}</div>
              </td>
              <td className="number quiet">
                {d.goodMs}, {d.badMs}
                <div className="small">{textOf(d.source)}</div>
              </td>
              <td className={d.state}>
                <StateMark state={d.state} /> {textOf(d.says)}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}

const nameOf = (rig: Rig, sourceId: string): string => sourceIn(rig, sourceId).name;
