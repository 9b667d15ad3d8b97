// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { nextTakes } from '#core/desk-tests/sync-test/index.ts';
import { applyEdit, type Measurement, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { noServer, stubServer } from '#web/server.testkit.ts';
import { aTask } from '#web/shared/jobs/jobs.testkit.ts';
import { selectRig } from '#web/shared/store/index.ts';
import type { TakeOffset } from '#web/shared/take/index.ts';
import { demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { common, syncTest as say } from '#words/index.ts';
import { HeapTable } from './HeapTable.tsx';
import { SyncTestScreen } from './index.ts';
import { keepSourceOfSlate, type SortedTake, sortTake } from './sort.ts';
import type { Heap, HeapItem } from './useHeap.ts';

beforeEach(() => {
  stubServer(noServer);
  localStorage.clear();
});
const rig = demoRig();
const evaluation = evaluate(rig);
const readable = evaluation.pairs.filter((p) => p.ways[0]?.offset);
const read = (more: Partial<TakeOffset> = {}): TakeOffset => ({
  offsetMs: 61,
  sdMs: 2,
  count: 4,
  by: 'claps',
  ...more,
});
const sorted = (name: string, more: Partial<TakeOffset> = {}) =>
  sortTake(RIG_ID, rig, evaluation, readable, name, read(more));

const offsets = (...values: readonly (readonly [meanMs: number, delay: number])[]): Measurement[] =>
  values.map(([mean, value], i) => ({
    kind: 'offset',
    id: `p${i}`,
    label: `take ${i}`,
    takenAt: '2026-11-26T10:00:00Z',
    sourceId: 'couch',
    listenerId: 'stream',
    settings: [{ setting: 'capture-program.in-2-picture-delay', value }],
    ms: { mean, sd: 1, count: 4 },
    leftOut: false,
  }));
const tested = (measurements: readonly Measurement[]): Rig => {
  const done = applyEdit(rig, {
    kind: 'batch',
    edits: measurements.map((measurement) => ({ kind: 'add-measurement', measurement })),
  });
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const open = (of: Rig) =>
  show(
    <Routes>
      <Route path="/rigs/:rigId/sync/paths" element={<SyncTestScreen />} />
    </Routes>,
    { rig: of, at: `/rigs/${RIG_ID}/sync/paths` },
  );

describe('takes of a heap', () => {
  it('find their places by their names, and their delays by a number of ms in it', () => {
    expect(sorted('couch clap, track 3.mp4')).toMatchObject({ sourceId: 'couch', listenerId: 'track-3' });
    const named = sorted('couch at the stream, 120 ms.mp4');
    expect(named).toMatchObject({ sourceId: 'couch', listenerId: 'stream' });
    expect(named.settings.every((s) => s.value === 0)).toBe(true);
    const own = {
      ...rig,
      devices: rig.devices.map((d) =>
        d.id === 'capture-program'
          ? { ...d, settings: { ...d.settings, 'in-2-picture-delay': { value: 40, known: 'confirmed' as const } } }
          : d,
      ),
    };
    const again = sortTake(RIG_ID, own, evaluate(own), readable, 'couch, stream 120 ms.mp4', read());
    expect(again.settings.find((s) => s.setting.endsWith('in-2-picture-delay'))!.value).toBe(120);
  });
  it('find them by the number of their slate, once somebody said which source shows it', () => {
    expect(sorted('0001.mp4', { by: 'slate', slateId: 4 }).sourceId).not.toBe('couch-game');
    keepSourceOfSlate(RIG_ID, 4, 'couch-game');
    expect(sorted('0001.mp4', { by: 'slate', slateId: 4 }).sourceId).toBe('couch-game');
  });
  it('are shown with what they say, may be put elsewhere, and go into the test together', async () => {
    const user = userEvent.setup();
    const item = (id: string, more: Partial<HeapItem>): HeapItem => ({
      id,
      name: `${id}.mp4`,
      read: read(),
      says: null,
      ...more,
    });
    const removed: string[] = [];
    const heap: Heap = {
      items: [
        item('couch', {}),
        item('0002', { read: read({ by: 'slate', slateId: 6, offsetMs: -20 }) }),
        item('0003', { read: null, says: 'It has no picture.' }),
        item('0004', { read: null }),
      ],
      addFiles: () => undefined,
      addKept: () => undefined,
      taskOf: (id) => (id === '0004' ? aTask({ done: 0.4 }) : null),
      again: () => undefined,
      remove: (id) => removed.push(id),
    };
    const taken: { item: HeapItem; sorted: SortedTake }[][] = [];
    show(<HeapTable heap={heap} rigId={RIG_ID} rig={rig} evaluation={evaluation} onTake={(t) => taken.push([...t])} />);
    expect(screen.getByTestId('heap').textContent).toMatch(/20.0 ms early.*slate 7, 4 beats/);
    expect(screen.getByTestId('heap').textContent).toContain('It has no picture.');
    await user.selectOptions(screen.getByLabelText('Source of “0002.mp4”'), 'Couch game');
    await user.click(screen.getByRole('button', { name: 'Add all 2 to the test' }));
    expect(taken[0]!.map((t) => t.sorted.sourceId)).toEqual(['couch', 'couch-game']);
    // From now on that slate is that source's.
    expect(sorted('0009.mp4', { by: 'slate', slateId: 6 }).sourceId).toBe('couch-game');
    await user.click(screen.getAllByRole('button', { name: common.remove() })[2]!);
    expect(removed).toEqual(['0003']);
  });
});

describe('the path test', () => {
  it('shows each take beside what it should be, marks the odd one, and leaves it out by hand', async () => {
    const user = userEvent.setup();
    const { store } = open(tested(offsets([60, 0], [41, 20], [-39, 100], [60, 60])));
    const rows = within(screen.getByTestId('path-test')).getAllByRole('row');
    expect(rows).toHaveLength(6);
    expect(rows[4]!.textContent).toMatch(/video delay: 100 ms.*39/);
    expect(rows[5]!.textContent).toMatch(/had not been at/);
    await user.click(within(rows[5]!).getByRole('button', { name: common.exclude() }));
    const after = within(screen.getByTestId('path-test')).getAllByRole('row')[5]!;
    expect(after.textContent).toMatch(/excluded/);
    expect(selectRig(store.getState())!.measurements.filter((m) => m.kind === 'offset' && m.leftOut)).toHaveLength(1);
  });
  it('takes a path into the rig as one figure', async () => {
    const user = userEvent.setup();
    const { store } = open(tested(offsets([60, 0], [41, 20], [-39, 100])));
    await user.click(screen.getByRole('button', { name: say.addToRig() }));
    const now = selectRig(store.getState())!;
    expect(now.measurements.filter((m) => m.kind === 'delay')).toHaveLength(1);
    const offset = evaluate(now).pairs.find((p) => p.sourceId === 'couch' && p.listenerId === 'stream')!.ways[0]!
      .offset!;
    expect(Math.abs(offset.value.nominal - 60.6)).toBeLessThan(1);
    expect(screen.getByText(/in the rig:/)).toBeTruthy();
  });
  it('says what to record next, most telling first, and which paths have no take', () => {
    open(rig);
    const list = within(screen.getByTestId('next-takes')).getAllByRole('listitem');
    expect(list).toHaveLength(nextTakes(rig).length);
    expect(list[0]!.textContent).toMatch(/removes \d+% of the uncertainty/);
    expect(screen.getByText(`${readable.length} paths without a take`)).toBeTruthy();
    expect(screen.getByText(/No takes yet\. Drop some above, or record the/)).toBeTruthy();
  });
});
