import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn, sourceIn } from '#core/model/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((w) => w.length > 0);

/** Number of distinctive words of `text` in the take's name. */
export function wordsIn(takeName: string, text: string): number {
  const words = new Set(wordsOf(takeName));
  return wordsOf(text).filter((w) => (w.length > 2 || /^[0-9]+$/.test(w)) && words.has(w)).length;
}

const listenerWords = (rig: Rig, id: string): string => `${id} ${listenerIn(rig, id).name}`;
/** A word that names the source says nothing of the listener. */
const without = (text: string, sourceId: string): string =>
  wordsOf(text)
    .filter((w) => !wordsOf(sourceId).includes(w))
    .join(' ');

/** The pair that the take's name speaks of, word by word; otherwise the first that can be read. */
export function guessPair(
  name: string,
  rig: Rig,
  readable: Evaluation['pairs'],
): { sourceId: string; listenerId: string } {
  const rated = readable.map((p) => ({
    p,
    points:
      2 * wordsIn(name, `${p.sourceId} ${sourceIn(rig, p.sourceId).name}`) +
      wordsIn(name, without(listenerWords(rig, p.listenerId), p.sourceId)) -
      (p.sourceId.includes('-') ? 0.5 : 0),
  }));
  const best = rated.reduce<(typeof rated)[number] | undefined>(
    (b, r) => (b && b.points >= r.points ? b : r),
    undefined,
  );
  return { sourceId: best?.p.sourceId ?? '', listenerId: best?.p.listenerId ?? '' };
}
