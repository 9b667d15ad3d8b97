import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openServer } from './app.ts';
import { seedDemo } from './seed.ts';

const HOST = '127.0.0.1';
const FIRST_PORT = 4310;
const PORTS_TRIED = 20;
const LONGEST_STOP_MS = 3000;

/** Listens on the port wanted, or the next free one when `next` says so. */
async function listen(server: ReturnType<typeof createServer>, port: number, next: boolean): Promise<number> {
  for (let tried = 0; ; tried++) {
    const failed = await new Promise<NodeJS.ErrnoException | null>((resolve) => {
      server.once('error', resolve);
      server.listen(port + tried, HOST, () => {
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
  const opened = await openServer({ dataFolder, webFolder: join(root, 'dist', 'web'), now: () => new Date() });
  if (process.env.MELLOW_SEED === 'demo') {
    if (await seedDemo(opened, join(root, 'demo', 'takes'))) process.stdout.write('Demo rig and takes are set up.\n');
  }
  const server = createServer(opened.app);
  // Takes are large and leads are long: only the headers have to come soon.
  server.requestTimeout = 0;
  const port = await listen(server, Number(process.env.PORT ?? FIRST_PORT), process.env.PORT === undefined);
  let stopping = false;
  const stop = (): void => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(0), LONGEST_STOP_MS).unref();
    server.close(() => void opened.close().then(() => process.exit(0)));
    server.closeIdleConnections();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  process.stdout.write(`Mellow Tap: http://${HOST}:${port}\n`);
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
