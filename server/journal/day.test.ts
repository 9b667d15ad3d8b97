import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DayPage } from '#api/index.ts';
import { type DayEvent, MAX_EVENTS } from '#core/live/run/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { type TestDesk, testDesk } from '../start/server.testkit.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
const OTHER = '22222222-2222-4222-8222-222222222222';
const SESSION = '33333333-3333-4333-8333-333333333333';

let desk: TestDesk;
beforeEach(async () => {
  desk = await testDesk();
  for (const id of [RIG, OTHER]) await ask('POST', '/api/rigs', { id, document: boathouse });
});
afterEach(() => desk.end());

const ask = async (method: string, path: string, body?: unknown) => {
  const response = await fetch(desk.base + path, {
    method,
    ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return { status: response.status, json: text ? JSON.parse(text) : null };
};
const tick = (n: number): DayEvent => ({
  id: `44444444-4444-4444-8444-${String(n).padStart(12, '0')}`,
  at: new Date(Date.UTC(2026, 10, 26, 10, 0, n)).toISOString(),
  sessionId: SESSION,
  by: 'desk',
  kind: 'tick',
  list: 'first',
  itemId: `step-${n}`,
});
const tell = (events: readonly unknown[], rig = RIG) => ask('POST', `/api/rigs/${rig}/day`, { events });
const page = async (after = 0, rig = RIG) =>
  DayPage.parse((await ask('GET', `/api/rigs/${rig}/day?after=${after}`)).json);

describe('the day on the server', () => {
  it('is kept in the order in which it came, and told from a place on', async () => {
    expect(await tell([tick(1), tick(2)])).toMatchObject({ status: 204 });
    const first = await page();
    expect(first.events).toEqual([tick(1), tick(2)]);
    await tell([tick(3)]);
    expect((await page(first.seq)).events).toEqual([tick(3)]);
    expect(await page(0, OTHER)).toMatchObject({ events: [], more: false });
  });
  it('keeps what is sent twice once, in one request or in two, and over a restart', async () => {
    await tell([tick(1), tick(1), tick(2)]);
    await desk.restart();
    await tell([tick(2), tick(1), tick(3)]);
    expect((await page()).events.map((e) => e.id)).toEqual([tick(1), tick(2), tick(3)].map((e) => e.id));
  });
  it('gives many in pages, none twice and none left out', async () => {
    const all = Array.from({ length: MAX_EVENTS + 20 }, (_, n) => tick(n));
    await tell(all.slice(0, MAX_EVENTS));
    await tell(all.slice(MAX_EVENTS));
    const one = await page();
    expect(one.more).toBe(true);
    const two = await page(one.seq);
    expect(two.more).toBe(false);
    expect([...one.events, ...two.events]).toEqual(all);
    expect(await tell(Array.from({ length: MAX_EVENTS + 1 }, (_, n) => tick(n)))).toMatchObject({ status: 400 });
  });
  it('takes twenty senders at once', async () => {
    await Promise.all(Array.from({ length: 20 }, (_, n) => tell([tick(n), tick((n + 1) % 20)])));
    const ids = (await page()).events.map((e) => e.id);
    expect(ids).toHaveLength(20);
    expect(new Set(ids).size).toBe(20);
  });
  it('refuses what is no event, is of no rig, or is kept of another one', async () => {
    expect(await tell([{ ...tick(1), kind: 'tock' }])).toMatchObject({ status: 400 });
    expect(await tell([{ ...tick(1), at: 'yesterday' }])).toMatchObject({ status: 400 });
    expect(await tell([])).toMatchObject({ status: 400 });
    expect(await tell([tick(1)], SESSION)).toMatchObject({ status: 404 });
    expect(await ask('GET', `/api/rigs/${SESSION}/day`)).toMatchObject({ status: 404 });
    expect(await ask('GET', `/api/rigs/${RIG}/day?after=-1`)).toMatchObject({ status: 400 });
    await tell([tick(1)]);
    expect(await tell([tick(1), tick(2)], OTHER)).toMatchObject({ status: 409 });
    expect((await page(0, OTHER)).events).toEqual([]);
  });
});
