import type { FaultId } from '#core/measure/index.ts';
import type { Rig } from '#core/rig/index.ts';
import type { TermId } from '#web/glossary/index.ts';
import { wordsIn } from '#web/take/index.ts';

/** What a fault is called, and the entry of the glossary that explains it. */
export const FAULTS: Record<FaultId, { readonly name: string; readonly term: TermId }> = {
  'hum-50': { name: 'Hum, 50 Hz', term: 'hum' },
  'hum-60': { name: 'Hum, 60 Hz', term: 'hum' },
  hiss: { name: 'Hiss', term: 'hiss' },
  clipping: { name: 'Clipping', term: 'clipping' },
  'one-sided': { name: 'One side', term: 'one-sided' },
  'polarity-inverted': { name: 'Inverted side', term: 'polarity' },
  echo: { name: 'Echo', term: 'echo' },
  dropouts: { name: 'Drop-outs', term: 'dropout' },
  'dc-offset': { name: 'DC offset', term: 'dc-offset' },
  silent: { name: 'Silent', term: 'silent' },
  'too-quiet': { name: 'Too quiet', term: 'headroom' },
  'too-hot': { name: 'Too hot', term: 'headroom' },
  'dual-mono': { name: 'Two equal sides', term: 'dual-mono' },
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
