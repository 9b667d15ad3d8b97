import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { BackupReady, Copies, Restored, RigList, RigVersions, TakeList } from '#api/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { relayDays } from '#demo/relay-days.ts';
import { type TestDesk, testDesk } from '../start/server.testkit.ts';
import { verifyFolder } from './verify.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
const OTHER = '44444444-4444-4444-8444-444444444444';
const TAKE = '22222222-2222-4222-8222-222222222222';
const SENT = '33333333-3333-4333-8333-333333333333';
const NOTES = { flashes: [], claps: [], frameMs: 20, speaksOf: null };

const desks: TestDesk[] = [];
let clockMs = Date.parse('2026-11-29T12:00:00Z');
async function desk(): Promise<TestDesk> {
  const made = await testDesk({ now: () => new Date(clockMs) });
  desks.push(made);
  return made;
}
afterEach(async () => {
  for (const made of desks.splice(0)) await made.end();
});

const bytes = Buffer.from(Uint8Array.from({ length: 400_000 }, (_, i) => (i * 7919) % 251));
const photo = Buffer.concat([Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'), Buffer.alloc(2000, 7)]);
const photoHash = createHash('sha256').update(photo).digest('hex');

const ask = async (at: TestDesk, method: string, path: string, body?: unknown) => {
  const raw = body instanceof Uint8Array;
  const response = await fetch(at.base + path, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': raw ? 'application/octet-stream' : 'application/json' },
    ...(body === undefined ? {} : { body: raw ? Uint8Array.from(body) : JSON.stringify(body) }),
  });
  const text = await response.text();
  return { status: response.status, json: text ? JSON.parse(text) : null };
};

async function backupOf(at: TestDesk): Promise<Buffer> {
  const { id, bytes: size } = BackupReady.parse((await ask(at, 'POST', '/api/backups')).json);
  const whole = Buffer.from(await (await fetch(`${at.base}/api/backups/${id}`)).arrayBuffer());
  expect(whole.length).toBe(size);
  return whole;
}
async function send(to: TestDesk, backup: Buffer, piece = 150_000): Promise<string> {
  for (let from = 0; from < backup.length; from += piece) {
    const path = `/api/restores/${SENT}/upload?at=${from}&bytes=${backup.length}`;
    expect((await ask(to, 'PATCH', path, backup.subarray(from, from + piece))).status).toBe(202);
  }
  return `/api/restores/${SENT}`;
}

let here: TestDesk;
beforeEach(async () => {
  clockMs = Date.parse('2026-11-29T12:00:00Z');
  here = await desk();
  const { rigs, takes, day } = here.opened;
  await ask(here, 'POST', '/api/photos', photo);
  const rig = parseRig({
    ...boathouse,
    devices: boathouse.devices.map((d) =>
      d.id === 'mixer' ? { ...d, photos: [{ sha256: photoHash, name: 'knobs', at: '2026-11-20T10:00:00.000Z' }] } : d,
    ),
  });
  await rigs.create(RIG, rig);
  clockMs += 1000;
  await rigs.replace(RIG, await rigs.prepare({ ...rig, notes: 'second' }), 1, ['Notes']);
  await rigs.create(OTHER, parseRig({ ...boathouse, name: 'Other' }));
  await takes.add(TAKE, 'a.wav', Readable.from([bytes]), bytes.length);
  await takes.note(TAKE, NOTES, 1);
  await day.tell(RIG, relayDays().slice(0, 40));
});

const rigsOf = async (at: TestDesk) =>
  RigList.parse((await ask(at, 'GET', '/api/rigs')).json)
    .map((r) => `${r.name} ${r.revision}`)
    .sort();

describe('a backup of the whole desk', () => {
  it('comes back on an empty one as it went: rigs with versions, log, takes with marks, photographs; byte for byte', async () => {
    const backup = await backupOf(here);
    const there = await desk();
    const at = await send(there, backup);
    const preview = Restored.parse((await ask(there, 'GET', at)).json);
    expect(preview).toMatchObject({ rigsNew: 2, rigsBeside: [], rigsSame: 0, takesNew: 1, photographs: 1 });
    expect(await rigsOf(there)).toEqual([]);
    expect(Restored.parse((await ask(there, 'POST', at)).json)).toEqual(preview);
    expect(await rigsOf(there)).toEqual(await rigsOf(here));
    for (const path of [`/api/rigs/${RIG}`, `/api/rigs/${RIG}/versions/1`, `/api/rigs/${RIG}/day`, '/api/takes'])
      expect((await ask(there, 'GET', path)).json).toEqual((await ask(here, 'GET', path)).json);
    const versions = RigVersions.parse((await ask(there, 'GET', `/api/rigs/${RIG}/versions`)).json);
    expect(versions.map((v) => v.changes)).toEqual([['Notes'], []]);
    for (const folder of ['takes', 'photos'])
      for (const name of readdirSync(join(here.folder, 'data', folder)))
        expect(readFileSync(join(there.folder, 'data', folder, name))).toEqual(
          readFileSync(join(here.folder, 'data', folder, name)),
        );
    expect((await verifyFolder(join(there.folder, 'data'))).faults).toEqual([]);
    // Done again it finds all of it there.
    await send(there, backup);
    expect((await ask(there, 'POST', at)).json).toMatchObject({ rigsNew: 0, rigsSame: 2, takesNew: 0 });
    expect(await rigsOf(there)).toEqual(await rigsOf(here));
  });
  it('is the same however often it is cut and gone on with', async () => {
    const { id, bytes: size } = BackupReady.parse((await ask(here, 'POST', '/api/backups')).json);
    const url = `${here.base}/api/backups/${id}`;
    const whole = Buffer.from(await (await fetch(url)).arrayBuffer());
    // What is deleted meanwhile stays in it.
    await ask(here, 'DELETE', `/api/takes/${TAKE}`);
    for (const from of [1, 1000, Math.floor(size / 2), size - 1]) {
      const response = await fetch(url, { headers: { Range: `bytes=${from}-` } });
      expect(response.status).toBe(206);
      expect(response.headers.get('Content-Range')).toBe(`bytes ${from}-${size - 1}/${size}`);
      expect(Buffer.from(await response.arrayBuffer()).equals(whole.subarray(from))).toBe(true);
    }
    expect((await fetch(url, { headers: { Range: `bytes=${size}-` } })).status).toBe(416);
    expect((await ask(here, 'DELETE', `/api/backups/${id}`)).status).toBe(204);
    await expect.poll(() => readdirSync(join(here.folder, 'data', 'takes'))).toEqual([]);
    expect(readdirSync(join(here.folder, 'data', 'uploads', 'backups')).filter((f) => f.endsWith('.sqlite'))).toEqual(
      [],
    );
  });
  it('is restored beside what is there: nothing is changed, deleted rigs are back, others come under another name', async () => {
    const backup = await backupOf(here);
    clockMs += 60_000;
    const { rigs } = here.opened;
    await rigs.replace(RIG, await rigs.prepare(parseRig({ ...boathouse, notes: 'newer' })), 2);
    await rigs.remove(OTHER, 1);
    await ask(here, 'DELETE', `/api/takes/${TAKE}`);
    const at = await send(here, backup);
    const done = Restored.parse((await ask(here, 'POST', at)).json);
    expect(done).toMatchObject({ rigsNew: 0, rigsUndeleted: 1, rigsBeside: ['Boathouse relay'], takesNew: 1 });
    expect(await rigsOf(here)).toEqual(['Boathouse relay 3', 'Boathouse relay, restored 2026-11-29 2', 'Other 1']);
    expect((await ask(here, 'GET', `/api/rigs/${RIG}`)).json.document.notes).toBe('newer');
    expect(TakeList.parse((await ask(here, 'GET', '/api/takes')).json)).toMatchObject([{ id: TAKE, notes: NOTES }]);
    const beside = RigList.parse((await ask(here, 'GET', '/api/rigs')).json).find((r) => r.name.includes('restored'))!;
    const [mine, own] = await Promise.all(
      [beside.id, RIG].map(async (id) => (await ask(here, 'GET', `/api/rigs/${id}/day`)).json.events),
    );
    expect(mine).toHaveLength(own.length);
    expect(mine.map((e: { at: string }) => e.at)).toEqual(own.map((e: { at: string }) => e.at));
    expect(new Set([...mine, ...own].map((e: { id: string }) => e.id)).size).toBe(2 * own.length);
    expect((await verifyFolder(join(here.folder, 'data'))).faults).toEqual([]);
  });
  it('that is cut, changed, or none is refused in a sentence, and nothing is changed', async () => {
    const backup = await backupOf(here);
    const there = await desk();
    const changed = Buffer.from(backup);
    const at = changed.indexOf(bytes.subarray(1000, 1100));
    changed[at] = changed[at]! ^ 1;
    const inDatabase = Buffer.from(backup);
    const page = inDatabase.indexOf('CREATE TABLE rigs');
    inDatabase.write('CREATE TABEL', page);
    for (const bad of [changed, inDatabase, backup.subarray(0, backup.length - 30), Buffer.from('hello')]) {
      const path = await send(there, bad);
      const { status, json } = await ask(there, 'POST', path);
      expect(status).toBe(422);
      expect(json.detail).toMatch(/Nothing was changed/);
      await ask(there, 'DELETE', path);
      expect(await rigsOf(there)).toEqual([]);
    }
    expect(readdirSync(join(there.folder, 'data', 'uploads', 'restores'))).toEqual([]);
  });
});

describe('what is kept', () => {
  it('is copied by itself once a day on which something changed, seven of them', async () => {
    const copies = async () => Copies.parse((await ask(here, 'GET', '/api/backups/copies')).json);
    await here.opened.housekeep();
    await here.opened.housekeep();
    expect((await copies()).copies.map((c) => c.name)).toEqual(['mellow-tap-2026-11-29.zip']);
    // A day on which nothing happened has none.
    clockMs += 24 * 3_600_000;
    await here.opened.housekeep();
    expect((await copies()).copies).toHaveLength(1);
    const { folder } = await copies();
    writeFileSync(join(folder, 'mine.zip'), 'not ours');
    for (let n = 0; n < 9; n++) {
      clockMs += 24 * 3_600_000;
      await here.opened.rigs
        .create(OTHER.replace(/4$/, String(n)), parseRig({ ...boathouse, name: `n${n}` }))
        .catch(() => 0);
      await here.opened.housekeep();
    }
    const { copies: kept, withTakes } = await copies();
    expect(withTakes).toBe(false);
    expect(kept).toHaveLength(7);
    expect(kept[0]!.name).toBe('mellow-tap-2026-12-09.zip');
    expect(readdirSync(folder)).toContain('mine.zip');
    // One is looked at and brought back in its place: what was deleted since is here again.
    await here.opened.rigs.remove(OTHER, 1);
    const copy = `/api/restores/copies/${kept[0]!.name}`;
    expect(Restored.parse((await ask(here, 'GET', copy)).json)).toMatchObject({ rigsUndeleted: 1, takesNew: 0 });
    expect(await rigsOf(here)).not.toContain('Other 1');
    expect((await ask(here, 'POST', copy)).status).toBe(200);
    expect(await rigsOf(here)).toContain('Other 1');
    for (const name of ['mine.zip', 'mellow-tap-2020-01-01.zip', '..%2Fmellow.sqlite'])
      expect((await ask(here, 'GET', `/api/restores/copies/${name}`)).status).toBe(404);
    // It brings all back but the bytes of takes, which are where they were.
    const there = await desk();
    await ask(there, 'POST', await send(there, readFileSync(join(folder, kept[0]!.name))));
    expect((await rigsOf(there)).length).toBe((await rigsOf(here)).length);
    expect(TakeList.parse((await ask(there, 'GET', '/api/takes')).json)).toMatchObject([{ id: TAKE, missing: true }]);
  });
  it('is verified: a changed byte, a lost file, a broken rig are told', async () => {
    const data = join(here.folder, 'data');
    expect(await verifyFolder(data)).toMatchObject({ rigs: 2, revisions: 3, takes: 1, photographs: 1, faults: [] });
    const [take] = readdirSync(join(data, 'takes'));
    writeFileSync(join(data, 'takes', take!), Buffer.concat([bytes.subarray(1), Buffer.from([0])]));
    writeFileSync(join(data, 'takes', 'f'.repeat(64)), 'x');
    const { faults } = await verifyFolder(data);
    expect(faults).toHaveLength(2);
    expect(faults[0]).toMatch(/“a\.wav” is not what it was/);
    expect(faults[1]).toMatch(/No take refers to the file takes\/ffffffff/);
  });
});
