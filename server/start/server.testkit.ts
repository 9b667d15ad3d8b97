import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server as HttpServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openServer, type Server, type ServerOptions } from './app.ts';

/** A server over a folder of its own, as a test has it. */
export interface TestDesk {
  readonly folder: string;
  readonly opened: Server;
  readonly base: string;
  /** Stopped, and started again over the same folder. */
  restart(): Promise<void>;
  /** Stopped for good, its folder removed. */
  end(): Promise<void>;
}

export async function testDesk(options: Partial<ServerOptions> = {}): Promise<TestDesk> {
  const folder = mkdtempSync(join(tmpdir(), 'mellow-server-'));
  let [opened, http, base] = [null as unknown as Server, null as unknown as HttpServer, ''];
  const start = async (): Promise<void> => {
    opened = await openServer({
      dataFolder: join(folder, 'data'),
      webFolder: join(folder, 'web'),
      now: () => new Date(),
      ...options,
    });
    http = createServer(opened.app);
    await new Promise<void>((resolve) => http.listen(0, '127.0.0.1', resolve));
    base = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
  };
  const stop = async (): Promise<void> => {
    await new Promise((resolve) => {
      http.close(resolve);
      http.closeAllConnections();
    });
    await opened.close();
  };
  await start();
  return {
    folder,
    get opened() {
      return opened;
    },
    get base() {
      return base;
    },
    async restart() {
      await stop();
      await start();
    },
    async end() {
      await stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
