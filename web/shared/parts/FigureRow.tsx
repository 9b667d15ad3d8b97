import { Popover, Portal } from '@chakra-ui/react';
import type { Figure } from '#core/model/units/index.ts';
import { common, parts as say, textOf } from '#words/index.ts';
import { TermButton } from './buttons.tsx';
import { formatNumber, formatSpread } from './format.ts';
import { Table } from './Table.tsx';
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

const decimalsOf = ({ kind, value }: Figure): number => (kind === 'typical' || Number.isInteger(value.nominal) ? 0 : 1);

const withUnit = (text: string, { unit }: Figure): string => (text.includes(unit) ? text : `${text} ${unit}`);

/** A figure's sum and source, opened on the figure itself. */
export function Why({ figure, children }: { figure: Figure; children: string }) {
  return (
    <Popover.Root lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <TermButton aria-label={say.why({ figure: withUnit(children, figure) })}>{children}</TermButton>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content aria-label={say.whyWith({ figure: withUnit(children, figure) })}>
            <Popover.Body>
              <p className="strong">
                {textOf(figure.label)}: {withUnit(children, figure)}
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
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
