import type { ScanRead } from '#core/desk-tests/scan/index.ts';
import { type Explanation, explain } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Bindings } from './bind.ts';
import { holdAgainst, probed, SCAN_KNOWN } from './held.ts';
import { undrawnLinks } from './undrawn.ts';

/**
 * Which one thing at the desk would make the drawing agree with a scan: every fault that the rig may have, and every link
 * that it hasn't drawn and that would bring what was found. For a worker.
 */
export function explainScan(
  rig: Rig,
  scan: ScanRead,
  bindings: Bindings,
  onDone?: (share: number) => void,
): Explanation[] {
  const { rig: seen, takes, players, judged } = holdAgainst(rig, scan, bindings);
  return explain(rig, takes, players, onDone, {
    known: SCAN_KNOWN,
    seenAs: (now) => probed(now, scan, bindings),
    faults: undrawnLinks(rig, seen, judged),
  });
}
