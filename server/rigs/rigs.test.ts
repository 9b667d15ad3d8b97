import { join } from 'node:path';
import fc from 'fast-check';
import sqlite3 from 'sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { CHANGES_HEADER, RigList, RigVersions } from '#api/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { ownJudge } from '../judgments/judge.ts';
import { type TestDesk, testDesk } from '../start/server.testkit.ts';
import { makeRig } from './made.ts';
import { pack, unpack } from './packed.ts';
import { thin } from './thin.ts';

const RIG = '11111111-1111-4111-8111-111111111111';
const OTHER = '33333333-3333-4333-8333-333333333333';
const rig = parseRig(boathouse);

let desk: TestDesk;
let clockMs = Date.parse('2026-11-29T12:00:00Z');
beforeEach(async () => {
  clockMs = Date.parse('2026-11-29T12:00:00Z');
  desk = await testDesk({ now: () => new Date(clockMs) });
});
afterEach(() => desk.end());
const ask = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
  const response = await fetch(desk.base + path, {
    method,
    headers: { ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await response.text();
  let json: unknown = text;
  try {
    json = JSON.parse(text);
  } catch {
    // Not JSON: compared as text.
  }
  return { status: response.status, json: json as Record<string, unknown>, headers: response.headers };
};
const list = async () => RigList.parse((await ask('GET', '/api/rigs')).json);
/** As another program does it. */
const tamper = (sql: string) =>
  new Promise<void>((resolve, reject) => {
    const database = new sqlite3.Database(join(desk.folder, 'data', 'mellow.sqlite'));
    database.exec(sql, (error) => database.close(() => (error ? reject(error) : resolve())));
  });

describe('a rig that is bad', () => {
  it.each([
    ['no JSON', 'no { json', /Not valid JSON/],
    ['of a newer program', JSON.stringify({ ...rig, schemaVersion: 99 }), /version 99/],
    ['of an unknown type', JSON.stringify({ ...rig, devices: [{ ...rig.devices[0], typeId: 'nothing' }] }), /nothing/],
  ])(
    'as %s spoils no other one: it says what is wrong, is downloaded as it is, brought back, deleted',
    async (_, text, says) => {
      await desk.opened.rigs.create(RIG, rig);
      await desk.opened.rigs.create(OTHER, parseRig({ ...rig, name: 'Other' }));
      await tamper(`UPDATE rigs SET document = '${text.replace(/'/g, "''")}' WHERE id = '${RIG}'`);
      await expect.poll(async () => (await list()).find((r) => r.id === RIG)!.state).toBe('unreadable');
      const rows = await list();
      expect(rows.find((r) => r.id === RIG)!.says).toMatch(says);
      expect(rows.find((r) => r.id === OTHER)).toMatchObject({ state: 'judged', name: 'Other' });
      const file = await ask('GET', `/api/rigs/${RIG}/document`);
      expect(typeof file.json === 'string' ? file.json : JSON.stringify(file.json)).toBe(text);
      expect(file.headers.get('content-disposition')).toMatch(/^attachment; filename\*=UTF-8''Boathouse/);
      expect((await ask('GET', `/api/rigs/${RIG}`)).status).toBeLessThan(500);
      expect((await ask('POST', `/api/rigs/${RIG}/versions/1/bring-back`)).status).toBe(200);
      await expect.poll(async () => (await list()).find((r) => r.id === RIG)!.state).toBe('judged');
      expect((await ask('DELETE', `/api/rigs/${RIG}`, undefined, { 'If-Match': '"2"' })).status).toBe(204);
    },
  );
  it('as too large to be judged is said to be so, keeps no request waiting, and asks for no second judgement', async () => {
    await desk.end();
    let asked = 0;
    desk = await testDesk({
      judge: {
        ...ownJudge,
        judge: (document) => {
          asked++;
          if (document.includes('"dear"'))
            return new Promise((resolve) => setTimeout(() => resolve({ kind: 'too-large' }), 3000));
          return ownJudge.judge(document);
        },
      },
    });
    await desk.opened.rigs.create(RIG, parseRig({ ...rig, name: 'dear' }));
    // The list does not wait for it.
    expect((await list())[0]).toMatchObject({ state: 'pending', toFix: 0 });
    await expect.poll(async () => (await list())[0]!.state, { timeout: 20_000 }).toBe('too-large');
    const before = asked;
    await list();
    await list();
    expect(asked).toBe(before);
    expect((await ask('GET', `/api/rigs/${RIG}`)).json.state).toBe('too-large');
  });
  it('as larger than can be saved again comes in by no door', async () => {
    await expect(
      desk.opened.rigs.prepare({ ...rig, notes: 'x'.repeat(5_000_001) } as typeof rig),
    ).rejects.toMatchObject({ status: 413 });
  });
});

describe('versions', () => {
  it('are listed with what was changed and how the verdict moved, looked at, and brought back', async () => {
    // A version is judged beside, after it was saved.
    const judged = async (revision: number) =>
      expect
        .poll(async () => {
          const all = RigVersions.parse((await ask('GET', `/api/rigs/${RIG}/versions`)).json);
          return all.find((v) => v.revision === revision)?.judged;
        })
        .toBeTruthy();
    await desk.opened.rigs.create(RIG, rig);
    await judged(1);
    const put = (revision: number, document: unknown, changes: string) =>
      ask('PUT', `/api/rigs/${RIG}`, document, { 'If-Match': `"${revision}"`, [CHANGES_HEADER]: changes });
    await put(1, { ...rig, cables: rig.cables.slice(3) }, encodeURIComponent(JSON.stringify(['Unplug “É”', 'Second'])));
    await judged(2);
    await put(2, { ...rig, notes: 'x' }, '%%% not to be read');
    await judged(3);
    const versions = RigVersions.parse((await ask('GET', `/api/rigs/${RIG}/versions`)).json);
    expect(versions.map((v) => [v.revision, v.changes])).toEqual([
      [3, []],
      [2, ['Unplug “É”', 'Second']],
      [1, []],
    ]);
    expect(versions[0]!.judged!.toFix).toBe(versions[2]!.judged!.toFix);
    expect(versions[1]!.judged!.toFix).not.toBe(versions[0]!.judged!.toFix);
    expect((await ask('GET', `/api/rigs/${RIG}/versions/1`)).json).toMatchObject({ revision: 1, document: rig });
    expect((await ask('GET', `/api/rigs/${RIG}/versions/9`)).status).toBe(404);
    expect((await ask('POST', `/api/rigs/${RIG}/versions/1/bring-back`)).json).toMatchObject({
      revision: 4,
      document: rig,
    });
    expect(RigVersions.parse((await ask('GET', `/api/rigs/${RIG}/versions`)).json)[0]!.changes[0]).toMatch(
      /brought back/,
    );
  });
  it('are thinned out as they age, and what a dropped one changed is told by the next', async () => {
    await desk.opened.rigs.create(RIG, rig);
    for (let n = 1; n <= 30; n++) {
      clockMs += 5 * 60_000;
      await desk.opened.rigs.replace(RIG, await makeRig({ ...rig, notes: `n${n}` }), n, [`change ${n}`]);
    }
    clockMs += 3 * 24 * 3_600_000;
    await desk.opened.rigs.replace(RIG, await makeRig({ ...rig, notes: 'later' }), 31, ['last']);
    const versions = RigVersions.parse((await ask('GET', `/api/rigs/${RIG}/versions`)).json);
    expect(versions.length).toBeLessThan(8);
    expect(versions.at(-1)!.revision).toBe(1);
    expect(versions.flatMap((v) => v.changes).filter((c) => c.startsWith('change')).length).toBeGreaterThan(25);
  });
  it('keep the first, the newest, and of each span the last, whatever their times are', () => {
    const HOUR = 3_600_000;
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 400 * 24 * HOUR }), { minLength: 1, maxLength: 300 }), (ages) => {
        const nowMs = 500 * 24 * HOUR;
        const versions = ages.sort((a, b) => b - a).map((age, i) => ({ revision: i + 1, savedAtMs: nowMs - age }));
        const drop = new Set(thin(versions, nowMs));
        expect(drop.has(1)).toBe(false);
        expect(drop.has(versions.length)).toBe(false);
        for (const v of versions) if (nowMs - v.savedAtMs < 24 * HOUR) expect(drop.has(v.revision)).toBe(false);
        // What is dropped has one that was saved later in the same span, and dropping again drops nothing.
        const kept = versions.filter((v) => !drop.has(v.revision));
        expect(thin(kept, nowMs)).toEqual([]);
        expect(kept.length).toBeLessThan(
          2 + 1 + 24 + 7 * 24 + 90 + 60 + versions.filter((v) => nowMs - v.savedAtMs < 24 * HOUR).length,
        );
      }),
    );
    const busy = Array.from({ length: 3000 }, (_, i) => ({ revision: i, savedAtMs: i * 1000 }));
    expect(3000 - thin(busy, 3_000_000).length).toBeLessThan(560);
  });
  it('are packed, and read as they were', async () => {
    await fc.assert(
      fc.asyncProperty(fc.string({ maxLength: 500 }), async (text) => {
        expect(await unpack(await pack(text))).toBe(Buffer.from(text).toString());
      }),
      { numRuns: 50 },
    );
    const long = JSON.stringify(rig).repeat(20);
    expect((await pack(long)).length).toBeLessThan(long.length / 5);
    expect(await unpack(await pack(long))).toBe(long);
    expect(await unpack('as text')).toBe('as text');
  });
});
