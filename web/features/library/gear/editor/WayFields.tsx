import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import type { DeviceType, Stage } from '#core/model/rig/index.ts';
import { sayStage } from '#web/features/library/gear/inside.ts';
import { Choice, NumberInput, off, Table, useMore } from '#web/shared/parts/index.ts';
import { common, gear as say } from '#words/index.ts';
import { groupWays, newWay, numbersOf, stageChoices, ungroupWays, type WayGroup, withNumber } from './ways.ts';

interface Props {
  readonly draft: DeviceType;
  readonly onDraft: (draft: DeviceType) => void;
}

/** The inside, way by way: from which port to which, and what a signal meets on it. */
export function WayFields({ draft, onDraft }: Props) {
  const ways = useMemo(() => groupWays(draft.inside), [draft.inside]);
  const [ends, setEnds] = useState({ from: '', to: '' });
  const choices = useMemo(() => stageChoices(draft), [draft]);
  const numbered = useMemo(() => ways.map((way, index) => ({ way, index })), [ways]);
  const { shown, more } = useMore(numbered);
  const name = (id: string) => draft.ports.find((p) => p.id === id)?.name ?? id;
  const set = (next: readonly WayGroup[]) => onDraft({ ...draft, inside: ungroupWays(next) });
  const setStages = (at: number, stages: readonly Stage[]) =>
    set(ways.map((w, i) => (i === at ? { ...w, stages } : w)));
  const options = (direction: 'in' | 'out') =>
    [
      ['', direction === 'in' ? say.fromWord() : say.toWord()],
      ...draft.ports.filter((p) => p.direction === direction || p.direction === 'inside').map((p) => [p.id, p.name]),
    ] as [string, string][];
  return (
    <>
      <h2>{say.insideTitle()}</h2>
      <Table tight aria-label={say.pathsInside()}>
        <tbody>
          {shown.map(({ way, index }) => (
            <tr key={`${way.from} ${way.to} ${way.channels.join()} ${index}`}>
              <chakra.td width="28%">
                {name(way.from)} → {name(way.to)}
                <div className="small quiet">
                  {way.channels.map(([a, b]) => (a === b ? a : say.toOf({ a, b }))).join(', ')}
                </div>
              </chakra.td>
              <td>
                <Stages
                  draft={draft}
                  label={say.toOfAlso({ from: way.from, to: way.to })}
                  stages={way.stages}
                  choices={choices}
                  onStages={(stages) => setStages(index, stages)}
                />
              </td>
              <td className="number">
                <Button onClick={() => set(ways.filter((_, i) => i !== index))}>{common.remove()}</Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      {more}
      <chakra.div className="row" marginTop="6px">
        <Choice
          label={say.pathFrom()}
          value={ends.from}
          options={options('in')}
          onChange={(from) => setEnds({ ...ends, from })}
        />
        <Choice
          label={say.pathTo()}
          value={ends.to}
          options={options('out')}
          onChange={(to) => setEnds({ ...ends, to })}
        />
        <Button
          {...off(ends.from === '' || ends.to === '' ? say.chooseBothEnds() : null)}
          onClick={() => {
            set([...ways, newWay(draft, ends.from, ends.to)]);
            setEnds({ from: '', to: '' });
          }}
        >
          {say.addPath()}
        </Button>
      </chakra.div>
    </>
  );
}

interface StagesProps {
  readonly draft: DeviceType;
  readonly label: string;
  readonly stages: readonly Stage[];
  readonly choices: ReturnType<typeof stageChoices>;
  readonly onStages: (stages: readonly Stage[]) => void;
}

/** What a signal meets on a way, in its order. */
function Stages({ draft, label, stages, choices, onStages }: StagesProps) {
  // A mixer has a hundred ways and as many things to meet: the list comes when it is asked for.
  const [adding, setAdding] = useState(false);
  const put = (at: number, stage: Stage) => onStages(stages.map((s, i) => (i === at ? stage : s)));
  return (
    <>
      {stages.map((stage, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the same stage may stand twice, their order is what they are
        <chakra.div key={at} className="row" marginBottom="4px">
          <chakra.span className="small" minWidth="200px">
            {sayStage(draft, stage)}
          </chakra.span>
          {numbersOf(stage).map(([name, value], i) => (
            <NumberInput
              key={name}
              label={`${label}, ${at + 1}: ${name}`}
              value={value}
              width="62px"
              onValue={(v) => v !== undefined && put(at, withNumber(stage, i, v))}
            />
          ))}
          <Button
            aria-label={say.remove({ stage: sayStage(draft, stage) })}
            onClick={() => onStages(stages.filter((_, i) => i !== at))}
          >
            ×
          </Button>
        </chakra.div>
      ))}
      {adding ? (
        <Choice
          label={say.addTo({ label })}
          value=""
          options={[['', 'meets…'], ...choices.map((c, i) => [String(i), c.says] as const)]}
          onChange={(i) => {
            const choice = choices[Number(i)];
            setAdding(false);
            if (i !== '' && choice) onStages([...stages, choice.stage]);
          }}
        />
      ) : (
        <Button aria-label={say.stageToAddOn({ label })} onClick={() => setAdding(true)}>
          +
        </Button>
      )}
    </>
  );
}
