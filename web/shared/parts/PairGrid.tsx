import { type KeyboardEvent, memo, type ReactNode, type UIEvent, useCallback, useMemo, useRef } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { common, parts as say } from '#words/index.ts';
import { SourceLetter } from './SourceLetter.tsx';
import { useSteady } from './useSteady.ts';

export interface Place {
  readonly row: number;
  readonly column: number;
}

/** Content of a cell. It is drawn again only when `told`, the same in words, changes. */
export interface PairCell {
  readonly told: string;
  readonly draw: () => ReactNode;
}

interface Props {
  readonly label: string;
  readonly rig: Rig;
  /** Places of the sources and listeners that are shown, in the rig's order. */
  readonly rows: readonly number[];
  readonly columns: readonly number[];
  readonly at: Place;
  readonly onAt: (place: Place) => void;
  readonly cell: (row: number, column: number) => PairCell;
  /** The same thing as long as nothing of a row changes; where absent, each cell is asked. */
  readonly rowIs?: (row: number) => unknown;
}

/** Back to the cell that is looked at: from its card, by Enter. */
export const focusCell = (): void =>
  document.querySelector<HTMLElement>('[role=gridcell][aria-selected="true"]')?.focus();

const STEPS: Record<string, readonly [row: number, column: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
/** To the ends of a row, and of the table with Ctrl. */
const FAR = 1e6;
const ENDS: Record<string, readonly [row: number, column: number]> = { Home: [0, -FAR], End: [0, FAR] };

/** Sources by listeners: a grid that is walked by arrow keys. */
export function PairGrid({ label, rig, rows, columns, at, onAt, cell, rowIs }: Props) {
  const table = useRef<HTMLDivElement>(null);
  const go = (e: KeyboardEvent) => {
    const by = STEPS[e.key] ?? ENDS[e.key];
    if (!by || e.shiftKey) return;
    e.preventDefault();
    const next = (list: readonly number[], now: number, step: number) => {
      const i = list.indexOf(now);
      return list[Math.min(list.length - 1, Math.max(0, Math.max(i, 0) + step))] ?? now;
    };
    const rowStep = e.ctrlKey && ENDS[e.key] ? by[1] : by[0];
    const place = { row: next(rows, at.row, rowStep), column: next(columns, at.column, by[1]) };
    onAt(place);
    table.current?.querySelector<HTMLElement>(`[data-place="${place.row} ${place.column}"]`)?.focus();
  };
  const choose = useSteady(onAt);
  const shape = { gridTemplateColumns: `${HEAD_PX}px repeat(${columns.length}, minmax(${CELL_PX}px, 1fr))` };
  return (
    <div className="hearing-scroll" onScroll={follow}>
      {/* Not a table element: the browser would lay all of a table out anew for every word that changes in it. */}
      <div
        ref={table}
        role="grid"
        tabIndex={-1}
        className="pair-grid"
        style={{ width: HEAD_PX + columns.length * CELL_PX }}
        aria-label={label}
        onKeyDown={go}
      >
        <div role="row" className="pair-row pair-head" style={shape}>
          <div role="columnheader">
            <span className="visually-hidden">{common.source()}</span>
          </div>
          {columns.map((c) => (
            <div role="columnheader" key={rig.listeners[c]!.id}>
              {rig.listeners[c]!.name}
            </div>
          ))}
        </div>
        {rows.map((r) => (
          <GridRow
            key={rig.sources[r]!.id}
            row={r}
            is={rowIs ? rowIs(r) : cell}
            source={rig.sources[r]!}
            listeners={rig.listeners}
            columns={columns}
            chosen={r === at.row ? at.column : null}
            width={shape.gridTemplateColumns}
            cell={cell}
            onChoose={choose}
          />
        ))}
      </div>
    </div>
  );
}

interface RowProps {
  readonly row: number;
  readonly is: unknown;
  readonly source: Rig['sources'][number];
  readonly listeners: Rig['listeners'];
  readonly columns: readonly number[];
  /** The column of the chosen cell; null where it is in another row. */
  readonly chosen: number | null;
  readonly width: string;
  readonly cell: Props['cell'];
  readonly onChoose: (place: Place) => void;
}

const same = (a: readonly number[], b: readonly number[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x === b[i]));

/** A row that is the same is not drawn again. */
const GridRow = memo(
  function GridRow({ row, source, listeners, columns, chosen, width, cell, onChoose }: RowProps) {
    return (
      <div role="row" className="pair-row" style={{ gridTemplateColumns: width }}>
        <SourceHead source={source} />
        {columns.map((c) => {
          const { told, draw } = cell(row, c);
          return (
            <GridCell
              key={listeners[c]!.id}
              row={row}
              column={c}
              told={say.at({ source: source.name, name: listeners[c]!.name, told })}
              chosen={c === chosen}
              draw={draw}
              onChoose={onChoose}
            />
          );
        })}
      </div>
    );
  },
  (a, b) =>
    a.is === b.is &&
    a.chosen === b.chosen &&
    a.row === b.row &&
    a.source === b.source &&
    a.listeners === b.listeners &&
    a.width === b.width &&
    same(a.columns, b.columns),
);

const HEAD_PX = 132;
const CELL_PX = 84;

const SourceHead = memo(function SourceHead({ source }: { source: Rig['sources'][number] }) {
  return (
    <div role="rowheader" className="pair-source">
      <SourceLetter source={source} /> {source.name}
    </div>
  );
});

/** Names stay in sight while the table is scrolled; moved by hand, since forty sticky ones are forty layers to paint. */
function follow({ currentTarget }: UIEvent<HTMLElement>): void {
  currentTarget.classList.toggle('scrolled', currentTarget.scrollLeft > 0);
  currentTarget.style.setProperty('--scrolled', `${currentTarget.scrollLeft}px`);
}

interface CellProps extends PairCell {
  readonly row: number;
  readonly column: number;
  readonly chosen: boolean;
  readonly onChoose: (place: Place) => void;
}

/** Cells that say the same are not drawn again: a table may have sixteen hundred. */
const GridCell = memo(
  function GridCell({ row, column, told, chosen, draw, onChoose }: CellProps) {
    const choose = useCallback(() => onChoose({ row, column }), [onChoose, row, column]);
    // biome-ignore lint/correctness/useExhaustiveDependencies: `told` stands for all that is drawn
    const content = useMemo(draw, [told]);
    return (
      <div
        role="gridcell"
        className="hearing-cell"
        tabIndex={chosen ? 0 : -1}
        aria-selected={chosen}
        data-place={`${row} ${column}`}
        aria-label={told}
        onFocus={choose}
        onClick={choose}
      >
        {content}
      </div>
    );
  },
  (a, b) => a.told === b.told && a.chosen === b.chosen && a.row === b.row && a.column === b.column,
);
