import '#words/core.ts';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { server as say } from '#words/index.ts';
import type { ReadArchive } from '../archive/read.ts';
import type { Unpacked } from '../backup/unpack.ts';
import { HttpProblem, storageProblem } from '../http/problem.ts';
import { inThread } from '../http/threads.ts';
import { threadJudge } from '../judgments/judge.ts';
import { threadReader } from '../rigs/reader.ts';
import { HeldError, holderOf } from '../storage/lock.ts';
import { openServer, type Server } from './app.ts';
import { phoneAddress } from './network.ts';
import { seedDemo } from './seed.ts';

const HOST = '127.0.0.1';
const FIRST_PORT = 4310;
const PORTS_TRIED = 20;
const LONGEST_STOP_MS = 3000;
/** What is done now and then is done a moment after the start, so that it delays nothing, and then every hour. */
const FIRST_KEEPING_MS = 2000;
const KEEPING_MS = 3_600_000;
/** One who has just begun says within this where it answers. */
const HOLDER_MS = 10_000;
const ARCHIVE_BOUNDS = {
  memoryMb: 512,
  tooLarge: say.archiveHoldsMoreThan(),
};

const BACKUP_BOUNDS = {
  memoryMb: 1024,
  tooLarge: say.backupListsMoreFiles(),
};

/** Listens on the port wanted, or the next free one when `next` says so. */
async function listen(
  server: ReturnType<typeof createServer>,
  port: number,
  next: boolean,
  host = HOST,
): Promise<number> {
  for (let tried = 0; ; tried++) {
    const failed = await new Promise<NodeJS.ErrnoException | null>((resolve) => {
      server.once('error', resolve);
      server.listen(port + tried, host, () => {
        server.off('error', resolve);
        resolve(null);
      });
    });
    if (!failed) return (server.address() as AddressInfo).port;
    if (failed.code !== 'EADDRINUSE' || !next || tried >= PORTS_TRIED) {
      throw new Error(failed.code === 'EADDRINUSE' ? say.portIsUsedBy({ port: port + tried }) : failed.message);
    }
    process.stdout.write(`${say.portUsedNext({ port: port + tried })}
`);
  }
}

async function main(): Promise<void> {
  const here = dirname(fileURLToPath(import.meta.url));
  const root = join(here, '..', '..');
  const dataFolder = process.env.MELLOW_DATA ?? join(root, '.mellow', 'data');
  const demo = process.env.MELLOW_SEED === 'demo';
  const handAt = process.env.MELLOW_LAN === '1' ? await phoneAddress(process.env.MELLOW_LAN_ADDRESS) : null;
  let handPort: number | null = null;
  let opened: Server;
  try {
    opened = await openServer({
      dataFolder,
      webFolder: join(root, 'dist', 'web'),
      now: () => new Date(),
      handUrls: () => (handPort === null ? [] : [`http://${handAt}:${handPort}/hand`]),
      judge: threadJudge(join(here, 'judge.js')),
      rigReader: threadReader(join(here, 'reader.js')),
      unpacker: (job) => inThread<Unpacked>(join(here, 'backup.js'), job, BACKUP_BOUNDS),
      copiesFolder: process.env.MELLOW_COPIES,
      archiveReader: (job) => inThread<ReadArchive>(join(here, 'archive.js'), job, ARCHIVE_BOUNDS),
    });
  } catch (error) {
    if (!(error instanceof HeldError) || !demo) throw error;
    // Starting the demo twice means wanting to see it: it runs already.
    const holder = await holderOf(dataFolder, HOLDER_MS);
    if (!holder?.url) throw error;
    process.stdout.write(`${say.runningAlready({ pid: holder.pid })}\nMellow Tap: ${holder.url}\n`);
    return;
  }
  // Each request deals with its own failures; what slips through all the same ends none of the others.
  for (const event of ['uncaughtException', 'unhandledRejection'])
    process.on(event, (error: unknown) => {
      process.stderr.write(`${event}: ${error instanceof Error ? error.stack : String(error)}\n`);
    });
  if (demo && (await seedDemo(opened, join(root, 'demo', 'takes')))) process.stdout.write(`${say.demoSetUp()}\n`);
  const server = createServer(opened.app);
  // Takes are large and lines are slow: only the headers have to come soon.
  server.requestTimeout = 0;
  const port = await listen(server, Number(process.env.PORT ?? FIRST_PORT), process.env.PORT === undefined);
  const hand = handAt === null ? null : createServer(opened.hand);
  if (hand && handAt !== null) {
    hand.requestTimeout = 0;
    handPort = await listen(hand, port + 1, true, handAt);
  }
  await opened.tell({ pid: process.pid, url: `http://${HOST}:${port}`, since: new Date().toISOString() });
  const keep = () => void opened.housekeep().catch((error: unknown) => process.stderr.write(`${String(error)}\n`));
  setTimeout(keep, FIRST_KEEPING_MS).unref();
  setInterval(keep, KEEPING_MS).unref();
  let stopping = false;
  const stop = (): void => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(0), LONGEST_STOP_MS).unref();
    hand?.close();
    hand?.closeAllConnections();
    server.close(() => void opened.close().then(() => process.exit(0)));
    server.closeIdleConnections();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  if (handPort !== null)
    process.stdout.write(
      `${say.onPhone({ url: `http://${handAt}:${handPort}/hand`, code: opened.doorCode() ?? '' })}\n`,
    );
  else if (process.env.MELLOW_LAN === '1') process.stdout.write(`${say.onNoNetwork()}\n`);
  process.stdout.write(`Mellow Tap: http://${HOST}:${port}\n`);
}

/** Why it does not start, in a sentence. */
function sayFailure(error: unknown): string {
  const problem = error instanceof HttpProblem ? error : storageProblem(error);
  if (problem && [say.diskFull(), say.diskFailed()].includes(problem.title)) return say.cannotStartDisk();
  if (problem) return say.cannotStart({ message: problem.message });
  return error instanceof Error ? error.message : String(error);
}

main().catch((error: unknown) => {
  process.stderr.write(`${sayFailure(error)}\n`);
  process.exit(1);
});
