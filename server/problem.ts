import type { ErrorRequestHandler, RequestHandler } from 'express';
import { ZodError } from 'zod';
import type { Problem } from '#api/index.ts';
import { RigError } from '#core/rig/index.ts';

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
  new HttpProblem(404, 'Not there', `${what} is not there. It may have been deleted in another window.`);

export const nothingHere: RequestHandler = () => {
  throw notFound('This address');
};

/** What the disk and the database say in codes of their own, in sentences; null for anything else. */
export function storageProblem(error: unknown): HttpProblem | null {
  const given = error as { code?: string; errno?: number; original?: { code?: string }; parent?: { code?: string } };
  switch (given.original?.code ?? given.parent?.code ?? given.code) {
    case 'ENOSPC':
    case 'EDQUOT':
    case 'SQLITE_FULL':
      return new HttpProblem(507, 'Disk full', 'The disk is full. Nothing was changed: make room and try again.');
    case 'SQLITE_BUSY':
    case 'SQLITE_LOCKED':
      return new HttpProblem(
        503,
        'Database locked',
        'Another program has locked the database. Nothing was changed: close that program and try again.',
      );
    case 'SQLITE_IOERR':
    case 'EIO':
      return new HttpProblem(
        507,
        'Disk failed',
        'The disk did not take or give what was asked: it may be full, or failing. Nothing was changed: look at the disk and try again.',
      );
    case 'SQLITE_CORRUPT':
    case 'SQLITE_NOTADB':
      return new HttpProblem(
        500,
        'Database damaged',
        "The database is damaged. Stop Mellow Tap, run 'bin/mellow verify', and bring back the newest copy.",
      );
    case 'SQLITE_MISUSE':
      return new HttpProblem(
        503,
        'Stopping',
        'The server is stopping. What you do here is kept, and sent when it is back.',
      );
    case 'SQLITE_READONLY':
    case 'SQLITE_CANTOPEN':
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      return new HttpProblem(
        507,
        'Not writable',
        'The data folder cannot be written to. Nothing was changed: look at its permissions and at the disk.',
      );
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
  const say = (status: number, title: string, detail: string, extra: Record<string, unknown> = {}): Problem => ({
    type: 'about:blank',
    title,
    status,
    detail,
    ...extra,
  });
  const known = error instanceof HttpProblem ? error : storageProblem(error);
  if (known) return say(known.status, known.title, known.message, known.extra);
  if (error instanceof RigError) return say(422, 'Not a rig', error.message, { code: error.code, path: error.path });
  if (error instanceof ZodError) {
    const issue = error.issues[0];
    return say(
      400,
      'Not understood',
      `${issue?.path.join('/') || 'The request'}: ${issue?.message ?? 'not understood'}.`,
    );
  }
  const { status, type } = error as { status?: number; type?: string };
  if (type === 'entity.too.large')
    return say(413, 'Too large', 'The document is larger than 5 MB. A rig is smaller: choose another file.');
  if (type === 'entity.parse.failed')
    return say(400, 'Not JSON', 'The request is not JSON. Choose a file that was exported as JSON.');
  if (error instanceof URIError || (typeof status === 'number' && status >= 400 && status < 500))
    return say(typeof status === 'number' ? status : 400, 'Not accepted', 'The request was not accepted.');
  return say(500, 'Failed', 'The server failed at this. Nothing was changed: try again, and tell us if it stays so.');
}
