import { type ListeningDelay, listeningDelays } from '#core/paths/index.ts';
import type { Rig } from '#core/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { formatNumber, formatSpread, SourceLetter, StateMark, Term, Why } from '#web/parts/index.ts';

const WHAT: Record<ListeningDelay['kind'], string> = {
  play: 'plays by what is heard',
  'own-voice': 'hears the own voice',
  conversation: 'talks with',
  together: 'hears music and voice',
};

/** What people hear while it goes on, each delay against its limit. */
export function ListeningTable({ rig, evaluation }: { rig: Rig; evaluation: Evaluation }) {
  const delays = listeningDelays(rig, evaluation);
  if (delays.length === 0) return null;
  return (
    <section aria-label="Heard while it goes on">
      <h2>
        <Term id="listening-delay">Heard while it goes on</Term>
      </h2>
      <table className="table tight" data-testid="listening">
        <thead>
          <tr>
            <th>Who</th>
            <th>What</th>
            <th className="number">Delay, ms</th>
            <th className="number">Good up to, not borne from</th>
            <th>And so</th>
          </tr>
        </thead>
        <tbody>
          {delays.map((d) => (
            <tr key={`${d.kind} ${d.listenerId} ${d.sourceIds.join(' ')}`}>
              <td>{rig.listeners.find((l) => l.id === d.listenerId)!.name}</td>
              <td>
                {WHAT[d.kind]}{' '}
                {d.sourceIds.map((id) => (
                  <SourceLetter key={id} source={rig.sources.find((s) => s.id === id)!} />
                ))}{' '}
                {d.kind === 'together'
                  ? `${nameOf(rig, d.sourceIds[0]!)} after ${nameOf(rig, d.sourceIds[1]!)}`
                  : nameOf(rig, d.sourceIds[0]!)}
              </td>
              <td className="number strong">
                <Why figure={d.delay}>{formatNumber(Math.abs(d.delay.value.nominal))}</Why>
                <div className="quiet small">{formatSpread(d.delay)}</div>
              </td>
              <td className="number quiet">
                {d.goodMs}, {d.badMs}
                <div className="small">{d.source}</div>
              </td>
              <td className={d.state}>
                <StateMark state={d.state} /> {d.says}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const nameOf = (rig: Rig, sourceId: string): string => rig.sources.find((s) => s.id === sourceId)!.name;
