import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { BroughtBack, DayPage, RigRecord, TakeList } from '#api/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { relayDays } from '#demo/relay-days.ts';
import { type TestDesk, testDesk } from '../start/server.testkit.ts';
import { fileNames } from './manifest.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
const TAKE = '22222222-2222-4222-8222-222222222222';
const BESIDE = '33333333-3333-4333-8333-333333333333';

const desks: TestDesk[] = [];
async function desk(): Promise<TestDesk> {
  const made = await testDesk({ now: () => new Date('2026-11-26T12:00:00Z') });
  desks.push(made);
  return made;
}
afterEach(async () => {
  for (const made of desks.splice(0)) await made.end();
});

const take = Buffer.from(Uint8Array.from({ length: 300_000 }, (_, i) => (i * 7919) % 251));
const photo = Buffer.concat([Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'), Buffer.alloc(2000, 7)]);
const events = relayDays();

let here: TestDesk;
beforeEach(async () => {
  here = await desk();
  const { rigs, takes, day } = here.opened;
  const sent = await fetch(`${here.base}/api/photos`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: photo,
  });
  const { sha256 } = (await sent.json()) as { sha256: string };
  const rig = parseRig({
    ...boathouse,
    devices: boathouse.devices.map((d) =>
      d.id === 'mixer' ? { ...d, photos: [{ sha256, name: 'knobs', at: '2026-11-20T10:00:00.000Z' }] } : d,
    ),
    measurements: [
      {
        kind: 'level',
        id: 'm',
        label: 'm',
        takeId: TAKE,
        takenAt: '2026-11-20T10:00:00.000Z',
        sourceId: 'wren',
        listenerId: 'stream',
        db: { mean: -20, sd: 1, count: 3 },
        means: 'wren',
      },
    ],
  });
  await rigs.create(RIG, rig);
  await takes.add(TAKE, 'Wren: first / take.wav', Readable.from([take]), take.length);
  await takes.add(BESIDE, 'of another rig.wav', Readable.from([Buffer.from('other')]), 5);
  await day.tell(RIG, events);
});

const get = async (from: TestDesk, all = false): Promise<Buffer> => {
  const answer = await fetch(`${from.base}/api/archives/${RIG}${all ? '?takes=all' : ''}`);
  const bytes = Buffer.from(await answer.arrayBuffer());
  expect(Number(answer.headers.get('Content-Length'))).toBe(bytes.length);
  return bytes;
};
const put = async (to: TestDesk, archive: Buffer) => {
  const answer = await fetch(`${to.base}/api/archives`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: Uint8Array.from(archive),
  });
  return { status: answer.status, json: (await answer.json()) as Record<string, unknown> };
};
const json = async <T>(from: TestDesk, path: string, parse: (json: unknown) => T): Promise<T> =>
  parse(await (await fetch(from.base + path)).json());
const contentOf = async (from: TestDesk, id: string) =>
  Buffer.from(await (await fetch(`${from.base}/api/takes/${id}/content`)).arrayBuffer());

describe('an archive', () => {
  it('comes back on another machine as it went, byte for byte: rig, takes, photographs, log', async () => {
    const archive = await get(here);
    expect(archive.subarray(0, 2).toString()).toBe('PK');
    expect(archive.includes('START HERE.md')).toBe(true);
    const there = await desk();
    const back = BroughtBack.parse((await put(there, archive)).json);
    expect(back).toEqual({ rigId: RIG, name: 'Boathouse relay', takes: 1, events: events.length });
    const [a, b] = await Promise.all(
      [here, there].map((d) => json(d, `/api/rigs/${RIG}`, (j) => RigRecord.parse(j).document)),
    );
    expect(b).toEqual(a);
    expect(await contentOf(there, TAKE)).toEqual(take);
    const sha256 = createHash('sha256').update(photo).digest('hex');
    expect(Buffer.from(await (await fetch(`${there.base}/api/photos/${sha256}`)).arrayBuffer())).toEqual(photo);
    const pages = await Promise.all(
      [here, there].map((d) => json(d, `/api/rigs/${RIG}/day`, (j) => DayPage.parse(j).events)),
    );
    expect(pages[1]).toEqual(pages[0]);
    expect(await json(there, '/api/takes', (j) => TakeList.parse(j).map((t) => t.name))).toEqual([
      'Wren: first / take.wav',
    ]);
    // Nothing is left lying about.
    expect(readdirSync(join(there.folder, 'data', 'uploads', 'archives'))).toEqual([]);
  });
  it('brings all takes of the bench where one wants', async () => {
    const there = await desk();
    expect((await put(there, await get(here, true))).json).toMatchObject({ takes: 2 });
    expect((await contentOf(there, BESIDE)).toString()).toBe('other');
  });
  it('comes beside a rig that is there already, with a log of its own, and takes that are there are the same', async () => {
    const { json: back } = await put(here, await get(here));
    const id = String(back.rigId);
    expect(id).not.toBe(RIG);
    const copied = await json(here, `/api/rigs/${id}/day`, (j) => DayPage.parse(j).events);
    expect(copied).toHaveLength(events.length);
    expect(copied.map((e) => e.at)).toEqual(events.map((e) => e.at));
    expect(new Set(copied.map((e) => e.id)).size).toBe(events.length);
    expect(await json(here, '/api/takes', (j) => TakeList.parse(j).length)).toBe(2);
  });
  it.each([0.2, 0.6, 0.97, 0.9999])(
    'that is cut at %f of it is refused with what is missing, and leaves nothing',
    async (share) => {
      const archive = await get(here);
      const there = await desk();
      const { status, json: problem } = await put(there, archive.subarray(0, Math.floor(archive.length * share)));
      expect(status).toBe(422);
      expect(problem.detail).toMatch(
        /^The archive is cut: (takes\/Wren_ first _ take\.wav|photos\/\w+\.png|only its table of contents)/,
      );
      expect(await json(there, '/api/takes', (j) => TakeList.parse(j))).toEqual([]);
      expect(await (await fetch(`${there.base}/api/rigs`)).json()).toEqual([]);
    },
  );
  it('that was changed, or is none, is refused in a sentence', async () => {
    const archive = await get(here);
    const there = await desk();
    const at = archive.indexOf(take.subarray(1000, 1100));
    const changed = Buffer.from(archive);
    changed[at] = changed[at]! ^ 1;
    const { status, json: problem } = await put(there, changed);
    expect(status).toBeGreaterThanOrEqual(400);
    expect(String(problem.detail)).toMatch(/not what it was|did not arrive whole|not whole/);
    expect(await json(there, '/api/takes', (j) => TakeList.parse(j))).toEqual([]);
    for (const junk of [Buffer.from('hello'), Buffer.alloc(40_000), archive.subarray(50)])
      expect((await put(there, junk)).json.detail).toMatch(/^This is no archive of Mellow Tap|^The archive/);
  });
  it('gives its files names that any computer takes', () => {
    const names = fileNames(['a/b:c.wav', 'A_b_c.wav', '..\\secret', 'ü.wav', '???', ''], 'takes');
    expect(names).toEqual([
      'takes/a_b_c.wav',
      'takes/A_b_c 2.wav',
      'takes/_secret',
      'takes/ü.wav',
      'takes/_',
      'takes/take',
    ]);
  });
});
