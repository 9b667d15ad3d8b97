import { spawn } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { seededRandom } from '#core/audio/samples/index.ts';
import { orderUp } from '#core/live/run/index.ts';
import { lineUp } from '#core/live/troubleshoot/index.ts';
import { plant } from '#core/live/troubleshoot/trouble.testkit.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { optionsFor } from '#core/routing/plan/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { medianMs, type Row } from './report.ts';

const PLANTED = 1000;

/** Faults planted in the relay, looked for by the program and by a fixed list; the ways to build it; its order. */
export async function day(): Promise<readonly Row[]> {
  const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
  const begun = performance.now();
  const lineup = lineUp(rig);
  const lineUpMs = performance.now() - begun;
  const planted = plant(rig, lineup, PLANTED, 11);
  const at = (list: readonly number[], share: number) =>
    [...list].sort((a, b) => a - b)[Math.floor(share * (list.length - 1))]!;
  const [looks, byList] = [planted.map((p) => p.looks), planted.map((p) => p.byList)];
  const waysBegun = performance.now();
  const ways = optionsFor(rig);
  const waysMs = performance.now() - waysBegun;
  const orderMs = medianMs(20, () => void orderUp({ ...rig }));
  return [
    {
      what: `${PLANTED} faults planted, looks until named (median, 95 %, most)`,
      ours: `${at(looks, 0.5)}, ${at(looks, 0.95)}, ${at(looks, 1)}`,
      other: `a fixed list: ${at(byList, 0.5)}, ${at(byList, 0.95)}, ${at(byList, 1)}`,
      ratio: at(byList, 0.5) / Math.max(1, at(looks, 0.5)),
      goal: '5 in the median, 9 at most',
      reached: at(looks, 0.5) <= 5 && at(looks, 1) <= 9,
    },
    {
      what: `${lineup.suspects.length + lineup.unheard} faults of the relay run in the model`,
      ours: `${(lineUpMs / 1000).toFixed(2)} s, cold`,
      other: '',
      ratio: null,
      goal: '',
      reached: true,
    },
    {
      what: `${ways.length} ways to build the relay, drawn and judged`,
      ours: `${(waysMs / 1000).toFixed(2)} s`,
      other: '',
      ratio: null,
      goal: 'under 2 s',
      reached: waysMs < 2000,
    },
    {
      what: 'order of the relay',
      ours: `${orderMs.toFixed(1)} ms`,
      other: '',
      ratio: null,
      goal: 'under 50 ms',
      reached: orderMs < 50,
    },
  ];
}

const TAKE_BYTES = 2 * 1024 ** 3;
const CHUNK_BYTES = 4 * 1024 ** 2;
const RIG = '11111111-1111-4111-8111-111111111111';
const MAX_MIB = 300;

/** A server of its own, with its memory watched. */
async function serve(folder: string, port: number) {
  const child = spawn(process.execPath, ['dist/node/server.js'], {
    env: { ...process.env, MELLOW_DATA: folder, PORT: String(port), MELLOW_SEED: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve) => child.stdout.on('data', (d: Buffer) => d.includes('http:') && resolve()));
  const peakMib = () =>
    Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
  return { base: `http://127.0.0.1:${port}`, peakMib, stop: () => child.kill('SIGTERM') };
}

/** An archive with 2 GiB of takes, out of one server and into another. */
export async function archiving(): Promise<readonly Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'mellow-bench-'));
  const [a, b] = [await serve(join(folder, 'a'), 4901), await serve(join(folder, 'b'), 4902)];
  try {
    const json = { 'Content-Type': 'application/json' };
    const octets = { 'Content-Type': 'application/octet-stream' };
    await fetch(`${a.base}/api/rigs`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify({ id: RIG, document: boathouse }),
    });
    const random = seededRandom(1);
    const chunk = Buffer.from(Uint8Array.from({ length: CHUNK_BYTES }, () => Math.floor(256 * random())));
    const hash = createHash('sha256');
    const body = async function* () {
      for (let sent = 0; sent < TAKE_BYTES; sent += CHUNK_BYTES) {
        chunk.writeDoubleLE(sent, 0);
        hash.update(chunk);
        yield Buffer.from(chunk);
      }
    };
    const take = randomUUID();
    await fetch(`${a.base}/api/takes/${take}?name=long.wav`, {
      method: 'PUT',
      headers: octets,
      body: Readable.toWeb(Readable.from(body())) as never,
      duplex: 'half',
    } as RequestInit);
    const sha256 = hash.digest('hex');
    const file = join(folder, 'archive.zip');
    const outBegun = performance.now();
    const out = await fetch(`${a.base}/api/archives/${RIG}?takes=all`);
    await pipeline(Readable.fromWeb(out.body as WebStream), createWriteStream(file));
    const outS = (performance.now() - outBegun) / 1000;
    const inBegun = performance.now();
    const back = await fetch(`${b.base}/api/archives`, {
      method: 'POST',
      headers: { ...octets, 'Content-Length': String(statSync(file).size) },
      body: Readable.toWeb(createReadStream(file)) as never,
      duplex: 'half',
    } as RequestInit);
    const inS = (performance.now() - inBegun) / 1000;
    const kept = (await (await fetch(`${b.base}/api/takes/${take}`)).json()) as { sha256: string };
    const mib = Math.max(a.peakMib(), b.peakMib());
    return [
      {
        what: 'archive with 2 GiB of takes, out and in again',
        ours: `${outS.toFixed(1)} s out, ${inS.toFixed(1)} s in, ${mib.toFixed(0)} MiB at most, ${kept.sha256 === sha256 ? 'the same byte for byte' : 'NOT THE SAME'}`,
        other: '',
        ratio: null,
        goal: `under ${MAX_MIB} MiB, the same`,
        reached: back.status === 201 && kept.sha256 === sha256 && mib < MAX_MIB,
      },
    ];
  } finally {
    a.stop();
    b.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
