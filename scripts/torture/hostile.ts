import { request } from 'node:http';
import { ZipFile } from 'yazl';
import { seededRandom } from '#core/audio/samples/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { relayDays } from '#demo/relay-days.ts';
import { matrices } from '#server/judgments/dear.testkit.ts';
import { type Desk, type Figures, hold, idOf, makeDesk } from './desk.ts';

const RIG = idOf(1, 1);
const TAKE = idOf(2, 1);
/** No one is shut out: a bound for any machine, far above what a quiet one takes. */
const LONGEST_WAIT_MS = 15_000;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** What a stranger may send: each is refused in a sentence or mended, none ends the process, keeps others waiting, or stays behind. */
export async function hostile(seed: number): Promise<Figures> {
  const random = seededRandom(seed);
  const desk = await makeDesk();
  const figures: Record<string, number> = {};
  try {
    await desk.start();
    await desk.ask('POST', '/api/rigs', { id: RIG, document: boathouse });
    await desk.ask('PUT', `/api/takes/${TAKE}?name=a.wav`, new Uint8Array(30_000_000).fill(7));
    await desk.ask('POST', `/api/rigs/${RIG}/day`, { events: relayDays().slice(0, 200) });
    const watch = watchHealth(desk);
    figures['downloads broken off'] = await brokenDownloads(desk, random, 200);
    figures['takes deleted while an archive with them streams'] = await deletedWhileStreaming(desk, 20);
    figures['uploads and deletes of equal bytes'] = await equalBytes(desk, 150);
    figures['requests refused'] = await refusals(desk);
    figures['archives poisoned'] = await poisonedArchives(desk);
    figures['dear rigs judged aside'] = await dearRig(desk);
    figures['slowest answer meanwhile, ms'] = Math.round(watch.stop());
    hold(!desk.ended, `The process ended: ${desk.said}`);
    hold(
      figures['slowest answer meanwhile, ms'] < LONGEST_WAIT_MS,
      `Others waited for ${figures['slowest answer meanwhile, ms']} ms`,
    );
    hold((await desk.ask('GET', '/api/rigs')).status === 200, 'The list of rigs is spoiled');
    hold(
      !/uncaughtException|unhandledRejection/.test(desk.said),
      `Something slipped through: ${desk.said.slice(-2000)}`,
    );
  } finally {
    await desk.dispose();
  }
  return figures;
}

/** How long the simplest of requests takes while all of this goes on. */
function watchHealth(desk: Desk): { stop(): number } {
  let [slowest, going] = [0, true];
  void (async () => {
    while (going) {
      const beganMs = performance.now();
      await desk.ask('GET', '/api/health').catch(() => undefined);
      slowest = Math.max(slowest, performance.now() - beganMs);
      await wait(50);
    }
  })();
  return {
    stop() {
      going = false;
      return slowest;
    },
  };
}

/** Begins a download and leaves after some of it. */
const beginAndLeave = (desk: Desk, path: string, afterBytes: number): Promise<void> =>
  new Promise((resolve) => {
    const asked = request(desk.base + path, (res) => {
      let bytes = 0;
      res.on('data', (chunk: Buffer) => {
        bytes += chunk.length;
        if (bytes >= afterBytes) asked.destroy();
      });
      res.on('close', resolve);
      res.on('error', () => undefined);
    });
    asked.on('error', () => resolve());
    asked.end();
  });

async function brokenDownloads(desk: Desk, random: () => number, count: number): Promise<number> {
  await beginAndLeave(desk, `/api/takes/${TAKE}/content`, 1);
  await wait(200);
  const before = desk.openFiles();
  for (let n = 0; n < count; n++)
    await beginAndLeave(
      desk,
      n % 2 === 0 ? `/api/archives/${RIG}?takes=all` : `/api/takes/${TAKE}/content`,
      1 + random() * 3_000_000,
    );
  await wait(500);
  const after = desk.openFiles();
  hold(after <= before + 5, `${count} downloads broken off leave ${after - before} files open`);
  return count;
}

