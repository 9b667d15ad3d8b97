import type { FaultId } from '#core/audio/measure/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { wordsIn } from '#web/shared/take/index.ts';
import type { TermId } from '#words/index.ts';
import { takes as say } from '#words/index.ts';

/** What a fault is called, and the entry of the glossary that explains it. */
export const FAULTS: Record<FaultId, { readonly name: string; readonly term: TermId }> = {
  'hum-50': { name: say.humHz(), term: 'hum' },
  'hum-60': { name: say.humHzTitle(), term: 'hum' },
  hiss: { name: say.hiss(), term: 'hiss' },
  clipping: { name: say.clipping(), term: 'clipping' },
  'one-sided': { name: say.oneSide(), term: 'one-sided' },
  'polarity-inverted': { name: say.polarityInvertedTitle(), term: 'polarity' },
  echo: { name: say.echo(), term: 'echo' },
  dropouts: { name: say.dropouts(), term: 'dropout' },
  'dc-offset': { name: say.dcOffset(), term: 'dc-offset' },
  silent: { name: say.silent(), term: 'silent' },
  'too-quiet': { name: say.tooQuiet(), term: 'headroom' },
  'too-hot': { name: say.tooHot(), term: 'headroom' },
  'dual-mono': { name: say.dualMono(), term: 'dual-mono' },
};

/** The listener that the take's name speaks of, else the first. */
export function guessListener(takeName: string, rig: Rig): string {
  const rated = rig.listeners.map((l) => ({ id: l.id, points: wordsIn(takeName, `${l.id} ${l.name}`) }));
  const best = rated.reduce<(typeof rated)[number] | undefined>(
    (b, r) => (b && b.points >= r.points ? b : r),
    undefined,
  );
  return best?.id ?? '';
}
