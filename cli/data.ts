import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { HeldError, HttpProblem, holderOf, openServer, StartError, storageProblem } from '#server/index.ts';
import { cli as say } from '#words/index.ts';
import { UsageError } from './edges.ts';

/** The data folder: the one that the server opens too. */
const root = (): string => join(dirname(fileURLToPath(import.meta.url)), '..', '..', '..');
export const dataFolder = (): string => process.env.MELLOW_DATA ?? join(root(), '.mellow', 'data');

type Server = Awaited<ReturnType<typeof openServer>>;
const HOLDER_MS = 15_000;

/**
 * Works on the data: through the program that has them open, or by opening them here.
 * @throws UsageError with what to do where neither can be
 */
export async function withData<T>(
  running: (url: string) => Promise<T>,
  here: (server: Server) => Promise<T>,
): Promise<T> {
  let server: Server;
  try {
    server = await openServer({
      dataFolder: dataFolder(),
      webFolder: join(root(), 'dist', 'web'),
      now: () => new Date(),
    });
  } catch (error) {
    if (!(error instanceof HeldError)) throw sayable(error);
    const holder = await holderOf(dataFolder(), HOLDER_MS);
    if (!holder?.url) throw new UsageError(error.message);
    return running(holder.url);
  }
  try {
    return await here(server);
  } catch (error) {
    throw sayable(error);
  } finally {
    await server.close();
  }
}

function sayable(error: unknown): unknown {
  const known = error instanceof HttpProblem || error instanceof StartError ? error : storageProblem(error);
  return known ? new UsageError(known.message) : error;
}

/** A request to the running program. @throws UsageError with the sentence that it answers */
export async function askServer(url: string, path: string, options: RequestInit = {}): Promise<Response> {
  const response = await fetch(url + path, options);
  if (response.ok) return response;
  const problem = (await response.json().catch(() => null)) as { detail?: string } | null;
  throw new UsageError(problem?.detail ?? say.serverAnswered({ status: response.status }));
}
