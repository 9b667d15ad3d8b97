import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { DayEvent, MAX_EVENTS } from '#core/live/run/index.ts';
import { answer, stubServer } from '#web/server.testkit.ts';
import { type AppStore, makeStore, newId, recordEvent, selectDayLink, selectSession, selectWaiting } from './index.ts';
import { askDay, followDay } from './journal.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
const PAGE = 4;

/** A server that keeps what it is told in the order that it came, and hands it out some at a time. */
function dayServer() {
  const state = { events: [] as DayEvent[], lost: false, refuses: false, posts: [] as number[] };
  stubServer(async (request) => {
    if (state.lost) throw new TypeError('no connection');
    if (state.refuses) return answer(422, { title: 'No', status: 422 });
    if (request.method === 'POST') {
      const { events } = (await request.json()) as { events: DayEvent[] };
      state.posts.push(events.length);
      const known = new Set(state.events.map((e) => e.id));
      state.events.push(...events.filter((e) => !known.has(e.id)));
      return answer(200, {});
    }
    const after = Number(new URL(request.url).searchParams.get('after'));
    const events = state.events.slice(after, after + PAGE);
    return answer(200, {
      events,
      seq: after + events.length,
      more: after + events.length < state.events.length,
      revision: 1,
    });
  });
  return state;
}

let server: ReturnType<typeof dayServer>;
let kept: Map<string, string>;
let open: (() => void)[] = [];
beforeEach(() => {
  kept = new Map();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
    key: (i: number) => [...kept.keys()][i] ?? null,
    get length() {
      return kept.size;
    },
  });
  server = dayServer();
});
afterEach(() => {
  for (const close of open) close();
  open = [];
  vi.unstubAllGlobals();
});

function screen(): { store: AppStore; close: () => void } {
  const store = makeStore();
  const close = store.dispatch(followDay(RIG));
  open.push(close);
  return { store, close };
}
const soon = (done: () => void) => vi.waitFor(done, { timeout: 10_000 });
const linked = (store: AppStore, link: string) =>
  soon(() => {
    askDay();
    expect(selectDayLink(store.getState())).toBe(link);
  });
const mark = (says: string) => recordEvent({ kind: 'mark', says });
/** What was told within a thousandth of a second stands in no order. */
const marks = (store: AppStore) => (selectSession(store.getState())?.markers.map((m) => m.says) ?? []).sort();
const waiting = (store: AppStore) => selectWaiting(store.getState());

describe('the day as this page keeps it', () => {
  it('begins a session with the first thing that is told, and goes to the server', async () => {
    const { store } = screen();
    store.dispatch(mark('lap record'));
    expect(marks(store)).toEqual(['lap record']);
    await soon(() => expect(waiting(store)).toBe(0));
    expect(server.events.map((e) => e.kind)).toEqual(['begin', 'mark']);
    expect(new Set(server.events.map((e) => e.sessionId)).size).toBe(1);
    store.dispatch(mark('second'));
    await soon(() => expect(server.events.map((e) => e.kind)).toEqual(['begin', 'mark', 'mark']));
    // What the server has is kept there, and no longer here one by one.
    expect([...kept.keys()].filter((k) => k.startsWith(`mellow.day.${RIG}`))).toEqual([]);
  });
  it('goes on while the server is lost, says so, and sends it once when it is back', async () => {
    const { store } = screen();
    await linked(store, 'sent');
    server.lost = true;
    store.dispatch(mark('one'));
    store.dispatch(mark('two'));
    await linked(store, 'lost');
    expect(marks(store)).toEqual(['one', 'two']);
    expect(waiting(store)).toBe(3);
    server.lost = false;
    await linked(store, 'sent');
    expect(waiting(store)).toBe(0);
    expect(server.events.map((e) => (e.kind === 'mark' ? e.says : e.kind))).toEqual(['begin', 'one', 'two']);
  });
  it('outlives a reload with the server away, and is the same session then', async () => {
    server.lost = true;
    const first = screen();
    first.store.dispatch(mark('one'));
    await linked(first.store, 'lost');
    first.close();
    const second = screen();
    expect(marks(second.store)).toEqual(['one']);
    second.store.dispatch(mark('two'));
    server.lost = false;
    await linked(second.store, 'sent');
    expect(server.events.filter((e) => e.kind === 'begin')).toHaveLength(1);
    expect(marks(second.store)).toEqual(['one', 'two']);
  });
  it('shows a session that the server has while it is away, from what was heard before', async () => {
    const first = screen();
    first.store.dispatch(mark('one'));
    await linked(first.store, 'sent');
    await soon(() => expect(kept.get(`mellow.days.${RIG}`)).toContain('one'));
    first.close();
    server.lost = true;
    const second = screen();
    expect(marks(second.store)).toEqual(['one']);
    await linked(second.store, 'lost');
    expect(marks(second.store)).toEqual(['one']);
  });
  it('hears what another screen told, page by page, each once', async () => {
    const { store: desk } = screen();
    desk.dispatch(mark('from the desk'));
    await linked(desk, 'sent');
    const session = selectSession(desk.getState())!.id;
    const told = Array.from({ length: 3 * PAGE }, (_, i) =>
      DayEvent.parse({
        id: newId(),
        sessionId: session,
        by: 'phone',
        at: new Date(Date.now() + i).toISOString(),
        kind: 'mark',
        says: `phone ${i}`,
      }),
    );
    server.events.push(...told);
    await soon(() => {
      askDay();
      expect(marks(desk)).toHaveLength(1 + told.length);
    });
    expect(new Set(marks(desk)).size).toBe(1 + told.length);
  });
  it('sends no more at once than the server takes', async () => {
    server.lost = true;
    const { store } = screen();
    for (let i = 0; i < MAX_EVENTS + 20; i++) store.dispatch(mark(`${i}`));
    await linked(store, 'lost');
    server.lost = false;
    await linked(store, 'sent');
    expect(Math.max(...server.posts)).toBeLessThanOrEqual(MAX_EVENTS);
    expect(server.events).toHaveLength(MAX_EVENTS + 21);
  });
  it('says that it was refused, and keeps it', async () => {
    const { store } = screen();
    await linked(store, 'sent');
    server.refuses = true;
    store.dispatch(mark('odd'));
    await linked(store, 'refused');
    expect(waiting(store)).toBe(2);
    expect(marks(store)).toEqual(['odd']);
  });
  it('is of one rig: closed, nothing more is told, and what stands there stays', async () => {
    const { store, close } = screen();
    await linked(store, 'sent');
    close();
    store.dispatch(mark('nowhere'));
    expect(waiting(store)).toBe(0);
    expect(selectSession(store.getState())).toBeNull();
  });
  it('bears a browser that keeps nothing, and what it cannot read', async () => {
    kept.set(`mellow.day.${RIG}.broken`, '{"kind":"mark"}');
    kept.set(`mellow.days.${RIG}`, 'no JSON');
    const { store } = screen();
    expect(waiting(store)).toBe(0);
    vi.stubGlobal('localStorage', {
      getItem: () => null,
      setItem: () => {
        throw new DOMException('full', 'QuotaExceededError');
      },
      removeItem: () => undefined,
      key: () => null,
      length: 0,
    });
    store.dispatch(mark('all the same'));
    await soon(() => expect(server.events.some((e) => e.kind === 'mark')).toBe(true));
    expect(marks(store)).toEqual(['all the same']);
  });
});

describe('an id', () => {
  it('is a UUID of chance, where the browser makes none of its own too', () => {
    const ids = Array.from({ length: 200 }, newId);
    expect(new Set(ids).size).toBe(200);
    for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  });
});
