import { chakra } from '@chakra-ui/react';
import type { Rig } from '#core/model/rig/index.ts';
import {
  formatNumber,
  type PairCell,
  PairGrid,
  type Place,
  StateMark,
  sayUnder,
  wantOf,
} from '#web/shared/parts/index.ts';
import { route as say } from '#words/index.ts';
import type { Cell } from './cells.ts';

interface Props {
  readonly rig: Rig;
  readonly cells: readonly (readonly Cell[])[];
  readonly rows: readonly number[];
  readonly columns: readonly number[];
  readonly at: Place;
  readonly onAt: (place: Place) => void;
  /** Whether a mute is looked for that takes it. */
  readonly isMarked: (pair: Cell['pair']) => boolean;
}

/** Sources by listeners: wanted against actual. */
export function HearingTable({ cells, isMarked, ...grid }: Props) {
  const cell = (row: number, column: number) => {
    const here = cells[row]![column]!;
    return shown(here, isMarked(here.pair));
  };
  // Marks are few, and any of them draws its row again.
  const rowIs = (row: number) => (cells[row]!.some((c) => isMarked(c.pair)) ? {} : cells[row]);
  return <PairGrid label={say.whoGetsWhat()} cell={cell} rowIs={rowIs} {...grid} />;
}

function shown({ pair, state, word }: Cell, marked: boolean): PairCell {
  const { underVoiceDb, want, verdict } = pair;
  const { mark, word: wanted } = wantOf(want);
  const level = underVoiceDb === null ? '' : sayUnder(underVoiceDb);
  const offset =
    verdict.offsetMs !== null && Math.abs(verdict.offsetMs) >= 1 ? `${formatNumber(verdict.offsetMs)} ms` : '';
  return {
    told: `${wanted && `${wanted}; `}${[word || say.noSignal(), level, offset, marked ? say.marked() : ''].filter(Boolean).join(', ')}`,
    draw: () => (
      <>
        <chakra.span className="row" gap="5px">
          <span className="want quiet">{mark}</span>
          {(state !== 'none' || word !== '') && <StateMark state={state} />}
          <span className={state === 'none' ? 'quiet' : state}>{word}</span>
          {marked && <span className="strong small">◉</span>}
        </chakra.span>
        {level && <span className="fact small quiet">{level}</span>}
        {offset && <span className="fact small quiet">{offset}</span>}
      </>
    ),
  };
}
