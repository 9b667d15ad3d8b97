// @vitest-environment happy-dom
import { act, renderHook, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { beforeEach, describe, expect, it } from 'vitest';
import type { TakeNotes, TakeRecord } from '#api/index.ts';
import { textOf } from '#core/base/said/index.ts';
import { addTasks, applyEdit, type Edit, markDone, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { answer, noServer, overtaken, stubServer } from '#web/server.testkit.ts';
import { someWork } from '#web/shared/jobs/jobs.testkit.ts';
import { makeStore, selectRig } from '#web/shared/store/index.ts';
import { useTakeNotes } from '#web/shared/take/index.ts';
import { clearPage, demoRig, RIG_ID, show } from '#web/web.testkit.tsx';
import { takes as say } from '#words/index.ts';
import { restingTake } from './bench.testkit.ts';
import { Findings } from './Findings.tsx';
import { moveMark, toggleMark } from './marks.ts';
import { PictureIntoRig } from './PictureIntoRig.tsx';

const TAKE = '22222222-2222-4222-8222-222222222222';
/** A server that keeps the marks of one take in memory, and can be lost. */
function fakeServer() {
  const state = { revision: 1, notes: null as TakeNotes | null, lost: false, dropsAnswer: false, puts: 0 };
  stubServer(async (request) => {
    if (state.lost) throw new TypeError('no connection');
    if (request.method !== 'PUT') return answer(200, []);
    state.puts++;
    if (request.headers.get('If-Match') !== `"${state.revision}"`) {
      return overtaken({ revision: state.revision, notes: state.notes });
    }
    state.revision++;
    state.notes = (await request.json()) as TakeNotes;
    if (state.dropsAnswer) {
      state.dropsAnswer = false;
      throw new TypeError('no answer');
    }
    return answer(200, record(state.revision, state.notes));
  });
  return state;
}
const record = (revision: number, notes: TakeNotes | null): TakeRecord => ({
  id: TAKE,
  name: 'a take',
  bytes: 10,
  sha256: 'x',
  addedAt: '2026-11-25T10:00:00.000Z',
  revision,
  notes,
  usedBy: [],
});
const marks = (...atMs: number[]): TakeNotes => ({
  flashes: [],
  claps: atMs.map((ms) => ({ atMs: ms, used: true, byHand: true })),
  frameMs: null,
  speaksOf: null,
});

describe('marks that somebody made', () => {
  let server: ReturnType<typeof fakeServer>;
  beforeEach(() => {
    server = fakeServer();
  });
  const notesOf = (first: TakeRecord | undefined) => {
    const store = makeStore();
    const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;
    return renderHook((r: TakeRecord | undefined) => useTakeNotes(TAKE, r), { wrapper, initialProps: first });
  };
  const sent = (notes: TakeNotes) => waitFor(() => expect(server.notes).toEqual(notes), { timeout: 4000 });

  it('are sent when they rest, as one, and are then forgotten here', async () => {
    const { result } = notesOf(record(1, null));
    for (const at of [1, 2, 3]) act(() => result.current.change(marks(at)));
    await sent(marks(3));
    expect(server.puts).toBe(1);
    await waitFor(() => expect(localStorage.getItem(`mellow.take.${TAKE}`)).toBeNull());
  });
  it('wait in the browser for a lost server, through a reload', async () => {
    server.lost = true;
    const before = notesOf(record(1, null));
    act(() => before.result.current.change(marks(7)));
    await waitFor(() => expect(before.result.current.saying).toMatch(/isn’t responding/), { timeout: 3000 });
    before.unmount();
    server.lost = false;
    const after = notesOf(record(1, null));
    expect(after.result.current.notes).toEqual(marks(7));
    await sent(marks(7));
    expect(after.result.current.conflict).toBeNull();
  });
  it('wait for a take that is still on its way to the server', async () => {
    const { result, rerender } = notesOf(undefined);
    act(() => result.current.change(marks(4)));
    await new Promise((resolve) => setTimeout(resolve, 600));
    expect(server.puts).toBe(0);
    rerender(record(1, null));
    await sent(marks(4));
  });
  it('know their own save again when only the answer was lost', async () => {
    server.dropsAnswer = true;
    const { result } = notesOf(record(1, null));
    act(() => result.current.change(marks(5)));
    await waitFor(() => expect(server.puts).toBe(2), { timeout: 5000 });
    await waitFor(() => expect(result.current.saying).toBeNull());
    expect(result.current.conflict).toBeNull();
  });
  it('are both kept when another window was first, until one is chosen', async () => {
    const mine = notesOf(record(1, null));
    Object.assign(server, { revision: 5, notes: marks(50) });
    act(() => mine.result.current.change(marks(6)));
    await waitFor(() => expect(mine.result.current.conflict).not.toBeNull(), { timeout: 3000 });
    expect(server.notes).toEqual(marks(50));
    expect(mine.result.current.notes).toEqual(marks(6));
    act(() => mine.result.current.conflict!.keepMine());
    await sent(marks(6));
    expect(server.revision).toBe(6);
    Object.assign(server, { revision: 9, notes: marks(90) });
    act(() => mine.result.current.change(marks(8)));
    await waitFor(() => expect(mine.result.current.conflict).not.toBeNull(), { timeout: 3000 });
    act(() => mine.result.current.conflict!.takeTheirs());
    expect(mine.result.current.notes).toEqual(marks(90));
    expect(server.puts).toBe(3);
  });
});

const NOTHING = { offset: null, apart: null, work: someWork() };

describe('what takes say', () => {
  it('is the offset with its spread, in frames of the take, held against the rig’s tolerance', () => {
    show(<Findings bench={[restingTake('a')]} comparison={NOTHING} rig={null} evaluation={null} />);
    const cells = screen.getAllByRole('cell').map((c) => c.textContent!.trim());
    expect(cells.slice(0, 2)).toEqual(['audio vs. video', '65.0 ms late']);
    expect(cells[3]).toBe('3.3');
    expect(cells[4]).toBe('2 claps');
    expect(cells[5]).toMatch(/the tolerance \(/);
  });
  it('is nothing where no flash goes with a clap', () => {
    const take = restingTake('a');
    const none = toggleMark(toggleMark(take.notes!, 'flashes', 0), 'flashes', 1);
    show(<Findings bench={[{ ...take, notes: none }]} comparison={NOTHING} rig={null} evaluation={null} />);
    expect(screen.queryByTestId('findings')).toBeNull();
  });
  it('of two takes is how they lie, how they drift, and how sure that is', () => {
    const offset = {
      offsetMs: -625.39,
      spreadMs: 0.001,
      confidence: 1,
      driftPpm: -31,
      driftSdPpm: 0.04,
      polarity: -1 as const,
      points: [],
    };
    const takes = [restingTake('a'), restingTake('b')].map((t) => ({ ...t, notes: null }));
    show(<Findings bench={takes} comparison={{ ...NOTHING, offset }} rig={null} evaluation={null} />);
    const row = screen.getAllByRole('row').at(-1)!;
    expect(row.textContent).toContain('625.39 ms earlier');
    expect(row.textContent).toContain('runs 31.0 ±0.08 ppm shorter (drift): 112 ms in an hour');
    expect(row.textContent).toContain(say.polarityInverted());
    expect(screen.getByTestId('slip-list').textContent).toContain('+625.39 ms and play it at 0.999969 of its speed');
    clearPage();
    const apart = {
      jumps: [{ atMs: 107_000, withinMs: 400, stepMs: -10 }],
      driftPpm: -31,
      driftSdPpm: 0.1,
      startMs: -625,
      readings: Array.from({ length: 50 }, (_, i) => ({
        atMs: 4000 * i,
        offsetMs: -625 - 0.031 * 4 * i - (4000 * i > 107_000 ? 10 : 0),
      })),
    };
    show(<Findings bench={takes} comparison={{ ...NOTHING, offset, apart }} rig={null} evaluation={null} />);
    expect(screen.getByTestId('jumps').textContent).toContain(
      'At 01:47 (±0.4 s) the second loses 10.00 ms: a lost or doubled buffer. Cut it there, and move the rest by +10.00 ms more.',
    );
    expect(screen.getByTestId('slip-list').textContent).toContain('Cut at 01:47: 2 parts');
    clearPage();
    show(
      <Findings
        bench={takes}
        comparison={{ ...NOTHING, offset: { ...offset, confidence: 0.1 } }}
        rig={null}
        evaluation={null}
      />,
    );
    expect(screen.getAllByRole('row').at(-1)!.textContent).toContain('Not the same sound (confidence 10%)');
  });
});

describe('a take into the rig', () => {
  const edited = (rig: Rig, edit: Edit): Rig => {
    const done = applyEdit(rig, edit);
    if (!done.ok) throw new Error(textOf(done.refusal.reason));
    return done.rig;
  };
  const change = { deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 60 };
  const open = (rig: Rig, take = restingTake('couch clap')) => {
    stubServer(noServer);
    return show(<PictureIntoRig take={take} rigId={RIG_ID} rig={rig} evaluation={evaluate(rig)} />, { rig });
  };
  const then = () => within(screen.getAllByRole('row').at(-1)!).getAllByRole('cell').at(-1)!.textContent;

  it('shows what will change and what setting follows, and changes it', async () => {
    const { store } = open(demoRig());
    expect((screen.getByLabelText('Source') as HTMLSelectElement).value).toBe('couch');
    expect(then()).toMatch(/^65 ms late/);
    expect(screen.getByRole('listitem').textContent).toBe('Streaming software, Input 2, video delay: 65 ms');
    await userEvent.click(screen.getByRole('button', { name: /Add to rig/ }));
    expect(selectRig(store.getState())!.measurements).toMatchObject([{ takeId: 'couch clap', offsetMs: 65 }]);
  });
  it('asks with which delays it was made, where there are any', async () => {
    const planned = edited(demoRig(), addTasks(demoRig(), [change], '2026-11-25T10:00:00Z'));
    open(planned);
    // At the desk nothing is set yet: with the 60 ms that are drawn it will be 5 late.
    expect(then()).toMatch(/^5 ms late/);
    await userEvent.selectOptions(screen.getByLabelText(say.delaysSetDuringTake()), 'drawn');
    expect(then()).toMatch(/^65 ms late/);
  });
  it('does not offer again what is in the rig, unless its marks were corrected', async () => {
    const first = open(demoRig());
    await userEvent.click(screen.getByRole('button', { name: /Add to rig/ }));
    const measured = selectRig(first.store.getState())!;
    clearPage();
    const set = edited(measured, markDone(measured, [change]));
    open(set);
    expect(screen.getByText(/In the rig since/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Take it/ })).toBeNull();
    expect(then()).toMatch(/^5 ms late/);
    clearPage();
    const take = restingTake('couch clap');
    const corrected = { ...take, notes: moveMark(take.notes!, 'claps', 0, 1068) };
    open(set, corrected);
    expect(screen.getByText(/In the rig; its marks have been corrected since\./)).toBeTruthy();
    expect(then()).toMatch(/^7 ms late/);
  });
});
