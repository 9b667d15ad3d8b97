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

export const notFound = (what: string): HttpProblem =>
  new HttpProblem(404, 'Not there', `${what} is not there. It may have been deleted in another window.`);

export const nothingHere: RequestHandler = () => {
  throw notFound('This address');
};

/** Every error leaves by this door, as problem+json (RFC 9457). What is not known is logged and not shown. */
export const answerProblem: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) return next(error);
  const problem = toProblem(error);
  if (problem.status >= 500)
    process.stderr.write(`${req.method} ${req.path}: ${error instanceof Error ? error.stack : String(error)}\n`);
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
  if (error instanceof HttpProblem) return say(error.status, error.title, error.message, error.extra);
  if (error instanceof RigError) return say(422, 'Not a rig', error.message, { code: error.code, path: error.path });
  if (error instanceof ZodError) {
    const issue = error.issues[0];
    return say(
      400,
      'Not understood',
      `${issue?.path.join('/') || 'The request'}: ${issue?.message ?? 'not understood'}.`,
    );
  }
  const { status, type, code } = error as { status?: number; type?: string; code?: string };
  if (type === 'entity.too.large')
    return say(413, 'Too large', 'The document is larger than 5 MB. A rig is smaller: choose another file.');
  if (type === 'entity.parse.failed')
    return say(400, 'Not JSON', 'The request is not JSON. Choose a file that was exported as JSON.');
  if (code === 'ENOSPC')
    return say(507, 'Disk full', 'The disk is full. Nothing was changed: make room and try again.');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return say(status, 'Not accepted', 'The request was not accepted.');
  return say(500, 'Failed', 'The server failed at this. Nothing was changed: try again, and tell us if it stays so.');
}
