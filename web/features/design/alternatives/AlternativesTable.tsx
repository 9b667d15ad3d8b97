import { MEASURE_IDS, MEASURES, type MeasureId, type Option, type Weights } from '#core/routing/plan/index.ts';
import { formatNumber, LineButton, Slider, StateMark, Table, Term } from '#web/shared/parts/index.ts';
import { frame, alternatives as say, textOf } from '#words/index.ts';
import { SAID } from './measures.ts';

interface Props {
  readonly ranked: readonly { readonly option: Option; readonly score: number }[];
  /** All of them: bars are drawn against the range of all, whichever are shown. */
  readonly all: readonly Option[];
  readonly weights: Weights;
  readonly chosenId: string | null;
  readonly onWeight: (id: MeasureId, weight: number) => void;
  readonly onChoose: (id: string) => void;
}

const MAX_WEIGHT = 5;
const BAR_PX = 52;

/** The ways as rows, what they are held against each other by as columns; the longer the bar the better. */
export function AlternativesTable({ ranked, all, weights, chosenId, onWeight, onChoose }: Props) {
  const ranges = new Map(
    MEASURE_IDS.map((id) => {
      const values = all.map(MEASURES[id]);
      return [id, { low: Math.min(...values), high: Math.max(...values) }] as const;
    }),
  );
  const goodness = (id: MeasureId, o: Option): number => {
    const { low, high } = ranges.get(id)!;
    return high > low ? (high - MEASURES[id](o)) / (high - low) : 1;
  };
  return (
    <div className="hearing-scroll">
      <Table tight className="ways" aria-label={frame.alternatives()}>
        <thead>
          <tr>
            <th>{say.alternative()}</th>
            <th className="number">{say.score()}</th>
            {MEASURE_IDS.map((id) => (
              <th key={id} className="number" title={SAID[id].says}>
                <Slider
                  label={say.weight({ name: SAID[id].name, says: SAID[id].says })}
                  value={weights[id]}
                  min={0}
                  max={MAX_WEIGHT}
                  width="58px"
                  onValue={(weight) => onWeight(id, weight)}
                />
                <span className={weights[id] === 0 ? 'quiet' : ''}>{SAID[id].name}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ranked.map(({ option, score }) => (
            <tr
              key={option.kind.id}
              aria-selected={option.kind.id === chosenId}
              onClick={() => onChoose(option.kind.id)}
            >
              <td>
                <LineButton onClick={() => onChoose(option.kind.id)}>{textOf(option.kind.name)}</LineButton>
                {option.unbeaten && (
                  <span className="good small">
                    {' '}
                    <StateMark state="good" /> <Term id="unbeaten">{say.bestTradeOff()}</Term>
                  </span>
                )}
              </td>
              <td className="number strong">{formatNumber(100 * score)}</td>
              {MEASURE_IDS.map((id) => {
                const good = goodness(id, option);
                return (
                  <td key={id} className="number">
                    {SAID[id].say(option)}
                    <span
                      className={`ways-bar ${good > 0.999 ? 'best' : ''}`}
                      style={{ inlineSize: `${Math.round(good * BAR_PX)}px` }}
                    />
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  );
}
