import type { ErrorRequestHandler, RequestHandler } from 'express';
import { ZodError } from 'zod';
import type { Problem } from '#api/index.ts';
import { RigError } from '#core/model/rig/index.ts';
import { server as say } from '#words/index.ts';

/** An answer that is not the one hoped for: what happened, what was kept, what to do. */
export class HttpProblem extends Error {
  readonly status: number;
  readonly title: string;
  readonly extra: Record<string, unknown>;
  constructor(status: number, title: string, detail: string, extra: Record<string, unknown> = {}) {
    super(detail);
    this.name = 'HttpProblem';
    this.status = status;
    this.title = title;
    this.extra = extra;
  }
}

/** Why the server does not start, and what to do about it: said as it is, without a trace. */
export class StartError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'StartError';
  }
}

export const notFound = (what: string): HttpProblem =>
  new HttpProblem(404, say.notThere(), say.noLongerExistsIt({ what }));

export const nothingHere: RequestHandler = () => {
  throw notFound(say.thisAddress());
};

/** What the disk and the database say in codes of their own, in sentences; null for anything else. */
export function storageProblem(error: unknown): HttpProblem | null {
  const given = error as { code?: string; errno?: number; original?: { code?: string }; parent?: { code?: string } };
  switch (given.original?.code ?? given.parent?.code ?? given.code) {
    case 'ENOSPC':
    case 'EDQUOT':
    case 'SQLITE_FULL':
      return new HttpProblem(507, say.diskFull(), say.diskIsFullNothing());
    case 'SQLITE_BUSY':
    case 'SQLITE_LOCKED':
      return new HttpProblem(503, say.databaseLocked(), say.anotherProgramHasLocked());
    case 'SQLITE_IOERR':
    case 'EIO':
      return new HttpProblem(507, say.diskFailed(), say.diskDidNotTake());
    case 'SQLITE_CORRUPT':
    case 'SQLITE_NOTADB':
      return new HttpProblem(500, say.databaseDamaged(), say.databaseIsDamagedStop());
    case 'SQLITE_MISUSE':
      return new HttpProblem(503, say.stopping(), say.serverIsStoppingWhat());
    case 'SQLITE_READONLY':
    case 'SQLITE_CANTOPEN':
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      return new HttpProblem(507, say.notWritable(), say.dataFolderCannotBe());
    default:
      return null;
  }
}

/** Every error leaves by this door, as problem+json (RFC 9457). What is not known is logged and not shown. */
export const answerProblem =
  (onFull: () => Promise<Record<string, unknown>>): ErrorRequestHandler =>
  async (error: unknown, req, res, next) => {
    // It broke off in the middle of an answer: all that is left to do is to end it.
    if (res.headersSent) return res.socket ? void res.destroy() : next();
    const problem = toProblem(error);
    if (problem.status === 500)
      process.stderr.write(`${req.method} ${req.path}: ${error instanceof Error ? error.stack : String(error)}\n`);
    if (problem.status === 507) Object.assign(problem, await onFull().catch(() => ({})));
    // A request that is refused before it was read is not read to its end.
    if (!req.complete) res.set('Connection', 'close');
    res.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };

function toProblem(error: unknown): Problem {
  const told = (status: number, title: string, detail: string, extra: Record<string, unknown> = {}): Problem => ({
    type: 'about:blank',
    title,
    status,
    detail,
    ...extra,
  });
  const known = error instanceof HttpProblem ? error : storageProblem(error);
  if (known) return told(known.status, known.title, known.message, known.extra);
  if (error instanceof RigError) return told(422, say.notRig(), error.message, { code: error.code, path: error.path });
  if (error instanceof ZodError) {
    const issue = error.issues[0];
    return told(
      400,
      say.notUnderstood(),
      `${issue?.path.join('/') || say.theRequest()}: ${issue?.message ?? say.notUnderstood()}.`,
    );
  }
  const { status, type } = error as { status?: number; type?: string };
  if (type === 'entity.too.large') return told(413, say.tooLarge(), say.documentIsLargerThan());
  if (type === 'entity.parse.failed') return told(400, say.notJson(), say.requestIsNotJson());
  if (error instanceof URIError || (typeof status === 'number' && status >= 400 && status < 500))
    return told(typeof status === 'number' ? status : 400, say.notAccepted(), say.requestWasNotAccepted());
  return told(500, say.failed(), say.serverFailedAtThis());
}
