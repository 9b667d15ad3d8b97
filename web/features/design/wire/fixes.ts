import { useEffect, useMemo, useState } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import type { Finding, TriedFix } from '#core/rules/index.ts';
import { type FixFinder, openFixFinder } from '#web/shared/workers/index.ts';

/** Tries the fixes of one finding after another, beside the page; null where another was asked for meanwhile. */
export type AskFixes = (rig: Rig, findingId: string) => Promise<readonly TriedFix[] | null>;

/** One worker for as long as the view is open, begun with the first question. */
export function useFixFinder(): AskFixes {
  const { ask, close } = useMemo(() => {
    let finder: FixFinder | null = null;
    let opened: Rig | null = null;
    return {
      // The worker receives in the order of the calls: a rig before what is asked of it.
      ask: async (rig: Rig, findingId: string) => {
        finder ??= openFixFinder();
        const opening = opened === rig ? undefined : finder.open(rig);
        opened = rig;
        const [fixes] = await Promise.all([finder.fixesOf(findingId), opening]);
        return fixes;
      },
      close: () => {
        finder?.close();
        finder = null;
        opened = null;
      },
    };
  }, []);
  useEffect(() => close, [close]);
  return ask;
}

/** What is known of a finding's fixes: null until they have been tried. */
interface FixesKnown {
  readonly fixes: readonly TriedFix[] | null;
  /** Why they couldn't be tried. */
  readonly failed: string | null;
}

/** An edit is on the screen first, and findings that are only passed by aren't tried, ms. */
const PAUSE_MS = 100;

const WAITING: FixesKnown = { fixes: null, failed: null };

export function useTriedFixes(ask: AskFixes, rig: Rig, finding: Finding): FixesKnown {
  const now = useMemo(() => ({ rig, finding }), [rig, finding]);
  const [found, setFound] = useState<{ readonly of: typeof now; readonly known: FixesKnown } | null>(null);
  useEffect(() => {
    let left = false;
    const put = (known: FixesKnown) => {
      if (!left) setFound({ of: now, known });
    };
    const timer = setTimeout(() => {
      ask(now.rig, now.finding.id).then(
        (fixes) => fixes && put({ fixes, failed: null }),
        (error: unknown) => put({ fixes: [], failed: (error as Error).message }),
      );
    }, PAUSE_MS);
    return () => {
      left = true;
      clearTimeout(timer);
    };
  }, [ask, now]);
  return found?.of === now ? found.known : WAITING;
}
