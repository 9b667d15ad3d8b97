import { chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { cellKey, type TapCell } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { type PairCell, PairGrid, StateMark, useKeyHint, wantOf } from '#web/shared/parts/index.ts';
import { tapTest as say } from '#words/index.ts';
import { sayUnderLoudest, verdictOf } from './words.ts';

/** Which reading is looked at. */
export interface At {
  readonly sourceId: string;
  readonly listenerId: string;
}

interface Props {
  readonly rig: Rig;
  readonly cells: readonly TapCell[];
  readonly at: At;
  readonly onAt: (at: At) => void;
}

/** Sources by listeners that have a take: wanted, read and drawn, side by side. */
export function ReadTable({ rig, cells, at, onAt }: Props) {
  useKeyHint('arrowleft,arrowright,arrowup,arrowdown', say.inTableFromCell());
  const byKey = useMemo(() => new Map(cells.map((c) => [cellKey(c.sourceId, c.listenerId), c])), [cells]);
  const rows = rig.sources.flatMap((s, i) => (cells.some((c) => c.sourceId === s.id) ? [i] : []));
  const columns = rig.listeners.flatMap((l, i) => (cells.some((c) => c.listenerId === l.id) ? [i] : []));
  const place = {
    row: rig.sources.findIndex((s) => s.id === at.sourceId),
    column: rig.listeners.findIndex((l) => l.id === at.listenerId),
  };
  const cell = (row: number, column: number): PairCell =>
    shown(byKey.get(cellKey(rig.sources[row]!.id, rig.listeners[column]!.id))!);
  return (
    <PairGrid
      label={say.whoGetsWhatAs()}
      rig={rig}
      rows={rows}
      columns={columns}
      at={place}
      onAt={({ row, column }) => onAt({ sourceId: rig.sources[row]!.id, listenerId: rig.listeners[column]!.id })}
      cell={cell}
    />
  );
}

function shown(cell: TapCell): PairCell {
  const { state, word } = verdictOf(cell);
  const { mark, word: wanted } = wantOf(cell.want);
  const read = cell.read?.word === 'found' ? say.read({ underDb: sayUnderLoudest(cell.underDb) }) : '';
  const drawn = cell.expected.underDb === null ? '' : say.drawn({ underDb: sayUnderLoudest(cell.expected.underDb) });
  return {
    told: [wanted, word || say.notThere(), read || say.notRead(), drawn || say.notDrawn()].filter(Boolean).join(', '),
    draw: () => (
      <>
        <chakra.span className="row" gap="5px">
          <span className="want quiet">{mark}</span>
          {word !== '' && <StateMark state={state} />}
        </chakra.span>
        <span className={`fact ${state === 'none' ? 'quiet' : state}`}>{word}</span>
        <span className="fact small">{read}</span>
        <span className="fact small quiet">{drawn}</span>
      </>
    ),
  };
}
