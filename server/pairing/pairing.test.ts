import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server as HttpServer, request as rawRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { openServer, type Server } from '../start/app.ts';
import { type DoorNote, makeDoor } from './pairing.ts';

function door(seed = 1) {
  const random = seededRandom(seed);
  const clock = { ms: Date.UTC(2026, 10, 26) };
  const notes: DoorNote[] = [];
  const made = makeDoor({
    now: () => new Date(clock.ms),
    randomBytes: (count) => Uint8Array.from({ length: count }, () => Math.floor(256 * random())),
    note: (n) => notes.push(n),
  });
  return { door: made, clock, notes };
}
const opens = (tried: ReturnType<ReturnType<typeof makeDoor>['try']>) => 'token' in tried;

describe('the door', () => {
  it('opens once with its code, however it is typed, and gives a pass for twelve hours', () => {
    const { door: d, clock, notes } = door();
    const code = d.code().code;
    const tried = d.try(`${code.slice(0, 4).toLowerCase()}-${code.slice(4)} `.replace(/0/g, 'O'), 'phone', 'phone');
    expect(opens(tried)).toBe(true);
    const token = 'token' in tried ? tried.token : '';
    expect(d.holds(token)).toBe(true);
    expect(d.holds(`${token}x`)).toBe(false);
    expect(d.holds(undefined)).toBe(false);
    expect(d.code().code).not.toBe(code);
    expect(d.try(code, 'other', 'phone')).toMatchObject({ refused: 'used code' });
    clock.ms += 12 * 3_600_000;
    expect(d.holds(token)).toBe(false);
    expect(notes.map((n) => n.says)).toEqual(['opened', 'used code']);
  });
  it('does not open by ten thousand guesses in an hour, and is shut longer the more there were', () => {
    const { door: d, clock, notes } = door(2);
    const random = seededRandom(3);
    let tries = 0;
    for (let n = 0; n < 10_000; n++) {
      const guess = Array.from({ length: 8 }, () => 'ABCDEFGH'[Math.floor(8 * random())]).join('');
      const tried = d.try(guess, 'stranger', 'phone');
      expect(opens(tried)).toBe(false);
      if (!('refused' in tried) || tried.refused !== 'shut for a while') tries++;
      clock.ms += 360;
    }
    // Most were not even looked at.
    expect(tries).toBeLessThan(100);
    expect(notes).toHaveLength(10_000);
    // Whoever guessed waits, even with the right one; no one else does.
    expect(opens(d.try(d.code().code, 'stranger', 'phone'))).toBe(false);
    expect(opens(d.try(d.code().code, 'owner', 'phone'))).toBe(true);
    clock.ms += 60_000;
    expect(opens(d.try(d.code().code, 'stranger', 'phone'))).toBe(true);
  });
  it('lets the owner in whatever a thousand strangers do, and bounds what all of them try in a second', () => {
    const { door: d, clock } = door(5);
    let looked = 0;
    for (let n = 0; n < 3000; n++) {
      const tried = d.try('AAAAAAAA', `10.0.${n % 4}.${n % 250}`, 'computer');
      if ('refused' in tried && tried.refused !== 'shut for a while') looked++;
      clock.ms += 1;
    }
    expect(looked).toBeLessThanOrEqual(4 * 30);
    clock.ms += 1000;
    expect(opens(d.try(d.code().code, 'owner', 'phone'))).toBe(true);
    // One network of version 6 is one stranger, however many addresses it has.
    let own = 0;
    for (let n = 0; n < 100; n++) {
      clock.ms += 100;
      const tried = d.try('AAAAAAAA', `2001:db8:1:2:0:0:0:${n.toString(16)}`, 'computer');
      if ('refused' in tried && tried.refused !== 'shut for a while') own++;
    }
    expect(own).toBeLessThan(10);
  });
  it('has codes that last ten minutes, and passes that can be taken away', () => {
    const { door: d, clock } = door(6);
    const { code, untilMs } = d.code();
    expect(untilMs - clock.ms).toBe(600_000);
    clock.ms += 599_999;
    expect(d.code().code).toBe(code);
    clock.ms += 1;
    expect(d.try(code, 'phone', 'phone')).toMatchObject({ refused: 'old code' });
    const tried = d.try(d.code().code, 'phone', 'tablet');
    const token = 'token' in tried ? tried.token : '';
    const [phone] = d.phones();
    expect(phone).toMatchObject({ device: 'tablet', address: 'phone', pairedAtMs: clock.ms });
    expect(d.holds(token)).toBe(true);
    expect(d.remove(phone!.id, 'desk')).toBe(true);
    expect(d.holds(token)).toBe(false);
    expect(d.phones()).toEqual([]);
    expect(d.remove(phone!.id, 'desk')).toBe(false);
  });
  it('has a new code when one is wanted', () => {
    const { door: d } = door(4);
    const before = d.code().code;
    expect(before).toMatch(/^[0-9A-HJKMNP-TV-Z]{8}$/);
    d.renew('desk');
    expect(opens(d.try(before, 'phone', 'phone'))).toBe(false);
    expect(opens(d.try(d.code().code, 'phone', 'phone'))).toBe(true);
  });
});