async function deletedWhileStreaming(desk: Desk, count: number): Promise<number> {
  for (let n = 0; n < count; n++) {
    const id = idOf(3, n);
    await desk.ask('PUT', `/api/takes/${id}?name=b.wav`, new Uint8Array(2_000_000).fill(n + 10));
    const streaming = fetch(`${desk.base}/api/archives/${RIG}?takes=all`).then(async (r) => {
      const length = Number(r.headers.get('Content-Length'));
      return [length, (await r.arrayBuffer()).byteLength] as const;
    });
    const gone = await desk.ask('DELETE', `/api/takes/${id}`);
    hold(gone.status === 204, `Deleting answered ${gone.status}`);
    const [promised, came] = await streaming;
    hold(promised === came, `An archive of ${promised} bytes came with ${came}`);
  }
  return count;
}

/** Acknowledged is there, whatever is deleted beside it. */
async function equalBytes(desk: Desk, count: number): Promise<number> {
  const bytes = new Uint8Array(60_000).fill(99);
  for (let n = 0; n < count; n += 2) {
    const [one, two] = [idOf(4, n), idOf(4, n + 1)];
    await desk.ask('PUT', `/api/takes/${one}?name=one.wav`, bytes);
    const [gone, came] = await Promise.all([
      desk.ask('DELETE', `/api/takes/${one}`),
      desk.ask('PUT', `/api/takes/${two}?name=two.wav`, bytes),
    ]);
    hold(gone.status === 204 && came.status === 201, `Answers ${gone.status} and ${came.status}`);
    const content = await fetch(`${desk.base}/api/takes/${two}/content`);
    hold(
      content.status === 200 && (await content.arrayBuffer()).byteLength === bytes.length,
      'An acknowledged take lost its bytes',
    );
    await desk.ask('DELETE', `/api/takes/${two}`);
  }
  return count;
}

async function refusals(desk: Desk): Promise<number> {
  const event = (more: object) => ({
    events: [{ id: idOf(5, 1), sessionId: RIG, at: '2026-11-29T10:00:00.000Z', by: 'phone', ...more }],
  });
  // Text, for our own writer of JSON gives up on it too.
  const deep = `${'{"a":'.repeat(4116)}1${'}'.repeat(4116)}`;
  const tries: [string, string, unknown, number[]][] = [
    [
      'POST',
      `/api/rigs/${RIG}/day`,
      JSON.stringify(event({ kind: 'end', good: true, says: '', rig: 'RIG' })).replace('"RIG"', deep),
      [400, 413, 422],
    ],
    [
      'POST',
      `/api/rigs/${RIG}/day`,
      event({ kind: 'end', good: true, says: '', rig: { schemaVersion: 1, notes: 'x'.repeat(4_800_000) } }),
      [413, 422],
    ],
    ['POST', `/api/rigs/${RIG}/day`, event({ kind: 'note', says: 'x'.repeat(100_000) }), [400, 413]],
    ['POST', '/api/rigs', { id: RIG, document: { ...boathouse, name: 'Other' } }, [409]],
    ['POST', '/api/rigs', `{"id":"${idOf(6, 1)}","document":${deep}}`, [400, 422]],
    ['POST', '/api/rigs', `{"id":"${idOf(6, 2)}","document":${'['.repeat(100_000)}`, [400]],
    ['PUT', `/api/takes/${idOf(6, 3)}/notes`, deep, [400, 404, 422, 428]],
    ['GET', '/api/takes/%E0%A4%A', undefined, [400]],
    ['GET', '/api/rigs/../../etc/passwd', undefined, [400, 404, 200]],
    ['GET', `/api/rigs/${RIG}/versions/99999999999999999999`, undefined, [400]],
    ['DELETE', `/api/rigs/${RIG}/day/1`, undefined, [404, 409]],
    ['POST', '/api/archives', new Uint8Array(1000), [422]],
    ['PATCH', `/api/takes/${idOf(6, 4)}/upload?name=x&at=5&bytes=9`, new Uint8Array(4), [409]],
    ['PATCH', `/api/takes/${idOf(6, 4)}/upload?name=x&at=0&bytes=3`, new Uint8Array(400), [400]],
    ['PATCH', `/api/restores/${idOf(6, 5)}/upload?at=0&bytes=3000000000000`, new Uint8Array(4), [413]],
  ];
  for (const [method, path, body, allowed] of tries) {
    const { status, json } = await desk.ask(method, path, body);
    hold(
      allowed.includes(status),
      `${method} ${path.slice(0, 60)} answered ${status}: ${JSON.stringify(json).slice(0, 200)}`,
    );
    if (status >= 400)
      hold(
        typeof json.detail === 'string' && !/SQLITE|ENOENT/.test(json.detail),
        `No sentence: ${JSON.stringify(json)}`,
      );
  }
  hold((await desk.ask('GET', `/api/rigs/${RIG}/day`)).json.unreadable.length === 0, 'The journal is spoiled');
  return tries.length;
}

