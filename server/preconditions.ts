import type { Request } from 'express';
import { HttpProblem } from './problem.ts';

/** The revision that a write builds on, from If-Match. @throws HttpProblem 428 when it is missing, 400 when it is none of ours */
export function ifMatch(req: Request): number {
  const header = req.get('If-Match');
  if (!header)
    throw new HttpProblem(
      428,
      'Revision missing',
      'The request does not say which revision it builds on (If-Match). Reload and try again.',
    );
  const found = /^"(\d{1,15})"$/.exec(header.trim());
  if (!found) throw new HttpProblem(400, 'Not understood', 'If-Match does not hold a revision. Reload and try again.');
  return Number(found[1]);
}

export const etag = (revision: number): string => `"${revision}"`;
