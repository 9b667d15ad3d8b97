import { lazy } from 'react';
import type { Figure } from '#core/model/units/index.ts';
import { common, parts as say, textOf } from '#words/index.ts';
import { Explained } from './Explained.tsx';
import { decimalsOf, formatNumber, formatSpread, withUnit } from './format.ts';
import { Term } from './Term.tsx';

/** One figure as a row: what, how much, how sure. Its value can be asked why. */
export function FigureRow({ figure, signed = false }: { figure: Figure; signed?: boolean }) {
  const { label, value, kind } = figure;
  return (
    <tr>
      <td>{textOf(label)}</td>
      <td className="number">
        <Why figure={figure}>
          {signed && value.nominal > 0
            ? `+${formatNumber(value.nominal, decimalsOf(figure))}`
            : formatNumber(value.nominal, decimalsOf(figure))}
        </Why>
      </td>
      <td className="quiet small">
        <Term id={kind}>{common[kind]()}</Term> {formatSpread(figure)}
      </td>
    </tr>
  );
}

const FigurePopover = lazy(async () => ({ default: (await import('./FigurePopover.tsx')).FigurePopover }));

/** A figure that opens its sum and source. */
export function Why({ figure, children }: { figure: Figure; children: string }) {
  return (
    <Explained
      label={say.why({ figure: withUnit(children, figure) })}
      explains={(place) => <FigurePopover figure={figure} text={children} {...place} />}
    >
      {children}
    </Explained>
  );
}
