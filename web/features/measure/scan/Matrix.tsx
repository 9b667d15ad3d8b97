import { chakra } from '@chakra-ui/react';
import type { ScanLink } from '#core/desk-tests/scan/index.ts';
import { LineButton, StateMark, Table } from '#web/shared/parts/index.ts';
import { scan as say } from '#words/index.ts';
import type { ScanMade } from './engine.ts';
import { factsOf, khz, SIDES, sayDb, sayMs } from './say.ts';
import { type Drawing, pathAt } from './useDrawing.ts';

interface Props {
  readonly scan: ScanMade;
  /** Names of output and input between which something changed: 'output>input'. */
  readonly changed: ReadonlySet<string>;
  readonly drawing: Drawing | null;
  readonly chosen: ScanLink | undefined;
  readonly onChoose: (link: ScanLink) => void;
}

/** Outputs down, inputs across: in each place what arrived. */
export function Matrix({ scan, changed, drawing, chosen, onChoose }: Props) {
  return (
    <chakra.div overflowX="auto" marginTop="12px">
      <Table aria-label={say.matrix()} className="scan-matrix">
        <thead>
          <tr>
            <th scope="col">{say.playedFrom()}</th>
            {scan.inputs.map((input) => (
              <th key={input.id} scope="col">
                {input.name}
                <chakra.span className="quiet small" display="block">
                  {factsOf(input)}
                </chakra.span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {scan.outputs.map((output) => (
            <tr key={output.id}>
              <th scope="row">
                {output.name}
                <chakra.span className="quiet small" display="block">
                  {say.rateKhz({ khz: khz(output.sampleRateHz) })}
                </chakra.span>
              </th>
              {scan.inputs.map((input) => {
                const link = scan.links.find((l) => l.outputId === output.id && l.inputId === input.id);
                const drawn = pathAt(drawing, { outputId: output.id, inputId: input.id });
                return (
                  <td key={input.id} className={link && link === chosen ? 'marked' : undefined}>
                    {link ? (
                      <Cell
                        link={link}
                        from={output.name}
                        to={input.name}
                        isChanged={changed.has(`${output.name}>${input.name}`)}
                        isAsDrawn={drawn ? drawn.differences.length === 0 : null}
                        isChosen={link === chosen}
                        onChoose={() => onChoose(link)}
                      />
                    ) : drawn && drawn.differences.length > 0 ? (
                      <span>
                        <StateMark state="fix" /> {say.drawnNotHere()}
                      </span>
                    ) : (
                      <span className="quiet">
                        <span aria-hidden>·</span>
                        <span className="visually-hidden">{say.nothing()}</span>
                      </span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </Table>
    </chakra.div>
  );
}

interface CellProps {
  readonly link: ScanLink;
  readonly from: string;
  readonly to: string;
  readonly isChanged: boolean;
  /** Null where an end of it isn't in the drawing. */
  readonly isAsDrawn: boolean | null;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
}

function Cell({ link, from, to, isChanged, isAsDrawn, isChosen, onChoose }: CellProps) {
  const said = { db: sayDb(link.levelDb), ms: sayMs(link.delayMs) };
  return (
    <LineButton aria-pressed={isChosen} aria-label={say.cell({ from, to, ...said })} onClick={onChoose}>
      <span className="strong">{say.levelDb(said)}</span>{' '}
      {isAsDrawn !== null && (
        <StateMark state={isAsDrawn ? 'good' : 'fix'} title={isAsDrawn ? say.isAsDrawn() : say.notAsDrawn()} />
      )}
      {isChanged && <StateMark state="watch" title={say.hasChanged()} />}
      <chakra.span className="quiet small" display="block">
        {[
          say.delayMs(said),
          ...(link.sides === 'straight' ? [] : [SIDES[link.sides]()]),
          ...(link.polarity === -1 ? [say.inverted()] : []),
          ...(link.again.length > 0 ? [say.arrivesTwice()] : []),
        ].join(', ')}
      </chakra.span>
    </LineButton>
  );
}