const zipped = (files: Record<string, string | Buffer>): Promise<Uint8Array<ArrayBuffer>> =>
  new Promise((resolve, reject) => {
    const zip = new ZipFile();
    for (const [name, text] of Object.entries(files)) zip.addBuffer(Buffer.from(text), name, { compress: true });
    const parts: Buffer[] = [];
    zip.outputStream.on('data', (part: Buffer) => parts.push(part));
    zip.outputStream.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
    zip.outputStream.on('error', reject);
    zip.end();
  });

async function poisonedArchives(desk: Desk): Promise<number> {
  const manifest = (more: object = {}) =>
    JSON.stringify({
      kind: 'mellow-tap-archive',
      version: 1,
      rigId: idOf(7, 1),
      name: 'x',
      madeAt: '2026-11-29T10:00:00.000Z',
      takes: [],
      photos: [],
      ...more,
    });
  const rig = JSON.stringify(boathouse);
  const oneEvent = JSON.stringify(relayDays()[0]);
  const zeros = Buffer.alloc(60_000_000);
  const bombs = [
    { 'archive.json': manifest(), 'rig.json': rig, 'log/events.json': `[${' '.repeat(60_000_000)}]` },
    { 'archive.json': manifest(), 'rig.json': rig, 'log/events.json': `[${Array(60_000).fill(oneEvent).join(',')}]` },
    {
      'archive.json': manifest(),
      'rig.json': `${rig.slice(0, -1)},"x":"${'y'.repeat(5_300_000)}"}`,
      'log/events.json': '[]',
    },
    { 'archive.json': manifest(), 'rig.json': '['.repeat(2_000_000), 'log/events.json': '[]' },
    {
      'archive.json': manifest({
        takes: [
          { file: 'takes/a', id: idOf(7, 2), name: 'a', bytes: zeros.length, sha256: 'a'.repeat(64), notes: null },
        ],
      }),
      'rig.json': rig,
      'log/events.json': '[]',
      'takes/a': zeros,
    },
    { 'archive.json': manifest({ takes: 'none' }), 'rig.json': rig, 'log/events.json': '[]' },
  ];
  for (const [n, files] of bombs.entries()) {
    const { status, json } = await desk.ask('POST', '/api/archives', await zipped(files));
    hold(
      status === 422 || status === 413,
      `Poisoned archive ${n} answered ${status}: ${JSON.stringify(json).slice(0, 200)}`,
    );
  }
  hold((await desk.ask('GET', `/api/rigs/${idOf(7, 1)}`)).status === 404, 'A poisoned archive came in');
  hold(desk.memoryMb() < 900, `Poisoned archives left ${Math.round(desk.memoryMb())} MB`);
  return bombs.length;
}

/** A valid rig that takes minutes to evaluate: twenty devices of 64 x 64 in a ring. */
async function dearRig(desk: Desk): Promise<number> {
  const id = idOf(8, 1);
  const document = matrices(20, true);
  const { status, json } = await desk.ask('POST', '/api/rigs', { id, document });
  hold(status === 201, `A dear rig answered ${status}: ${JSON.stringify(json).slice(0, 300)}`);
  for (let n = 0; n < 600; n++) {
    const list = (await desk.ask('GET', '/api/rigs')).json as { id: string; state: string }[];
    const state = list.find((r) => r.id === id)!.state;
    if (state === 'too-large') return 1;
    hold(state === 'pending', `A dear rig was '${state}'`);
    await wait(50);
  }
  hold(false, `A dear rig was never judged: ${JSON.stringify((await desk.ask('GET', '/api/rigs')).json)} ${desk.said}`);
}