const RIG = '11111111-1111-4111-8111-111111111111';
let folder: string;
let opened: Server;
let http: HttpServer;
let base: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'mellow-door-'));
  writeFileSync(join(folder, 'index.html'), '<p nonce="__NONCE__">page</p>');
  opened = await openServer({
    dataFolder: join(folder, 'data'),
    webFolder: folder,
    now: () => new Date(),
    handUrls: () => ['http://10.0.0.7:1/hand'],
  });
  await opened.rigs.create(RIG, boathouse);
  http = createServer((req, res) => (req.headers['x-desk'] ? opened.app : opened.hand)(req, res));
  await new Promise<void>((resolve) => http.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
});
afterEach(async () => {
  await new Promise((resolve) => {
    http.close(resolve);
    http.closeAllConnections();
  });
  await opened.close();
  rmSync(folder, { recursive: true, force: true });
});

interface Asked {
  body?: unknown;
  cookie?: string;
  headers?: Record<string, string>;
}
/** As a browser of the page itself asks, unless other headers are given. */
const ask = (method: string, path: string, { body, cookie, headers = {} }: Asked = {}) =>
  new Promise<{ status: number; json: unknown; cookie: string | undefined }>((resolve, reject) => {
    const sent = body === undefined ? '' : JSON.stringify(body);
    const request = rawRequest(
      base + path,
      {
        method,
        headers: {
          Origin: base,
          ...(sent ? { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(sent) } : {}),
          ...(cookie ? { Cookie: cookie } : {}),
          ...headers,
        },
      },
      (res) => {
        let text = '';
        res.on('data', (chunk: Buffer) => {
          text += chunk.toString();
        });
        res.on('end', () =>
          resolve({
            status: res.statusCode!,
            json: /json/.test(String(res.headers['content-type'])) ? JSON.parse(text) : text,
            cookie: res.headers['set-cookie']?.[0],
          }),
        );
      },
    );
    request.on('error', reject);
    request.end(sent);
  });
const desk = async () =>
  (await ask('GET', '/api/door', { headers: { 'x-desk': '1' } })).json as {
    code: string;
    urls: string[];
    notes: { says: string; count: number }[];
  };
const enter = async () => {
  const { cookie } = await ask('POST', '/api/door', { body: { code: (await desk()).code } });
  return cookie!.split(';')[0]!;
};

