import { useEffect, useMemo, useState } from 'react';
import { evenGains, type ReceivedPath } from '#web/shared/listen/index.ts';
import type { SoundAtHand } from '#web/shared/take/index.ts';
import type { HeardSound } from '#web/shared/workers/index.ts';
import { mix as say } from '#words/index.ts';
import type { MixSetup } from './setup.ts';
import { asRecorded, type Balancing } from './useBalance.ts';

/** The stretch as recorded and balanced, made again when either changes. */
export function useStretch(
  { desk }: SoundAtHand,
  setup: MixSetup,
  { balanced }: Balancing,
  { fromS, toS }: { fromS: number; toS: number },
): ReceivedPath[] {
  const [made, setMade] = useState<readonly [HeardSound, HeardSound] | null>(null);
  const specs = JSON.stringify(setup.tracks.map(({ take, channels }) => ({ take, channels })));
  const left = JSON.stringify(setup.tracks.map((t) => t.part === 'out'));
  useEffect(() => {
    if (!desk || !balanced) return;
    let gone = false;
    const tracks = JSON.parse(specs);
    const out: boolean[] = JSON.parse(left);
    const plain = asRecorded(out.length);
    const recorded = { ...plain, gainsDb: plain.gainsDb.map((db, i) => (out[i] ? null : db)) };
    const both = [recorded, balanced.plan].map((plan) => desk.api.hear(tracks, plan, { fromS, toS }));
    Promise.all(both).then(
      ([a, b]) => {
        if (!gone) setMade([a!, b!]);
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [desk, balanced, specs, left, fromS, toS]);
  return useMemo(() => {
    const gains = made ? evenGains(made) : [];
    return [say.asRecorded(), say.mixed()].map((name, i) => ({
      name,
      loop: made ? { ...made[i]!, gain: gains[i]! } : null,
    }));
  }, [made]);
}
