import { SaidError, type Text } from '#core/base/said/index.ts';
import { say } from './sayings.ts';
/** What can be wrong with a rig document. Each code has one sentence pattern, in `parse.ts` or `references.ts`. */
export type RigErrorCode =
  | 'not-json'
  | 'not-a-rig'
  | 'too-deep'
  | 'forbidden-key'
  | 'newer-version'
  | 'shape'
  | 'duplicate-id'
  | 'unknown-reference'
  | 'wrong-direction'
  | 'setting-value';

/** A document that cannot be a rig: where in it (a path such as `cables/3/to`), and what to do. */
export class RigError extends SaidError {
  readonly code: RigErrorCode;
  readonly path: string;
  constructor(code: RigErrorCode, path: string, what: Text) {
    super(path ? say.atPath({ path, problem: what }) : what);
    this.name = 'RigError';
    this.code = code;
    this.path = path;
  }
}
