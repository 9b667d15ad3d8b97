import { chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import type { PlanCell, Rig } from '#core/model/rig/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import {
  FoldedTracks,
  type PairCell,
  PairGrid,
  type Place,
  sayUnder,
  useFoldedListeners,
  wantOf,
} from '#web/shared/parts/index.ts';
import { plan } from '#words/index.ts';
import { sayTime } from './say.ts';

interface Props {
  readonly rig: Rig;
  /** The plain rig: what a moment wants otherwise is marked. */
  readonly plain: Rig;
  readonly at: Place;
  readonly onAt: (place: Place) => void;
}

const byPair = (cells: Rig['plan']): Map<string, PlanCell> =>
  new Map(cells.map((c) => [`${c.sourceId} ${c.listenerId}`, c]));

/** The hearing plan: sources by listeners, edited in place. */
export function PlanTable({ rig, plain, at, onAt }: Props) {
  const here = useMemo(() => byPair(rig.plan), [rig.plan]);
  const before = useMemo(() => byPair(plain.plan), [plain.plan]);
  const cell = (row: number, column: number): PairCell => {
    const key = `${rig.sources[row]!.id} ${rig.listeners[column]!.id}`;
    return shown(rig, here.get(key), JSON.stringify(here.get(key)) !== JSON.stringify(before.get(key)));
  };
  const { columns, ...tracks } = useFoldedListeners(rig, () => evaluationAt(rig, null), at.column);
  const every = (list: readonly unknown[]) => list.map((_, i) => i);
  return (
    <>
      <FoldedTracks {...tracks} />
      <PairGrid
        label={plan.grid()}
        rig={rig}
        rows={every(rig.sources)}
        columns={columns}
        at={at}
        onAt={onAt}
        cell={cell}
      />
    </>
  );
}

function shown(rig: Rig, cell: PlanCell | undefined, differs: boolean): PairCell {
  if (!cell) return { told: plan.noRequirement(), draw: () => <span className="quiet">·</span> };
  const { mark, word } = wantOf(cell.want);
  const heard = cell.want !== 'must-not';
  const level = heard && cell.underVoiceDb !== undefined ? sayUnder(cell.underVoiceDb) : '';
  const time = heard ? sayTime(rig, cell) : '';
  const track = heard && cell.ownTrack ? plan.ownTrack() : '';
  const facts = [level, time, track].filter(Boolean);
  return {
    told: [word, ...facts, differs ? plan.inThisMoment() : ''].filter(Boolean).join(', '),
    draw: () => (
      <>
        <chakra.span className="row" gap="5px">
          <span className="want">{mark}</span>
          <span>{word}</span>
          {differs && <span className="quiet small">{plan.now()}</span>}
        </chakra.span>
        {facts.map((fact) => (
          <span key={fact} className="fact small quiet">
            {fact}
          </span>
        ))}
      </>
    ),
  };
}
