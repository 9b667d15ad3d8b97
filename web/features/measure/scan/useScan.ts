import { useCallback, useEffect, useRef, useState } from 'react';
import { Scan } from '#core/desk-tests/scan/index.ts';
import { announce } from '#web/shared/parts/index.ts';
import { scan as say } from '#words/index.ts';
import { runScan, type ScanMade, type ScanProgress } from './engine.ts';
import { keepReference, readReference } from './kept.ts';

/** A rig's scans in this browser: the one under way, the last one, and the one it is held against. */
export interface ScanState {
  readonly progress: ScanProgress | null;
  readonly made: ScanMade | null;
  readonly reference: Scan | null;
  /** Whether the last scan is the reference itself. */
  readonly isReference: boolean;
  readonly failed: string | null;
  start(limitDbfs: number): Promise<void>;
  stop(): void;
  useAsReference(): void;
}

export function useScan(rigId: string): ScanState {
  const [progress, setProgress] = useState<ScanProgress | null>(null);
  const [made, setMade] = useState<ScanMade | null>(null);
  const [reference, setReference] = useState(() => readReference(rigId));
  const [failed, setFailed] = useState<string | null>(null);
  const running = useRef<AbortController | null>(null);
  const stop = useCallback(() => running.current?.abort(), []);
  // Left, nothing goes on playing.
  useEffect(() => stop, [stop]);
  const refer = (scan: ScanMade) => {
    // Strips what is only drawn.
    const kept = Scan.parse(scan);
    setReference(kept);
    if (!keepReference(rigId, kept)) announce('watch', say.notKept());
  };
  const start = async (limitDbfs: number) => {
    stop();
    const own = new AbortController();
    running.current = own;
    setFailed(null);
    try {
      const scan = await runScan({ limitDbfs, signal: own.signal, onProgress: setProgress });
      setMade(scan);
      if (reference === null && !scan.hasLost) refer(scan);
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error));
    } finally {
      if (running.current === own) {
        running.current = null;
        setProgress(null);
      }
    }
  };
  return {
    progress,
    made,
    reference,
    isReference: made !== null && reference?.at === made.at,
    failed,
    start,
    stop,
    useAsReference: () => made && refer(made),
  };
}
