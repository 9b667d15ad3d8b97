import { frame, next } from '#words/index.ts';

/** Pages by the names that the frame calls them. */
export const PAGE_NAMES = {
  bench: frame.measure,
  'bench/balance': frame.measure,
  'bench/blind': frame.measure,
  level: frame.level,
  log: frame.log,
  next: next.title,
  plan: frame.plan,
  route: frame.route,
  run: frame.run,
  sync: frame.sync,
  'sync/paths': frame.sync,
  tap: frame.tapTest,
  trouble: frame.troubleshoot,
  ways: frame.alternatives,
  wire: frame.wire,
};
