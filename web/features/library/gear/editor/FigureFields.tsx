import { Button, chakra, Input } from '@chakra-ui/react';
import type { DeviceType } from '#core/model/rig/index.ts';
import { Choice, NumberInput, Table } from '#web/shared/parts/index.ts';
import { common, gear as say } from '#words/index.ts';
import { freeName } from './names.ts';

interface Props {
  readonly draft: DeviceType;
  readonly onDraft: (draft: DeviceType) => void;
}
type FigureSpec = DeviceType['figures'][string];

/** The delays of a device that cannot be set, each with its range, kind and source. */
export function FigureFields({ draft, onDraft }: Props) {
  const put = (id: string, figure: FigureSpec) => onDraft({ ...draft, figures: { ...draft.figures, [id]: figure } });
  const takeOut = (id: string) => {
    const { [id]: _gone, ...rest } = draft.figures;
    onDraft({ ...draft, figures: rest });
  };
  const add = () =>
    put(freeName('delay', new Set(Object.keys(draft.figures))), {
      label: say.ownDelay(),
      unit: 'ms',
      range: [1, 5, 20],
      kind: 'typical',
      source: say.myOwnEstimate(),
    });
  return (
    <>
      <h2>{say.ownDelays()}</h2>
      <Table tight aria-label={say.ownDelays()}>
        <tbody>
          {Object.entries(draft.figures).map(([id, figure]) => (
            <tr key={id}>
              <td>
                <Input
                  aria-label={say.nameDelay({ id })}
                  value={figure.label}
                  onChange={(e) => put(id, { ...figure, label: e.target.value })}
                />
              </td>
              <td>
                <span className="row">
                  {([say.min(), 'usual', say.maxWord()] as const).map((name, i) => (
                    <NumberInput
                      key={name}
                      label={`${id}, ${name}`}
                      value={figure.range[i]!}
                      width="62px"
                      onValue={(value) => {
                        if (value === undefined) return;
                        const range = figure.range.map((v, k) => (k === i ? value : v)) as [number, number, number];
                        put(id, { ...figure, range });
                      }}
                    />
                  ))}
                  <Choice
                    label={say.unit({ id })}
                    value={figure.unit}
                    options={[
                      ['ms', 'ms'],
                      ['frames', 'frames'],
                    ]}
                    onChange={(unit) => put(id, { ...figure, unit: unit as FigureSpec['unit'] })}
                  />
                </span>
              </td>
              <td>
                <Input
                  aria-label={say.source({ id })}
                  value={figure.source}
                  onChange={(e) => put(id, { ...figure, source: e.target.value })}
                />
              </td>
              <td className="number">
                <Button onClick={() => takeOut(id)}>{common.remove()}</Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <chakra.p marginTop="6px">
        <Button onClick={add}>{say.addOwnDelay()}</Button>
      </chakra.p>
    </>
  );
}
