import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openServer, type Server } from '../start/app.ts';
import { HeldError, holderOf } from './lock.ts';
import { freeBytes, openReserve } from './reserve.ts';
import { openStorage, type Storage } from './storage.ts';

let root: string;
const open: Server[] = [];
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), 'mellow-data-'));
});
afterEach(async () => {
  for (const server of open.splice(0)) await server.close();
  rmSync(root, { recursive: true, force: true });
});
const start = async (folder = root): Promise<Server> => {
  const server = await openServer({ dataFolder: folder, webFolder: root, now: () => new Date(), reserveBytes: 0 });
  open.push(server);
  return server;
};
/** All that a folder holds: paths with their content. */
const contentOf = (folder: string): [string, string][] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((f) => f.isFile())
    .map((f): [string, string] => [join(f.parentPath, f.name), readFileSync(join(f.parentPath, f.name), 'latin1')])
    .sort();

describe('a data folder', () => {
  it('of somebody else is refused in a sentence, and nothing in it is touched', async () => {
    for (const name of ['photos', 'takes', 'archives', 'uploads']) {
      mkdirSync(join(root, name));
      writeFileSync(join(root, name, 'holiday.jpg'), name);
      writeFileSync(join(root, name, 'a'.repeat(64)), name);
    }
    const before = contentOf(root);
    await expect(start()).rejects.toThrow(/holds files that are not Mellow Tap’s \(.*\)\. Nothing was changed\./);
    expect(contentOf(root)).toEqual(before);
    writeFileSync(join(root, 'a file'), '');
    await expect(start(join(root, 'a file'))).rejects.toThrow(/is a file/);
  });
  it('is made where there is none, opened again, and keeps what strangers put into it', async () => {
    const folder = join(root, 'new', 'deeper');
    await (await start(folder)).close();
    open.pop();
    writeFileSync(join(folder, 'notes.txt'), 'mine');
    mkdirSync(join(folder, 'takes', 'sub'), { recursive: true });
    writeFileSync(join(folder, 'takes', 'sub', 'x.wav'), 'mine');
    writeFileSync(join(folder, 'photos', 'holiday.jpg'), 'mine');
    writeFileSync(join(folder, 'photos', 'b'.repeat(64)), 'mine');
    writeFileSync(join(folder, 'uploads', 'takes', 'x.part'), 'mine');
    const server = await start(folder);
    await server.housekeep();
    for (const path of [
      'notes.txt',
      'takes/sub/x.wav',
      'photos/holiday.jpg',
      `photos/${'b'.repeat(64)}`,
      'uploads/takes/x.part',
    ])
      expect(readFileSync(join(folder, path), 'utf8')).toBe('mine');
  });
  it('is held by one program at a time, and free once that is gone', async () => {
    const first = await start();
    await first.tell({ pid: 4711, url: 'http://127.0.0.1:1', since: '2026-11-29T12:00:00.000Z' });
    const failed = await start().catch((error: unknown) => error);
    expect(failed).toBeInstanceOf(HeldError);
    expect((failed as HeldError).message).toMatch(
      /open in another Mellow Tap \(process 4711, http:\/\/127\.0\.0\.1:1\)/,
    );
    expect(await holderOf(root, 0)).toMatchObject({ pid: 4711 });
    await first.close();
    open.splice(0);
    expect(await holderOf(root, 0)).toBeNull();
    await start();
  });
  it('from before there were marks is known by its database, and of a newer program is refused', async () => {
    writeFileSync(join(root, 'mellow.sqlite'), '');
    mkdirSync(join(root, 'takes'));
    await (await start()).close();
    open.pop();
    const mark = join(root, 'mellow-tap-data.json');
    expect(existsSync(mark)).toBe(true);
    writeFileSync(mark, JSON.stringify({ kind: 'mellow-tap-data', version: 99 }));
    await expect(start()).rejects.toThrow(/newer Mellow Tap/);
    writeFileSync(mark, '{"kind":"something else"}');
    await expect(start()).rejects.toThrow(/cannot be read/);
  });
});

