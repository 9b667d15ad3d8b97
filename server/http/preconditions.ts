import type { Request } from 'express';
import { server as say } from '#words/index.ts';
import { HttpProblem } from './problem.ts';

/** The revision that a write builds on, from If-Match. @throws HttpProblem 428 when it is missing, 400 when it is none of ours */
export function ifMatch(req: Request): number {
  const header = req.get('If-Match');
  if (!header) throw new HttpProblem(428, say.revisionMissing(), say.requestDoesNotSay());
  const found = /^"(\d{1,15})"$/.exec(header.trim());
  if (!found) throw new HttpProblem(400, say.notUnderstood(), say.ifMatchDoesNot());
  return Number(found[1]);
}

export const etag = (revision: number): string => `"${revision}"`;
