import type { Session } from '#core/live/run/index.ts';
import { formatDate } from '#web/shared/parts/index.ts';
import { log as say } from '#words/index.ts';

/** Everything of a session that one may look for, as one text. */
const textOf = (s: Session): string =>
  [
    s.name,
    s.says,
    formatDate(s.beganAt),
    s.good === null ? say.inProgress() : s.good ? say.wentWell() : say.hadProblems(),
    ...s.markers.map((m) => m.says),
    ...s.notes.map((n) => n.says),
    ...s.troubles.flatMap((t) => [t.complaint, t.was]),
    ...s.figures.map((f) => f.label),
    ...Object.values(s.ticks).flatMap((list) => Object.values(list).map((t) => t.leftOut ?? '')),
  ]
    .join(' ')
    .toLowerCase();

/** Whether a session holds every word that is looked for. */
export function matches(session: Session, search: string): boolean {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return true;
  const text = textOf(session);
  return words.every((w) => text.includes(w));
}