describe('what a phone gets', () => {
  it('is a page that asks for the code, and nothing behind it without a pass', async () => {
    expect(await ask('GET', '/hand')).toMatchObject({ status: 200 });
    for (const path of ['/api/rigs', `/api/rigs/${RIG}`, `/api/rigs/${RIG}/day`, '/api/takes', '/api/door'])
      expect(await ask('GET', path)).toMatchObject({ status: 401 });
    expect(await ask('GET', '/api/rigs', { cookie: 'mellow-hand=AAAA' })).toMatchObject({ status: 401 });
    for (const path of ['/rigs', `/rigs/${RIG}/plan`, '/bench'])
      expect(await ask('GET', path)).toMatchObject({ status: 404 });
    expect((await desk()).notes).toContainEqual(expect.objectContaining({ says: 'no pass', count: 6 }));
  });
  it('is the run and the list with a pass, to read and to tell of, and no more', async () => {
    const cookie = await enter();
    expect(await ask('GET', '/api/rigs', { cookie })).toMatchObject({ status: 200, json: [{ id: RIG }] });
    expect(await ask('GET', `/api/rigs/${RIG}`, { cookie })).toMatchObject({ status: 200 });
    const event = {
      id: RIG,
      sessionId: RIG,
      at: '2026-11-26T10:00:00.000Z',
      by: 'phone',
      kind: 'tick',
      list: 'first',
      itemId: 'a',
    };
    expect(await ask('POST', `/api/rigs/${RIG}/day`, { cookie, body: { events: [event] } })).toMatchObject({
      status: 204,
    });
    expect(await ask('GET', `/api/rigs/${RIG}/day`, { cookie })).toMatchObject({ json: { events: [event] } });
    for (const [method, path] of [
      ['PUT', `/api/rigs/${RIG}`],
      ['DELETE', `/api/rigs/${RIG}`],
      ['POST', '/api/rigs'],
      ['GET', '/api/takes'],
      ['GET', '/api/photos/x'],
      ['POST', '/api/door/renew'],
    ] as const)
      expect(await ask(method, path, { cookie })).toMatchObject({ status: 404 });
  });
  it('stays open for whoever was let in when the server is started again', async () => {
    const cookie = await enter();
    await opened.close();
    opened = await openServer({ dataFolder: join(folder, 'data'), webFolder: folder, now: () => new Date() });
    expect(await ask('GET', '/api/rigs', { cookie })).toMatchObject({ status: 200 });
    expect(await ask('GET', '/api/rigs', { cookie: `${cookie}A` })).toMatchObject({ status: 401 });
  });
  it('is taken away at the desk, for good', async () => {
    const cookie = await enter();
    const { phones } = (await ask('GET', '/api/door', { headers: { 'x-desk': '1' } })).json as {
      phones: { id: string; device: string; address: string }[];
    };
    expect(phones).toMatchObject([{ device: 'computer', address: expect.stringMatching(/127\.0\.0\.1/) }]);
    expect(await ask('DELETE', `/api/door/phones/${phones[0]!.id}`, { headers: { 'x-desk': '1' } })).toMatchObject({
      status: 200,
      json: { phones: [] },
    });
    expect(await ask('GET', '/api/rigs', { cookie })).toMatchObject({ status: 401 });
    await opened.close();
    opened = await openServer({ dataFolder: join(folder, 'data'), webFolder: folder, now: () => new Date() });
    expect(await ask('GET', '/api/rigs', { cookie })).toMatchObject({ status: 401 });
  });
  it('opens by no used code, from no other page, by no other name, and says so at the desk', async () => {
    const { code } = await desk();
    expect(await ask('POST', '/api/door', { body: { code } })).toMatchObject({ status: 204 });
    expect(await ask('POST', '/api/door', { body: { code } })).toMatchObject({ status: 403 });
    const cookie = await enter();
    const foreign = { Origin: 'http://elsewhere.example' };
    expect(await ask('GET', '/api/rigs', { cookie, headers: foreign })).toMatchObject({ status: 403 });
    expect(await ask('POST', '/api/door', { body: { code: 'x' }, headers: { Origin: '' } })).toMatchObject({
      status: 403,
    });
    expect(await ask('GET', '/hand', { headers: { Host: 'rebound.example' } })).toMatchObject({ status: 421 });
    const state = await desk();
    expect(state.urls).toEqual(['http://10.0.0.7:1/hand']);
    expect(state.notes.map((n) => n.says)).toEqual(expect.arrayContaining(['opened', 'used code']));
    const renewed = await ask('POST', '/api/door/renew', { headers: { 'x-desk': '1' } });
    expect((renewed.json as { code: string }).code).not.toBe(state.code);
  });
  it('does not open by guesses over the network, and counts them in one line', async () => {
    for (let n = 0; n < 40; n++) {
      const { status } = await ask('POST', '/api/door', { body: { code: `GUESS${n}` } });
      expect([403, 429]).toContain(status);
    }
    const { notes } = await desk();
    expect(notes.filter((n) => n.says !== 'no pass').reduce((sum, n) => sum + n.count, 0)).toBe(40);
    expect(notes.length).toBeLessThan(4);
  });
});
