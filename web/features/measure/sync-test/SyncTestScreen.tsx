import { Button, chakra } from '@chakra-ui/react';
import { useMemo, useRef } from 'react';
import { Link, useParams } from 'react-router';
import { nextTakes, type TestedPath, testTable } from '#core/desk-tests/sync-test/index.ts';
import type { Edit, Rig } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { FileInput, rich, Term, useFileDrop, useKey } from '#web/shared/parts/index.ts';
import { api, applyStep, selectScene, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { syncTest as say } from '#words/index.ts';
import { HeapTable } from './HeapTable.tsx';
import { NextTakes } from './NextTakes.tsx';
import type { SortedTake } from './sort.ts';
import { TestTable } from './TestTable.tsx';
import { type HeapItem, useHeap } from './useHeap.ts';

/** The path test: which take measured which path with which delays, what it should be, and what is still to be recorded. */
export function SyncTestScreen() {
  const scene = useAppSelector(selectScene);
  const { rigId } = useParams();
  return scene && rigId ? <Paths key={rigId} rigId={rigId} rig={scene.rig} evaluation={scene.evaluation} /> : null;
}

const ACCEPTED = '.mp4,.mov,.webm,.mkv,video/*';

function Paths({ rigId, rig, evaluation }: { rigId: string; rig: Rig; evaluation: Evaluation }) {
  const dispatch = useAppDispatch();
  const heap = useHeap();
  const kept = api.useTakesQuery(undefined);
  const chooser = useRef<HTMLInputElement>(null);
  const drop = useFileDrop(heap.addFiles);
  const table = useMemo(() => testTable(rig), [rig]);
  const next = useMemo(() => nextTakes(rig), [rig]);
  const tested = table.filter((p) => p.takes.length > 0);
  useKey('o', say.chooseTakesForBatch(), () => chooser.current?.click());
  const intoTest = (ready: readonly { readonly item: HeapItem; readonly sorted: SortedTake }[]) => {
    const edits = ready.map(({ item, sorted }): Edit => {
      const read = item.read!;
      return {
        kind: 'add-measurement',
        measurement: {
          kind: 'offset',
          id: `p-${crypto.randomUUID()}`,
          label: item.name.replace(/\.[a-z0-9]{2,4}$/i, ''),
          takeId: item.id,
          takenAt: new Date().toISOString(),
          sourceId: sorted.sourceId,
          listenerId: sorted.listenerId,
          settings: [...sorted.settings],
          ms: { mean: read.offsetMs, sd: read.sdMs, count: read.count },
          leftOut: false,
        },
      };
    });
    if (dispatch(applyStep({ kind: 'batch', edits }, say.takeAddedToSync({ take: edits.length }))))
      for (const { item } of ready) heap.remove(item.id);
  };
  const others = (kept.data ?? []).filter(
    (t) => /\.(mp4|mov|webm|mkv)$/i.test(t.name) && !heap.items.some((i) => i.id === t.id) && !isTested(table, t.id),
  );
  return (
    <main className="frame-page" {...drop.target}>
      <FileInput chooser={chooser} label={say.takesForBatch()} accept={ACCEPTED} onFiles={heap.addFiles} />
      <div className="page">
        <div className="spread">
          <h1>
            <Term id="path-test">{say.syncTest()}</Term>
          </h1>
          <span className="row">
            <Link to="/slate">{say.showSyncSlate()}</Link>
            <Link to={`/rigs/${rigId}/sync`}>{say.backToSync()}</Link>
          </span>
        </div>
        <p className="quiet">{say.vOffsetEveryPath({ tested: tested.length, table: table.length })}</p>
        <div className={`drop ${drop.over ? 'over' : ''}`}>
          <p>{say.dropAllYourSync()}</p>
          <chakra.p className="row" marginTop="8px">
            <Button variant="solid" onClick={() => chooser.current?.click()}>
              {rich(say.chooseTakesO, {})}
            </Button>
            {others.slice(0, 6).map((t) => (
              <Button key={t.id} variant="plain" onClick={() => heap.addKept([t])}>
                {t.name}
              </Button>
            ))}
          </chakra.p>
        </div>
        <HeapTable heap={heap} rigId={rigId} rig={rig} evaluation={evaluation} onTake={intoTest} />
        <NextTakes rig={rig} table={table} next={next} />
        <TestTable rigId={rigId} rig={rig} table={table} />
      </div>
    </main>
  );
}

const isTested = (table: readonly TestedPath[], takeId: string): boolean =>
  table.some((p) => p.takes.some((t) => t.take.takeId === takeId));
