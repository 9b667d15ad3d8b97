import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openServer } from './app.ts';
import { seedDemo } from './seed.ts';

const HOST = '127.0.0.1';
const ANY_ADDRESS = '0.0.0.0';
const FIRST_PORT = 4310;
const PORTS_TRIED = 20;
const LONGEST_STOP_MS = 3000;

/** Addresses of this computer on its local networks. */
const addresses = (): string[] =>
  Object.values(networkInterfaces())
    .flat()
    .flatMap((a) => (a && a.family === 'IPv4' && !a.internal ? [a.address] : []));

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
      throw new Error(
        failed.code === 'EADDRINUSE'
          ? `Port ${port + tried} is used by another program. Set PORT to a free one.`
          : failed.message,
      );
    }
    process.stdout.write(`Port ${port + tried} is used by another program; trying the next one.\n`);
  }
}

async function main(): Promise<void> {
  const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
  const dataFolder = process.env.MELLOW_DATA ?? join(root, '.mellow', 'data');
  const lan = process.env.MELLOW_LAN === '1';
  let handPort: number | null = null;
  const handUrls = () => (handPort === null ? [] : addresses().map((a) => `http://${a}:${handPort}/hand`));
  const opened = await openServer({
    dataFolder,
    webFolder: join(root, 'dist', 'web'),
    now: () => new Date(),
    handUrls,
  });
  if (process.env.MELLOW_SEED === 'demo') {
    if (await seedDemo(opened, join(root, 'demo', 'takes'))) process.stdout.write('Demo rig and takes are set up.\n');
  }
  const server = createServer(opened.app);
  // Takes are large and leads are long: only the headers have to come soon.
  server.requestTimeout = 0;
  const port = await listen(server, Number(process.env.PORT ?? FIRST_PORT), process.env.PORT === undefined);
  const hand = lan ? createServer(opened.hand) : null;
  if (hand) handPort = await listen(hand, port + 1, true, ANY_ADDRESS);
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
  if (hand)
    process.stdout.write(
      handUrls().length > 0
        ? `On a phone: ${handUrls().join(' or ')}, code ${opened.doorCode()} (once; the desk shows the next one)\n`
        : 'This computer is on no network that a phone could reach it by.\n',
    );
  process.stdout.write(`Mellow Tap: http://${HOST}:${port}\n`);
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
