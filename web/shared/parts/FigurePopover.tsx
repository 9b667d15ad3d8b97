import type { Figure } from '#core/model/units/index.ts';
import { common, parts as say, textOf } from '#words/index.ts';
import type { Place } from './Explained.tsx';
import { ExplainedPopover } from './ExplainedPopover.tsx';
import { decimalsOf, formatNumber, formatSpread, withUnit } from './format.ts';
import { Table } from './Table.tsx';

/** A figure's sum and source. */
export function FigurePopover({ figure, text, ...place }: Place & { readonly figure: Figure; readonly text: string }) {
  return (
    <ExplainedPopover title={say.whyWith({ figure: withUnit(text, figure) })} {...place}>
      <p className="strong">
        {textOf(figure.label)}: {withUnit(text, figure)}
      </p>
      <p className="quiet">{textOf(figure.source)}</p>
      {figure.terms.length > 0 && (
        <Table>
          <tbody>
            {figure.terms.map((term) => (
              <tr key={textOf(term.label)}>
                <td>{textOf(term.label)}</td>
                <td className="number">{formatNumber(term.value.nominal, decimalsOf(term))}</td>
                <td className="quiet small">
                  {common[term.kind]()} {formatSpread(term)}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </ExplainedPopover>
  );
}
