import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server as HttpServer, request as rawRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { FoundTakes, PhotoRecord, RigList, RigRecord, TakeList, TakeRecord } from '#api/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { openServer, type Server } from './app.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
const TAKE = '22222222-2222-4222-8222-222222222222';
const OTHER = '33333333-3333-4333-8333-333333333333';
const NOW = new Date('2026-11-25T12:00:00Z');

let folder: string;
let opened: Server;
let http: HttpServer;
let base: string;
let clockMs = NOW.getTime();

async function start(): Promise<void> {
  opened = await openServer({
    dataFolder: join(folder, 'data'),
    webFolder: join(folder, 'web'),
    now: () => new Date(clockMs),
    largestTakeBytes: 10_000,
  });
  http = createServer(opened.app);
  await new Promise<void>((resolve) => http.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
}
async function stop(): Promise<void> {
  await new Promise((resolve) => {
    http.close(resolve);
    http.closeAllConnections();
  });
  await opened.close();
}
beforeEach(async () => {
  clockMs = NOW.getTime();
  folder = mkdtempSync(join(tmpdir(), 'mellow-server-'));
  await start();
});
afterEach(async () => {
  await stop();
  rmSync(folder, { recursive: true, force: true });
});

const ask = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
  const response = await fetch(base + path, {
    method,
    headers: { ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
  const text = await response.text();
  return { status: response.status, headers: response.headers, json: text ? JSON.parse(text) : null };
};
const sendTake = async (
  id: string,
  bytes: Uint8Array<ArrayBuffer>,
  name = 'a take.wav',
  type = 'application/octet-stream',
) => {
  const response = await fetch(`${base}/api/takes/${id}?name=${encodeURIComponent(name)}`, {
    method: 'PUT',
    headers: { 'Content-Type': type },
    body: bytes,
  });
  return { status: response.status, json: await response.json() };
};
const files = () => readdirSync(join(folder, 'data', 'takes'));
const makeRig = () => ask('POST', '/api/rigs', { id: RIG, document: boathouse });

describe('rigs', () => {
  it('are kept, listed with their verdict, and made once however often they are sent', async () => {
    expect(await makeRig()).toMatchObject({ status: 201, json: { revision: 1 } });
    expect(await makeRig()).toMatchObject({ status: 201, json: { revision: 1 } });
    const list = RigList.parse((await ask('GET', '/api/rigs')).json);
    expect(list).toMatchObject([{ id: RIG, name: 'Boathouse relay', toDo: 0, measured: 0 }]);
    expect(list[0]!.toFix).toBeGreaterThan(5);
    expect(list[0]!.blockers).toBeGreaterThan(0);
    const { headers, json } = await ask('GET', `/api/rigs/${RIG}`);
    expect(headers.get('etag')).toBe('"1"');
    expect(RigRecord.parse(json).document).toMatchObject({ name: 'Boathouse relay' });
  });
  it('are not made over another one of the same id', async () => {
    await makeRig();
    expect(await ask('POST', '/api/rigs', { id: RIG, document: { ...boathouse, name: 'Other' } })).toMatchObject({
      status: 409,
      json: { detail: expect.stringMatching(/Another rig is kept/) },
    });
    expect((await ask('GET', `/api/rigs/${RIG}`)).json.document.name).toBe('Boathouse relay');
  });
  it('are written only over the revision that one has seen', async () => {
    await makeRig();
    const put = (revision: string | null, name: string) =>
      ask('PUT', `/api/rigs/${RIG}`, { ...boathouse, name }, revision === null ? {} : { 'If-Match': revision });
    expect(await put(null, 'A')).toMatchObject({ status: 428 });
    expect(await put('"one"', 'A')).toMatchObject({ status: 400 });
    expect(await put('"1"', 'A')).toMatchObject({ status: 200, json: { revision: 2 } });
    const late = await put('"1"', 'B');
    expect(late).toMatchObject({ status: 412, json: { newer: { revision: 2, document: { name: 'A' } } } });
    expect(late.headers.get('content-type')).toContain('application/problem+json');
    // Two at once: one of them wins, the other one is told.
    const both = await Promise.all([put('"2"', 'C'), put('"2"', 'D')]);
    expect(both.map((b) => b.status).sort()).toEqual([200, 412]);
  });
  it('are taken back after they were deleted', async () => {
    await makeRig();
    expect(await ask('DELETE', `/api/rigs/${RIG}`, undefined, { 'If-Match': '"1"' })).toMatchObject({ status: 204 });
    expect(await ask('GET', `/api/rigs/${RIG}`)).toMatchObject({ status: 404 });
    expect((await ask('GET', '/api/rigs')).json).toEqual([]);
    expect(await ask('POST', `/api/rigs/${RIG}/restore`)).toMatchObject({ status: 200, json: { id: RIG } });
    expect((await ask('GET', '/api/rigs')).json).toHaveLength(1);
  });
  it('survive the server', async () => {
    await makeRig();
    await stop();
    await start();
    expect(await ask('GET', `/api/rigs/${RIG}`)).toMatchObject({ status: 200 });
  });
  it.each<[string, unknown, number, RegExp]>([
    ['no JSON', '{"id":', 400, /not JSON/],
    ['no id', { document: boathouse }, 400, /id/],
    [
      'an id twice',
      { id: RIG, document: { ...boathouse, devices: [...boathouse.devices, boathouse.devices[0]] } },
      422,
      /duplicate id/,
    ],
    [
      'a cable to nowhere',
      { id: RIG, document: { ...boathouse, cables: [{ ...boathouse.cables[0], to: { deviceId: 'x', portId: 'y' } }] } },
      422,
      /cables\/0\/to: there is no device “x”/,
    ],
    ['a polluted object', `{"id":"${RIG}","document":{"schemaVersion":1,"__proto__":{"a":1}}}`, 422, /not allowed/],
    ['ten thousand levels', `{"id":"${RIG}","document":${'['.repeat(10_000)}${']'.repeat(10_000)}}`, 422, /deep/],
    ['six megabytes', JSON.stringify({ id: RIG, document: { notes: 'x'.repeat(6_000_000) } }), 413, /larger than 5 MB/],
  ])('with %s are refused in a sentence', async (_, body, status, says) => {
    const answer = await ask('POST', '/api/rigs', body);
    expect(answer.status).toBe(status);
    expect(answer.json.detail).toMatch(says);
    expect((await ask('GET', '/api/rigs')).json).toEqual([]);
  });
});

describe('takes', () => {
  const bytes = Uint8Array.from({ length: 5000 }, (_, i) => i % 251);
  it('are kept under their content, answered by range, and sent twice are kept once', async () => {
    const first = await sendTake(TAKE, bytes);
    expect(first.status).toBe(201);
    expect(TakeRecord.parse(first.json)).toMatchObject({ name: 'a take.wav', bytes: 5000, notes: null, usedBy: [] });
    expect((await sendTake(TAKE, bytes)).json.addedAt).toBe(first.json.addedAt);
    await sendTake(OTHER, bytes, 'the same again.wav');
    expect(files()).toEqual([first.json.sha256]);
    const part = await fetch(`${base}/api/takes/${TAKE}/content`, { headers: { Range: 'bytes=100-103' } });
    expect(part.status).toBe(206);
    expect([...new Uint8Array(await part.arrayBuffer())]).toEqual([100, 101, 102, 103]);
    expect(part.headers.get('content-range')).toBe('bytes 100-103/5000');
    // One of two goes, the file stays; the other one goes too, and so does the file.
    await ask('DELETE', `/api/takes/${TAKE}`);
    expect(files()).toHaveLength(1);
    await ask('DELETE', `/api/takes/${OTHER}`);
    expect(files()).toEqual([]);
  });
  it('are refused whole: empty, too large, as something else, another file under the same id', async () => {
    expect(await sendTake(TAKE, new Uint8Array(0))).toMatchObject({ status: 400 });
    expect(await sendTake(TAKE, new Uint8Array(20_000))).toMatchObject({ status: 413 });
    expect(await sendTake(TAKE, bytes, 'x.wav', 'text/plain')).toMatchObject({ status: 415 });
    await sendTake(TAKE, bytes);
    expect(await sendTake(TAKE, bytes.subarray(1).slice())).toMatchObject({ status: 409 });
    expect((await ask('GET', '/api/takes')).json).toHaveLength(1);
  });
  it('that break off leave nothing', async () => {
    await new Promise<void>((resolve) => {
      const { port } = http.address() as AddressInfo;
      const sending = rawRequest({
        port,
        host: '127.0.0.1',
        method: 'PUT',
        path: `/api/takes/${TAKE}?name=x`,
        headers: { 'Content-Type': 'application/octet-stream', 'Content-Length': '5000' },
      });
      sending.on('error', () => resolve());
      sending.write(bytes.subarray(0, 1000));
      setTimeout(() => sending.destroy(), 100);
    });
    await expect.poll(() => files()).toEqual([]);
    expect(await ask('GET', `/api/takes/${TAKE}`)).toMatchObject({ status: 404 });
  });
  it('keep the marks that were made, over the revision that one has seen', async () => {
    await sendTake(TAKE, bytes);
    const notes = { flashes: [{ atMs: 10, used: true, byHand: false }], claps: [], frameMs: 16.7, speaksOf: null };
    expect(await ask('PUT', `/api/takes/${TAKE}/notes`, notes, { 'If-Match': '"1"' })).toMatchObject({
      status: 200,
      json: { revision: 2, notes },
    });
    expect(await ask('PUT', `/api/takes/${TAKE}/notes`, notes, { 'If-Match': '"1"' })).toMatchObject({
      status: 412,
      json: { newer: { revision: 2 } },
    });
    expect(
      await ask('PUT', `/api/takes/${TAKE}/notes`, { ...notes, flashes: 'many' }, { 'If-Match': '"2"' }),
    ).toMatchObject({ status: 400 });
    expect(await ask('PUT', `/api/takes/${OTHER}/notes`, notes, { 'If-Match': '"1"' })).toMatchObject({ status: 404 });
  });
  it('know which rigs rest on them', async () => {
    await sendTake(TAKE, bytes);
    await makeRig();
    const measurement = {
      kind: 'drift',
      id: 'm1',
      label: 'x',
      takeId: TAKE,
      takenAt: NOW.toISOString(),
      deviceId: 'mixer',
      againstDeviceId: 'camera',
      ppm: { mean: 1, sd: 1, count: 1 },
    };
    await ask('PUT', `/api/rigs/${RIG}`, { ...boathouse, measurements: [measurement] }, { 'If-Match': '"1"' });
    expect((await ask('GET', `/api/takes/${TAKE}`)).json.usedBy).toEqual([RIG]);
    await ask('PUT', `/api/rigs/${RIG}`, boathouse, { 'If-Match': '"2"' });
    expect((await ask('GET', `/api/takes/${TAKE}`)).json.usedBy).toEqual([]);
  });
  it('are never deleted by a start: a file without a row is found again, a row without a file says so', async () => {
    const { json } = await sendTake(TAKE, bytes);
    const kept = await sendTake(OTHER, bytes.slice(7));
    await stop();
    const takes = join(folder, 'data', 'takes');
    const stray = 'a'.repeat(64);
    writeFileSync(join(takes, stray), 'RIFF....WAVE: nobody knows this');
    mkdirSync(join(takes, 'my own folder'));
    writeFileSync(join(takes, 'notes.txt'), 'mine');
    rmSync(join(takes, json.sha256));
    await start();
    expect(files().sort()).toEqual([stray, kept.json.sha256, 'my own folder', 'notes.txt'].sort());
    const list = TakeList.parse((await ask('GET', '/api/takes')).json);
    expect(list.map((t) => [t.id, t.missing ?? false]).sort()).toEqual([
      [TAKE, true],
      [OTHER, false],
    ]);
    expect(await ask('GET', `/api/takes/${TAKE}/content`)).toMatchObject({ status: 404 });
    const found = FoundTakes.parse((await ask('GET', '/api/takes/found')).json);
    expect(found).toEqual([{ sha256: stray, bytes: 31, ending: '.wav' }]);
    // A person takes it back, or deletes it; a take's own file is not to be had this way.
    expect(await ask('DELETE', `/api/takes/found/${kept.json.sha256}`)).toMatchObject({ status: 409 });
    const id = RIG;
    expect(await ask('POST', `/api/takes/found/${stray}`, { id, name: 'back.wav' })).toMatchObject({ status: 201 });
    expect((await ask('GET', '/api/takes/found')).json).toEqual([]);
    expect(await ask('DELETE', `/api/takes/found/${stray}`)).toMatchObject({ status: 409 });
    await ask('DELETE', `/api/takes/${id}`);
    expect(files()).not.toContain(stray);
  });
  it('that were deleted and put back by hand are found again, and no start deletes them', async () => {
    const { json } = await sendTake(TAKE, bytes);
    await ask('DELETE', `/api/takes/${TAKE}`);
    writeFileSync(join(folder, 'data', 'takes', json.sha256), bytes);
    await stop();
    await start();
    expect((await ask('GET', '/api/takes/found')).json).toMatchObject([{ sha256: json.sha256, bytes: 5000 }]);
    expect(await ask('POST', `/api/takes/found/${json.sha256}`, { id: OTHER, name: 'again.wav' })).toMatchObject({
      status: 201,
    });
  });
  it('sent again bring a file back that was taken away', async () => {
    const { json } = await sendTake(TAKE, bytes);
    await stop();
    rmSync(join(folder, 'data', 'takes', json.sha256));
    await start();
    expect((await sendTake(TAKE, bytes)).json.missing).toBeUndefined();
    expect((await fetch(`${base}/api/takes/${TAKE}/content`)).status).toBe(200);
  });
});

describe('who may ask', () => {
  const status = async (headers: Record<string, string>, path = '/api/health') =>
    new Promise<number>((resolve) => {
      const { port } = http.address() as AddressInfo;
      rawRequest({ port, host: '127.0.0.1', path, headers }, (res) => {
        res.resume();
        resolve(res.statusCode!);
      }).end();
    });
  it('is this computer by its own names, and our own pages', async () => {
    const { port } = http.address() as AddressInfo;
    expect(await status({})).toBe(200);
    expect(await status({ Host: `localhost:${port}` })).toBe(200);
    expect(await status({ Host: 'rebound.example' })).toBe(421);
    expect(await status({ Origin: base })).toBe(200);
    expect(await status({ Origin: 'http://elsewhere.example' })).toBe(403);
    expect(await status({ 'Sec-Fetch-Site': 'cross-site' })).toBe(403);
    expect(await status({ 'Sec-Fetch-Site': 'cross-site', 'Sec-Fetch-Mode': 'navigate' })).toBe(403);
  });
  it('gets a page under a strict policy, with a nonce of its own each time', async () => {
    mkdirSync(join(folder, 'web'), { recursive: true });
    writeFileSync(
      join(folder, 'web', 'index.html'),
      '<meta property="csp-nonce" nonce="__NONCE__"><style nonce="__NONCE__"></style>',
    );
    const load = async () => {
      const response = await fetch(`${base}/rigs/whatever`);
      return { policy: response.headers.get('content-security-policy')!, page: await response.text() };
    };
    const [one, two] = [await load(), await load()];
    const nonce = /nonce-([^']+)'/.exec(one.policy)![1]!;
    expect(one.page).toBe(`<meta property="csp-nonce" nonce="${nonce}"><style nonce="${nonce}"></style>`);
    expect(two.policy).not.toBe(one.policy);
    expect(one.policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(one.policy).not.toContain('unsafe-inline');
    expect(await status({}, '/assets/../data/mellow.sqlite')).not.toBe(500);
    expect(await status({}, '/api/nothing')).toBe(404);
  });
});

describe('photographs', () => {
  const JPEG = Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
  const send = (bytes: Uint8Array<ArrayBuffer>, type = 'application/octet-stream') =>
    fetch(`${base}/api/photos`, { method: 'POST', headers: { 'Content-Type': type }, body: bytes });
  const kept = () => readdirSync(join(folder, 'data', 'photos'));
  it('are kept by their content, once, and come back as the picture that they are', async () => {
    const first = await send(JPEG);
    expect(first.status).toBe(201);
    const { sha256 } = PhotoRecord.parse(await first.json());
    expect(PhotoRecord.parse(await (await send(JPEG)).json()).sha256).toBe(sha256);
    expect(kept()).toEqual([sha256]);
    const back = await fetch(`${base}/api/photos/${sha256}`);
    expect(back.headers.get('Content-Type')).toBe('image/jpeg');
    expect(back.headers.get('X-Content-Type-Options')).toBe('nosniff');
    expect(new Uint8Array(await back.arrayBuffer())).toEqual(JPEG);
  });
  it('are refused where they are no pictures, and nothing of them stays', async () => {
    const page = await send(new TextEncoder().encode('<script>alert(1)</script>'));
    expect(page.status).toBe(415);
    expect((await page.json()).detail).toMatch(/no JPEG, PNG or WebP/);
    expect((await send(new Uint8Array(0))).status).toBe(400);
    expect((await send(JPEG, 'image/jpeg')).status).toBe(415);
    expect(kept()).toEqual([]);
    expect(await ask('GET', `/api/photos/${'a'.repeat(64)}`)).toMatchObject({ status: 404 });
    expect(await ask('GET', '/api/photos/..%2f..%2fmellow.sqlite')).toMatchObject({ status: 400 });
  });
  it('stay while a rig or one of its revisions speaks of them, and go a day after they came when none does', async () => {
    const { sha256 } = await (await send(JPEG)).json();
    const other = await (await send(Uint8Array.from([...JPEG, 1]))).json();
    const photos = [{ sha256, name: 'knobs', at: NOW.toISOString() }];
    const document = { ...boathouse, devices: boathouse.devices.map((d) => (d.id === 'mixer' ? { ...d, photos } : d)) };
    await ask('POST', '/api/rigs', { id: RIG, document });
    await ask('PUT', `/api/rigs/${RIG}`, boathouse, { 'If-Match': '"1"' });
    await stop();
    await start();
    // It may be on its way into a rig that is not saved yet.
    await opened.housekeep();
    expect(kept()).toContain(other.sha256);
    clockMs += 25 * 3_600_000;
    await opened.housekeep();
    expect(kept()).toEqual([sha256]);
  });
});
