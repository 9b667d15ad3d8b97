import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parseRig, RigError } from '#core/model/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { readRig } from './made.ts';
import { unpack } from './packed.ts';
import { threadReader } from './reader.ts';

const bytesOf = (text: string) => new TextEncoder().encode(text);
let folder: string;
let script: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'mellow-reader-'));
  script = join(folder, 'reader.mjs');
  // A stand-in that answers, refuses or dies, as the document says.
  writeFileSync(
    script,
    `import { parentPort } from 'node:worker_threads';
    parentPort.on('message', ({ n, bytes }) => {
      const text = new TextDecoder().decode(bytes);
      if (text === 'dies') process.exit(1);
      if (text === 'bad') parentPort.postMessage({ n, rigError: { code: 'shape', path: 'cables/3', message: 'cables/3: no' } });
      else if (text === 'large') parentPort.postMessage({ n, refused: { status: 413, title: 'Too large', detail: 'no' } });
      else parentPort.postMessage({ n, made: { name: text, text, packed: bytes, measurements: [], photos: [] } });
    });`,
  );
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('reading rigs in a thread', () => {
  it('answers each with its own, refuses with the same words, and one that breaks it breaks no other', async () => {
    const reader = threadReader(script);
    const read = (text: string) =>
      reader.read(bytesOf(text)).then(
        ({ name }) => name,
        (error: Error) => error,
      );
    const [a, bad, dies, b, large, c] = await Promise.all(['a', 'bad', 'dies', 'b', 'large', 'c'].map(read));
    expect([a, b, c]).toEqual(['a', 'b', 'c']);
    expect(bad).toBeInstanceOf(RigError);
    expect(bad).toMatchObject({ code: 'shape', path: 'cables/3', message: 'cables/3: no' });
    expect(dies).toMatchObject({ message: 'The thread that reads rigs has ended.' });
    expect(large).toMatchObject({ status: 413, message: 'no' });
    expect(await read('d')).toBe('d');
    const late = read('e');
    await reader.close();
    expect(await late).toMatchObject({ status: 503 });
    expect(await read('f')).toMatchObject({ status: 503 });
  });
});

describe('a rig that is made ready', () => {
  it('is its text, the same deflated, and what stands in tables', async () => {
    const made = await readRig(bytesOf(`\uFEFF${JSON.stringify(boathouse)}`));
    expect(JSON.parse(made.text)).toEqual(parseRig(JSON.parse(JSON.stringify(boathouse))));
    expect(await unpack(Buffer.from(made.packed))).toBe(made.text);
    expect(made).toMatchObject({ name: 'Boathouse relay', photos: [] });
    await expect(readRig(bytesOf('{'))).rejects.toMatchObject({ status: 400, title: 'Not JSON' });
    await expect(readRig(bytesOf('{}'))).rejects.toBeInstanceOf(RigError);
    await expect(readRig(null)).rejects.toBeInstanceOf(RigError);
  });
});