describe('room in reserve', () => {
  it('is real bytes, given up once, and taken again where there is plenty', async () => {
    const reserve = openReserve(root, 3_000_000);
    expect(await reserve.giveUp()).toBe(false);
    await reserve.refill();
    expect(readFileSync(join(root, 'reserve')).length).toBe(3_000_000);
    expect(await reserve.giveUp()).toBe(true);
    expect(await reserve.giveUp()).toBe(false);
    expect(existsSync(join(root, 'reserve'))).toBe(false);
    const tooMuch = openReserve(root, await freeBytes(root));
    await tooMuch.refill();
    expect(existsSync(join(root, 'reserve'))).toBe(false);
  });
});

describe('files under their hashes', () => {
  let storage: Storage;
  beforeEach(async () => {
    storage = await openStorage({
      folder: join(root, 'there'),
      incoming: join(root, 'coming'),
      what: 'The take',
      largestBytes: 1000,
      whenTooLarge: '1 kB.',
    });
  });
  const piece = (text: string) => Readable.from([Buffer.from(text)]);
  const ID = '11111111-1111-4111-8111-111111111111';
  it('come by pieces, from where it broke off, whole by their hash', async () => {
    expect(await storage.append(ID, 0, piece('hello '), 11)).toBe(6);
    await expect(storage.append(ID, 3, piece('x'), 11)).rejects.toMatchObject({ status: 409, extra: { at: 6 } });
    // A line that breaks leaves what came.
    const breaks = new Readable({
      read() {
        this.push('wo');
        setTimeout(() => this.destroy(Object.assign(new Error('gone'), { code: 'ECONNRESET' })), 20);
      },
    });
    await expect(storage.append(ID, 6, breaks, 11)).rejects.toMatchObject({ status: 400 });
    const at = await storage.reached(ID);
    expect(at).toBeGreaterThanOrEqual(6);
    await storage.append(ID, at, piece('world'.slice(at - 6)), 11);
    const staged = await storage.finish(ID);
    expect(staged).toMatchObject({
      bytes: 11,
      sha256: 'b94d27b9934d3e08a52e52d7da7dabfac484efe37a5380ee9088f7ace2efcde9',
    });
    await expect(storage.append(ID, 0, piece('x'.repeat(20)), 11)).rejects.toMatchObject({ status: 400 });
    expect(await storage.reached(ID)).toBe(0);
  });
  it('are gone on with by whoever asks last, while another request hangs', async () => {
    const hangs = storage.append(ID, 0, new Readable({ read: () => undefined }), 11);
    const caught = hangs.catch((error: unknown) => error);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(await storage.append(ID, 0, piece('hello world'), 11)).toBe(11);
    expect(await caught).toMatchObject({ status: 400 });
  });
  it('stay while they are read, whatever is deleted, and go after that; unless they are wanted again', async () => {
    const put = async () => {
      const staged = await storage.stage(piece('bytes'), null);
      await storage.alone(staged.sha256, () => storage.settle(staged));
      return staged.sha256;
    };
    const sha256 = await put();
    const lent = (await storage.lend(sha256))!;
    await storage.alone(sha256, () => storage.remove(sha256));
    expect(storage.has(sha256)).toBe(false);
    expect(await storage.lend(sha256)).toBeNull();
    expect(readFileSync(lent.path, 'utf8')).toBe('bytes');
    await put();
    expect(storage.has(sha256)).toBe(true);
    lent.giveBack();
    lent.giveBack();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(existsSync(lent.path)).toBe(true);
    const again = (await storage.lend(sha256))!;
    await storage.alone(sha256, () => storage.remove(sha256));
    again.giveBack();
    await expect.poll(() => existsSync(again.path)).toBe(false);
    expect(readdirSync(join(root, 'coming'))).toEqual([]);
  });
});
