import { useMemo } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { type Evaluation, rolesOf } from '#core/signal/index.ts';
import { cellsOf } from '#web/features/design/route/index.ts';
import { SourceLetter, StateMark, sayUnder, Table } from '#web/shared/parts/index.ts';
import { common, firstDesk as say } from '#words/index.ts';

/** Who will hear what, before anything is made: every source at everybody that something is wanted for. */
export function WillHear({ rig, evaluation }: { rig: Rig; evaluation: Evaluation }) {
  const cells = useMemo(() => cellsOf(rig, evaluation), [rig, evaluation]);
  const roles = rolesOf(rig);
  /** What a switch lets through in a moment of its own. */
  const later = (sourceId: string, listener: number): string => {
    const moment = rig.moments.find((m) =>
      m.plan.some((c) => c.sourceId === sourceId && c.listenerId === rig.listeners[listener]!.id && c.want === 'must'),
    );
    return moment ? say.whenSwitchedTo({ moment: moment.name }) : '';
  };
  // Tracks beside a mix are no matter of the first look.
  const shown = rig.listeners.flatMap((l, i) => {
    const isAsked = rig.plan.some((c) => c.listenerId === l.id);
    return isAsked && (roles.listener(l) !== 'track' || rig.listeners.every((o) => roles.listener(o) !== 'mix'))
      ? [i]
      : [];
  });
  if (rig.sources.length === 0 || shown.length === 0) return <p className="quiet">{say.noOneHearsAnything()}</p>;
  return (
    <Table className="will-hear">
      <thead>
        <tr>
          <th>
            <span className="visually-hidden">{common.source()}</span>
          </th>
          {shown.map((i) => (
            <th key={rig.listeners[i]!.id}>{rig.listeners[i]!.name}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rig.sources.map((source, s) => (
          <tr key={source.id}>
            <th scope="row">
              <SourceLetter source={source} /> {source.name}
            </th>
            {shown.map((i) => {
              const { pair, state, word } = cells[s]![i]!;
              const says =
                pair.ways.length === 0
                  ? word || later(source.id, i) || '–'
                  : pair.underVoiceDb !== null
                    ? sayUnder(pair.underVoiceDb)
                    : roles.source(source).endsWith('voice')
                      ? say.clear()
                      : say.heard();
              return (
                <td key={rig.listeners[i]!.id} className={state === 'none' ? 'quiet' : state}>
                  {state !== 'none' && <StateMark state={state} />} {state === 'good' || state === 'none' ? says : word}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
