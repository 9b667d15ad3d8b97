import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CHANGES_HEADER } from '#api/index.ts';
import { startHistory } from '#core/model/rig/index.ts';
import { answer, overtaken, stubServer } from '#web/server.testkit.ts';
import { demoRig } from '#web/web.testkit.tsx';
import {
  applyStep,
  closed,
  keptMine,
  makeStore,
  openRig,
  readDraft,
  redoStep,
  selectEvaluation,
  selectRig,
  tookTheirs,
  undoStep,
} from './index.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
/** A server that keeps one rig in memory, and can be lost. */
function fakeServer() {
  const state = {
    revision: 1,
    document: demoRig() as unknown,
    lost: false,
    full: 0,
    dropsAnswer: false,
    puts: 0,
    changes: [] as string[][],
  };
  stubServer(async (request) => {
    if (state.lost) throw new TypeError('no connection');
    if (request.method !== 'PUT') return answer(200, []);
    state.puts++;
    if (state.full-- > 0)
      return answer(507, { type: 'x', title: 'Disk full', status: 507, detail: 'The disk is full.' });
    state.changes.push(JSON.parse(decodeURIComponent(request.headers.get(CHANGES_HEADER)!)));
    const record = () => ({
      id: RIG,
      revision: state.revision,
      updatedAt: '2026-11-25T00:00:00.000Z',
      document: state.document,
    });
    if (request.headers.get('If-Match') !== `"${state.revision}"`) {
      return overtaken(record());
    }
    state.revision++;
    state.document = await request.json();
    if (state.dropsAnswer) {
      state.dropsAnswer = false;
      throw new TypeError('no answer');
    }
    return answer(200, record());
  });
  return state;
}

let server: ReturnType<typeof fakeServer>;
let store: ReturnType<typeof makeStore>;
beforeEach(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
  });
  server = fakeServer();
  store = makeStore();
  store.dispatch(openRig({ rigId: RIG, history: startHistory(demoRig()), revision: 1, save: 'saved' }));
});
afterEach(() => {
  // What this store still meant to send must not reach the next test's server.
  store.dispatch(closed());
  vi.unstubAllGlobals();
});

const rename = (name: string) => store.dispatch(applyStep({ kind: 'rename', name }, `name: ${name}`));
const save = () => store.getState().desk!.save;

describe('the rig in hand', () => {
  it('is changed by steps, undone, done again, and evaluated once for each rig', () => {
    expect(rename('A')).toBe(true);
    const first = selectEvaluation(store.getState());
    expect(selectEvaluation(store.getState())).toBe(first);
    store.dispatch(undoStep());
    expect(selectRig(store.getState())!.name).toBe('Boathouse relay');
    store.dispatch(redoStep());
    expect(selectRig(store.getState())!.name).toBe('A');
  });
  it('refuses an edit with a reason and stays as it was', () => {
    const before = selectRig(store.getState());
    expect(store.dispatch(applyStep({ kind: 'unplug', cableId: 'not-there' }, 'x'))).toBe(false);
    expect(selectRig(store.getState())).toBe(before);
    expect(store.getState().desk!.refusal).toMatch(/not-there/);
  });
  it('is kept in the browser after each edit and by the server soon after, as one save for many keys', async () => {
    for (const name of ['B', 'Bo', 'Boa']) rename(name);
    await vi.waitFor(() => expect(readDraft(RIG)).toMatchObject({ saved: false, history: { rig: { name: 'Boa' } } }));
    await vi.waitFor(() => expect(save()).toBe('saved'));
    expect(server).toMatchObject({ puts: 1, document: { name: 'Boa' } });
    await vi.waitFor(() => expect(readDraft(RIG)).toMatchObject({ saved: true, revision: 2 }));
    expect(readDraft(RIG)!.history.past).toHaveLength(3);
  });
  it('is kept at once when the page goes, and when the rig is closed in the same breath', async () => {
    const page = new EventTarget();
    vi.stubGlobal('addEventListener', page.addEventListener.bind(page));
    vi.stubGlobal('removeEventListener', page.removeEventListener.bind(page));
    rename('Boat');
    page.dispatchEvent(new Event('pagehide'));
    expect(readDraft(RIG)).toMatchObject({ history: { rig: { name: 'Boat' } } });
    rename('Boats');
    store.dispatch(closed());
    await vi.waitFor(() => expect(readDraft(RIG)).toMatchObject({ history: { rig: { name: 'Boats' } } }));
  });
  it('waits for a lost server, and sends what was done meanwhile', async () => {
    server.lost = true;
    rename('C');
    await vi.waitFor(() => expect(save()).toBe('offline'));
    rename('D');
    server.lost = false;
    await vi.waitFor(() => expect(save()).toBe('saved'), { timeout: 8000 });
    expect(server.document).toMatchObject({ name: 'D' });
  });
  it('is tried again where the server cannot keep it just now, and says so until it is kept', async () => {
    server.full = 2;
    rename('F');
    await vi.waitFor(() => expect(save()).toBe('waiting'));
    expect(store.getState().desk!.waits).toBe('The disk is full.');
    expect(readDraft(RIG)).toMatchObject({ saved: false, history: { rig: { name: 'F' } } });
    await vi.waitFor(() => expect(save()).toBe('saved'), { timeout: 12_000 });
    expect(store.getState().desk!.waits).toBeNull();
    expect(server).toMatchObject({ puts: 3, document: { name: 'F' } });
  });
  it('tells with each save what was changed since the one before, and what was undone', async () => {
    rename('G');
    rename('H');
    await vi.waitFor(() => expect(save()).toBe('saved'));
    store.dispatch(undoStep());
    await vi.waitFor(() => expect(server.changes).toHaveLength(2));
    await vi.waitFor(() => expect(save()).toBe('saved'));
    rename('I');
    await vi.waitFor(() => expect(server.changes).toHaveLength(3));
    expect(server.changes).toEqual([['name: G', 'name: H'], ['Undone: “name: H”'], ['name: I']]);
  });
  it('knows its own save again when only the answer was lost', async () => {
    server.dropsAnswer = true;
    rename('E');
    await vi.waitFor(() => expect(save()).toBe('saved'), { timeout: 8000 });
    expect(server.revision).toBe(2);
    expect(store.getState().desk!.newer).toBeNull();
  });
  it('asks when another window was first, and keeps both until one is chosen', async () => {
    server.revision = 5;
    server.document = { ...demoRig(), name: 'Theirs' };
    rename('Mine');
    await vi.waitFor(() => expect(save()).toBe('conflict'));
    expect(store.getState().desk!.newer!.rig.name).toBe('Theirs');
    expect(selectRig(store.getState())!.name).toBe('Mine');
    store.dispatch(keptMine());
    await vi.waitFor(() => expect(save()).toBe('saved'));
    expect(server.document).toMatchObject({ name: 'Mine' });
  });
  it('takes theirs where one says so', async () => {
    server.revision = 5;
    server.document = { ...demoRig(), name: 'Theirs' };
    rename('Mine');
    await vi.waitFor(() => expect(save()).toBe('conflict'));
    store.dispatch(tookTheirs());
    expect(selectRig(store.getState())!.name).toBe('Theirs');
    expect(store.getState().desk!).toMatchObject({ save: 'saved', revision: 5 });
  });
  it('is not read from a draft that makes no sense', () => {
    localStorage.setItem(`mellow.rig.${RIG}`, '{"revision":"x"}');
    expect(readDraft(RIG)).toBeNull();
    localStorage.setItem(`mellow.rig.${RIG}`, 'not json');
    expect(readDraft(RIG)).toBeNull();
  });
});
