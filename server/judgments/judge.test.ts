import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { parseRig } from '#core/model/rig/index.ts';
import { isTooLarge, stepsOf } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { matrices } from './dear.testkit.ts';
import { threadJudge } from './judge.ts';
import { judge } from './judged.ts';

let folder: string;
let script: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'mellow-judge-'));
  script = join(folder, 'judge.mjs');
  // A stand-in that answers, dies, takes all memory or never ends, as the document says.
  writeFileSync(
    script,
    `import { parentPort } from 'node:worker_threads';
    parentPort.on('message', (document) => {
      if (document === 'throws') throw new Error('no');
      if (document === 'exits') process.exit(0);
      if (document === 'never') for (;;);
      if (document === 'grows') for (const all = []; ; ) all.push(new Array(1e5).fill({}).map((_, i) => ({ i })));
      parentPort.postMessage({ kind: 'tally', blockers: 0, toFix: document.length, toWatch: 0, toDo: 0, measured: 0 });
    });`,
  );
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('judging in a thread', () => {
  it('answers one document after another, and goes on after each that breaks it', async () => {
    const thread = threadJudge(script, 6000);
    const tally = (toFix: number) => ({ kind: 'tally', blockers: 0, toFix, toWatch: 0, toDo: 0, measured: 0 });
    expect(await thread.judge('a')).toEqual(tally(1));
    // A while idle makes no difference.
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await thread.judge('ab')).toEqual(tally(2));
    const all = await Promise.all(['abc', 'throws', 'abcd', 'never', 'abcde', 'exits', 'a'].map(thread.judge));
    expect(all).toEqual([
      tally(3),
      { kind: 'unreadable', says: expect.stringMatching(/checks failed/) },
      tally(4),
      { kind: 'too-large' },
      tally(5),
      { kind: 'too-large' },
      tally(1),
    ]);
    await thread.close();
  });
  it('is bounded in memory', async () => {
    const thread = threadJudge(script, 60_000);
    expect(await thread.judge('grows')).toEqual({ kind: 'too-large' });
    expect(await thread.judge('a')).toMatchObject({ kind: 'tally' });
    await thread.close();
  });
});

describe('how much a rig takes', () => {
  it('is counted, far below the bound for a desk, and far above it for rings of large matrices', () => {
    const rig = parseRig(boathouse);
    expect(stepsOf(rig)).toBeLessThan(100_000);
    expect(judge(JSON.stringify(rig))).toMatchObject({ kind: 'tally' });
    expect(isTooLarge(parseRig(matrices(4, true)))).toBe(true);
    expect(judge(JSON.stringify(matrices(4, true)))).toEqual({ kind: 'too-large' });
    // In a line it is nothing.
    expect(isTooLarge(parseRig(matrices(4, false)))).toBe(false);
  });
});
