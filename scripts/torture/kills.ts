import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sqlite3 from 'sqlite3';
import { seededRandom } from '#core/audio/samples/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { first } from '#server/database/migrations/001-first.ts';
import { day } from '#server/database/migrations/002-day.ts';
import { type Desk, type Figures, hold, idOf, makeDesk } from './desk.ts';

/** What was acknowledged, and so has to be there; and what was asked for without an answer, which may be. */
interface Ledger {
  /** Rig id to the name it was last acknowledged with, and names that may have come after. */
  readonly rigs: Map<string, { revision: number; name: string; maybe: string | null }>;
  /** Take id to its bytes' hash; null: deleted. */
  readonly takes: Map<string, { sha256: string | null; maybe: boolean }>;
  readonly events: Set<string>;
  /** Rigs that came by archives. */
  readonly brought: Set<string>;
}

const JSON_TYPE = { 'Content-Type': 'application/json' };
const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Kills the program at random instants over all kinds of writes, starts it again, and looks whether all that was acknowledged is there. */
export async function kills(seed: number, untilMs: number, most: number): Promise<Figures> {
  const random = seededRandom(seed);
  const desk = await makeDesk();
  const ledger: Ledger = { rigs: new Map(), takes: new Map(), events: new Set(), brought: new Set() };
  const figures = { kills: 0, 'acknowledged writes': 0, 'killed while starting': 0, 'integrity checks': 0 };
  const archive = await anArchive();
  try {
    let n = 0;
    while (figures.kills < most && Date.now() < untilMs) {
      // One start in five is killed too, at any instant of it.
      if (random() < 0.2) {
        const starting = desk.start().catch(() => undefined);
        await wait(30 + random() * 500);
        await desk.kill();
        await Promise.race([starting, wait(5)]);
        figures['killed while starting']++;
        figures.kills++;
      }
      await desk.start();
      if (n > 0) await checkAll(desk, ledger);
      let alive = true;
      const writers = Array.from({ length: 6 }, async (_, w) => {
        while (alive) {
          try {
            await writeSomething(desk, ledger, random, w, n++, archive);
            if (alive) figures['acknowledged writes']++;
          } catch (error) {
            // The connection went with the process; anything else is looked at.
            if (!(error instanceof TypeError)) throw error;
            if (alive) await wait(1);
          }
        }
      });
      await wait(20 + random() * 400);
      alive = false;
      await desk.kill();
      figures.kills++;
      await Promise.all(writers);
      await checkDatabase(join(desk.data, 'mellow.sqlite'));
      figures['integrity checks']++;
    }
    await desk.start();
    await checkAll(desk, ledger);
    await checkFiles(desk);
  } finally {
    await desk.dispose();
  }
  return figures;
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function writeSomething(
  desk: Desk,
  ledger: Ledger,
  random: () => number,
  writer: number,
  n: number,
  archive: Uint8Array<ArrayBuffer>,
): Promise<void> {
  const kind = random();
  // Each writer has rigs and takes of its own: what it was told is then what is there.
  const rigId = idOf(0xa0 + writer, Math.floor(random() * 4));
  const takeId = idOf(0xb0 + writer, Math.floor(random() * 8));
  if (kind < 0.45) return saveRig(desk, ledger, rigId, `name ${n}`);
  if (kind < 0.6) return sendTake(desk, ledger, takeId, takeBytes(random), random() < 0.5);
  if (kind < 0.72) return deleteTake(desk, ledger, takeId);
  if (kind < 0.9) return tellEvent(desk, ledger, rigId, idOf(0xc0, n));
  if (kind < 0.95) {
    const answer = await desk.ask('POST', '/api/archives', archive);
    hold(answer.status === 201, `An archive was refused: ${JSON.stringify(answer.json)}`);
    ledger.brought.add(answer.json.rigId);
    return;
  }
  const png = Buffer.concat([Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'), Buffer.from(String(n))]);
  const answer = await desk.ask('POST', '/api/photos', new Uint8Array(png));
  hold(answer.status === 201, `A photograph was refused: ${JSON.stringify(answer.json)}`);
}

async function saveRig(desk: Desk, ledger: Ledger, id: string, name: string): Promise<void> {
  const known = ledger.rigs.get(id);
  if (known) known.maybe = name;
  else ledger.rigs.set(id, { revision: 0, name: '', maybe: name });
  const own = ledger.rigs.get(id)!;
  const answer = known?.revision
    ? await desk.ask('PUT', `/api/rigs/${id}`, { ...boathouse, name }, { 'If-Match': `"${known.revision}"` })
    : await desk.ask('POST', '/api/rigs', { id, document: { ...boathouse, name } });
  if (answer.status === 412 || answer.status === 409) {
    // A save that was never acknowledged came through all the same.
    const there = await desk.ask('GET', `/api/rigs/${id}`);
    own.revision = there.json.revision;
    own.name = there.json.document.name;
    own.maybe = null;
    return;
  }
  hold(
    answer.status === 200 || answer.status === 201,
    `A save answered ${answer.status}: ${JSON.stringify(answer.json)}`,
  );
  own.revision = answer.json.revision;
  own.name = answer.json.document.name;
  own.maybe = null;
}

/** Few contents, so that takes of equal bytes come and go. */
const takeBytes = (random: () => number): Uint8Array<ArrayBuffer> =>
  new Uint8Array(20_000 + Math.floor(random() * 6)).fill(1 + (Math.floor(random() * 200) % 5));

async function sendTake(
  desk: Desk,
  ledger: Ledger,
  id: string,
  bytes: Uint8Array<ArrayBuffer>,
  whole: boolean,
): Promise<void> {
  const known = ledger.takes.get(id);
  if (known?.sha256 || known?.maybe) return deleteTake(desk, ledger, id);
  ledger.takes.set(id, { sha256: null, maybe: true });
  const own = ledger.takes.get(id)!;
  if (whole) {
    const answer = await desk.ask('PUT', `/api/takes/${id}?name=t.wav`, bytes);
    hold(answer.status === 201, `A take answered ${answer.status}: ${JSON.stringify(answer.json)}`);
  } else {
    let at: number = (await desk.ask('GET', `/api/takes/${id}/upload`)).json.at;
    // What was begun before a kill was of other bytes: what comes of it is someone else's.
    if (at > 0) {
      ledger.takes.delete(id);
      return;
    }
    for (; at < bytes.length; ) {
      const piece = bytes.slice(at, at + 9000);
      const answer = await desk.ask(
        'PATCH',
        `/api/takes/${id}/upload?name=t.wav&at=${at}&bytes=${bytes.length}`,
        piece,
      );
      hold(
        answer.status === 201 || answer.status === 202,
        `A piece answered ${answer.status}: ${JSON.stringify(answer.json)}`,
      );
      at += piece.length;
    }
  }
  own.sha256 = hashOf(bytes);
  own.maybe = false;
}

async function deleteTake(desk: Desk, ledger: Ledger, id: string): Promise<void> {
  const own = ledger.takes.get(id);
  if (!own) return;
  own.maybe = true;
  const answer = await desk.ask('DELETE', `/api/takes/${id}`);
  hold(
    answer.status === 204 || answer.status === 404,
    `Deleting answered ${answer.status}: ${JSON.stringify(answer.json)}`,
  );
  own.sha256 = null;
  own.maybe = false;
}

async function tellEvent(desk: Desk, ledger: Ledger, rigId: string, id: string): Promise<void> {
  if (!ledger.rigs.get(rigId)?.revision) return;
  const event = { id, sessionId: idOf(1, 1), at: '2026-11-29T10:00:00.000Z', by: 'desk', kind: 'note', says: 'x' };
  const answer = await desk.ask('POST', `/api/rigs/${rigId}/day`, { events: [event] }, JSON_TYPE);
  hold(answer.status === 204, `An event answered ${answer.status}: ${JSON.stringify(answer.json)}`);
  ledger.events.add(`${rigId} ${id}`);
}

/** All that was acknowledged is there; what was not may be. */
async function checkAll(desk: Desk, ledger: Ledger): Promise<void> {
  for (const [id, own] of ledger.rigs) {
    const { status, json } = await desk.ask('GET', `/api/rigs/${id}`);
    if (own.revision === 0 && status === 404) continue;
    hold(status === 200, `Rig ${id} answered ${status}`);
    hold(
      json.document.name === own.name || json.document.name === own.maybe,
      `Rig ${id} is '${json.document.name}', and '${own.name}' was acknowledged`,
    );
    hold(json.revision >= own.revision, `Rig ${id} went back to revision ${json.revision}`);
    Object.assign(own, { revision: json.revision, name: json.document.name, maybe: null });
  }
  const { json: list } = await desk.ask('GET', '/api/takes');
  const there = new Map((list as { id: string; sha256: string; missing?: true }[]).map((t) => [t.id, t]));
  for (const [id, own] of ledger.takes) {
    const found = there.get(id);
    if (own.maybe) {
      own.maybe = false;
      own.sha256 = found?.sha256 ?? null;
    }
    hold(
      (found?.sha256 ?? null) === own.sha256,
      `Take ${id} is ${found?.sha256 ?? 'not there'}; ${own.sha256} was acknowledged`,
    );
    if (!found) continue;
    hold(!found.missing, `The bytes of take ${id} are gone`);
    const bytes = new Uint8Array(await (await fetch(`${desk.base}/api/takes/${id}/content`)).arrayBuffer());
    hold(hashOf(bytes) === found.sha256, `Take ${id} is not what it was`);
  }
  for (const id of ledger.brought)
    hold((await desk.ask('GET', `/api/rigs/${id}`)).status === 200, `Rig ${id} of an archive is gone`);
  const byRig = new Map<string, Set<string>>();
  for (const pair of ledger.events) {
    const [rigId, id] = pair.split(' ') as [string, string];
    byRig.set(rigId, (byRig.get(rigId) ?? new Set()).add(id));
  }
  for (const [rigId, ids] of byRig) {
    const seen = new Set<string>();
    for (let after = 0, more = true; more; ) {
      const { json } = await desk.ask('GET', `/api/rigs/${rigId}/day?after=${after}`);
      for (const event of json.events) seen.add(event.id);
      [after, more] = [json.seq, json.more];
    }
    for (const id of ids) hold(seen.has(id), `Event ${id} of ${rigId} was acknowledged and is not there`);
  }
}

/** Nothing is on its way in but uploads that may be gone on with; nothing is in place that no take speaks of. */
async function checkFiles(desk: Desk): Promise<void> {
  for (const file of readdirSync(join(desk.data, 'uploads'), { recursive: true, withFileTypes: true }))
    if (file.isFile()) hold(/^[0-9a-f-]{36}\.part$/.test(file.name), `A stray file: ${file.parentPath}/${file.name}`);
  const found = (await desk.ask('GET', '/api/takes/found')).json as unknown[];
  hold(found.length === 0, `Files of takes that no row speaks of: ${JSON.stringify(found)}`);
}

async function checkDatabase(file: string): Promise<void> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, sqlite3.OPEN_READWRITE, (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  const rows = await new Promise<{ integrity_check: string }[]>((resolve, reject) =>
    database.all('PRAGMA integrity_check', (error: Error | null, found: { integrity_check: string }[]) =>
      error ? reject(error) : resolve(found),
    ),
  );
  await new Promise((resolve) => database.close(resolve));
  hold(rows.length === 1 && rows[0]!.integrity_check === 'ok', `integrity_check: ${JSON.stringify(rows)}`);
}

/** A small archive, made by the program itself. */
async function anArchive(): Promise<Uint8Array<ArrayBuffer>> {
  const desk = await makeDesk();
  try {
    await desk.start();
    const id = idOf(0xd0, 1);
    await desk.ask('POST', '/api/rigs', { id, document: { ...boathouse, name: 'of an archive' } });
    await desk.ask('PUT', `/api/takes/${idOf(0xd1, 1)}?name=a.wav`, new Uint8Array(50_000).fill(9));
    return new Uint8Array(await (await fetch(`${desk.base}/api/archives/${id}?takes=all`)).arrayBuffer());
  } finally {
    await desk.dispose();
  }
}

/** A database as an earlier program left it is killed at any instant of its update, and always starts in the end, with all in it. */
export async function killedUpdates(seed: number, untilMs: number, most: number): Promise<Figures> {
  const random = seededRandom(seed);
  const figures = { 'updates killed': 0, 'rigs kept through them': 0 };
  while (figures['updates killed'] < most && Date.now() < untilMs) {
    const desk = await makeDesk();
    try {
      mkdirSync(join(desk.data, 'takes'), { recursive: true });
      const rigs = await oldDatabase(join(desk.data, 'mellow.sqlite'), 60);
      const bytes = new Uint8Array(1000).fill(3);
      writeFileSync(join(desk.data, 'takes', hashOf(bytes)), bytes);
      for (let n = 0; n < 3; n++) {
        const starting = desk.start().catch(() => undefined);
        await wait(60 + random() * 250);
        await desk.kill();
        await Promise.race([starting, wait(5)]);
        figures['updates killed']++;
      }
      await desk.start();
      const list = (await desk.ask('GET', '/api/rigs')).json;
      hold(list.length === rigs, `Of ${rigs} rigs ${list.length} came through an update that was killed`);
      figures['rigs kept through them'] += rigs;
      const found = (await desk.ask('GET', '/api/takes/found')).json;
      hold(
        found.length === 1 && existsSync(join(desk.data, 'takes', hashOf(bytes))),
        'A take without a row was not found again',
      );
    } finally {
      await desk.dispose();
    }
  }
  return figures;
}

/** As the program before this one wrote it. */
async function oldDatabase(file: string, rigs: number): Promise<number> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened = new sqlite3.Database(file, (error) => (error ? reject(error) : resolve(opened)));
  });
  const exec = (sql: string) =>
    new Promise<void>((resolve, reject) => database.exec(sql, (error) => (error ? reject(error) : resolve())));
  const document = JSON.stringify(boathouse).replace(/'/g, "''");
  await exec(
    [
      'PRAGMA journal_mode=WAL; BEGIN;',
      ...[...first, ...day].map((s) => `${s};`),
      'CREATE TABLE SequelizeMeta (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY);',
      "INSERT INTO SequelizeMeta VALUES ('001-first'), ('002-day');",
      ...Array.from({ length: rigs }, (_, n) => {
        const id = idOf(0xe0, n);
        return `INSERT INTO rigs (id, name, document, revision, updatedAt) VALUES ('${id}', 'Boathouse relay', '${document}', 1, '2026-11-01T00:00:00.000Z');
          INSERT INTO revisions VALUES ('${id}', 1, '${document}', '2026-11-01T00:00:00.000Z');`;
      }),
      'COMMIT;',
    ].join('\n'),
  );
  await new Promise((resolve) => database.close(resolve));
  return rigs;
}
