import { Button, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { WorkLine } from '#web/shared/jobs/index.ts';
import {
  Choice,
  decimalsFor,
  formatNumber,
  formatOffset,
  Head,
  hidden,
  NumberInput,
  Table,
} from '#web/shared/parts/index.ts';
import { common, syncTest as say } from '#words/index.ts';
import { keepSourceOfSlate, type SortedTake, settingsOfPair, sortTake } from './sort.ts';
import type { Heap, HeapItem } from './useHeap.ts';

interface Props {
  readonly heap: Heap;
  readonly rigId: string;
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly onTake: (items: readonly { readonly item: HeapItem; readonly sorted: SortedTake }[]) => void;
}

/** The heap, take by take: what it says, and what it is taken for before it goes into the test. */
export function HeapTable({ heap, rigId, rig, evaluation, onTake }: Props) {
  const readable = evaluation.pairs.filter((p) => p.ways[0]?.offset);
  const [changed, setChanged] = useState<Readonly<Record<string, SortedTake>>>({});
  if (heap.items.length === 0) return null;
  const sortedOf = (item: HeapItem): SortedTake | null =>
    item.read && (changed[item.id] ?? sortTake(rigId, rig, evaluation, readable, item.name, item.read));
  const ready = heap.items.flatMap((item) => {
    const sorted = sortedOf(item);
    return sorted ? [{ item, sorted }] : [];
  });
  const change = (item: HeapItem, part: Partial<SortedTake>) => {
    const before = sortedOf(item)!;
    const next = { ...before, ...part };
    const moved = next.sourceId !== before.sourceId || next.listenerId !== before.listenerId;
    const settings = moved
      ? settingsOfPair(rig, evaluation, next.sourceId, next.listenerId).map(({ setting, value }) => ({
          setting,
          value,
        }))
      : next.settings;
    if (part.sourceId && item.read?.slateId !== undefined) keepSourceOfSlate(rigId, item.read.slateId, part.sourceId);
    setChanged((all) => ({ ...all, [item.id]: { ...next, settings } }));
  };
  return (
    <section aria-label={say.batch()}>
      <div className="spread">
        <h2>{say.batch()}</h2>
        <chakra.span className="row" marginTop="16px">
          <Button disabled={ready.length === 0} onClick={() => onTake(ready)}>
            {ready.length > 1 ? say.addAllToTest({ ready: ready.length }) : say.addToTest()}
          </Button>
        </chakra.span>
      </div>
      <Table tight data-testid="heap">
        <Head
          columns={[
            say.take(),
            say.contents(),
            common.source(),
            common.destination(),
            say.delaysSetDuringTake(),
            hidden(common.actions()),
          ]}
        />
        <tbody>
          {heap.items.map((item) => {
            const sorted = sortedOf(item);
            return (
              <tr key={item.id}>
                <td>{item.name}</td>
                <td>
                  <Said item={item} heap={heap} />
                </td>
                {sorted ? (
                  <PlaceCells
                    item={item}
                    sorted={sorted}
                    rig={rig}
                    evaluation={evaluation}
                    onChange={(part) => change(item, part)}
                  />
                ) : (
                  <td colSpan={3} className="quiet">
                    {item.says}{' '}
                    {item.says && <Link to={`/rigs/${rigId}/bench?takes=${item.id}`}>{say.openInMeasure()}</Link>}
                  </td>
                )}
                <td>
                  <Button variant="plain" onClick={() => heap.remove(item.id)}>
                    {common.remove()}
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </section>
  );
}

function Said({ item, heap }: { item: HeapItem; heap: Heap }) {
  const task = heap.taskOf(item.id);
  if (task)
    return (
      <WorkLine task={task} width="70px" onStop={() => heap.remove(item.id)} onAgain={() => heap.again(item.id)} />
    );
  if (!item.read) return <span className="watch">{common.nothing()}</span>;
  const { offsetMs, sdMs, count: n, by, slateId } = item.read;
  return (
    <span className="fact">
      <span className="strong">{formatOffset(offsetMs, decimalsFor(sdMs))}</span> ±
      {formatNumber(sdMs, decimalsFor(sdMs))}
      <div className="quiet small">
        {by === 'slate' ? say.slateBeats({ n1: slateId! + 1, beat: n }) : common.claps({ count: n })}
      </div>
    </span>
  );
}

function PlaceCells({
  item,
  sorted,
  rig,
  evaluation,
  onChange,
}: {
  item: HeapItem;
  sorted: SortedTake;
  rig: Rig;
  evaluation: Evaluation;
  onChange: (part: Partial<SortedTake>) => void;
}) {
  const readable = evaluation.pairs.filter((p) => p.ways[0]?.offset);
  const settings = settingsOfPair(rig, evaluation, sorted.sourceId, sorted.listenerId);
  const listeners = rig.listeners.filter((l) =>
    readable.some((p) => p.sourceId === sorted.sourceId && p.listenerId === l.id),
  );
  const firstListener = (sourceId: string) =>
    readable.find((p) => p.sourceId === sourceId && p.listenerId === sorted.listenerId)?.listenerId ??
    readable.find((p) => p.sourceId === sourceId)!.listenerId;
  return (
    <>
      <td>
        <Choice
          label={say.source({ item: item.name })}
          value={sorted.sourceId}
          options={rig.sources.filter((s) => readable.some((p) => p.sourceId === s.id)).map((s) => [s.id, s.name])}
          onChange={(sourceId) => onChange({ sourceId, listenerId: firstListener(sourceId) })}
        />
      </td>
      <td>
        <Choice
          label={say.destination({ item: item.name })}
          value={sorted.listenerId}
          options={listeners.map((l) => [l.id, l.name])}
          onChange={(listenerId) => onChange({ listenerId })}
        />
      </td>
      <td>
        {settings.length === 0 && <span className="quiet">{say.noneOnThisPath()}</span>}
        {settings.map((s) => (
          <div key={s.setting} className="row">
            <NumberInput
              label={say.values({ s: s.name, item: item.name })}
              value={sorted.settings.find((v) => v.setting === s.setting)?.value ?? s.spec.min}
              min={s.spec.min}
              max={s.spec.max}
              onValue={(value = s.spec.min) =>
                onChange({
                  settings: [...sorted.settings.filter((v) => v.setting !== s.setting), { setting: s.setting, value }],
                })
              }
            />
            <span className="small quiet">
              {s.spec.unit}, {s.name}
            </span>
          </div>
        ))}
      </td>
    </>
  );
}
