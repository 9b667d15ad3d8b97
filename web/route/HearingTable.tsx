import { type KeyboardEvent, memo, useRef } from 'react';
import type { PlanCell, Rig } from '#core/rig/index.ts';
import { formatNumber, SourceLetter, StateMark } from '#web/parts/index.ts';
import type { Cell } from './cells.ts';

export interface Place {
  readonly row: number;
  readonly column: number;
}

interface Props {
  readonly rig: Rig;
  readonly cells: readonly (readonly Cell[])[];
  readonly rows: readonly number[];
  readonly columns: readonly number[];
  readonly at: Place;
  readonly onAt: (place: Place) => void;
}

const MARKS: Record<PlanCell['want'], { readonly mark: string; readonly says: string }> = {
  must: { mark: '●', says: 'must' },
  'must-not': { mark: '×', says: 'must not' },
  may: { mark: '○', says: 'may' },
};

/** Sources by listeners: wanted against actual; walked by arrow keys. */
export function HearingTable({ rig, cells, rows, columns, at, onAt }: Props) {
  const table = useRef<HTMLTableElement>(null);
  const go = (e: KeyboardEvent) => {
    const by = STEPS[e.key];
    if (!by) return;
    e.preventDefault();
    const next = (list: readonly number[], now: number, step: number) => {
      const i = list.indexOf(now);
      return list[Math.min(list.length - 1, Math.max(0, Math.max(i, 0) + step))] ?? now;
    };
    const place = { row: next(rows, at.row, by[0]), column: next(columns, at.column, by[1]) };
    onAt(place);
    table.current?.querySelector<HTMLElement>(`[data-place="${place.row} ${place.column}"]`)?.focus();
  };
  return (
    <div style={{ overflowX: 'auto' }}>
      {/* biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a grid in the sense of WAI-ARIA, walked by arrow keys */}
      <table ref={table} role="grid" className="table tight hearing" aria-label="Who hears what" onKeyDown={go}>
        <thead>
          <tr>
            <th>
              <span className="visually-hidden">Source</span>
            </th>
            {columns.map((c) => (
              <th key={rig.listeners[c]!.id} scope="col">
                {rig.listeners[c]!.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => {
            const source = rig.sources[r]!;
            return (
              <tr key={source.id}>
                <th scope="row">
                  <SourceLetter source={source} /> {source.name}
                </th>
                {columns.map((c) => (
                  <HearingCell
                    key={rig.listeners[c]!.id}
                    cell={cells[r]![c]!}
                    place={`${r} ${c}`}
                    said={`${source.name} at ${rig.listeners[c]!.name}`}
                    chosen={r === at.row && c === at.column}
                    onChoose={() => onAt({ row: r, column: c })}
                  />
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

const STEPS: Record<string, readonly [row: number, column: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

interface CellProps {
  readonly cell: Cell;
  readonly place: string;
  readonly said: string;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

/** Cells that say the same are not drawn anew: a table may have sixteen hundred. */
const HearingCell = memo(function HearingCell({ cell, place, said, chosen, onChoose }: CellProps) {
  const { pair, state, word } = cell;
  const { underVoiceDb } = pair;
  const want = pair.want && MARKS[pair.want];
  const level = underVoiceDb === null ? '' : sayUnder(underVoiceDb);
  const offset = pair.verdict.offsetMs;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: having the focus is choosing it
    <td
      // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: a cell of that grid
      role="gridcell"
      className="hearing-cell"
      tabIndex={chosen ? 0 : -1}
      aria-selected={chosen}
      data-place={place}
      aria-label={`${said}: ${want ? `${want.says}; ` : ''}${word || 'not heard'}${level && `, ${level}`}`}
      onFocus={onChoose}
      onClick={onChoose}
    >
      <span className="row" style={{ gap: 5 }}>
        <span className="want quiet">{want?.mark ?? ''}</span>
        {(state !== 'none' || word !== '') && <StateMark state={state} />}
        <span className={state === 'none' ? 'quiet' : state}>{word}</span>
      </span>
      {level && <span className="fact small quiet">{level}</span>}
      {offset !== null && Math.abs(offset) >= 1 && <span className="fact small quiet">{formatNumber(offset)} ms</span>}
    </td>
  );
}, isSameCell);

function isSameCell(a: CellProps, b: CellProps): boolean {
  const told = ({ cell, chosen, said, place }: CellProps) =>
    `${cell.pair.want} ${cell.state} ${cell.word} ${cell.pair.underVoiceDb} ${cell.pair.verdict.offsetMs} ${chosen} ${said} ${place}`;
  return told(a) === told(b);
}

/** '12 dB under', 'as loud', '3 dB over'. */
export function sayUnder(db: number): string {
  const whole = Math.round(db);
  if (whole === 0) return 'as loud';
  return `${Math.abs(whole)} dB ${whole > 0 ? 'under' : 'over'}`;
}
